import { dropUses } from '@/core/job/uses';
import { colourName } from '@/core/artwork/trace/colours';
import { laidUnder, layerTitle, retraced, tracedFrom, tracedItem } from '@/core/artwork/trace/again';
import { newItem, type Item } from '@/core/artwork/item';
import type { TraceOptions } from '@/core/artwork/trace/options';
import type { TracedLayer } from '@/core/artwork/trace/trace';
import { boundsOfPaths } from '@/core/geometry/path';
import { dropEmptyGroups } from '@/core/job/regroup';
import type { OneSetup } from '@/core/job/job';
import { storageMessage } from '@/store/db';
import { putFile } from '@/store/files';
import { freshId } from '@/store/jobs';
import { describePicture } from '@/store/pictures';
import { forgetMissing } from '@/ui/table/pictures';
import { setView } from '@/ui/view';
import { pickedItems } from './artwork';
import { edit, freeName, jobNow, openLayer } from './edits';
import { tell } from './tell';

/** What was traced of a picture, and with what. */
export interface Traced {
  readonly layers: readonly TracedLayer[];
  readonly options: TraceOptions;
  /** The picture's size when it was traced. */
  readonly pixels: { readonly width: number; readonly height: number };
}

/** The layer that pictures lie on: locked, so that what is drawn over them is picked, not they. */
const PICTURES = 'Pictures';

/** The box of what is drawn, pixels; null when nothing is. */
export const drawnBox = (layers: readonly TracedLayer[]) => boundsOfPaths(layers.flatMap((l) => l.paths));

const baseOf = (file: string): string => file.replace(/\.[a-z]+$/i, '') || 'Picture';

/** A layer for outlines of a colour: the one of that name and colour, if it is there, or a new one. */
function layerFor(j: OneSetup, colour: string): string {
  const name = colourName(colour).replace(/^./, (c) => c.toUpperCase());
  const same = j.layers.find((l) => l.name === name && l.colour === colour);
  if (same) return same.id;
  const id = freshId();
  j.layers.push({ id, name: freeName(name, j.layers), colour, visible: true, locked: false });
  return id;
}

/** Puts what was traced into the middle of the blank, `scale` mm a pixel, and keeps the picture under it. */
export async function placeTraced(file: File, t: Traced, scale: number): Promise<void> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const kept = await describePicture(file.name, bytes);
  let lost = '';
  await putFile(kept, bytes).catch((e) => void (lost = storageMessage(e)));
  forgetMissing();
  const job = jobNow();
  const box = drawnBox(t.layers);
  if (!job || !box) return;
  const { width, height } = t.pixels;
  const map = {
    a: scale,
    b: 0,
    c: 0,
    d: scale,
    e: job.blank.width / 2 - (scale * (box.x0 + box.x1)) / 2,
    f: job.blank.height / 2 - (scale * (box.y0 + box.y1)) / 2,
  };
  const base = baseOf(file.name);
  const made: string[] = [];
  edit(`Trace ${file.name}`, (j) => {
    const several = t.layers.length > 1;
    const open = openLayer(job);
    const picture = newItem({
      id: freshId(),
      name: freeName(file.name, j.items),
      kind: 'picture',
      layer: '',
      x: map.e + (scale * width) / 2,
      y: map.f + (scale * height) / 2,
      values: {
        picture: kept.id,
        pixels: { width, height },
        width: scale * width,
        height: scale * height,
        shade: 35,
        trace: t.options,
      },
    });
    const group = several ? freshId() : null;
    if (group) j.groups.push({ id: group, name: freeName(base, j.groups), parent: null });
    for (const l of t.layers) {
      const name = layerTitle(base, l, several);
      const on = several ? layerFor(j, l.colour) : open;
      const item = tracedItem({ id: freshId(), name: freeName(name, j.items), layer: on, group }, l, picture.id, map);
      made.push(item.id);
      j.items.push(item);
    }
    if (lost) return;
    let under = j.layers.find((l) => l.name === PICTURES)?.id;
    if (!under)
      j.layers.push({ id: (under = freshId()), name: PICTURES, colour: '#6b767b', visible: true, locked: true });
    if (!j.assets.some((a) => a.id === kept.id)) j.assets.push(kept);
    j.items.push({ ...picture, layer: under });
  });
  setView({ picked: made, tracing: null });
  if (lost) tell('error', `The outlines are placed, but the picture could not be kept to be traced again. ${lost}`);
}

