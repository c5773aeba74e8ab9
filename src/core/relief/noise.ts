/**
 * Noise without chance: the same seed gives the same ground everywhere.
 *
 * Gradient noise after K. Perlin, "Improving Noise" (2002): quintic fade, one of eight directions at each corner of a unit
 * square. Cells after S. Worley, "A Cellular Texture Basis Function" (1996): one point in each unit square.
 */

/** 32 bits for a unit square. */
function hash(i: number, j: number, seed: number): number {
  let h = Math.imul(i | 0, 0x27d4eb2d) ^ Math.imul(j | 0, 0x165667b1) ^ Math.imul(seed | 0, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return (h ^ (h >>> 15)) >>> 0;
}

/** A number in 0..1 for a unit square. */
export const chance = (i: number, j: number, seed: number): number => hash(i, j, seed) / 4294967296;

const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

/** The eight directions. Looked up, not told apart: what cannot be foreseen makes a processor wait. */
const D = Math.SQRT1_2;
const ALONG_X = Float64Array.of(1, -1, 0, 0, D, -D, D, -D);
const ALONG_Y = Float64Array.of(0, 0, 1, -1, D, D, -D, -D);

/**
 * Directions at the corners of the squares that were asked for last, one for each of the sizes that lie on each other: places are
 * asked for along rows, and mostly lie in the square of the one before. Lower left, lower right, upper left, upper right; x, y each.
 */
const KNOWN = 64;
const knownI = new Float64Array(KNOWN).fill(NaN);
const knownJ = new Float64Array(KNOWN);
const knownSeed = new Float64Array(KNOWN);
const directions = new Float64Array(8 * KNOWN);

function look(slot: number, i: number, j: number, seed: number): void {
  knownI[slot] = i;
  knownJ[slot] = j;
  knownSeed[slot] = seed;
  for (let corner = 0; corner < 4; corner++) {
    const k = hash(i + (corner & 1), j + (corner >> 1), seed) >>> 29;
    directions[8 * slot + 2 * corner] = ALONG_X[k];
    directions[8 * slot + 2 * corner + 1] = ALONG_Y[k];
  }
}

/** Smooth ground in about -1..1 with features of unit size; 0 at whole numbers. */
export function noise(x: number, y: number, seed: number): number {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const slot = seed & (KNOWN - 1);
  if (knownI[slot] !== i || knownJ[slot] !== j || knownSeed[slot] !== seed) look(slot, i, j, seed);
  const u = x - i;
  const v = y - j;
  const s = fade(u);
  // What a corner adds: the distance from it along its direction.
  const d = 8 * slot;
  const a =
    (directions[d] * u + directions[d + 1] * v) * (1 - s) + (directions[d + 2] * (u - 1) + directions[d + 3] * v) * s;
  const b =
    (directions[d + 4] * u + directions[d + 5] * (v - 1)) * (1 - s) +
    (directions[d + 6] * (u - 1) + directions[d + 7] * (v - 1)) * s;
  return Math.SQRT2 * (a + (b - a) * fade(v));
}

/** Noise of several sizes on each other, each half as large and half as high as the one before; in about -1..1. */
export function rough(x: number, y: number, seed: number, octaves: number): number {
  let sum = 0;
  let high = 0.5;
  let all = 0;
  for (let k = 0; k < octaves; k++) {
    sum += high * noise(x, y, seed + k);
    all += high;
    high /= 2;
    x = 2 * x + 17.3;
    y = 2 * y - 9.1;
  }
  return sum / all;
}

/** Distance to the nearest of one point in each unit square; `spread` 0..1 says how far the points leave the middles. */
export function toPoint(x: number, y: number, seed: number, spread: number): number {
  const near = among(x, y, seed, spread, 1);
  // Points two squares away are at least so far.
  const beyond = 1 + (1 - spread) / 2;
  return Math.sqrt(near > beyond * beyond ? among(x, y, seed, spread, 2) : near);
}

/**
 * How much further the second nearest of these points is than the nearest: 0 where two are equally near, along the borders of what
 * is nearest to each.
 */
export function toBorder(x: number, y: number, seed: number, spread: number): number {
  const near = among(x, y, seed, spread, 2);
  return Math.sqrt(known.second) - Math.sqrt(near);
}

/** The points round one square, as they were asked for last: places that are asked one after the other mostly lie in one. */
const known = { i: NaN, j: NaN, seed: NaN, spread: NaN, reach: 0, second: 0, points: new Float64Array(50) };

/** Squared distance to the nearest point of the squares round a place, `reach` squares far; that to the second is kept beside. */
function among(x: number, y: number, seed: number, spread: number, reach: number): number {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const { points } = known;
  const side = 2 * reach + 1;
  if (known.i !== i || known.j !== j || known.seed !== seed || known.spread !== spread || known.reach !== reach) {
    let k = 0;
    for (let q = j - reach; q <= j + reach; q++)
      for (let p = i - reach; p <= i + reach; p++) {
        points[k++] = p + 0.5 + spread * (chance(p, q, seed) - 0.5);
        points[k++] = q + 0.5 + spread * (chance(p, q, seed + 7919) - 0.5);
      }
    Object.assign(known, { i, j, seed, spread, reach });
  }
  let best = Infinity;
  let second = Infinity;
  for (let k = 0; k < 2 * side * side; k += 2) {
    const dx = points[k] - x;
    const dy = points[k + 1] - y;
    const d = dx * dx + dy * dy;
    if (d < second) {
      second = Math.max(d, best);
      best = Math.min(d, best);
    }
  }
  known.second = second;
  return best;
}
