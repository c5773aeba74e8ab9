import type { HeightField } from './field';
import { slopeAt } from './steep';

/** What a relief is coloured by: as its blank is, by its height, or by how steep it is. */
export const tints = { material: 'The blank', height: 'Height', slope: 'Slope' } as const;
export type Tint = keyof typeof tints;
type Colour = readonly [number, number, number];

/** Red, green and blue, 0 to 255, from the least to the most: lighter the higher, and darker the steeper. */
const RAMPS: Readonly<Record<Exclude<Tint, 'material'>, readonly Colour[]>> = {
  height: [
    [16, 52, 66],
    [32, 104, 112],
    [98, 160, 140],
    [196, 203, 146],
    [250, 236, 190],
  ],
  slope: [
    [244, 238, 220],
    [226, 190, 120],
    [205, 120, 64],
    [150, 48, 52],
    [60, 20, 44],
  ],
};

/** A colour of a ramp at 0 to 1; beyond, that of its end. */
export function colourAt(tint: Exclude<Tint, 'material'>, t: number): Colour {
  const ramp = RAMPS[tint];
  // What is empty is at the beginning.
  const u = Math.min(1, Math.max(0, t || 0)) * (ramp.length - 1);
  const k = Math.min(ramp.length - 2, Math.floor(u));
  const [a, b] = [ramp[k], ramp[k + 1]];
  return [0, 1, 2].map((i) => a[i] + (u - k) * (b[i] - a[i])) as unknown as Colour;
}

/** What each node of a field is by a tint, 0 to 1: its height between the lowest and the highest, or its angle as part of upright. */
export function tinting(f: HeightField, tint: Exclude<Tint, 'material'>): (c: number, r: number) => number {
  if (tint === 'slope') return (c, r) => Math.atan(slopeAt(f, c, r)) / (Math.PI / 2);
  let [lowest, highest] = [Infinity, -Infinity];
  for (const h of f.z) {
    if (h < lowest) lowest = h;
    if (h > highest) highest = h;
  }
  return (c, r) => (highest > lowest ? (f.z[r * f.cols + c] - lowest) / (highest - lowest) : 1);
}

/** Colours of `cols` x `rows` points seen from above, row 0 at the top: red, green and blue, 0 to 255, for each. */
export function tintedPicture(f: HeightField, cols: number, rows: number, tint: Exclude<Tint, 'material'>): Uint8Array {
  const of = tinting(f, tint);
  const out = new Uint8Array(3 * cols * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const u = Math.round(((c + 0.5) / cols) * (f.cols - 1));
      const v = Math.round((1 - (r + 0.5) / rows) * (f.rows - 1));
      out.set(colourAt(tint, of(u, v)), 3 * (r * cols + c));
    }
  return out;
}
