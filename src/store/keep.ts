import type { Transaction } from 'dexie';
import type { Item } from '@/core/artwork/item';
import type { Job, Piece, Setup } from '@/core/job/job';

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
export const firstBlank = (head: JobHead | OldHead): Pick<Piece, 'width' | 'height' | 'thickness' | 'material'> =>
  head.setups ? head.blanks[0] : (head as unknown as { blank: Piece }).blank;

/** Whether anything of a job on the shelf is to be cut. */
export const anyCut = (head: JobHead | OldHead): boolean =>
  (head.setups ?? [head as unknown as SetupHead]).some((s) => s.cuts.some((c) => c.enabled));

/** Head and items to a job again, of whichever version of the format; items whose rows are missing are left out. */
export function joined(head: JobHead | OldHead, items: Iterable<Item>): Job {
  const byId = new Map<string, Item>();
  for (const i of items) byId.set(i.id, i);
  const filled = <T extends { order: string[] }>({ order, ...rest }: T) => ({ ...rest, items: order.flatMap((id) => byId.get(id) ?? []) });
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
  return { head: headOf(job), items: items.filter((i) => !known.length || known.some((k) => k.get(i.id) !== i)), gone: [...gone] };
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
