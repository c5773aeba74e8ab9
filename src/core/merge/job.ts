import { jobSchema, type Job, type Setup } from '../job/job';
import { alike, isRecord } from './alike';
import { withChange, type Known } from './list';

/** Which of two versions counts at a place that both have changed. */
export type Side = 'mine' | 'theirs';

/** A place that both versions have changed, each in its own way. */
export interface Conflict {
  /** The way to the place, by keys and ids: `items`, an item's id, `values`, `text`. */
  readonly path: readonly string[];
  /** What stands there in each version; undefined where that version has taken the thing out. */
  readonly mine: unknown;
  readonly theirs: unknown;
}

export interface Merged {
  readonly job: Job;
  readonly conflicts: readonly Conflict[];
}

/** A place as one word, for choices. */
export const placeOf = (path: readonly string[]): string => path.join('/');

const isKnown = (v: unknown): v is Known[] =>
  Array.isArray(v) &&
  v.every((q) => isRecord(q) && typeof q.id === 'string') &&
  new Set(v.map((q) => (q as Known).id)).size === v.length;

/** `fresh`, with the very objects of `old` wherever they say the same: versions that share cost little to keep, compare and draw. */
export function sharing<T>(old: unknown, fresh: T): T {
  if (Object.is(old, fresh)) return fresh;
  if (Array.isArray(fresh) && Array.isArray(old)) {
    const byId = isKnown(old) && isKnown(fresh) ? new Map(old.map((v) => [v.id, v])) : null;
    const next = fresh.map((v, i) => sharing(byId ? byId.get((v as Known).id) : old[i], v));
    return (next.length === old.length && next.every((v, i) => Object.is(v, old[i])) ? old : next) as T;
  }
  if (!isRecord(fresh) || !isRecord(old)) return fresh;
  const keys = Object.keys(fresh);
  const next = Object.fromEntries(keys.map((k) => [k, sharing(old[k], fresh[k])]));
  return (
    keys.length === Object.keys(old).length && keys.every((k) => k in old && Object.is(next[k], old[k])) ? old : next
  ) as T;
}

const GONE = Symbol('gone');
type Choose = (path: readonly string[]) => Side;

/** Three-way merge of plain values: what one side alone has changed is as that side has it; what both have, as is chosen. */
function merge(
  base: unknown,
  mine: unknown,
  theirs: unknown,
  path: readonly string[],
  choose: Choose,
  conflicts: Conflict[],
): unknown {
  if (alike(mine, theirs) || alike(theirs, base)) return mine;
  if (alike(mine, base)) return theirs;
  if (isKnown(mine) && isKnown(theirs) && (isKnown(base) || base === undefined))
    return mergeLists(base ?? [], mine, theirs, path, choose, conflicts);
  if (isRecord(mine) && isRecord(theirs) && isRecord(base) && mine.kind === theirs.kind) {
    const out: Record<string, unknown> = {};
    for (const k of Object.keys({ ...theirs, ...mine })) {
      const v = merge(
        k in base ? base[k] : undefined,
        k in mine ? mine[k] : undefined,
        k in theirs ? theirs[k] : undefined,
        [...path, k],
        choose,
        conflicts,
      );
      if (v !== undefined) out[k] = v;
    }
    return out;
  }
  conflicts.push({ path, mine, theirs });
  return choose(path) === 'mine' ? mine : theirs;
}

