import { hashFloats, sizedMemo } from './hash';
import { UNITS_PER_MM } from './places';
import { boxOfLoop, type Loop } from './loop';

/**
 * Work on outlines wherever they lie. What is worked out of an outline is the same, only elsewhere, when the outline is moved: so
 * it is worked out about the outline's first corner, in units of the 10 nm grid, and kept under what it looks like there. A
 * letter that stands further right costs no more than one that stands where it was.
 */
export interface Local {
  /** Loops in grid units about the first corner. */
  readonly loops: Float64Array[];
  /** Where that corner lies, grid units. */
  readonly x: number;
  readonly y: number;
  /** Whether all corners lay on the grid. */
  readonly exact: boolean;
}

/** How much outlines hold: an outline without corners takes some room too. */
export function cornersOf(loops: readonly Float64Array[]): number {
  return loops.reduce((n, l) => n + l.length / 2, 10);
}

/** So far off the grid, in units of it, a coordinate counts as lying on it: the rounding of doubles. */
const ROUNDING = 1e-3;

export function toLocal(loops: readonly Loop[]): Local {
  const x = Math.round((loops[0]?.[0] ?? 0) * UNITS_PER_MM);
  const y = Math.round((loops[0]?.[1] ?? 0) * UNITS_PER_MM);
  let exact = true;
  const out = loops.map((l) => {
    const to = new Float64Array(l.length);
    for (let i = 0; i < l.length; i++) {
      const v = l[i] * UNITS_PER_MM;
      const n = Math.round(v);
      if (exact && !(Math.abs(v - n) < ROUNDING)) exact = false;
      to[i] = n - (i & 1 ? y : x);
    }
    return to;
  });
  return { loops: out, x, y, exact };
}

/** Loops in grid units about a place, in mm. */
export const fromLocal = (loops: readonly Float64Array[], x: number, y: number): Loop[] =>
  loops.map((l) => {
    const out = new Float64Array(l.length);
    for (let i = 0; i < l.length; i += 2) {
      out[i] = (l[i] + x) / UNITS_PER_MM;
      out[i + 1] = (l[i + 1] + y) / UNITS_PER_MM;
    }
    return out;
  });

/** So many corners, and outlines, are kept: some 60 MB. */
const MOST_CORNERS = 3e6;
const kept = sizedMemo<readonly Float64Array[]>(MOST_CORNERS, cornersOf);
/** More corners than this are not kept: they would push out everything else. */
const LARGE = 8000;

/** Works loops out of others, about their first corner, or takes what was kept. `as` names the work and its numbers. */
export function workedOut(
  as: string,
  loops: readonly Loop[],
  work: (loops: readonly Float64Array[]) => Float64Array[],
): Loop[] {
  const at = toLocal(loops);
  const made =
    cornersOf(at.loops) > LARGE ? work(at.loops) : kept(`${as} ${hashFloats(at.loops)}`, () => work(at.loops));
  return fromLocal(made, at.x, at.y);
}

/** Outlines moved by so many mm, and on the grid as they were. */
export const movedLoops = (loops: readonly Loop[], x: number, y: number): Loop[] =>
  loops.map((l) => l.map((v, i) => Math.round((v + (i & 1 ? y : x)) * UNITS_PER_MM) / UNITS_PER_MM));

/**
 * Keeps what is worked out of loops and is not loops alone, `most` of it by `sizeOf`. It is worked out about their first corner
 * and has to be moved by x, y mm. Loops that lie off the grid are worked on where they lie, and nothing is kept of them. `as`
 * names the numbers of the work.
 */
export function keptAnywhere<T>(most: number, sizeOf: (value: T) => number) {
  const kept = sizedMemo<T>(most, sizeOf);
  return (
    as: string,
    loops: readonly Loop[],
    work: (loops: Loop[]) => T,
  ): { readonly value: T; readonly x: number; readonly y: number } => {
    const at = toLocal(loops);
    if (!at.exact) return { value: work([...loops]), x: 0, y: 0 };
    const value = kept(`${as} ${hashFloats(at.loops)}`, () => work(fromLocal(at.loops, 0, 0)));
    return { value, x: at.x / UNITS_PER_MM, y: at.y / UNITS_PER_MM };
  };
}

/** More loops than this are taken as one group: finding out would cost more than it saves. */
const MANY = 20_000;

/**
 * Loops in groups whose boxes lie further apart than `reach` mm: what is done to one group has nothing to do with the others.
 * Numbers of loops, in order.
 */
export function groupsOf(loops: readonly Loop[], reach: number): number[][] {
  if (loops.length < 2 || loops.length > MANY) return [loops.map((_, i) => i)];
  const boxes = loops.map(boxOfLoop);
  const parent = loops.map((_, i) => i);
  const root = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  };
  const order = loops.map((_, i) => i).sort((a, b) => boxes[a].x0 - boxes[b].x0);
  let open: number[] = [];
  for (const i of order) {
    const b = boxes[i];
    open = open.filter((k) => boxes[k].x1 + reach >= b.x0);
    for (const k of open) if (boxes[k].y0 <= b.y1 + reach && boxes[k].y1 + reach >= b.y0) parent[root(k)] = root(i);
    open.push(i);
  }
  const groups = new Map<number, number[]>();
  loops.forEach((_, i) => {
    const r = root(i);
    const g = groups.get(r);
    if (g) g.push(i);
    else groups.set(r, [i]);
  });
  return [...groups.values()];
}
