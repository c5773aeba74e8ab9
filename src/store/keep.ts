import type { Transaction } from 'dexie';
import type { Item } from '@/core/artwork/item';
import { contentKey } from '@/core/geometry/hash';
import type { Job, BlankPiece, Setup } from '@/core/job/job';

/**
 * How a job lies in the database: its head in one row, every item of its artwork in a row of its own. A change writes the
 * head and the items that it changed, so that saving a letter's new place costs the same on a sheet of ten thousand things.
 */
/** A set-up without its items: their ids instead. */
export type SetupHead = Omit<Setup, 'items'> & { order: string[] };
export type JobHead = Omit<Job, 'setups'> & { setups: SetupHead[] };
/** Heads as they were kept when a job was one set-up. */
type OldHead = { order: string[]; setups?: undefined };

export interface ItemRow {
  /** Job and item: `jobId/itemId`; for values alone, `jobId//` and their content key. */
  key: string;
  jobId: string;
  /** With its values, or without where `values` says in which row they lie. */
  item?: Item | Omit<Item, 'values'>;
  values?: string;
  /** In a row that holds nothing else: the values of items. */
  own?: Item['values'];
}

/** What is written to bring the rows of a job from one version to another. */
export interface Difference {
  head: JobHead;
  items: Item[];
  gone: string[];
  /** Large values that are in no row yet, and content keys of those that no item has any more. */
  values: Item['values'][];
  valuesGone: string[];
}

const withoutItems = ({ items, ...rest }: Setup): SetupHead => ({ ...rest, order: items.map((i) => i.id) });
export const headOf = (job: Job): JobHead => ({ ...job, setups: job.setups.map(withoutItems) });

/** All items of a job, of whichever set-up. */
export const itemsOfAll = (job: Job): Item[] => {
  // Before it is read, a job may be of an older version: then they stand in the job itself.
  const { setups } = job as Partial<Job>;
  if (!setups) return (job as unknown as { items: Item[] }).items;
  return setups.length === 1 ? setups[0].items : setups.flatMap((s) => s.items);
};

/** The first blank of a job on the shelf, of whichever version of the format. */
export const firstBlank = (head: JobHead | OldHead): Pick<BlankPiece, 'width' | 'height' | 'thickness' | 'material'> =>
  head.setups ? head.blanks[0] : (head as unknown as { blank: BlankPiece }).blank;

/** Whether anything of a job on the shelf is to be cut, or is shaped. */
export const anythingToSee = (head: JobHead | OldHead): boolean =>
  (head.setups ?? [head as unknown as SetupHead]).some(
    (s) => s.cuts.some((c) => c.enabled) || s.relief?.forms.some((f) => f.visible),
  );

/** Head and items to a job again, of whichever version of the format; items whose rows are missing are left out. */
export function joined(head: JobHead | OldHead, items: Iterable<Item>): Job {
  const byId = new Map<string, Item>();
  for (const i of items) byId.set(i.id, i);
  const filled = <T extends { order: string[] }>({ order, ...rest }: T) => ({
    ...rest,
    items: order.flatMap((id) => byId.get(id) ?? []),
  });
  return head.setups ? { ...head, setups: head.setups.map(filled) } : (filled(head) as unknown as Job);
}

/**
 * What has to be written so that the rows become `job`, whichever of the versions in `bases` they hold now. Versions
 * share what did not change between them, so sameness is asked of the objects, not of their values. Null as a base: no row
 * is known to be right.
 */