/** The picture that an item is, or was traced from, when it is still in the job. */
export function pictureBehind(job: OneSetup, item: Item): Item | null {
  const id = item.kind === 'picture' ? item.id : tracedFrom(item)?.item;
  return job.items.find((i) => i.id === id && i.kind === 'picture') ?? null;
}

/** Opens the tracing of what is picked with the values of the last time. */
export function tracePickedAgain(): void {
  const job = jobNow();
  const picture =
    job &&
    pickedItems()
      .map((i) => pictureBehind(job, i))
      .find(Boolean);
  if (!picture)
    return tell('info', 'What is picked was not traced from a picture, or its picture is not in the job any more.');
  setView({ tracing: { again: picture.id }, stage: 'artwork' });
}

/** Brings a picture under the outlines that were traced from it. */
export function layUnder(pictureId: string): void {
  const job = jobNow();
  const picture = job?.items.find((i) => i.id === pictureId);
  const outlines = job?.items.find((i) => tracedFrom(i)?.item === pictureId);
  if (!picture || !outlines) return tell('info', 'Nothing that was traced from this picture is left.');
  const now = laidUnder(picture, outlines);
  edit('Lay the picture under', (j) => void (j.items[j.items.findIndex((i) => i.id === pictureId)] = now));
}

/** Puts new outlines in the place of those that were traced from a picture; cuts keep them. */
export function traceAgain(pictureId: string, t: Traced): void {
  const job = jobNow();
  const picture = job?.items.find((i) => i.id === pictureId);
  if (!job || !picture) return;
  const { changed, fresh, gone } = retraced(
    t.layers,
    { ...picture, values: { ...picture.values, pixels: t.pixels } },
    job.items,
  );
  const lost = new Set(gone.map((i) => i.id));
  const unsaid = job.cuts.filter((c) => c.items.some((id) => lost.has(id)));
  const base = baseOf(job.assets.find((p) => p.id === picture.values.picture)?.name ?? picture.name);
  const like = changed[0] ?? gone[0];
  const made: string[] = [];
  edit('Trace again', (j) => {
    const by = new Map(changed.map((i) => [i.id, i]));
    j.items = j.items.filter((i) => !lost.has(i.id)).map((i) => by.get(i.id) ?? i);
    dropUses(j, (id) => lost.has(id));
    for (const { layer, map } of fresh) {
      const name = layerTitle(base, layer, t.layers.length > 1);
      const on = t.layers.length > 1 ? layerFor(j, layer.colour) : (like?.layer ?? openLayer(job));
      const item = tracedItem(
        { id: freshId(), name: freeName(name, j.items), layer: on, group: like?.group ?? null },
        layer,
        pictureId,
        map,
      );
      made.push(item.id);
      j.items.push(item);
    }
    const at = j.items.findIndex((i) => i.id === pictureId);
    const now = { ...picture, values: { ...picture.values, pixels: { ...t.pixels }, trace: t.options } };
    j.items[at] = changed[0] ? laidUnder(now, changed[0]) : now;
    dropEmptyGroups(j);
  });
  setView({ picked: [...changed.map((i) => i.id), ...made], tracing: null });
  const words = [`${changed.length} ${changed.length === 1 ? 'drawing has' : 'drawings have'} new outlines`];
  if (made.length) words.push(`${made.length} came new and ${made.length === 1 ? 'is' : 'are'} in no cut yet`);
  if (gone.length)
    words.push(
      `${gone.map((i) => `"${i.name}"`).join(', ')} ${gone.length === 1 ? 'is' : 'are'} gone${unsaid.length ? ` from ${unsaid.map((c) => `"${c.name}"`).join(', ')}` : ''}`,
    );
  tell(gone.length ? 'info' : 'success', `${words.join('; ')}.`);
}
