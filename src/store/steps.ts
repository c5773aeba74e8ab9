import type { OneSetup } from '@/core/job/job';
import { db } from './db';

/** One change of a job, as it is undone and redone. */
export interface Step {
  name: string;
  /** The whole job before and after: versions share everything that did not change. */
  before: OneSetup;
  after: OneSetup;
  /** Steps with the same key that follow each other quickly are one step: dragging, typing. */
  merge: string | null;
  at: number;
}

/** What leads from one version of a job to another: fields that differ, items that differ or are new, and the order of all. */
export interface Delta {
  readonly set: Partial<OneSetup>;
  readonly items: OneSetup['items'];
  readonly order: readonly string[] | null;
}

export interface StepRow {
  key: string;
  jobId: string;
  name: string;
  back: Delta;
  forth: Delta;
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

export function deltaOf(from: OneSetup, to: OneSetup): Delta {
  const set: Record<string, unknown> = {};
  for (const key of Object.keys({ ...from, ...to }) as (keyof OneSetup)[]) if (key !== 'items' && from[key] !== to[key]) set[key] = to[key];
  const old = new Map(from.items.map((i) => [i.id, i]));
  const same = from.items.length === to.items.length && from.items.every((i, k) => i.id === to.items[k].id);
  return { set: set as Partial<OneSetup>, items: to.items.filter((i) => old.get(i.id) !== i), order: same ? null : to.items.map((i) => i.id) };
}

export function applied(job: OneSetup, d: Delta): OneSetup {
  const next = { ...job, ...d.set };
  if (!d.items.length && !d.order) return next;
  const now = new Map([...job.items, ...d.items].map((i) => [i.id, i]));
  return { ...next, items: (d.order ?? job.items.map((i) => i.id)).map((id) => now.get(id)!) };
}

/** Keys of steps that have a row, or will have one, and how much room each takes. */
const rows = new WeakMap<Step, { key: string; size: number }>();

function rowOf(jobId: string, s: Step): StepRow & { size: number } {
  const known = rows.get(s);
  const made: StepRow = { key: known?.key ?? `${jobId}/${crypto.randomUUID()}`, jobId, name: s.name, back: deltaOf(s.after, s.before), forth: deltaOf(s.before, s.after) };
  const size = known?.size ?? sizeOf([made.back, made.forth], LARGEST);
  rows.set(s, { key: made.key, size });
  return { ...made, size };
}

/** Keeps the history that goes with a saved revision: only steps that are not there (any more) are written. */
export async function keepSteps(jobId: string, revision: number, past: readonly Step[], future: readonly Step[]): Promise<void> {
  const wanted = new Map<string, Step>();
  let room = ROOM;
  const list = (steps: readonly Step[]): string[] => {
    const keys: string[] = [];
    for (const s of steps) {
      const { key, size } = rows.get(s) ?? rowOf(jobId, s);
      room -= size;
      // Nothing farther can be reached without this one.
      if (room < 0 || size > LARGEST) break;
      keys.push(key);
      wanted.set(key, s);
    }
    return keys;
  };
  // The nearest first, on both sides: what is farther is let go when there is no room.
  const head: HistoryHead = { key: jobId, jobId, revision, past: list([...past].reverse()).reverse(), future: list(future) };
  await db().transaction('rw', db().steps, db().histories, async () => {
    const there = new Set(await db().steps.where('jobId').equals(jobId).primaryKeys());
    // Another window of this job may have taken steps of this one away.
    const fresh = [...wanted].filter(([key]) => !there.has(key)).map(([, s]) => rowOf(jobId, s));
    await db().steps.bulkPut(fresh.map(({ size: _, ...row }) => row));
    await db().steps.bulkDelete([...there].filter((k) => !wanted.has(k)));
    await db().histories.put(head);
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
export async function openSteps(jobId: string, revision: number, job: OneSetup): Promise<{ past: Step[]; future: Step[] } | null> {
  const head = await db().histories.get(jobId);
  if (!head || head.revision !== revision) return null;
  const byKey = new Map((await db().steps.where('jobId').equals(jobId).toArray()).map((r) => [r.key, r]));
  const step = (row: StepRow, before: OneSetup, after: OneSetup): Step => {
    const s: Step = { name: row.name, before, after, merge: null, at: 0 };
    rows.set(s, { key: row.key, size: sizeOf([row.back, row.forth], LARGEST) });
    return s;
  };
  const past: Step[] = [];
  let now = job;
  for (const key of [...head.past].reverse()) {
    const row = byKey.get(key);
    if (!row) break;
    const before = applied(now, row.back);
    past.unshift(step(row, before, now));
    now = before;
  }
  const future: Step[] = [];
  now = job;
  for (const key of head.future) {
    const row = byKey.get(key);
    if (!row) break;
    const after = applied(now, row.forth);
    future.push(step(row, now, after));
    now = after;
  }
  return { past, future };
}
