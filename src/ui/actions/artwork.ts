import { usesOf } from '@/core/job/uses';
import {
  align,
  around,
  distribute,
  mirrored,
  ringPlaces,
  rowPlaces,
  turnedAbout,
  type Alignment,
  type Shift,
} from '@/core/artwork/arrange';
import { drawnItem } from '@/core/artwork/drawn';
import { itemBounds, type Item } from '@/core/artwork/item';
import type { TracedFrom } from '@/core/artwork/kinds/drawing';
import { filledBy, liesInside } from '@/core/artwork/picking';
import { pieceNames } from '@/core/artwork/pieceNames';
import { tracedOnBlank } from '@/core/artwork/trace/again';
import { artworkHelper } from '@/compute/artworkHelper';
import type { ShapeTask } from '@/compute/artwork';
import { joinPaths } from '@/core/geometry/join';
import type { Path } from '@/core/geometry/path';
import { normalise, type Bounds, type Fill } from '@/core/geometry/region';
import type { OneSetup } from '@/core/job/job';
import { ownItem } from '@/core/job/linked';
import { freshId } from '@/store/jobs';
import { placedOf } from '@/ui/table/usePlaced';
import { setView, useView } from '@/ui/view';
import { dropEmptyGroups } from '@/core/job/regroup';
import { saysOf } from '@/core/units/says';
import { busyWith } from '@/ui/common/busy';
import { edit, freeName, jobNow, openLayer, pickable, placesOf } from './edits';
import { tell } from './tell';
import { append } from '@/core/units/append';
import type { Merge } from '@/store/steps';

export const pickedItems = (): Item[] => {
  const { picked } = useView.getState();
  const byId = new Map(jobNow()?.items.map((i) => [i.id, i]));
  return picked.flatMap((id) => byId.get(id) ?? []);
};
const boxOf = (i: Item): Bounds => itemBounds(placedOf(i));

/** Paths as a drawing of its own, about their middle. */
export const drawingOf = (
  paths: readonly Path[],
  name: string,
  like: Pick<Item, 'layer' | 'group'>,
  fill: Fill = 'nonzero',
  traced?: TracedFrom,
): Item => drawnItem({ id: freshId(), name, layer: like.layer, group: like.group }, paths, fill, traced);

/** A link with nothing to follow any more: with the measures of its original, or as outlines where it is scaled. */
export const ownedItem = (i: Item): Item => {
  const p = placedOf(i);
  return ownItem(i) ?? { ...drawingOf(p.paths, i.name, i, p.fill), id: i.id };
};

/** Puts new items where old ones stood; cuts that used an old one use the new ones. */
function replace(name: string, old: readonly Item[], fresh: readonly Item[], keepOld = false): void {
  const gone = new Set(old.map((i) => i.id));
  edit(name, (j) => {
    const at = j.items.findIndex((i) => gone.has(i.id));
    if (!keepOld) {
      j.items = j.items.filter((i) => !gone.has(i.id));
      for (const u of usesOf(j)) {
        if (!u.items.some((id) => gone.has(id))) continue;
        const k = u.items.findIndex((id) => gone.has(id));
        u.items = u.items.filter((id) => !gone.has(id));
        u.items.splice(k, 0, ...fresh.map((i) => i.id));
      }
    }
    j.items.splice(keepOld ? j.items.length : at, 0, ...fresh);
    dropEmptyGroups(j);
  });
  setView({ picked: fresh.map((i) => i.id), stage: 'artwork' });
}

/** Picks, instead of the picked outlines, all that lies wholly inside of them. */
export function pickWithin(): void {
  const job = jobNow();
  if (!job) return;
  const { picked } = useView.getState();
  const region = normalise(pickedItems().flatMap((i) => filledBy(placedOf(i))));
  const inside = pickable(job).filter((i) => !picked.includes(i.id) && liesInside(placedOf(i), region));
  if (!inside.length)
    return tell(
      'info',
      region.length ? 'Nothing lies wholly within what is picked.' : 'What is picked is not a closed outline.',
    );
  setView({ picked: inside.map((i) => i.id) });
}

