import { itemsById, type Item } from '../artwork/item';
import type { LinkedSource, LinkedValues } from '../artwork/kinds/linked';
import { placement } from '../geometry/path';
import type { Setup, Job } from './job';

/**
 * Linked artwork: an item that shows one of another set-up and follows it. A job keeps the id of its source and how far it lies
 * from where that lies (`x`, `y`); a set-up that is looked at sees the source itself among the item's values and places of its
 * own, so that planners, keys, workers and the table need not know of links.
 *
 *        kept: { x: 5, y: 0, item: "a" }  ── seenItems ──>  seen: { x: 5 + place of "a" here, source: "a" itself }
 *                                         <── keptItems ──
 */
const isLink = (i: Item): boolean => i.kind === 'linked';
const valuesOf = (i: Item): LinkedValues => i.values as LinkedValues;

/** How the frame of a set-up lies in that of another one on the same blank: which axes run the other way. */
export interface Facing {
  readonly x: 1 | -1;
  readonly y: 1 | -1;
}
const SAME: Facing = { x: 1, y: 1 };

/** How often a blank was turned over about each axis until a set-up. */
function turnsUntil(setup: Setup, job: Job): { x: number; y: number } {
  const n = { x: 0, y: 0 };
  for (let s: Setup | undefined = setup; s?.after;) {
    const { after }: Setup = s;
    // Turned about X, what runs up runs down; about Y, what runs right runs left.
    if (after!.turned === 'x') n.y++;
    if (after!.turned === 'y') n.x++;
    s = job.setups.find((q) => q.id === after!.setup);
  }
  return n;
}

/** Which axes of one set-up run the other way in another; on different blanks only where the one goes into the other, turned over. */
export function facing(job: Job, from: Setup, to: Setup): Facing {
  if (from.blank !== to.blank) {
    const fits = (a: Setup, b: Setup) => (a.fits?.setup === b.id ? a.fits.turned : null);
    const turned = fits(to, from) ?? fits(from, to);
    return turned === 'y' ? { x: -1, y: 1 } : turned === 'x' ? { x: 1, y: -1 } : SAME;
  }
  const [a, b] = [turnsUntil(from, job), turnsUntil(to, job)];
  return { x: (a.x + b.x) % 2 ? -1 : 1, y: (a.y + b.y) % 2 ? -1 : 1 };
}

interface Found {
  readonly item: Item;
  readonly setup: Setup;
}
/** The item of a job with an id; none where it is itself a link. */
function sourceWith(job: Job, id: string): Found | null {
  for (const setup of job.setups) {
    const item = itemsById(setup.items).get(id);
    if (item) return isLink(item) ? null : { item, setup };
  }
  return null;
}

/** What a link shows in a set-up, and where its source lies there; null where there is no source. */
function resolved(setup: Setup, job: Job, v: LinkedValues): { source: LinkedSource; x: number; y: number } | null {
  const found = sourceWith(job, v.item);
  if (!found) return null;
  const flip = v.through ? facing(job, found.setup, setup) : SAME;
  const { width, height } = job.blanks.find((b) => b.id === setup.blank)!;
  const { item } = found;
  return {
    source: { item, setup: { id: found.setup.id, name: found.setup.name }, flip },
    x: flip.x < 0 ? width - item.x : item.x,
    y: flip.y < 0 ? height - item.y : item.y,
  };
}

interface Seen {
  readonly from: LinkedSource['item'] | null;
  /** All else that it was made of. */
  readonly key: string;
  readonly item: Item;
}
const seen = new WeakMap<Item, Seen>();
/** A link as its set-up sees it; the same object as long as nothing that it shows has changed. */
function seenLink(setup: Setup, job: Job, kept: Item): Item {
  const r = resolved(setup, job, valuesOf(kept));
  const key = r
    ? `${r.x} ${r.y} ${r.source.flip.x} ${r.source.flip.y} ${r.source.setup.id} ${r.source.setup.name}`
    : '';
  const before = seen.get(kept);
  if (before && before.from === (r?.source.item ?? null) && before.key === key) return before.item;
  const values = { ...valuesOf(kept) };
  delete (values as { source?: unknown }).source;
  const item: Item = r
    ? { ...kept, x: kept.x + r.x, y: kept.y + r.y, values: { ...values, source: r.source } }
    : { ...kept, values };
  seen.set(kept, { from: r?.source.item ?? null, key, item });
  return item;
}

