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

/** So many nodes of a pixel are looked at along each side, at most. */
const LOOKS = 8;

/** Heights of a form, cut to where it is, in at most `most` pixels along each side; no pixels where it is nowhere. */
export function smallPicture(z: Float32Array, g: Grid, most = 88): SmallPicture {
  const at = within(z, g);
  if (!at) return { cols: 0, rows: 0, light: new Uint8Array() };
  const { left, low, wide, tall, lowest, highest } = at;
  const step = Math.max(1, Math.max(wide, tall) / most);
  const [cols, rows] = [Math.max(1, Math.round(wide / step)), Math.max(1, Math.round(tall / step))];
  const by = highest > lowest ? (RISES * Math.max(cols, rows)) / (highest - lowest) : 0;
  // The nodes that are looked at: so many for each pixel, all of them where it has few; those between two pixels belong to both.
  const looks = (pixels: number, nodes: number) => {
    const n = Math.min(LOOKS, 2 * Math.ceil(nodes / pixels));
    const places = new Int32Array(n * pixels);
    for (let k = 0; k < places.length; k++)
      places[k] = Math.min(nodes - 1, Math.floor((k + 0.5) * (nodes / places.length)));
    return { n, places };
  };
  const across = looks(cols, wide);
  const up = looks(rows, tall);
  const small = new Float32Array(cols * rows).fill(NaN);
  // The highest of a few nodes of each pixel: what is thin is seen too.
  for (let y = 0; y < up.places.length; y++) {
    const row = (low + up.places[y]) * g.cols + left;
    const to = Math.floor(y / up.n) * cols;
    highestOf(small, to, z, row, across.places, across.n);
  }
  const there = new Uint8Array(cols * rows);
  for (let i = 0; i < small.length; i++) {
    const h = small[i];
    there[i] = Number(h === h);
    // What is empty lies as low as its lowest: the edge of what stands beside it shows.
    small[i] = h === h ? (h - lowest) * by : 0;
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

/** Raises the pixels of a row to the highest of the nodes that are looked at. */
function highestOf(small: Float32Array, to: number, z: Float32Array, row: number, places: Int32Array, n: number): void {
  for (let k = 0, pixel = to, left = n; k < places.length; k++) {
    const h = z[row + places[k]];
    if (h === h && !(h <= small[pixel])) small[pixel] = h;
    if (--left) continue;
    left = n;
    pixel++;
  }
}

/** Where a grid has heights, in nodes, and between which heights; null where it has none. */
function within(z: Float32Array, g: Grid) {
  let left = g.cols;
  let right = -1;
  let low = g.rows;
  let high = -1;
  let lowest = Infinity;
  let highest = -Infinity;
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
  return right < 0 ? null : { left, low, wide: right - left + 1, tall: high - low + 1, lowest, highest };
}