export function difference(job: Job, bases: (Job | null)[]): Difference {
  const known = bases.map((b) => new Map(b && itemsOfAll(b).map((i) => [i.id, i])));
  const items = itemsOfAll(job);
  const now = new Set(items.map((i) => i.id));
  const gone = new Set<string>();
  for (const k of known) for (const id of k.keys()) if (!now.has(id)) gone.add(id);
  const changed = items.filter((i) => !known.length || known.some((k) => k.get(i.id) !== i));
  const there = bases.map((b) => new Set(b && itemsOfAll(b).map((i) => i.values)));
  const fresh = changed.filter((i) => isLarge(i.values) && !(there.length && there.every((t) => t.has(i.values))));
  const held = new Set(items.map((i) => i.values));
  const left = bases.flatMap((b) => (b ? itemsOfAll(b) : [])).filter((i) => !held.has(i.values) && isLarge(i.values));
  const valuesGone = new Set(left.map((i) => contentKey(i.values)));
  // The same content in another object, or of another item.
  if (valuesGone.size) for (const v of held) if (isLarge(v)) valuesGone.delete(contentKey(v));
  return {
    head: headOf(job),
    items: changed,
    gone: [...gone],
    values: [...new Set(fresh.map((i) => i.values))],
    valuesGone: [...valuesGone],
  };
}

/** Values with so many single ones lie in a row of their own: an item of them that is moved is written without them. */
const LARGE = 600;
const large = new WeakMap<object, boolean>();
function isLarge(values: Item['values']): boolean {
  let is = large.get(values);
  if (is === undefined) large.set(values, (is = weight(values) > LARGE));
  return is;
}

/** Single values in a plain value: a measure of what writing it costs. */
function weight(v: unknown): number {
  if (typeof v !== 'object' || v === null) return typeof v === 'string' ? 1 + v.length / 20 : 1;
  let n = 1;
  for (const k of Object.values(v)) n += weight(k);
  return n;
}

/** Rows in portions that are small enough to be written without holding up the page. */
export function* portions<T>(items: readonly T[], most = 8000): Generator<T[]> {
  let part: T[] = [];
  let w = 0;
  for (const i of items) {
    part.push(i);
    if ((w += weight(i)) < most) continue;
    yield part;
    part = [];
    w = 0;
  }
  if (part.length) yield part;
}

export const itemKey = (jobId: string, id: string): string => `${jobId}/${id}`;
const valuesKey = (jobId: string, content: string): string => `${jobId}//${content}`;

export function itemRow(jobId: string, item: Item): ItemRow {
  const key = itemKey(jobId, item.id);
  if (!isLarge(item.values)) return { key, jobId, item };
  const { values, ...rest } = item;
  return { key, jobId, item: rest, values: valuesKey(jobId, contentKey(values)) };
}

/** Rows to be written for a difference, and keys of those to be taken out. */
export const rowsOf = (
  jobId: string,
  d: Omit<Difference, 'head'>,
): { readonly put: ItemRow[]; readonly out: string[] } => ({
  put: [
    ...d.values.map((own): ItemRow => ({ key: valuesKey(jobId, contentKey(own)), jobId, own })),
    ...d.items.map((i) => itemRow(jobId, i)),
  ],
  out: [...d.gone.map((id) => itemKey(jobId, id)), ...d.valuesGone.map((content) => valuesKey(jobId, content))],
});

/** The items of a job's rows; one whose values are missing is left out. */
export function itemsOfRows(rows: readonly ItemRow[]): Item[] {
  const own = new Map(rows.flatMap((r) => (r.own ? [[r.key, r.own] as const] : [])));
  return rows.flatMap((r): Item[] => {
    if (!r.item) return [];
    if (r.values === undefined) return [r.item as Item];
    const values = own.get(r.values);
    return values ? [{ ...r.item, values } as Item] : [];
  });
}

/** Takes the items out of rows that held whole jobs (the database's first version). */
export async function splitRows(tx: Transaction): Promise<void> {
  const items: ItemRow[] = [];
  await tx
    .table('jobs')
    .toCollection()
    .modify((row: { id: string; job: { items: Item[]; order?: string[] } }) => {
      if (row.job.order) return;
      const { items: own, ...rest } = row.job;
      for (const i of own) items.push(itemRow(row.id, i));
      (row as { job: unknown }).job = { ...rest, order: own.map((i) => i.id) };
    });
  await tx.table('items').bulkPut(items);
}
