import { derived } from '../geometry/hash';
import type { Places } from '../geometry/inside';

/**
 * A height field: node-centred, row-major, row 0 at the lowest y. Node (c, r) stands at
 * (x0 + c * cell, y0 + r * cell); z in mm, 0 = top face of the blank.
 */
export interface HeightField {
  readonly cols: number;
  readonly rows: number;
  readonly cell: number;
  readonly x0: number;
  readonly y0: number;
  readonly z: Float32Array;
}

/** Where the nodes of a field stand. */
export type Grid = Omit<HeightField, 'z'> & {
  /** Of a part of a grid, whose y0 is that of the whole: which row of the whole is its first; 0 where it is not said. */
  readonly first?: number;
};

/** Where a row stands: to the last bit the same in a part of a grid as in the whole. */
export const yOf = (g: Grid, row: number): number => g.y0 + ((g.first ?? 0) + row) * g.cell;

/** The nodes of a field over the rectangle (0, 0)..(width, height), at most `cell` apart. */
export const gridOf = (width: number, height: number, cell: number): Grid => ({
  cols: Math.max(2, Math.floor(width / cell + 1e-9) + 1),
  rows: Math.max(2, Math.floor(height / cell + 1e-9) + 1),
  cell,
  x0: 0,
  y0: 0,
});

/** A flat field over the rectangle (0, 0)..(width, height) with nodes at most `cell` apart; `memory` gives room for its heights. */
export function flatField(
  width: number,
  height: number,
  cell: number,
  z = 0,
  memory: (heights: number) => Float32Array = (n) => new Float32Array(n),
): HeightField {
  const grid = gridOf(width, height, cell);
  const data = memory(grid.cols * grid.rows);
  if (z) data.fill(z);
  return { ...grid, z: data };
}

/** A field whose empty nodes (NaN) stand at a height: what is left of a blank round a relief. */
export function filled(f: HeightField, at = 0): HeightField {
  const z = f.z.slice();
  for (let i = 0; i < z.length; i++) if (z[i] !== z[i]) z[i] = at;
  return { ...f, z };
}

/** Height at a point by bilinear interpolation; NaN outside. */
export function heightAt(f: HeightField, x: number, y: number): number {
  const u = (x - f.x0) / f.cell;
  const v = (y - f.y0) / f.cell;
  if (!(u >= 0 && v >= 0 && u <= f.cols - 1 && v <= f.rows - 1)) return NaN;
  const c = Math.min(f.cols - 2, Math.floor(u));
  const r = Math.min(f.rows - 2, Math.floor(v));
  const fu = u - c;
  const fv = v - r;
  const i = r * f.cols + c;
  return (
    (f.z[i] * (1 - fu) + f.z[i + 1] * fu) * (1 - fv) + (f.z[i + f.cols] * (1 - fu) + f.z[i + f.cols + 1] * fu) * fv
  );
}

/** The same at places of a row, from the `from`-th to before the `to`-th: `out[k]` is what `heightAt` says of the k-th. */
export function heightsAlong(
  f: HeightField,
  y: number,
  places: Places,
  from: number,
  to: number,
  out: Float32Array,
): void {
  const { z, cols } = f;
  const v = (y - f.y0) / f.cell;
  if (!(v >= 0 && v <= f.rows - 1)) {
    out.fill(NaN, from, to);
    return;
  }
  const r = Math.min(f.rows - 2, Math.floor(v));
  const fv = v - r;
  for (let k = from; k < to; k++) {
    const u = (places.x0 + (places.first + k) * places.cell - f.x0) / f.cell;
    if (!(u >= 0 && u <= cols - 1)) {
      out[k] = NaN;
      continue;
    }
    const c = Math.min(cols - 2, Math.floor(u));
    const fu = u - c;
    const i = r * cols + c;
    out[k] = (z[i] * (1 - fu) + z[i + 1] * fu) * (1 - fv) + (z[i + cols] * (1 - fu) + z[i + cols + 1] * fu) * fv;
  }
}

/** A field by at most so many nodes: every second of both ways, or every third, and so on. */
export function sparser(f: HeightField, most: number): HeightField {
  const step = Math.ceil(Math.sqrt(f.z.length / most));
  if (step <= 1) return f;
  const [cols, rows] = [Math.floor((f.cols - 1) / step) + 1, Math.floor((f.rows - 1) / step) + 1];
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++) for (let c = 0; c < cols; c++) z[r * cols + c] = f.z[r * step * f.cols + c * step];
  return { ...f, cols, rows, cell: f.cell * step, z };
}