/** Puts each of some items, by its id, in the place of the one that it was. */
export function replaceEach(name: string, now: readonly Item[], merge?: Merge): void {
  const by = new Map(now.map((i) => [i.id, i]));
  const where = placesOf([...by.keys()]);
  edit(
    name,
    (j) => {
      for (const k of where) j.items[k] = by.get(j.items[k].id)!;
    },
    merge,
  );
}

/** Runs work on the picked outlines in a worker and puts the result in their place, or beside them. */
export async function workOnShapes(task: ShapeTask, name: string): Promise<void> {
  const items = pickedItems();
  const job = jobNow();
  if (!items.length || !job) return;
  try {
    const helper = artworkHelper();
    const results = await busyWith(
      `${name}\u2026`,
      () => helper.dismiss(),
      () => helper.ask((api) => api.shapes(items, task)),
    );
    // Another change may have come while the worker was at it.
    if (!items.every((i) => jobNow()?.items.includes(i)))
      return tell('info', 'The artwork was changed meanwhile; nothing was done.');
    if (!results.length)
      return tell(
        'info',
        task.kind === 'combine'
          ? 'Nothing would be left of these outlines.'
          : 'Nothing comes of this: are the outlines closed, and wide enough?',
      );
    const [like] = items;
    const names =
      task.kind === 'apart'
        ? pieceNames(items.length > 1 ? name : like.name, results, job.unit)
        : results.map((_, k) => freeName(results.length > 1 ? `${name} ${k + 1}` : name, job.items));
    const fresh = results.map((paths, k) => drawingOf(paths, names[k], like));
    replace(name, items, fresh, task.kind === 'offset');
  } catch (e) {
    tell('error', `The outlines could not be worked on, and stay as they were. ${saysOf(e, 'Try fewer at a time.')}`);
  }
}

/** Picked items as free outlines that can be changed node by node. */
export function toDrawings(): void {
  const items = pickedItems().filter(
    (i) => i.kind !== 'picture' && (i.kind !== 'drawing' || i.angle !== 0 || i.mirror),
  );
  if (!items.length) return;
  const fresh = items.map((i) => {
    const p = placedOf(i);
    return drawingOf(p.paths, i.name, i, p.fill, tracedOnBlank(i));
  });
  replace('Convert to outlines', items, fresh);
}

/** The picked lines as one drawing, in which ends that lie within `tolerance` mm of each other are joined. */
export function joinPicked(tolerance: number): void {
  const items = pickedItems();
  const paths = items.flatMap((i) => placedOf(i).paths);
  const loose = (list: readonly Path[]) => list.filter((p) => !p.closed).length;
  const joined = joinPaths(paths, tolerance);
  if (joined.length === paths.length && loose(joined) === loose(paths))
    return tell('info', `No two ends lie within ${+tolerance.toFixed(4)} mm of each other.`);
  replace('Join ends', items, [drawingOf(joined, items[0].name, items[0])]);
}

/** A path that was drawn on the table, as a new item. */
export function addDrawn(path: Path, name: string): void {
  const job = jobNow();
  if (!job) return;
  const item = drawingOf([path], freeName(path.closed ? 'Outline' : 'Line', job.items), {
    layer: openLayer(job),
    group: null,
  });
  edit(name, (j) => void j.items.push(item));
  setView({ picked: [item.id] });
}

const shiftItems = (name: string, shifts: readonly Shift[]): void => {
  const by = new Map(shifts.map((s) => [s.id, s]));
  edit(name, (j) => {
    for (const i of j.items) {
      const s = by.get(i.id);
      if (!s) continue;
      i.x += s.dx;
      i.y += s.dy;
    }
  });
};