const lists = new WeakMap<readonly Item[], Item[]>();
/** The items of a set-up as it sees them: its own list where it has no links. */
export function seenItems(setup: Setup, job: Job): Item[] {
  if (!setup.items.some(isLink)) return setup.items;
  const now = setup.items.map((i) => (isLink(i) ? seenLink(setup, job, i) : i));
  const before = lists.get(setup.items);
  if (before?.every((i, k) => i === now[k])) return before;
  lists.set(setup.items, now);
  return now;
}

/** Items as a set-up sees them, as the job keeps them. What did not change stays the same object; so does the list. */
export function keptItems(setup: Setup, job: Job, items: Item[]): Item[] {
  if (!items.some(isLink)) return items;
  const own = itemsById(setup.items);
  const out = items.map((i) => {
    if (!isLink(i)) return i;
    const was = own.get(i.id);
    const wasSeen = was && isLink(was) ? seenLink(setup, job, was) : null;
    if (wasSeen === i) return was!;
    const { source: _, ...values } = valuesOf(i);
    const at = resolved(setup, job, values);
    // What was not moved keeps its distance to the last bit, and follows the source where it is shown from the other face.
    const x = wasSeen?.x === i.x ? was!.x : i.x - (at?.x ?? 0);
    const y = wasSeen?.y === i.y ? was!.y : i.y - (at?.y ?? 0);
    return { ...i, x, y, values };
  });
  return out.length === setup.items.length && out.every((i, k) => i === setup.items[k]) ? setup.items : out;
}

/** Items for a job of one set-up, in which nothing is there to be followed. */
export const withoutSources = (items: Item[]): Item[] =>
  items.some(isLink)
    ? items.map((i) => {
        if (!isLink(i)) return i;
        const { source: _, ...values } = valuesOf(i);
        return { ...i, values };
      })
    : items;

/** Whether an item can be followed from another set-up: pictures are never cut, and a link has an original that can be followed. */
export const canBeLinked = (i: Item): boolean => !isLink(i) && i.kind !== 'picture';

/** A link to an item of another set-up: where that lies on the blank, seen from this face. */
export const newLink = (id: string, source: Pick<Item, 'id' | 'name'>, layer: string): Item => ({
  id,
  name: source.name,
  kind: 'linked',
  visible: true,
  x: 0,
  y: 0,
  angle: 0,
  mirror: false,
  layer,
  group: null,
  values: { item: source.id, through: true, wide: 100, high: 100 },
});

/** Puts links to items of another set-up into a set-up, on its first layer that is shown and not locked. */
export function withLinks(
  job: Job,
  into: string,
  items: readonly Item[],
  freshId: () => string,
): { job: Job; ids: string[] } {
  const to = job.setups.find((s) => s.id === into)!;
  const layer = (to.layers.find((l) => l.visible && !l.locked) ?? to.layers[0]).id;
  const links = items.filter(canBeLinked).map((i) => newLink(freshId(), i, layer));
  const setups = job.setups.map((s) => (s === to ? { ...s, items: [...s.items, ...links] } : s));
  return { job: links.length ? { ...job, setups } : job, ids: links.map((l) => l.id) };
}

/**
 * A link as an item of its own that follows nothing any more: what it shows, in its place. Its id stays, so that cuts keep it.
 * Null where it has no source, or where it is scaled: then it can only be an outline.
 */
export function ownItem(link: Item): Item | null {
  const v = valuesOf(link);
  if (!v.source || v.wide !== 100 || v.high !== 100) return null;
  const { item, flip } = v.source;
  const outer = placement(0, 0, link.angle, link.mirror ? -1 : 1, 1);
  const inner = placement(0, 0, item.angle, item.mirror ? -1 : 1, 1);
  const [px, py] = [flip.x * inner.c, flip.y * inner.d];
  // The second column of a turn after a mirror is (-sin, cos), whether mirrored or not.
  const [c, d] = [outer.a * px + outer.c * py, outer.b * px + outer.d * py];
  const mirror = [link.mirror, item.mirror, flip.x < 0, flip.y < 0].filter(Boolean).length % 2 === 1;
  const angle = +((Math.atan2(-c, d) * 180) / Math.PI).toFixed(9);
  return { ...link, kind: item.kind, values: structuredClone(item.values), angle, mirror };
}

/** Whether a job holds what a link follows. */
export const hasSource = (job: Job, link: Item): boolean => !!sourceWith(job, valuesOf(link).item);

/** Links of a job whose source is not there, with the set-up that holds them. */
export const lostLinks = (job: Job): { item: Item; setup: Setup }[] =>
  job.setups.flatMap((setup) =>
    setup.items.flatMap((item) => (isLink(item) && !hasSource(job, item) ? [{ setup, item }] : [])),
  );