/** The same, raised beside what stands above it between its nodes: it lies nowhere below a node that it leaves out. */
export const sparserOver = (f: HeightField, most: number): HeightField =>
  sparsest(f, `${most}`, () => raisedOver(f, sparser(f, most)));
const sparsest = derived<HeightField, HeightField>();

function raisedOver(f: HeightField, thin: HeightField): HeightField {
  if (thin === f) return f;
  const step = Math.round(thin.cell / f.cell);
  const z = thin.z.slice();
  /** Of each square of a row of them: most that stands above it, and the highest beside what is empty, where nothing lies between. */
  const over = new Float64Array(thin.cols);
  const alone = new Float64Array(thin.cols);
  for (let low = 0; low < thin.rows; low++) {
    over.fill(0);
    alone.fill(-Infinity);
    for (let r = low * step; r < Math.min(f.rows, (low + 1) * step); r++)
      overSquares(f, thin, r, low, step, over, alone);
    raiseSquares(thin, z, low, over, alone);
  }
  return { ...thin, z };
}

/** Notes what nodes of one row of a field stand above the squares of nodes of a thinner one that they lie in. */
function overSquares(
  f: HeightField,
  thin: HeightField,
  r: number,
  low: number,
  step: number,
  over: Float64Array,
  alone: Float64Array,
): void {
  const { z } = thin;
  const south = low * thin.cols;
  const north = low + 1 < thin.rows ? south + thin.cols : south;
  const v = (r - low * step) / step;
  const beyond = v > 0 && north === south;
  const end = (r + 1) * f.cols;
  for (let c = 0, first = r * f.cols; c < thin.cols; c++, first += step) {
    const from = beyond ? NaN : z[south + c] + (z[north + c] - z[south + c]) * v;
    const east = c + 1 < thin.cols ? z[south + c + 1] + (z[north + c + 1] - z[south + c + 1]) * v : NaN;
    const slope = (east - from) / step;
    const to = first + step < end ? first + step : end;
    for (let i = v === 0 ? first + 1 : first; i < to; i++) {
      const h = f.z[i];
      const d = h - (i > first ? from + slope * (i - first) : from);
      if (d > over[c]) over[c] = d;
      else if (d !== d && h > alone[c]) alone[c] = h;
    }
  }
}

/** Raises the corners of a row of squares: by what stands above them, or to what stands beside what is empty. */
function raiseSquares(thin: HeightField, z: Float32Array, low: number, over: Float64Array, alone: Float64Array): void {
  const { cols } = thin;
  const north = low + 1 < thin.rows ? cols : 0;
  for (let c = 0; c < cols; c++) {
    const east = c + 1 < cols ? 1 : 0;
    for (let q = 0; q < 4; q++) {
      const i = low * cols + c + (q & 1 ? east : 0) + (q & 2 ? north : 0);
      const h = thin.z[i] + over[c];
      if (over[c] > 0 && h > z[i]) z[i] = h;
      if (alone[c] > -Infinity && !(z[i] >= alone[c])) z[i] = alone[c];
    }
  }
}

/** Fills a field with heights of another one, bilinear between its nodes; beyond its outer nodes it goes on level. */
export function fillFrom(from: HeightField, f: HeightField): void {
  const at = (v: number, first: number, count: number): [node: number, share: number] => {
    const u = Math.min(count - 1, Math.max(0, (v - first) / from.cell));
    const node = Math.min(count - 2, Math.floor(u));
    return [node, u - node];
  };
  const across = Array.from({ length: f.cols }, (_, c) => at(f.x0 + c * f.cell, from.x0, from.cols));
  const nodes = Int32Array.from(across, (a) => a[0]);
  const shares = Float64Array.from(across, (a) => a[1]);
  const { z } = from;
  for (let r = 0; r < f.rows; r++) {
    const [row, up] = at(f.y0 + r * f.cell, from.y0, from.rows);
    for (let c = 0; c < f.cols; c++) {
      const i = row * from.cols + nodes[c];
      const s = shares[c];
      f.z[r * f.cols + c] =
        (z[i] * (1 - s) + z[i + 1] * s) * (1 - up) + (z[i + from.cols] * (1 - s) + z[i + from.cols + 1] * s) * up;
    }
  }
}
