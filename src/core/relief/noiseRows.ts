import { ALONG_X, ALONG_Y, chance, fade, hash } from './noise';
import { noiseKernel } from './noiseKernel';

/** Places that follow each other, mostly in the unit square of the one before. */
export interface Places {
  readonly u: Float64Array;
  readonly v: Float64Array;
}

/** Noise (`./noise.ts`) at many places. What is given is to be used before three more are asked for. */
export interface NoiseRows {
  /**
   * Noise of several sizes on each other, each half as large and half as high as the one before; in about -1..1. Features of the
   * largest are 1 / `su` long and 1 / `sv` wide.
   */
  roughs(at: Places, su: number, sv: number, seed: number, octaves: number): Float32Array;
  /** Distances to the nearest of one point in each unit square; `spread` 0..1 says how far points leave the middles of those. */
  toPoints(at: Places, seed: number, spread: number): Float32Array;
  /**
   * How much further the second nearest of these points is than the nearest: 0 where two are equally near, along the borders of what
   * is nearest to each.
   */
  toBorders(at: Places, seed: number, spread: number): Float32Array;
}

/** By the kernel where this machine has it: to 3e-6 what doubles give. */
export const noiseRows = (places: number): NoiseRows => noiseKernel(places) ?? inDoubles;

/** Adds `high` times the noise of one size at each place. What is known of a square is looked up when it is entered. */
function addNoise(x: Float64Array, y: Float64Array, seed: number, high: number, to: Float64Array): void {
  let [i, j] = [NaN, NaN];
  // Directions at the corners of the square: lower left, lower right, upper left, upper right.
  let [ax, ay, bx, by, cx, cy, dx, dy] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let k = 0; k < x.length; k++) {
    const p = Math.floor(x[k]);
    const q = Math.floor(y[k]);
    if (p !== i || q !== j) {
      i = p;
      j = q;
      const a = hash(p, q, seed) >>> 29;
      const b = hash(p + 1, q, seed) >>> 29;
      const c = hash(p, q + 1, seed) >>> 29;
      const d = hash(p + 1, q + 1, seed) >>> 29;
      ax = ALONG_X[a];
      ay = ALONG_Y[a];
      bx = ALONG_X[b];
      by = ALONG_Y[b];
      cx = ALONG_X[c];
      cy = ALONG_Y[c];
      dx = ALONG_X[d];
      dy = ALONG_Y[d];
    }
    const u = x[k] - p;
    const v = y[k] - q;
    const s = fade(u);
    const low = (ax * u + ay * v) * (1 - s) + (bx * (u - 1) + by * v) * s;
    const up = (cx * u + cy * (v - 1)) * (1 - s) + (dx * (u - 1) + dy * (v - 1)) * s;
    to[k] += high * (Math.SQRT2 * (low + (up - low) * fade(v)));
  }
}

const times = (from: Float64Array, by: number): Float64Array => {
  const out = new Float64Array(from.length);
  for (let k = 0; k < out.length; k++) out[k] = from[k] * by;
  return out;
};

/** Squared distances from each place to the nearest and to the second nearest of one point in each unit square. */
interface Nearest {
  readonly first: Float64Array;
  readonly second: Float64Array;
}

/**
 * `spread` 0..1 says how far the points leave the middles of their squares. Points of the squares beside are looked at first; those
 * two squares away only where they can be nearer: they are at least 1 + (1 - spread) / 2 away.
 */
function nearest({ u, v }: Places, seed: number, spread: number, wanted: 1 | 2): Nearest {
  const n = u.length;
  const first = new Float64Array(n);
  const second = new Float64Array(n);
  const beyond = (1 + (1 - spread) / 2) ** 2;
  const points = new Float64Array(50);
  let [i, j] = [NaN, NaN];
  /** How many squares far points are known round the present one. */
  let known = 0;
  const look = (reach: number) => {
    let k = 0;
    for (let q = j - reach; q <= j + reach; q++)
      for (let p = i - reach; p <= i + reach; p++) {
        points[k++] = p + 0.5 + spread * (chance(p, q, seed) - 0.5);
        points[k++] = q + 0.5 + spread * (chance(p, q, seed + 7919) - 0.5);
      }
    known = reach;
  };
  for (let k = 0; k < n; k++) {
    const x = u[k];
    const y = v[k];
    const p = Math.floor(x);
    const q = Math.floor(y);
    if (p !== i || q !== j) {
      i = p;
      j = q;
      look(1);
    }
    for (;;) {
      let best = Infinity;
      let next = Infinity;
      const to = known === 1 ? 18 : 50;
      for (let m = 0; m < to; m += 2) {
        const dx = points[m] - x;
        const dy = points[m + 1] - y;
        const d = dx * dx + dy * dy;
        const less = d < best ? d : best;
        const more = d < best ? best : d;
        best = less;
        if (more < next) next = more;
      }
      first[k] = best;
      second[k] = next;
      if (known === 2 || (wanted === 1 ? best : next) <= beyond) break;
      look(2);
    }
  }
  return { first, second };
}

export const inDoubles: NoiseRows = {
  roughs({ u, v }, su, sv, seed, octaves) {
    const to = new Float64Array(u.length);
    const x = times(u, su);
    const y = times(v, sv);
    let high = 0.5;
    let all = 0;
    for (let o = 0; o < octaves; o++) {
      addNoise(x, y, seed + o, high, to);
      all += high;
      high /= 2;
      for (let k = 0; k < x.length; k++) {
        x[k] = 2 * x[k] + 17.3;
        y[k] = 2 * y[k] - 9.1;
      }
    }
    return Float32Array.from(to, (h) => h / all);
  },
  toPoints: (at, seed, spread) => Float32Array.from(nearest(at, seed, spread, 1).first, Math.sqrt),
  toBorders(at, seed, spread) {
    const { first, second } = nearest(at, seed, spread, 2);
    return Float32Array.from(first, (d, k) => Math.sqrt(second[k]) - Math.sqrt(d));
  },
};
