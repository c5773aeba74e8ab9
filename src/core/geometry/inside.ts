import type { Loop } from './region';

/** Where loops cross a row, in order of x, and the winding to the right of each crossing. */
export interface Crossings {
  readonly xs: readonly { readonly x: number; readonly turn: number }[];
  readonly winding: Int32Array;
}

/**
 * Edges by bands of y, all bands equally high: those of band b are held[first[b]] to held[first[b + 1] - 1], four numbers each in `ends`.
 * There are so many bands that an edge lies in about two of them: a long upright one in many, which is what short ones make up for.
 */
function bandsOf(region: readonly Loop[]) {
  let [y0, y1, count, rise] = [Infinity, -Infinity, 0, 0];
  for (const l of region)
    for (let i = 1, j = l.length - 1; i < l.length; j = i, i += 2) {
      y0 = Math.min(y0, l[i]);
      y1 = Math.max(y1, l[i]);
      rise += Math.abs(l[i] - l[j]);
      count++;
    }
  const bands = Math.max(1, Math.min(4096, Math.floor((count * (y1 - y0)) / rise) || 1));
  const high = Math.max(1e-9, (y1 - y0) / bands);
  const band = (y: number) => Math.min(bands - 1, Math.max(0, Math.floor((y - y0) / high)));
  const ends = new Float64Array(4 * count);
  const first = new Int32Array(bands + 1);
  let k = 0;
  for (const l of region)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      // Level edges are crossed by no row.
      if (l[i + 1] === l[j + 1]) continue;
      ends[k++] = l[j];
      ends[k++] = l[j + 1];
      ends[k++] = l[i];
      ends[k++] = l[i + 1];
    }
  const each = (visit: (b: number, edge: number) => void) => {
    for (let e = 0; e < k; e += 4)
      for (let b = band(Math.min(ends[e + 1], ends[e + 3])); b <= band(Math.max(ends[e + 1], ends[e + 3])); b++)
        visit(b, e);
  };
  // Counted first, then filled in from behind.
  each((b) => first[b]++);
  for (let b = 0, sum = 0; b <= bands; b++) first[b] = sum += first[b];
  const held = new Int32Array(first[bands]);
  each((b, e) => (held[--first[b]] = e));
  return { y0, y1, band, ends, first, held };
}

/** Finds where loops cross rows, one row after the other: the crossings of the last row are kept. */
export function makeCrossings(region: readonly Loop[]): (y: number) => Crossings {
  const { y0, y1, band, ends, first, held } = bandsOf(region);
  let row = NaN;
  let known: Crossings = { xs: [], winding: new Int32Array(0) };
  return (y) => {
    if (y === row) return known;
    row = y;
    const xs: { x: number; turn: number }[] = [];
    if (y >= y0 && y <= y1) {
      const b = band(y);
      for (let k = first[b]; k < first[b + 1]; k++) {
        const e = held[k];
        const [ax, ay, bx, by] = [ends[e], ends[e + 1], ends[e + 2], ends[e + 3]];
        if (ay <= y !== by <= y) xs.push({ x: ax + ((bx - ax) * (y - ay)) / (by - ay), turn: by > ay ? 1 : -1 });
      }
      xs.sort((a, b) => a.x - b.x);
    }
    const winding = new Int32Array(xs.length);
    let sum = 0;
    for (let k = 0; k < xs.length; k++) winding[k] = sum += xs[k].turn;
    return (known = { xs, winding });
  };
}

/**
 * Whether points lie inside loops (non-zero winding), asked row by row: many points of one y cost a search for each stretch between
 * two crossings that they lie in.
 */
export function makeInside(region: readonly Loop[]): (x: number, y: number) => boolean {
  const crossings = makeCrossings(region);
  // The stretch that the last point lay in.
  let [row, from, to, was] = [NaN, 0, 0, false];
  return (x, y) => {
    if (y === row && x >= from && x < to) return was;
    const { xs, winding } = crossings(y);
    let a = 0;
    let b = xs.length;
    while (a < b) {
      const mid = (a + b) >> 1;
      if (xs[mid].x <= x) a = mid + 1;
      else b = mid;
    }
    row = y;
    from = a > 0 ? xs[a - 1].x : -Infinity;
    to = a < xs.length ? xs[a].x : Infinity;
    return (was = a > 0 && winding[a - 1] !== 0);
  };
}

/** Places of a row that lie evenly: the k-th at x0 + (first + k) * cell, mm. */
export interface Places {
  readonly x0: number;
  readonly first: number;
  readonly cell: number;
}

/** The same for so many places of a row: from which to before which of them lie inside, one stretch after the other. */
export function makeStretches(
  region: readonly Loop[],
): (y: number, places: Places, count: number) => readonly (readonly [from: number, to: number])[] {
  const crossings = makeCrossings(region);
  return (y, { x0, first, cell }, count) => {
    const { xs, winding } = crossings(y);
    /** The first place that does not lie before x. */
    const placeAt = (x: number): number => {
      let k = Math.min(count, Math.max(0, Math.ceil((x - x0) / cell) - first));
      // What was rounded may be one off.
      while (k > 0 && x0 + (first + k - 1) * cell >= x) k--;
      while (k < count && x0 + (first + k) * cell < x) k++;
      return k;
    };
    const out: [number, number][] = [];
    for (let k = 0; k + 1 < xs.length; k++) {
      if (!winding[k]) continue;
      const [from, to] = [placeAt(xs[k].x), placeAt(xs[k + 1].x)];
      if (to > from) out.push([from, to]);
    }
    return out;
  };
}
