/** A stretch of something, from one place to another. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** So much of what is drawn goes to the part that is looked at. */
const SHARE = 0.75;
/** A part that is more than this of the whole is no part. */
const MOST = 0.6;
/** So much beside what is seen is drawn as finely, as a share of it: one may look on a little. */
const BESIDE = 0.15;

/**
 * Which of `nodes` nodes `count` vertices stand at, the first and the last among them: evenly, or closer together in a part of them.
 *
 *      |    |    | | | | | | | | |    |    |
 *               from           to
 */
export function spread(count: number, nodes: number, part: Stretch | null): number[] {
  const even = (n: number, from: number, to: number): number[] =>
    Array.from({ length: n }, (_, i) => Math.round(from + (i * (to - from)) / n));
  // A handful has nothing to share out.
  if (!part || count < 8) return [...even(count - 1, 0, nodes - 1), nodes - 1];
  const { from, to } = part;
  const inside = Math.min(to - from, Math.round(SHARE * count));
  const outside = count - 1 - inside;
  const beyond = nodes - 1 - to;
  const left = from ? Math.max(1, Math.round((outside * from) / (from + beyond))) : 0;
  return [...even(left, 0, from), ...even(inside, from, to), ...even(outside - left, to, nodes - 1), nodes - 1];
}

/** The nodes to draw more finely where so much is seen of `nodes` that lie `cell` apart from `start` on; null: all alike. */
export function partOf(seen: Stretch | null, start: number, cell: number, nodes: number): Stretch | null {
  if (!seen) return null;
  const more = BESIDE * (seen.to - seen.from);
  const from = Math.max(0, Math.floor((seen.from - more - start) / cell));
  const to = Math.min(nodes - 1, Math.ceil((seen.to + more - start) / cell));
  // Written so that what is no number is no part.
  return to - from >= 2 && to - from < MOST * nodes ? { from, to } : null;
}

/** Whether what was drawn for one view does for another: all of it is in, and it is not drawn much more coarsely than it could be. */
export function servesAs(drawn: Stretch | null, wanted: Stretch | null): boolean {
  if (!drawn || !wanted) return drawn === wanted;
  const inside = drawn.from <= wanted.from && drawn.to >= wanted.to;
  return inside && drawn.to - drawn.from <= 1.6 * (wanted.to - wanted.from);
}
