import type { Loop } from './region';

/** Where loops cross a row, in order of x, and the winding to the right of each crossing. */
export interface Crossings {
  readonly xs: readonly { readonly x: number; readonly turn: number }[];
  readonly winding: Int32Array;
}

/** Finds where loops cross rows, one row after the other: the crossings of the last row are kept. */
export function makeCrossings(region: readonly Loop[]): (y: number) => Crossings {
  // Edges by bands of y, each sorted by its lowest y.
  let y0 = Infinity;
  let y1 = -Infinity;
  let count = 0;
  for (const l of region)
    for (let i = 1; i < l.length; i += 2) {
      y0 = Math.min(y0, l[i]);
      y1 = Math.max(y1, l[i]);
      count++;
    }
  const bands = Math.max(1, Math.min(4096, count >> 2));
  const high = Math.max(1e-9, (y1 - y0) / bands);
  const band = (y: number) => Math.min(bands - 1, Math.max(0, Math.floor((y - y0) / high)));
  const edges: number[][] = Array.from({ length: bands }, () => []);
  for (const l of region)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      if (l[i + 1] === l[j + 1]) continue;
      for (let b = band(Math.min(l[i + 1], l[j + 1])); b <= band(Math.max(l[i + 1], l[j + 1])); b++)
        edges[b].push(l[j], l[j + 1], l[i], l[i + 1]);
    }
  let row = NaN;
  let known: Crossings = { xs: [], winding: new Int32Array(0) };
  return (y) => {
    if (y === row) return known;
    row = y;
    const xs: { x: number; turn: number }[] = [];
    if (y >= y0 && y <= y1) {
      const e = edges[band(y)];
      for (let k = 0; k < e.length; k += 4) {
        const [ax, ay, bx, by] = [e[k], e[k + 1], e[k + 2], e[k + 3]];
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

/** Whether points lie inside loops (non-zero winding), asked row by row: many points of one y cost a search each. */
export function makeInside(region: readonly Loop[]): (x: number, y: number) => boolean {
  const crossings = makeCrossings(region);
  return (x, y) => {
    const { xs, winding } = crossings(y);
    let a = 0;
    let b = xs.length;
    while (a < b) {
      const mid = (a + b) >> 1;
      if (xs[mid].x <= x) a = mid + 1;
      else b = mid;
    }
    return a > 0 && winding[a - 1] !== 0;
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
