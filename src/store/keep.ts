import type { Transaction } from 'dexie';
import type { Item } from '@/core/artwork/item';
import type { OneSetup } from '@/core/job/job';

/**
 * How a job lies in the database: its head in one row, every item of its artwork in a row of its own. A change writes the
 * head and the items that it changed, so that saving a letter's new place costs the same on a sheet of ten thousand things.
 */
export type JobHead = Omit<OneSetup, 'items'> & { order: string[] };

export interface ItemRow {
  /** Job and item: `jobId/itemId`. */
  key: string;
  jobId: string;
  item: Item;
}

/** What is written to bring the rows of a job from one version to another. */
export interface Difference {
  head: JobHead;
  items: Item[];
  gone: string[];
}

export const headOf = (job: OneSetup): JobHead => {
  const { items, ...rest } = job;
  return { ...rest, order: items.map((i) => i.id) };
};

/** Head and items to a job again; items whose rows are missing are left out. */
export function joined(head: JobHead, items: Iterable<Item>): OneSetup {
  const byId = new Map<string, Item>();
  for (const i of items) byId.set(i.id, i);
  const { order, ...rest } = head;
  return { ...rest, items: order.flatMap((id) => byId.get(id) ?? []) };
}

/**
 * What has to be written so that the rows become `job`, whichever of the versions in `bases` they hold now. Versions
 * share what did not change between them, so sameness is asked of the objects, not of their values. Null as a base: no row
 * is known to be right.
 */
export function difference(job: OneSetup, bases: (OneSetup | null)[]): Difference {
  const known = bases.map((b) => new Map(b?.items.map((i) => [i.id, i])));
  const now = new Set(job.items.map((i) => i.id));
  const gone = new Set<string>();
  for (const k of known) for (const id of k.keys()) if (!now.has(id)) gone.add(id);
  return { head: headOf(job), items: job.items.filter((i) => !known.length || known.some((k) => k.get(i.id) !== i)), gone: [...gone] };
}

/** Single values in a plain value: a measure of what writing it costs. */
function weight(v: unknown): number {
  if (typeof v !== 'object' || v === null) return typeof v === 'string' ? 1 + v.length / 20 : 1;
  let n = 1;
  for (const k of Object.values(v)) n += weight(k);
  return n;
}

/** Items in portions that are small enough to be written without holding up the page. */
export function* portions(items: Item[], most = 8000): Generator<Item[]> {
  let part: Item[] = [];
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

export const itemRow = (jobId: string, item: Item): ItemRow => ({ key: `${jobId}/${item.id}`, jobId, item });

/** Takes the items out of rows that held whole jobs (the database's first version). */
export async function splitRows(tx: Transaction): Promise<void> {
  const items: ItemRow[] = [];
  await tx.table('jobs').toCollection().modify((row: { id: string; job: OneSetup & Partial<JobHead> }) => {
    if (row.job.order) return;
    for (const i of row.job.items) items.push(itemRow(row.id, i));
    row.job = headOf(row.job) as JobHead & OneSetup;
  });
  await tx.table('items').bulkPut(items);
}
