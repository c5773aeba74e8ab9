import { stillWanted } from '../units/stillWanted';
import type { HeightField } from './field';

/**
 * The same bilinear surface by nodes that lie `times` as close. Between nodes of which one is empty (NaN) there is nothing: only the
 * nodes that were there before are.
 */
export function refined(
  f: HeightField,
  times: number,
  room: (nodes: number) => Float32Array = (n) => new Float32Array(n),
): HeightField {
  if (times <= 1) return f;
  const cols = (f.cols - 1) * times + 1;
  const rows = (f.rows - 1) * times + 1;
  const z = room(cols * rows);
  for (let r = 0; r < rows; r++) {
    stillWanted(cols);
    const r0 = Math.min(f.rows - 2, Math.floor(r / times));
    const v = r / times - r0;
    // Along a row of nodes the other row has no say, empty or not.
    const low = f.cols * (v === 1 ? r0 + 1 : r0);
    const high = f.cols * (v === 0 ? r0 : r0 + 1);
    for (let c = 0; c < f.cols - 1; c++) {
      const a = f.z[low + c] * (1 - v) + f.z[high + c] * v;
      const b = f.z[low + c + 1] * (1 - v) + f.z[high + c + 1] * v;
      const to = r * cols + c * times;
      z[to] = a;
      for (let k = 1; k < times; k++) z[to + k] = a + ((b - a) * k) / times;
    }
    z[r * cols + cols - 1] = f.z[low + f.cols - 1] * (1 - v) + f.z[high + f.cols - 1] * v;
  }
  return { ...f, cols, rows, cell: f.cell / times, z };
}