/** Aligns the picked items to the blank, to all of them together, or to the last picked. */
export function alignPicked(a: Alignment, to: 'blank' | 'group' | 'last'): void {
  const job = jobNow();
  const boxes = pickedItems().map((i) => ({ id: i.id, box: boxOf(i) }));
  if (!job || !boxes.length) return;
  const goal =
    to === 'blank'
      ? { x0: 0, y0: 0, x1: job.blank.width, y1: job.blank.height }
      : to === 'last'
        ? boxes[boxes.length - 1].box
        : around(boxes.map((b) => b.box))!;
  shiftItems('Align', align(boxes, a, goal));
}

export function distributePicked(axis: 'x' | 'y'): void {
  const shifts = distribute(
    pickedItems().map((i) => ({ id: i.id, box: boxOf(i) })),
    axis,
  );
  if (shifts.length) shiftItems('Distribute', shifts);
  else tell('info', 'Pick three things or more to distribute them.');
}

const middle = (items: readonly Item[]): { x: number; y: number } => {
  const b = around(items.map(boxOf))!;
  return { x: (b.x0 + b.x1) / 2, y: (b.y0 + b.y1) / 2 };
};

/** Brings the middle of all that is picked onto the middle of the blank. */
export function centrePicked(): void {
  const items = pickedItems();
  const job = jobNow();
  if (!items.length || !job) return;
  const m = middle(items);
  shiftItems(
    'Centre in the blank',
    items.map((i) => ({ id: i.id, dx: job.blank.width / 2 - m.x, dy: job.blank.height / 2 - m.y })),
  );
}

const change = (name: string, how: (i: Item) => Pick<Item, 'x' | 'y' | 'angle' | 'mirror'>): void => {
  const now = new Map(pickedItems().map((i) => [i.id, how(i)]));
  edit(name, (j) => {
    for (const i of j.items) {
      const n = now.get(i.id);
      if (n) Object.assign(i, { x: n.x, y: n.y, angle: n.angle, mirror: n.mirror });
    }
  });
};

export function mirrorPicked(axis: 'upright' | 'level'): void {
  const items = pickedItems();
  if (!items.length) return;
  const m = middle(items);
  change('Mirror', (i) => mirrored(i, axis, m.x, m.y));
}

export function turnPicked(degrees: number): void {
  const items = pickedItems();
  if (!items.length) return;
  const m = middle(items);
  change('Turn', (i) => turnedAbout(i, degrees, m.x, m.y));
}

/** Copies with fresh ids; copies of groups become groups of their own. */
export function copiesOf(items: readonly Item[], job: OneSetup): { items: Item[]; groups: OneSetup['groups'] } {
  const groups = new Map<string, string>();
  const made: OneSetup['groups'] = [];
  const groupOf = (id: string | null): string | null => {
    if (id === null) return null;
    const g = job.groups.find((q) => q.id === id);
    if (!g) return null;
    let copy = groups.get(id);
    if (!copy) {
      copy = freshId();
      groups.set(id, copy);
      made.push({ id: copy, name: g.name, parent: groupOf(g.parent) });
    }
    return copy;
  };
  return { items: items.map((i) => ({ ...structuredClone(i), id: freshId(), group: groupOf(i.group) })), groups: made };
}

export function addCopies(name: string, sets: readonly { items: Item[]; groups: OneSetup['groups'] }[]): void {
  edit(name, (j) => {
    for (const s of sets) {
      append(j.groups, s.groups);
      append(j.items, s.items);
    }
  });
}

/** Copies of the picked items a step aside, picked in their place. */
export function copyPicked(): void {
  const items = pickedItems();
  const job = jobNow();
  if (!items.length || !job) return;
  const c = copiesOf(items, job);
  addCopies('Copy items', [
    { ...c, items: c.items.map((i) => ({ ...i, name: freeName(i.name, job.items), x: i.x + 5, y: i.y - 5 })) },
  ]);
  setView({ picked: c.items.map((i) => i.id) });
}

