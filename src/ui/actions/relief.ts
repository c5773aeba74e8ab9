import { artworkHelper } from '@/compute/artworkHelper';
import { bringReliefFiles } from '@/compute/reliefFiles';
import type { ComputeApiRemote } from '@/compute/seat';
import { useWork } from '@/compute/useWork';
import type { OneSetup } from '@/core/job/job';
import { meshEndings } from '@/core/exchange/mesh/read';
import { slug } from '@/core/pipeline/programs';
import type { ReliefFile } from '@/core/pipeline/reliefShelf';
import { freshForm } from '@/core/relief/freshForm';
import { arranged, membersOf, movedForm, regrouped, standing } from '@/core/relief/groups';
import { guessMesh, guessPicture } from '@/core/relief/guess';
import { formKindOf } from '@/core/relief/registry';
import { enlarged, scaledForm, type Form } from '@/core/relief/stack';
import { setAt, type Field } from '@/core/units/fields';
import { formatLength, lengthText } from '@/core/units/length';
import { roundLengths } from '@/core/units/round';
import { saysOf } from '@/core/units/says';
import { putFile } from '@/store/files';
import { freshId } from '@/store/jobs';
import { describeReliefFile } from '@/store/reliefFiles';
import { asPng } from '@/ui/artwork/pictureFile';
import { busyWith } from '@/ui/common/busy';
import { setView, typeInto, useView } from '@/ui/view';
import { askUnit } from './askUnit';
import { changeForm, edit, freeName, jobNow } from './edits';
import { askForFiles, download } from './files';
import { tell } from './tell';

/** Milliseconds after which a file that is still being read is given up. */
const READING = 120_000;

const newForm = (kind: string, name: string, items: readonly string[], values: object): Form =>
  freshForm(freshId(), freeName(name, jobNow()?.relief.forms ?? []), kind, values, { items: [...items] });

/** Adds a form of a kind on top of the stack, made of what is picked where it is made of outlines; `more` are values that it is to have. */
export function addForm(kind: string, more: object = {}): void {
  const job = jobNow();
  if (!job) return;
  const k = formKindOf(kind);
  const asked = { ...(k.defaults as Form['values']), ...more };
  const fresh = { ...((k.fresh?.(asked, job.blank) ?? asked) as Form['values']), ...more };
  const values = roundLengths(fresh, k.fields, job.unit);
  const form = newForm(
    kind,
    k.called?.(values) ?? k.name,
    k.ofOutlines || k.lines ? useView.getState().picked : [],
    values,
  );
  edit(`Add ${k.name.toLowerCase()}`, (j) => {
    // The first one begins inside of the blank: there is room for it to rise.
    if (!j.relief.forms.length) j.relief.baseDepth = Math.min(5, j.blank.thickness / 2);
    j.relief.forms.push(form);
  });
  setView({ formId: form.id, stage: 'relief' });
  typeInto(form.id);
}

/** What is made of a file that was found to be sound: the values of its form, where its top stands, and what is said of it. */
interface MadeOfFile {
  readonly values: Form['values'];
  readonly rise: number;
  readonly says: string;
  /** What is kept instead of the file. */
  readonly kept?: { readonly name: string; readonly bytes: Uint8Array };
}

/**
 * Brings a file into the relief as a form of its own, and keeps it. The job stays as it is when the file is refused, which is
 * said, or when the maker would rather leave it.
 */
