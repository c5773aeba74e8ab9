import type { Grid } from './field';
import { shade } from './shade';

/** A form as it looks by itself, small: for each pixel, row 0 on top, how bright it is, 1 to 255; 0 where it is empty. */
export interface SmallPicture {
  readonly cols: number;
  readonly rows: number;
  readonly light: Uint8Array;
}

/** Heights are drawn as if they were so high, as a share of the longer side: fine textures and high domes both show. */
const RISES = 0.12;

/** So many nodes of a pixel are looked at along each side. */
const LOOKS = 8;

/** Heights of a form, cut to where it is, in at most `most` pixels along each side; no pixels where it is nowhere. */
export function smallPicture(z: Float32Array, g: Grid, most = 88): SmallPicture {
  let [left, right, low, high] = [g.cols, -1, g.rows, -1];
  let [lowest, highest] = [Infinity, -Infinity];
  for (let r = 0; r < g.rows; r++)
    for (let c = 0, i = r * g.cols; c < g.cols; c++, i++) {
      const h = z[i];
      if (h !== h) continue;
      if (c < left) left = c;
      if (c > right) right = c;
      if (r < low) low = r;
      high = r;
      if (h < lowest) lowest = h;
      if (h > highest) highest = h;
    }
  if (right < 0) return { cols: 0, rows: 0, light: new Uint8Array() };
  const [wide, tall] = [right - left + 1, high - low + 1];
  const step = Math.max(1, Math.max(wide, tall) / most);
  const [cols, rows] = [Math.max(1, Math.round(wide / step)), Math.max(1, Math.round(tall / step))];
  const by = highest > lowest ? (RISES * Math.max(cols, rows)) / (highest - lowest) : 0;
  const small = new Float32Array(cols * rows);
  const there = new Uint8Array(cols * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      // The highest of a few nodes of each pixel: what is thin is seen too.
      let h = NaN;
      for (let k = 0; k < LOOKS * LOOKS; k++) {
        const y = low + Math.min(tall - 1, Math.floor((r + ((k % LOOKS) + 0.5) / LOOKS) * (tall / rows)));
        const x = left + Math.min(wide - 1, Math.floor((c + (Math.floor(k / LOOKS) + 0.5) / LOOKS) * (wide / cols)));
        const at = z[y * g.cols + x];
        if (!(at <= h) && at === at) h = at;
      }
      there[r * cols + c] = Number(h === h);
      // What is empty lies as low as its lowest: the edge of what stands beside it shows.
      small[r * cols + c] = h === h ? (h - lowest) * by : 0;
    }
  // A line of nodes has no slope.
  const thin = cols < 2 || rows < 2;
  const lit = thin ? small.fill(1) : shade({ cols, rows, cell: 1, x0: 0, y0: 0, z: small }, cols, rows, 0);
  const light = new Uint8Array(cols * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++)
      if (there[(rows - 1 - r) * cols + c]) light[r * cols + c] = Math.max(1, Math.round(255 * lit[r * cols + c]));
  return { cols, rows, light };
}