/** Leaves copies where dragged items began: places in the job's list, with where each stood. */
export function leaveCopies(
  starts: ReadonlyMap<number, { readonly id: string; readonly x: number; readonly y: number }>,
): void {
  const job = jobNow();
  if (!job) return;
  const places = [...starts].filter(([k, at]) => job.items[k]?.id === at.id);
  const c = copiesOf(
    places.map(([k]) => job.items[k]),
    job,
  );
  addCopies('Copy while dragging', [
    { ...c, items: c.items.map((i, n) => ({ ...i, x: places[n][1].x, y: places[n][1].y })) },
  ]);
}

/** Says so when so many things at once would hold the page up. */
export function tooManyCopies(things: number): boolean {
  if (things <= 20_000) return false;
  tell('info', `That would be ${things} things; 20000 at a time are possible.`);
  return true;
}

/** Copies of the picked items in columns and rows; `gap` is left between their boxes. */
export function copyInRows(cols: number, rows: number, gapX: number, gapY: number): void {
  const items = pickedItems();
  const job = jobNow();
  if (!items.length || !job) return;
  if (tooManyCopies(items.length * cols * rows)) return;
  const b = around(items.map(boxOf))!;
  addCopies(
    'Copy in rows',
    rowPlaces(cols, rows, b.x1 - b.x0 + gapX, b.y1 - b.y0 + gapY).map(({ dx, dy }) => {
      const c = copiesOf(items, job);
      return { ...c, items: c.items.map((i) => ({ ...i, x: i.x + dx, y: i.y + dy })) };
    }),
  );
}

/** Copies of the picked items round a point, evenly. */
export function copyInRing(count: number, cx: number, cy: number, turn: boolean): void {
  const items = pickedItems();
  const job = jobNow();
  if (!items.length || !job) return;
  if (tooManyCopies(items.length * count)) return;
  const places = items.map((i) => ringPlaces(i, count, cx, cy, 360, turn));
  addCopies(
    'Copy in a ring',
    Array.from({ length: count - 1 }, (_, k) => {
      const c = copiesOf(items, job);
      return { ...c, items: c.items.map((i, n) => ({ ...i, ...places[n][k + 1] })) };
    }),
  );
}

export function groupPicked(): void {
  const { picked } = useView.getState();
  const job = jobNow();
  if (!job || picked.length < 2) return tell('info', 'Pick two things or more to group them.');
  const id = freshId();
  const tops = new Set(pickedItems().map((i) => topGroup(job, i.group)));
  edit('Group', (j) => {
    j.groups.push({ id, name: freeName('Group', j.groups), parent: null });
    for (const g of j.groups) if (g.id !== id && tops.has(g.id)) g.parent = id;
    for (const i of j.items) if (picked.includes(i.id) && i.group === null) i.group = id;
  });
}

export function ungroupPicked(): void {
  const job = jobNow();
  if (!job) return;
  const tops = new Set(
    pickedItems()
      .map((i) => topGroup(job, i.group))
      .filter((g) => g !== null),
  );
  if (!tops.size) return tell('info', 'What is picked belongs to no group.');
  edit('Ungroup', (j) => {
    for (const i of j.items) if (i.group !== null && tops.has(i.group)) i.group = null;
    for (const g of j.groups) if (g.parent !== null && tops.has(g.parent)) g.parent = null;
    j.groups = j.groups.filter((g) => !tops.has(g.id));
  });
}

/** The outermost group around a group; null for none. */
export function topGroup(job: OneSetup, group: string | null): string | null {
  let at = group;
  for (let n = 0; at !== null && n < 100; n++) {
    const parent = job.groups.find((g) => g.id === at)?.parent ?? null;
    if (parent === null) return at;
    at = parent;
  }
  return at;
}

/** All items of the outermost group of an item; itself when it has none. */
export function together(job: OneSetup, id: string): string[] {
  const item = job.items.find((i) => i.id === id);
  const top = item ? topGroup(job, item.group) : null;
  if (top === null) return [id];
  return job.items.filter((i) => i.group !== null && topGroup(job, i.group) === top).map((i) => i.id);
}
