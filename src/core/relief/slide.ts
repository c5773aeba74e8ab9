import { stillWanted } from '../units/stillWanted';
import type { Grid } from './field';

export type Size = Pick<Grid, 'cols' | 'rows'>;

/**
 * Slides a square window of 2 r + 1 nodes over a grid: `take` adds a row to sums of its columns (or takes it off: sense -1), how many
 * count first and then `kinds` sums; `give` gets a row of windows, each with the sums over it.
 */
export function slide(
  { cols, rows }: Size,
  r: number,
  kinds: number,
  take: (row: number, sense: 1 | -1, columns: readonly Float64Array[]) => void,
  give: (row: number, windows: readonly Float64Array[]) => void,
): void {
  const room = () => Array.from({ length: kinds + 1 }, () => new Float64Array(cols));
  const columns = room();
  const windows = room();
  for (let row = -r; row < rows; row++) {
    stillWanted(cols);
    if (row + r < rows) take(row + r, 1, columns);
    if (row - r > 0) take(row - r - 1, -1, columns);
    if (row < 0) continue;
    for (let k = 0; k <= kinds; k++) alongRow(columns[k], windows[k], r);
    give(row, windows);
  }
}

/** Sums of 2 r + 1 neighbours in a row; beyond its ends there is nothing. */
function alongRow(from: Float64Array, to: Float64Array, r: number): void {
  const n = from.length;
  const [left, right] = [Math.min(r + 1, n), Math.max(0, n - r)];
  let sum = 0;
  for (let c = 0; c < Math.min(r, n); c++) sum += from[c];
  if (n <= 2 * r + 1) {
    for (let c = 0; c < n; c++) {
      if (c + r < n) sum += from[c + r];
      if (c > r) sum -= from[c - r - 1];
      to[c] = sum;
    }
    return;
  }
  for (let c = 0; c < left; c++) to[c] = sum += from[c + r];
  for (let c = left; c < right; c++) to[c] = sum += from[c + r] - from[c - r - 1];
  for (let c = right; c < n; c++) to[c] = sum -= from[c - r - 1];
}

/** Means over square windows of 2 r + 1 nodes; empty nodes (NaN) stay empty and count for nothing. */
export function boxMeans(z: Float32Array, size: Size, r: number): Float32Array {
  const { cols } = size;
  const out = new Float32Array(z.length);
  slide(
    size,
    r,
    1,
    (row, sense, [n, sum]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++) {
        if (z[i] !== z[i]) continue;
        n[c] += sense;
        sum[c] += sense * z[i];
      }
    },
    (row, [n, sum]) => {
      for (let c = 0, i = row * cols; c < cols; c++, i++) out[i] = z[i] === z[i] ? sum[c] / n[c] : NaN;
    },
  );
  return out;
}
