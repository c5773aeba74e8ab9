import { artworkHelper } from '@/compute/artworkHelper';
import { bringMeshes } from '@/compute/meshes';
import { useWork } from '@/compute/useWork';
import { slug } from '@/core/pipeline/programs';
import { guessMesh } from '@/core/relief/guess';
import { formKindOf } from '@/core/relief/registry';
import type { Form } from '@/core/relief/stack';
import { setAt, type Field } from '@/core/units/fields';
import { formatLength, lengthText } from '@/core/units/length';
import { roundLengths } from '@/core/units/round';
import { saysOf } from '@/core/units/says';
import { putFile } from '@/store/files';
import { freshId } from '@/store/jobs';
import { describeMesh } from '@/store/meshes';
import { busyWith } from '@/ui/common/busy';
import { setView, typeInto, useView } from '@/ui/view';
import { changeForm, edit, freeName, jobNow } from './edits';
import { askForFiles, download } from './files';
import { tell } from './tell';

/** Milliseconds after which a mesh that is still being read is given up. */
const READING = 120_000;

const newForm = (kind: string, name: string, items: readonly string[], values: Form['values']): Form => ({
  id: freshId(),
  name: freeName(name, jobNow()?.relief.forms ?? []),
  kind,
  visible: true,
  meets: 'add',
  strength: 1,
  base: 0,
  items: [...items],
  mask: null,
  values,
});

/** Adds a form of a kind on top of the stack, made of what is picked where it is made of outlines. */
export function addForm(kind: string): void {
  const job = jobNow();
  if (!job) return;
  const k = formKindOf(kind);
  const form = newForm(
    kind,
    k.name,
    k.ofOutlines ? useView.getState().picked : [],
    roundLengths(structuredClone(k.defaults) as Form['values'], k.fields, job.unit),
  );
  edit(`Add ${k.name.toLowerCase()}`, (j) => {
    // The first one begins inside of the blank: there is room for it to rise.
    if (!j.relief.forms.length) j.relief.baseDepth = Math.min(5, j.blank.thickness / 2);
    j.relief.forms.push(form);
  });
  setView({ formId: form.id, stage: 'relief' });
  typeInto(form.id);
}

/** Brings a mesh file into the relief: standing, sized and placed by the best guess. The job stays as it is when the file is refused. */
export async function addMesh(file: File): Promise<void> {
  try {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const helper = artworkHelper();
    const { triangles, box } = await busyWith(
      `Reading ${file.name}\u2026`,
      () => helper.dismiss(),
      () => helper.ask((api) => api.lookAtMesh(file.name, bytes), { patience: READING }),
    );
    const asset = await describeMesh(file.name, bytes);
    await putFile(asset, bytes);
    bringMeshes({ [asset.id]: { name: asset.name, bytes } });
    const job = jobNow();
    if (!job) return;
    const guess = guessMesh(box, job.blank);
    const { scale, shallower, ...sizes } = guess;
    const form = newForm('mesh', file.name.replace(/\.[a-z]+$/i, '') || 'Mesh', [], {
      ...(formKindOf('mesh').defaults as Form['values']),
      ...sizes,
      mesh: asset.id,
      x: job.blank.width / 2,
      y: job.blank.height / 2,
    });
    edit(`Bring ${file.name}`, (j) => {
      if (!j.assets.some((a) => a.id === asset.id)) j.assets.push(asset);
      // The first one stands with its top at the face.
      if (!j.relief.forms.length) j.relief.baseDepth = guess.rise;
      j.relief.forms.push(form);
    });
    setView({ formId: form.id, stage: 'relief' });
    const size = (v: number) => formatLength(v, job.unit);
    tell(
      'success',
      `"${file.name}": ${triangles} triangles, ${size(guess.width)} \u00d7 ${size(guess.height)} \u00d7 ${size(guess.rise)} ${job.unit}.` +
        (scale === 1 ? '' : ' Its own size does not suit this blank: it was fitted in. Type the size that you want.') +
        (shallower ? ' It was made shallower, to half the thickness.' : ''),
    );
  } catch (e) {
    tell(
      'error',
      saysOf(
        e,
        `"${file.name}" could not be kept: this device may have too little room or memory for it. The job stays as it was.`,
      ),
    );
  }
}
export const chooseMesh = (): void => askForFiles('.stl,.obj', false, ([file]) => file && void addMesh(file));

/** Changes a value of a form; what must follow it follows. */
export function setFormValue(id: string, key: string, value: unknown, field: Field): void {
  changeForm(id, `Change ${field.label.toLowerCase()}`, (f) => {
    const k = formKindOf(f.kind);
    const next = setAt(f.values, key, value);
    f.values = k.changed ? (k.changed(next as never, f.values as never) as Form['values']) : next;
  });
}

export function copyForm(id: string): void {
  const copy = freshId();
  edit('Copy form', (j) => {
    const at = j.relief.forms.findIndex((f) => f.id === id);
    const f = j.relief.forms[at];
    if (!f) return;
    const own = JSON.parse(JSON.stringify(f)) as Form;
    j.relief.forms.splice(at + 1, 0, { ...own, id: copy, name: freeName(f.name, j.relief.forms) });
  });
  setView({ formId: copy });
}
export function deleteForm(id: string): void {
  edit('Delete form', (j) => void (j.relief.forms = j.relief.forms.filter((f) => f.id !== id)));
  if (useView.getState().formId === id) setView({ formId: null });
}
export const moveForm = (id: string, to: number): void =>
  edit('Reorder forms', (j) => {
    const from = j.relief.forms.findIndex((f) => f.id === id);
    if (from >= 0) j.relief.forms.splice(to, 0, ...j.relief.forms.splice(from, 1));
  });

/** Shifts the whole relief in the thickness, mm upward. */
export const shiftRelief = (by: number): void =>
  edit('Shift the relief in the thickness', (j) => void (j.relief.baseDepth -= by));

/** Makes the whole relief so many times as high; its highest point stays where it is. */
export const scaleRelief = (by: number, highest: number): void =>
  edit('Change the height of the relief', (j) => {
    for (const f of j.relief.forms) {
      f.strength = Math.min(1000, f.strength * by);
      f.base *= by;
    }
    j.relief.baseDepth = by * (highest + j.relief.baseDepth) - highest;
  });

/** Saves the relief as a closed body, ready to print: from the underside of the blank, empty places at its top face. */
export async function exportReliefStl(): Promise<void> {
  const job = jobNow();
  const relief = useWork.getState().relief;
  if (!job || !relief) return tell('info', 'There is no relief to export yet.');
  if (!relief.fine) return tell('info', 'The relief is still being shaped. Export it when it is done.');
  const name = `${slug(job.name)}-relief.stl`;
  const helper = artworkHelper();
  try {
    const { field } = relief.shaped;
    const body = await busyWith(
      `Writing ${name}\u2026`,
      () => helper.dismiss(),
      () => helper.ask((api) => api.reliefBody(field, job.blank, `${job.name}, mm`)),
    );
    download(name, body.bytes, 'model/stl');
    if (body.cell > field.cell)
      tell(
        'success',
        `"${name}" is saved with corners ${lengthText(body.cell, job.unit, job.unit === 'mm' ? 2 : 4)} apart, so that it can be worked with.`,
      );
  } catch (e) {
    tell('error', saysOf(e, `"${name}" could not be saved: this device may have too little memory.`));
  }
}