export async function bringFile(
  type: ReliefFile['type'],
  file: { readonly name: string; readonly bytes: () => Promise<Uint8Array> },
  look: (bytes: Uint8Array, job: OneSetup) => Promise<MadeOfFile | null>,
): Promise<void> {
  const before = jobNow();
  if (!before) return;
  try {
    const bytes = await file.bytes();
    const made = await look(bytes, before);
    if (!made) return;
    const { values, rise, says, kept = { name: file.name, bytes } } = made;
    const asset = await describeReliefFile(type, kept.name, kept.bytes);
    await putFile(asset, kept.bytes);
    bringReliefFiles({ [asset.id]: { type, name: asset.name, bytes: kept.bytes } });
    const job = jobNow();
    if (!job) return;
    const form = newForm(type, file.name.replace(/\.[a-z0-9]+$/i, '') || formKindOf(type).name, [], {
      x: job.blank.width / 2,
      y: job.blank.height / 2,
      ...values,
      [type]: asset.id,
    });
    edit(`Bring ${file.name}`, (j) => {
      if (!j.assets.some((a) => a.id === asset.id)) j.assets.push(asset);
      // The first one stands with its top at the face.
      if (!j.relief.forms.length) j.relief.baseDepth = rise;
      j.relief.forms.push(form);
    });
    setView({ formId: form.id, stage: 'relief' });
    tell('success', `"${file.name}": ${says}`);
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

/** Has a file read by a worker, which can be given up. */
export const readByHelper = <T>(name: string, work: (api: ComputeApiRemote) => Promise<T>): Promise<T> => {
  const helper = artworkHelper();
  return busyWith(
    `Reading ${name}\u2026`,
    () => helper.dismiss(),
    () => helper.ask(work, { patience: READING }),
  );
};
const bytesOf = async (file: File): Promise<Uint8Array> => new Uint8Array(await file.arrayBuffer());

/**
 * Brings a mesh: standing, sized and placed by the best guess. Where its own size is absurd on this blank, it is asked what its
 * numbers are. What a job does not keep as it is, it keeps as STL.
 */
export const addMesh = (file: File): Promise<void> =>
  bringFile('mesh', { name: file.name, bytes: () => bytesOf(file) }, async (bytes, job) => {
    const { triangles, box, kept } = await readByHelper(file.name, (api) => api.lookAtMesh(file.name, bytes));
    const guess = guessMesh(box, job.blank);
    const unit =
      guess.fitting === null
        ? 1
        : await askUnit({
            name: file.name,
            says: `"${file.name}" ${guess.fitting < 1 ? 'would be larger than the blank' : 'would be too small to see'} if its numbers were millimetres. What are they?`,
            width: guess.width / guess.scale,
            height: guess.height / guess.scale,
            fitting: guess.fitting,
          });
    if (unit === null) return null;
    const { width, height, rise, up, shallower } = guessMesh(box, job.blank, unit);
    const size = (v: number) => formatLength(v, job.unit);
    return {
      values: { width, height, rise, up },
      rise,
      ...(kept && { kept: { name: file.name.replace(/\.[^.]*$/, '.stl'), bytes: kept } }),
      says:
        `${triangles} triangles, ${size(width)} \u00d7 ${size(height)} \u00d7 ${size(rise)} ${job.unit}.` +
        (width > job.blank.width || height > job.blank.height
          ? ' It is larger than the blank: what lies beside it is left out.'
          : '') +
        (shallower ? ' It was made shallower, to half the thickness.' : ''),
    };
  });

/** Brings a picture whose greys are heights: fitted into the blank. What is no PNG is kept as one. */
export async function addPicture(file: File): Promise<void> {
  const name = file.name.replace(/\.(jpe?g|webp|bmp|gif)$/i, '.png');
  await bringFile('picture', { name, bytes: () => asPng(file) }, async (bytes, job) => {
    const { width, height, greys } = await readByHelper(file.name, (api) => api.lookAtPicture(name, bytes));
    const sizes = guessPicture({ width, height }, job.blank);
    const pixel = formatLength(sizes.width / width, job.unit);
    return {
      values: sizes,
      rise: sizes.rise,
      says:
        `${width} \u00d7 ${height} pixels, each ${pixel} ${job.unit} wide at this size, of ${greys} greys.` +
        (greys <= 256 ? ' The steps between them are smoothed away.' : ''),
    };
  });
}

/** Asks for the file of a kind of form that is made of one. */
export const chooseReliefFile = (type: ReliefFile['type']): void =>
  type === 'mesh'
    ? askForFiles(meshEndings.join(), false, ([file]) => file && void addMesh(file))
    : askForFiles('.png,.jpg,.jpeg,.webp,.bmp,image/*', false, ([file]) => file && void addPicture(file));

/** Changes a value of a form; what must follow it follows. */
export function setFormValue(id: string, key: string, value: unknown, field: Field): void {
  changeForm(id, `Change ${field.label.toLowerCase()}`, (f) => {
    const k = formKindOf(f.kind);
    const next = setAt(f.values, key, value);
    // Who has not named it himself finds it called after what it is.
    const called = k.called?.(next as never);
    if (called && f.name.replace(/ \d+$/, '') === k.called!(f.values as never))
      f.name = freeName(called, jobNow()?.relief.forms.filter((q) => q.id !== id) ?? []);
    f.values = k.changed ? (k.changed(next as never, f.values as never) as Form['values']) : next;
  });
}

/** Copies a form; a group with all that it holds. */
export function copyForm(id: string): void {
  const copy = freshId();
  edit('Copy form', (j) => {
    const all = arranged(j.relief.forms);
    const f = all.find((q) => q.id === id);
    if (!f) return;
    const own = membersOf(all, id).map((m) => ({ ...m, id: freshId(), group: copy }));
    const like = { ...f, id: copy, name: freeName(f.name, all) };
    j.relief.forms = all.toSpliced(all.indexOf(f) + 1, 0, ...(JSON.parse(JSON.stringify([...own, like])) as Form[]));
  });
  setView({ formId: copy });
}
/** Deletes a form; a group with all that it holds, which is said. */
export function deleteForm(id: string): void {
  const forms = jobNow()?.relief.forms ?? [];
  const held = membersOf(forms, id);
  edit('Delete form', (j) => {
    j.relief.forms = j.relief.forms.filter((f) => f.id !== id && !held.some((m) => m.id === f.id));
  });
  const open = useView.getState().formId;
  if (open === id || held.some((m) => m.id === open)) setView({ formId: null });
  if (held.length)
    tell(
      'info',
      `The group and ${held.length === 1 ? 'the form' : `the ${held.length} forms`} in it are deleted. Undo brings them back.`,
    );
}
/** Puts a form into the place of another in the list. */
export const moveForm = (id: string, over: string): void =>
  edit('Reorder forms', (j) => void (j.relief.forms = movedForm(j.relief.forms, id, over)));

/** Puts a form into a group, into a new one right where it is, or into none. */
export function groupForm(id: string, group: string | 'new' | null): void {
  edit(group === null ? 'Take a form out of its group' : 'Group a form', (j) => {
    const form = j.relief.forms.find((f) => f.id === id);
    if (!form) return;
    if (group !== 'new') return void (j.relief.forms = regrouped(j.relief.forms, id, group));
    const all = regrouped(j.relief.forms, id, null);
    const made = freshForm(freshId(), freeName('Group', all), 'group');
    const at = all.findIndex((f) => f.id === id);
    j.relief.forms = all.toSpliced(at, 1, { ...all[at], group: made.id }, made);
  });
}
/** Takes a group apart: what it holds stands by itself, where it stood. */
export function ungroupForms(id: string): void {
  edit('Take a group apart', (j) => {
    j.relief.forms = arranged(j.relief.forms)
      .map((f) => (f.group === id ? { ...f, group: null } : f))
      .filter((f) => f.id !== id);
  });
  setView({ formId: null });
}

/** Sets how far apart the nodes of the relief lie, mm; null: as is proposed. */
export const setReliefCell = (cell: number | null): void =>
  edit('Change the resolution of the relief', (j) => void (j.relief.cell = cell));

/** What is cast in it shrinks by so much, percent: the whole relief is made larger for it. */
export const setReliefShrinks = (shrinks: number): void =>
  edit('Change the shrinkage allowance', (j) => void (j.relief.shrinks = shrinks));

/** Shifts the whole relief in the thickness, mm upward. */
export const shiftRelief = (by: number): void =>
  edit('Shift the relief in the thickness', (j) => void (j.relief.baseDepth -= by / enlarged(j.relief)));

/** Makes the whole relief so many times as high; its highest point stays where it is. */
export const scaleRelief = (by: number, highest: number): void =>
  edit('Change the height of the relief', (j) => {
    // What a group holds is scaled with it.
    const alone = standing(j.relief.forms);
    j.relief.forms = j.relief.forms.map((f) => (alone.includes(f) ? scaledForm(f, by) : f));
    const top = highest / enlarged(j.relief);
    j.relief.baseDepth = by * (top + j.relief.baseDepth) - top;
  });

/** What a relief is saved as. */
export const reliefFormats = { stl: 'STL', obj: 'OBJ', png: 'PNG, 16 bit' } as const;
export type ReliefFormat = keyof typeof reliefFormats;

/**
 * Saves the relief: as a closed body, ready to print, from the underside of the blank with empty places at its top face; or as a
 * picture of its heights.
 */
export async function exportRelief(format: ReliefFormat): Promise<void> {
  const job = jobNow();
  const relief = useWork.getState().relief;
  if (!job || !relief) return tell('info', 'There is no relief to export yet.');
  if (!relief.fine) return tell('info', 'The relief is still being shaped. Export it when it is done.');
  const name = `${slug(job.name)}-relief.${format}`;
  const helper = artworkHelper();
  const write = <T>(work: (api: ComputeApiRemote) => Promise<T>) =>
    busyWith(
      `Writing ${name}\u2026`,
      () => helper.dismiss(),
      () => helper.ask(work),
    );
  try {
    const { field } = relief.shaped;
    const length = (mm: number) => lengthText(mm, job.unit, job.unit === 'mm' ? 2 : 4);
    if (format === 'png') {
      const { bytes, lowest, highest } = await write((api) => api.reliefPicture(field));
      download(name, bytes, 'image/png');
      return tell(
        'success',
        `"${name}" is saved: black is ${length(lowest)}, white ${length(highest)} from the top face; a pixel is ${length(field.cell)} wide.`,
      );
    }
    const body = await write((api) => api.reliefBody(field, job.blank, `${job.name}, mm`, format));
    download(name, body.bytes, format === 'stl' ? 'model/stl' : 'model/obj');
    if (body.cell > field.cell)
      tell('success', `"${name}" is saved with corners ${length(body.cell)} apart, so that it can be worked with.`);
  } catch (e) {
    tell('error', saysOf(e, `"${name}" could not be saved: this device may have too little memory.`));
  }
}
