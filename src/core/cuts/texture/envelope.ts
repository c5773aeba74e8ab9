import type { Bounds } from '../../geometry/box';
import { heightOf, widthOf, type CutterForm } from '../../cutters/form';

/** So many places of a piece are asked: between two of them, at 45 degrees, it is out by a fiftieth of what they lie apart. */
const SPLITS = 4;

/**
 * Lowest that a cutter leaves at a place after going along lines whose heights change (x, y, z interleaved, mm); Infinity where it does
 * not come. Pieces of lines lie in buckets as wide as the cutter.
 */
export function alongStrokes(
  lines: readonly Float64Array[],
  form: CutterForm,
): { readonly box: Bounds; lowest(x: number, y: number): number } {
  let pieces = 0;
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const p of lines) {
    pieces += p.length / 3 - 1;
    for (let i = 0; i < p.length; i += 3) {
      [x0, x1] = [Math.min(x0, p[i]), Math.max(x1, p[i])];
      [y0, y1] = [Math.min(y0, p[i + 1]), Math.max(y1, p[i + 1])];
    }
  }
  // Nothing of the cutter above the face counts: its reach is that of its deepest.
  let deepest = 0;
  for (const p of lines) for (let i = 2; i < p.length; i += 3) deepest = Math.min(deepest, p[i]);
  const reach = widthOf(form, -deepest);
  const size = Math.max(reach, Math.sqrt(((x1 - x0) * (y1 - y0)) / 1e6), 1e-3);
  const cols = Math.floor((x1 - x0) / size) + 1;
  const rows = Math.floor((y1 - y0) / size) + 1;
  const held = new Map<number, number[]>();
  const s = new Float64Array(6 * pieces);
  const bucket = (v: number, from: number, n: number) => Math.max(0, Math.min(n - 1, Math.floor((v - from) / size)));
  let k = 0;
  for (const p of lines)
    for (let i = 3; i < p.length; i += 3, k++) {
      s.set(p.subarray(i - 3, i + 3), 6 * k);
      const [c0, c1] = [bucket(Math.min(p[i - 3], p[i]), x0, cols), bucket(Math.max(p[i - 3], p[i]), x0, cols)];
      const [r0, r1] = [bucket(Math.min(p[i - 2], p[i + 1]), y0, rows), bucket(Math.max(p[i - 2], p[i + 1]), y0, rows)];
      for (let r = r0; r <= r1; r++)
        for (let c = c0; c <= c1; c++) {
          const q = r * cols + c;
          const list = held.get(q);
          if (list) list.push(k);
          else held.set(q, [k]);
        }
    }
  const far = reach * reach;
  const lowestOver = (i: number, x: number, y: number): number => {
    const [ax, ay, az] = [s[6 * i], s[6 * i + 1], s[6 * i + 2]];
    const [ex, ey, ez] = [s[6 * i + 3] - ax, s[6 * i + 4] - ay, s[6 * i + 5] - az];
    const long = ex * ex + ey * ey;
    const near = long > 0 ? Math.max(0, Math.min(1, ((x - ax) * ex + (y - ay) * ey) / long)) : 0;
    const at = (t: number) => {
      const [dx, dy] = [x - ax - t * ex, y - ay - t * ey];
      const d = dx * dx + dy * dy;
      return d < far ? az + t * ez + heightOf(form, Math.sqrt(d)) : Infinity;
    };
    let low = at(near);
    if (low < Infinity && ez !== 0) for (let j = 0; j <= SPLITS; j++) low = Math.min(low, at(j / SPLITS));
    return low;
  };
  const box: Bounds = { x0: x0 - reach, y0: y0 - reach, x1: x1 + reach, y1: y1 + reach };
  const lowest = (x: number, y: number): number => {
    if (x < box.x0 || x > box.x1 || y < box.y0 || y > box.y1) return Infinity;
    let low = Infinity;
    const [c, r] = [Math.floor((x - x0) / size), Math.floor((y - y0) / size)];
    for (let q = Math.max(0, r - 1); q <= Math.min(rows - 1, r + 1); q++)
      for (let p = Math.max(0, c - 1); p <= Math.min(cols - 1, c + 1); p++) {
        const list = held.get(q * cols + p);
        if (list) for (const i of list) low = Math.min(low, lowestOver(i, x, y));
      }
    return low;
  };
  return { box, lowest };
}
