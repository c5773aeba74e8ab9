import type { Item } from '@/core/artwork/item';
import { JOB_VERSION, type Job, type OneSetup, type Setup } from '@/core/job/job';
import { readJob } from '@/core/job/migrate';
import { oneSetup, withSetup } from '@/core/job/oneSetup';
import { assetsOf } from '@/core/job/assets';
import { assetsIn, type OldLists } from '@/core/job/oldAssets';
import { itemsOfAll } from './keep';
import { db } from './db';

/**
 * Changes with the same key that follow each other are one step: by a text if they come quickly, as in typing; by a symbol always,
 * for it is one gesture, such as a drag, however long the hand rests in it.
 */
export type Merge = string | symbol;

/** One change of a job, as it is undone and redone. */
export interface Step {
  name: string;
  /** The whole job before and after: versions share everything that did not change. */
  before: Job;
  after: Job;
  merge: Merge | null;
  at: number;
}

/** What leads from one version of a list of items to another: items that differ or are new, and the order of all. */
interface ItemsDelta {
  readonly items: readonly Item[];
  readonly order: readonly string[] | null;
}

/** What leads from one version of a job to another: fields that differ, set-ups in their order, and what differs of each. */
export interface Delta {
  readonly set: Partial<Omit<Job, 'setups'>>;
  readonly setups: readonly ({ readonly id: string; readonly set: Partial<Omit<Setup, 'items'>> } & ItemsDelta)[];
}
/** The same, as it was kept when a job was one set-up. */
interface OldDelta extends ItemsDelta {
  readonly set: Partial<OneSetup>;
  readonly setups?: undefined;
}

export interface StepRow {
  key: string;
  jobId: string;
  name: string;
  back: Delta | OldDelta;
  forth: Delta | OldDelta;
  /** Of the format of the job. */
  version?: number;
}

/** Which steps lie before and behind the version that was saved as `revision`. */
export interface HistoryHead {
  key: string;
  jobId: string;
  revision: number;
  past: string[];
  future: string[];
}

/** How much of a history is kept, and how large a step of it may be, in what `sizeOf` counts; what lies before is let go. */
const ROOM = 400_000;
const LARGEST = 60_000;

/** About how much a value holds, in numbers and short words; beyond `most` it is not counted on, so that a large drawing costs no time. */
function sizeOf(value: unknown, most: number): number {
  const todo = [value];
  let size = 0;
  for (let v = todo.pop(); v !== undefined && size <= most; v = todo.pop()) {
    size += typeof v === 'string' ? 1 + v.length / 8 : 1;
    if (v && typeof v === 'object') for (const part of Object.values(v)) if (part !== undefined) todo.push(part);
  }
  return size;
}

/** Fields that differ, but for one; what is not there any more is undefined. */
function differing<T extends object>(from: Partial<T>, to: T, but: keyof T): Partial<T> {
  const set: Partial<T> = {};
  for (const key of Object.keys({ ...from, ...to }) as (keyof T)[])
    if (key !== but && from[key] !== to[key]) set[key] = to[key];
  return set;
}

function itemsDelta(from: readonly Item[], to: readonly Item[], elsewhere: ReadonlyMap<string, Item>): ItemsDelta {
  const same = from === to || (from.length === to.length && from.every((i, k) => i.id === to[k].id));
  return {
    items: from === to ? [] : to.filter((i) => elsewhere.get(i.id) !== i),
    order: same ? null : to.map((i) => i.id),
  };
}

export function deltaOf(from: Job, to: Job): Delta {
  let old: Map<string, Item> | null = null;
  const setups = to.setups.map((s) => {
    const was = from.setups.find((q) => q.id === s.id);
    if (was === s) return { id: s.id, set: {}, items: [], order: null };
    // Items may come from another set-up.
    old ??= new Map(itemsOfAll(from).map((i) => [i.id, i]));
    return { id: s.id, set: differing<Setup>(was ?? {}, s, 'items'), ...itemsDelta(was?.items ?? [], s.items, old) };
  });
  return { set: differing<Job>(from, to, 'setups'), setups };
}

/** Changed fields of a job; steps that were kept when fonts and pictures had lists of their own (up to version 8) change them together. */
function withAssets(job: Job, set: Delta['set']): Delta['set'] {
  const { fonts, pictures, ...rest } = set as Delta['set'] & OldLists;
  if (!fonts && !pictures) return set;
  const now = { fonts: fonts ?? assetsOf(job, 'font'), pictures: pictures ?? assetsOf(job, 'picture') };
  return { ...rest, assets: [...assetsIn(now)] };
}

