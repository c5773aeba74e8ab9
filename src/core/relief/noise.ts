/**
 * Noise without chance: the same seed gives the same ground everywhere. At single places here, at those of a row in `./noiseRows.ts`.
 *
 * Gradient noise after K. Perlin, "Improving Noise" (2002): quintic fade, one of eight directions at each corner of a unit
 * square. Cells after S. Worley, "A Cellular Texture Basis Function" (1996): one point in each unit square.
 */

/** 32 bits for a unit square. */
export function hash(i: number, j: number, seed: number): number {
  let h = Math.imul(i | 0, 0x27d4eb2d) ^ Math.imul(j | 0, 0x165667b1) ^ Math.imul(seed | 0, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return (h ^ (h >>> 15)) >>> 0;
}

/** A number in 0..1 for a unit square. */
export const chance = (i: number, j: number, seed: number): number => hash(i, j, seed) / 4294967296;

export const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

/** The eight directions. Looked up, not told apart: what cannot be foreseen makes a processor wait. */
const D = Math.SQRT1_2;
export const ALONG_X = Float64Array.of(1, -1, 0, 0, D, -D, D, -D);
export const ALONG_Y = Float64Array.of(0, 0, 1, -1, D, D, -D, -D);

/** What a corner adds at a place that lies (u, v) from it: the distance along its direction. */
const from = (k: number, u: number, v: number): number => ALONG_X[k] * u + ALONG_Y[k] * v;

/** Smooth ground in about -1..1 with features of unit size; 0 at whole numbers. */
export function noise(x: number, y: number, seed: number): number {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const [u, v] = [x - i, y - j];
  const corner = (p: 0 | 1, q: 0 | 1) => from(hash(i + p, j + q, seed) >>> 29, u - p, v - q);
  const s = fade(u);
  const a = corner(0, 0) * (1 - s) + corner(1, 0) * s;
  const b = corner(0, 1) * (1 - s) + corner(1, 1) * s;
  return Math.SQRT2 * (a + (b - a) * fade(v));
}
