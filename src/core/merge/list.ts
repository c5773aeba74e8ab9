import { alike } from './alike';

/** A thing in a list that is known by its id. */
export interface Known {
  readonly id: string;
}

/**
 * A list in which a change that was made to another version of it (from `from` to `to`) is made too: what was taken out,
 * put in or changed there is so here, and what others have done meanwhile stays. Where the change moved things, those of
 * `to` stand in its order, and others behind the one that they stood behind.
 */
export function withChange<T extends Known>(now: readonly T[], from: readonly T[], to: readonly T[]): T[] {
  const was = new Map(from.map((c) => [c.id, c]));
  const will = new Map(to.map((c) => [c.id, c]));
  // What this change says nothing of is as it is now.
  const kept = now
    .filter((c) => !was.has(c.id) || will.has(c.id))
    .map((c) => (will.has(c.id) && !alike(was.get(c.id), will.get(c.id)) ? will.get(c.id)! : c));
  const here = new Map(kept.map((c) => [c.id, c]));
  const added = to.filter((c) => !was.has(c.id) && !here.has(c.id));
  const common = (list: readonly T[]) => list.filter((c) => was.has(c.id) && will.has(c.id)).map((c) => c.id);
  const moved = common(from).join('\n') !== common(to).join('\n');
  // The backbone: the order of the change where it moved something, else that which is there.
  const spine = moved ? to.flatMap((c) => here.get(c.id) ?? (was.has(c.id) ? [] : [c])) : kept;
  const rest = moved
    ? kept.filter((c) => !will.has(c.id)).map((c) => ({ c, after: before(kept, c.id) }))
    : added.map((c) => ({ c, after: before(to, c.id) }));
  const out = [...spine];
  for (const { c, after } of rest)
    out.splice(after === null ? 0 : out.findIndex((q) => q.id === after) + 1 || out.length, 0, c);
  return out;
}

/** The id that stands before another one in a list; null for the first. */
const before = (list: readonly Known[], id: string): string | null =>
  list[list.findIndex((c) => c.id === id) - 1]?.id ?? null;
