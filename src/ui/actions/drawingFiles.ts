import { artworkHelper } from '@/compute/artworkHelper';
import type { ComputeApiRemote } from '@/compute/seat';
import { writeDxf } from '@/core/exchange/dxf/write';
import { isMeshName } from '@/core/exchange/mesh/read';
import { writeSvg, type WrittenThing } from '@/core/exchange/svg/write';
import { type Item } from '@/core/artwork/item';
import { slug } from '@/core/pipeline/programs';
import { saysOf } from '@/core/units/says';
import { placedOf } from '@/ui/table/usePlaced';
import { setView, useView } from '@/ui/view';
import { pasteFromClipboard } from './clipboard';
import { addFontFile } from './lettering';
import { addMesh, addPicture } from './relief';
import { busyWith } from '@/ui/common/busy';
import { askUnit } from './askUnit';
import { edit, jobNow } from './edits';
import { askForFiles, download } from './files';
import { append } from '@/core/units/append';
import { tell } from './tell';

const PICTURE = /\.(png|jpe?g|webp|bmp|gif)$/i;
/** Systems call some drawings pictures: their names tell. */
const DRAWING = /\.(svg|dxf)$/i;

/** Takes files onto the table: drawings become artwork, pictures go to tracing, or into the relief where that is worked on. The job stays as it is when one is refused. */
export async function takeFiles(files: readonly File[]): Promise<void> {
  for (const f of files) {
    if (/\.(ttf|otf|woff2?|ttc)$/i.test(f.name)) await addFontFile(f);
    else if (isMeshName(f.name)) await addMesh(f);
    else if (
      !DRAWING.test(f.name) &&
      (PICTURE.test(f.name) || (f.type.startsWith('image/') && !/svg|dxf/.test(f.type)))
    ) {
      if (useView.getState().stage === 'relief') await addPicture(f);
      else setView({ tracing: f, stage: 'artwork' });
    } else await importDrawing(f.name, new Uint8Array(await f.arrayBuffer()));
  }
}

/** Milliseconds after which a drawing that is still being read is given up. */
const READING = 30_000;
/** Items that come from the worker at a time. */
const PORTION = 150;

export async function importDrawing(name: string, bytes: Uint8Array): Promise<void> {
  try {
    const helper = artworkHelper();
    const read = <T>(work: (api: ComputeApiRemote) => Promise<T>) =>
      busyWith(
        `Reading ${name}\u2026`,
        () => helper.dismiss(),
        () => helper.ask(work, { patience: READING }),
      );
    const opened = await read((api) => api.openDrawing(name, bytes));
    const unit =
      opened.unitKnown || !(opened.width + opened.height > 0)
        ? undefined
        : await askUnit({
            name,
            says: `"${name}" does not say its unit. What was it drawn in?`,
            width: opened.width,
            height: opened.height,
          });
    const job = jobNow();
    if (!job || unit === null) return;
    const made = await read((api) =>
      api.makeItems(name.replace(/\.[a-z]+$/i, ''), { blank: job.blank, layers: job.layers, unit }),
    );
    if (!made.count) return tell('info', `"${name}" draws nothing that can be cut. ${made.remarks.join(' ')}`);
    const items: Item[] = [];
    // Frozen, they are taken as they are: nothing looks through thousands of nodes for changes.
    for (let k = 0; k < made.count; k += PORTION)
      append(items, (await helper.ask((api) => api.madeItems(k, k + PORTION))).map(Object.freeze as (i: Item) => Item));
    const got = { ...made, items };
    edit(`Import ${name}`, (j) => {
      append(j.layers, got.layers);
      append(j.groups, got.groups);
      append(j.items, got.items);
    });
    setView({ picked: got.items.map((i) => i.id), stage: 'artwork' });
    tell(
      'success',
      `"${name}": ${got.items.length} ${got.items.length === 1 ? 'thing' : 'things'}. ${got.remarks.join(' ')}`,
    );
  } catch (e) {
    const says = saysOf(
      e,
      `"${name}" was not read: something in it is not understood. Save it as plain SVG or DXF in the program it comes from, and try again.`,
    );
    tell('error', says.startsWith('"') ? says : `"${name}" was not read. ${says} The job stays as it was.`);
  }
}

/** What the browser pastes: files, a drawing as text, or artwork that was copied here. */
export function onPaste(e: ClipboardEvent): void {
  if ((e.target as HTMLElement | null)?.closest?.('input, textarea, [role="dialog"]') || !jobNow()) return;
  e.preventDefault();
  const files = [...(e.clipboardData?.files ?? [])];
  const text = e.clipboardData?.getData('text/plain') ?? '';
  if (files.length) void takeFiles(files);
  else if (/^\s*<(\?xml|svg)/.test(text)) void importDrawing('Pasted drawing', new TextEncoder().encode(text));
  else pasteFromClipboard();
}

/** Asks for files and takes them. */
export const chooseFiles = (): void =>
  askForFiles(
    '.svg,.dxf,.stl,.obj,.3mf,.glb,.gltf,.png,.jpg,.jpeg,.webp,.bmp,.gif,.ttf,.otf,.woff,image/*',
    true,
    (files) => void takeFiles(files),
  );

/** Visible artwork, or what is picked of it, as a drawing file. */
export function exportArtwork(kind: 'svg' | 'dxf'): void {
  const job = jobNow();
  if (!job) return;
  const { picked } = useView.getState();
  const layer = new Map(job.layers.map((l) => [l.id, l]));
  const items = job.items.filter((i) =>
    picked.length ? picked.includes(i.id) : i.visible && layer.get(i.layer)?.visible,
  );
  if (!items.length) return tell('info', 'There is no artwork to export.');
  const things: WrittenThing[] = items.map((i) => {
    const p = placedOf(i);
    return {
      name: i.name,
      layer: layer.get(i.layer)?.name ?? 'Layer',
      colour: layer.get(i.layer)?.colour ?? '#1e2a2f',
      fill: p.fill,
      paths: p.paths,
    };
  });
  if (kind === 'svg')
    download(`${slug(job.name)}.svg`, writeSvg(things, job.blank.width, job.blank.height, job.name), 'image/svg+xml');
  else download(`${slug(job.name)}.dxf`, writeDxf(things), 'application/dxf');
}