function mergeLists(
  base: readonly Known[],
  mine: readonly Known[],
  theirs: readonly Known[],
  path: readonly string[],
  choose: Choose,
  conflicts: Conflict[],
): Known[] {
  const [b, m, t] = [base, mine, theirs].map((l) => new Map(l.map((v) => [v.id, v])));
  const settled = new Map<string, Known>();
  for (const id of new Set([...t.keys(), ...m.keys()])) {
    const [was, my, their] = [b.get(id), m.get(id), t.get(id)];
    let v: unknown;
    if (my && their) v = merge(was, my, their, [...path, id], choose, conflicts);
    else if (!was) v = my ?? their;
    // One side has taken it out: so be it, unless the other has changed it meanwhile.
    else if (alike(my ?? their, was)) v = GONE;
    else {
      conflicts.push({ path: [...path, id], mine: my, theirs: their });
      v = (choose([...path, id]) === 'mine' ? my : their) ?? GONE;
    }
    if (v !== GONE) settled.set(id, v as Known);
  }
  // The order: of mine where I moved something, else of theirs; what is missing there stands behind what it stood behind.
  const order = withChange(theirs, base, mine).map((v) => v.id);
  const rest = [...settled.keys()].filter((id) => !order.includes(id));
  for (const id of rest) {
    const list = m.has(id) ? mine : theirs;
    const before = list[list.findIndex((v) => v.id === id) - 1]?.id;
    order.splice(before === undefined ? 0 : order.indexOf(before) + 1 || order.length, 0, id);
  }
  return order.flatMap((id) => settled.get(id) ?? []);
}

/** The things of a list that are wanted and not there, from whichever list has them. */
function missing<T extends Known>(
  list: readonly T[],
  wanted: readonly (string | null)[],
  others: readonly (readonly T[])[],
): T[] {
  const there = new Set(list.map((v) => v.id));
  const out: T[] = [];
  for (const id of wanted) {
    if (id === null || there.has(id)) continue;
    there.add(id);
    const found = others.flatMap((o) => o.find((q) => q.id === id) ?? [])[0];
    if (found) out.push(found);
  }
  return out;
}

/** Layers and groups that things of a set-up lie on or belong to come back from whichever version has them. */
function completedSetup(s: Setup, versions: readonly Setup[]): Setup {
  const layers = missing(
    s.layers,
    s.items.map((i) => i.layer),
    versions.map((v) => v.layers),
  );
  let groups = s.groups;
  for (;;) {
    const more = missing(
      groups,
      [...s.items.map((i) => i.group), ...groups.map((g) => g.parent)],
      versions.map((v) => v.groups),
    );
    if (!more.length) break;
    groups = [...groups, ...more];
  }
  return !layers.length && groups === s.groups ? s : { ...s, layers: [...s.layers, ...layers], groups };
}

/** The same for a whole job: dialect, cutters, blanks too; a set-up whose source is gone starts from an uncut blank. */
function completed(job: Job, versions: readonly Job[]): Job {
  const dialects = missing(
    job.run.dialects,
    [job.run.dialect],
    versions.map((v) => v.run.dialects),
  );
  const cutters = missing(
    job.cutters,
    job.setups.flatMap((s) => s.cuts.flatMap((c) => Object.keys(c.overrides))),
    versions.map((v) => v.cutters),
  );
  const blanks = missing(
    job.blanks,
    job.setups.map((s) => s.blank),
    versions.map((v) => v.blanks),
  );
  const setups = job.setups.map((s, n) => {
    const whole = completedSetup(
      s,
      versions.flatMap((v) => v.setups.filter((q) => q.id === s.id)),
    );
    const source = s.after && job.setups.slice(0, n).find((q) => q.id === s.after!.setup);
    return s.after && source?.blank !== s.blank ? { ...whole, after: null } : whole;
  });
  if (!dialects.length && !cutters.length && !blanks.length && setups.every((s, n) => s === job.setups[n])) return job;
  return {
    ...job,
    blanks: [...job.blanks, ...blanks],
    setups,
    cutters: [...job.cutters, ...cutters],
    run: dialects.length ? { ...job.run, dialects: [...job.run.dialects, ...dialects] } : job.run,
  };
}

/**
 * Brings together two versions that were made of one job, `base`. What only one of them has changed (an item, a cut, a field)
 * is as it has it; where both have changed the same, `choose` says whose counts, and the place is told. Null where what comes
 * out of it is no sound job.
 */
export function mergeJobs(base: Job, mine: Job, theirs: Job, choose: Choose = () => 'mine'): Merged | null {
  const conflicts: Conflict[] = [];
  const job = completed(merge(base, mine, theirs, [], choose, conflicts) as Job, [mine, theirs, base]);
  return jobSchema.safeParse(job).success ? { job: sharing(mine, job), conflicts } : null;
}