export function applied(job: Job, d: Delta): Job {
  const moved = d.setups.some((s) => s.items.length || s.order);
  const items = new Map(moved ? [...itemsOfAll(job), ...d.setups.flatMap((s) => s.items)].map((i) => [i.id, i]) : []);
  const setups = d.setups.map(({ id, set, items: changed, order }) => {
    const was = job.setups.find((q) => q.id === id);
    const own = was?.items ?? [];
    if (was && !Object.keys(set).length && !changed.length && !order) return was;
    return {
      ...was,
      ...set,
      items: changed.length || order ? (order ?? own.map((i) => i.id)).map((k) => items.get(k)!) : own,
    } as Setup;
  });
  const same = setups.length === job.setups.length && setups.every((s, n) => s === job.setups[n]);
  return { ...job, ...withAssets(job, d.set), setups: same ? job.setups : setups };
}

/** A step that was kept when a job was one set-up. */
function appliedOld(job: Job, d: OldDelta): Job {
  const one = oneSetup(job);
  const now = new Map([...one.items, ...d.items].map((i) => [i.id, i]));
  return withSetup(job, {
    ...one,
    ...d.set,
    at: one.at,
    items: (d.order ?? one.items.map((i) => i.id)).map((id) => now.get(id)!),
  });
}

/** Steps that do not say of which version of a job they are: their numbers and names may be those of this one at the earliest. */
const FIRST_VERSION = 9;

/** The job on the other side of a step. What an earlier Mirvak kept there is as this one has it. */
function stepped(job: Job, d: Delta | OldDelta, version = FIRST_VERSION): Job {
  const there = d.setups ? applied(job, d) : appliedOld(job, d);
  if (version === JOB_VERSION) return there;
  try {
    return readJob({ ...there, version });
  } catch {
    return there;
  }
}

/** Keys of steps that have a row, or will have one, and how much room each takes. */
const rows = new WeakMap<Step, { key: string; size: number }>();

function rowOf(jobId: string, s: Step): StepRow & { size: number } {
  const known = rows.get(s);
  const made: StepRow = {
    key: known?.key ?? `${jobId}/${crypto.randomUUID()}`,
    jobId,
    version: JOB_VERSION,
    name: s.name,
    back: deltaOf(s.after, s.before),
    forth: deltaOf(s.before, s.after),
  };
  const size = known?.size ?? sizeOf([made.back, made.forth], LARGEST);
  rows.set(s, { key: made.key, size });
  return { ...made, size };
}

/** Keeps the history that goes with a saved revision: only steps that are not there (any more) are written. */
export async function keepSteps(
  jobId: string,
  revision: number,
  past: readonly Step[],
  future: readonly Step[],
): Promise<void> {
  const wanted = new Map<string, Step>();
  let slack = ROOM;
  const list = (steps: readonly Step[]): string[] => {
    const keys: string[] = [];
    for (const s of steps) {
      const { key, size } = rows.get(s) ?? rowOf(jobId, s);
      slack -= size;
      // Nothing farther can be reached without this one.
      if (slack < 0 || size > LARGEST) break;
      keys.push(key);
      wanted.set(key, s);
    }
    return keys;
  };
  // The nearest first, on both sides: what is farther is let go when there is no room.
  const head: HistoryHead = {
    key: jobId,
    jobId,
    revision,
    past: list([...past].reverse()).reverse(),
    future: list(future),
  };
  await db().transaction('rw', db().steps, db().histories, async () => {
    const there = new Set(await db().steps.where('jobId').equals(jobId).primaryKeys());
    // Another window of this job may have taken steps of this one away.
    const fresh = [...wanted].filter(([key]) => !there.has(key)).map(([, s]) => rowOf(jobId, s));
    await Promise.all([
      db().steps.bulkPut(fresh.map(({ size: _, ...row }) => row)),
      db().steps.bulkDelete([...there].filter((k) => !wanted.has(k))),
      db().histories.put(head),
    ]);
  });
}

/** Gives up the histories of all jobs, for the room that they take. */
export async function letHistoriesGo(): Promise<void> {
  await db().transaction('rw', db().steps, db().histories, async () => {
    await db().steps.clear();
    await db().histories.clear();
  });
}

/** The history that goes with a revision of a job; null where another window has saved since. */
export async function openSteps(
  jobId: string,
  revision: number,
  job: Job,
): Promise<{ past: Step[]; future: Step[] } | null> {
  const head = await db().histories.get(jobId);
  if (!head || head.revision !== revision) return null;
  const byKey = new Map((await db().steps.where('jobId').equals(jobId).toArray()).map((r) => [r.key, r]));
  const step = (row: StepRow, before: Job, after: Job): Step => {
    const s: Step = { name: row.name, before, after, merge: null, at: 0 };
    rows.set(s, { key: row.key, size: sizeOf([row.back, row.forth], LARGEST) });
    return s;
  };
  const past: Step[] = [];
  let now = job;
  for (const key of [...head.past].reverse()) {
    const row = byKey.get(key);
    if (!row) break;
    const before = stepped(now, row.back, row.version);
    past.unshift(step(row, before, now));
    now = before;
  }
  const future: Step[] = [];
  now = job;
  for (const key of head.future) {
    const row = byKey.get(key);
    if (!row) break;
    const after = stepped(now, row.forth, row.version);
    future.push(step(row, now, after));
    now = after;
  }
  return { past, future };
}
