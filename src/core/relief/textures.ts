import { chance } from './noise';
import { noiseRows, type Places } from './noiseRows';

/**
 * Textures of our own: how high a ground is, 0 to 1, at places that follow each other in a row, to `out`. They count in features
 * along and across; `vary` 0..1 says how far a texture leaves a regular pattern.
 */
export interface Texture {
  readonly name: string;
  readonly heights: (at: Places, vary: number, seed: number, out: Float64Array) => void;
}

/** Noise of one size and of several on each other, and distances to scattered points, at all places; see `NoiseRows`. */
const roughs = (at: Places, su: number, sv: number, seed: number, octaves: number) =>
  noiseRows(at.u.length).roughs(at, su, sv, seed, octaves);
const noises = (at: Places, su: number, sv: number, seed: number) => roughs(at, su, sv, seed, 1);
const toPoints = (at: Places, seed: number, spread: number) => noiseRows(at.u.length).toPoints(at, seed, spread);
const toBorders = (at: Places, seed: number, spread: number) => noiseRows(at.u.length).toBorders(at, seed, spread);

/**
 * 0.5 + 0.5 sin(2 pi t), to 1e-7: the sine of a quarter by its series up to the eleventh power, which a machine works out sooner
 * than it calls for a sine.
 */
export function wave(t: number): number {
  const r = t - Math.floor(t + 0.5);
  const quarter = r > 0.25 ? 0.5 - r : r < -0.25 ? -0.5 - r : r;
  const x = 2 * Math.PI * quarter;
  const q = x * x;
  const series = 1 - (q / 6) * (1 - (q / 20) * (1 - (q / 42) * (1 - (q / 72) * (1 - q / 110))));
  return 0.5 + 0.5 * x * series;
}
const part = (t: number): number => t - Math.floor(t);
const held = (t: number): number => (t < 0 ? 0 : t > 1 ? 1 : t);
/** From 0 to 1, level at both ends. */
const eased = (t: number): number => {
  const h = held(t);
  return h * h * (3 - 2 * h);
};

/** Places that are shifted by `by`, so many times along and across. */
function bent(at: Places, by: Float32Array, along: number, across: number): Places {
  const u = at.u.slice();
  const v = at.v.slice();
  for (let k = 0; k < u.length; k++) {
    u[k] += along * by[k];
    v[k] += across * by[k];
  }
  return { u, v };
}

/** A number for each square that is asked for, looked up when it is another than before. */
function chanceOf(seed: number): (i: number, j: number) => number {
  let [p, q, value] = [NaN, NaN, 0];
  return (i, j) => {
    if (i !== p || j !== q) {
      p = i;
      q = j;
      value = chance(i, j, seed);
    }
    return value;
  };
}

/** Every texture, by its id, in the order in which they are offered. */
export const textures = {
  ripples: {
    name: 'Ripples',
    heights(at, vary, seed, out) {
      const bend = noises(at, 0.4, 0.4, seed);
      for (let k = 0; k < out.length; k++) out[k] = wave(at.v[k] + 0.5 * vary * bend[k]);
    },
  },
  water: {
    name: 'Flowing water',
    heights(at, vary, seed, out) {
      const bends = roughs(at, 0.25, 0.5, seed, 3);
      for (let k = 0; k < out.length; k++) {
        const bend = vary * bends[k];
        out[k] = 0.7 * wave(at.v[k] + 1.2 * bend) + 0.3 * wave(2.7 * at.v[k] + 0.35 * at.u[k] + 2 * bend);
      }
    },
  },
  sand: {
    name: 'Sand',
    heights(at, vary, seed, out) {
      const bend = roughs(at, 0.3, 0.3, seed, 2);
      const grains = noises(at, 9, 9, seed + 31);
      for (let k = 0; k < out.length; k++) {
        // Blown by the wind: long backs, short lees.
        const t = part(at.v[k] + 0.6 * vary * bend[k]);
        const back = eased(t < 0.7 ? t / 0.7 : (1 - t) / 0.3);
        out[k] = held(0.94 * back + 0.06 * (0.5 + 0.5 * grains[k]));
      }
    },
  },
  grain: {
    name: 'Wood grain',
    heights(at, vary, seed, out) {
      const bend = roughs(at, 0.12, 0.5, seed, 3);
      const pores = noises(at, 0.8, 14, seed + 5);
      for (let k = 0; k < out.length; k++) {
        const t = part(at.v[k] + 1.5 * vary * bend[k]);
        // Early wood rises slowly to the hard line of the late.
        const ring = eased(t < 0.8 ? t / 0.8 : (1 - t) / 0.2);
        out[k] = held(0.85 * ring + 0.15 * (0.5 + 0.5 * pores[k]));
      }
    },
  },
  stone: {
    name: 'Rough stone',
    heights(at, vary, seed, out) {
      const bumps = roughs(at, 1, 1, seed, 5);
      for (let k = 0; k < out.length; k++) out[k] = held(0.5 + (0.35 + 0.35 * vary) * bumps[k]);
    },
  },
  hammered: {
    name: 'Hammered metal',
    heights(at, vary, seed, out) {
      const away = toPoints(at, seed, 0.2 + 0.7 * vary);
      for (let k = 0; k < out.length; k++) out[k] = held((away[k] / 0.8) * (away[k] / 0.8));
    },
  },
  stipple: {
    name: 'Stipple',
    heights(at, vary, seed, out) {
      const away = toPoints(at, seed, vary);
      for (let k = 0; k < out.length; k++) out[k] = eased((away[k] - 0.12) / 0.25);
    },
  },
  woven: {
    name: 'Woven reed',
    heights({ u, v }, vary, seed, out) {
      const lower = chanceOf(seed);
      for (let k = 0; k < out.length; k++) {
        const i = Math.floor(u[k]);
        const j = Math.floor(v[k]);
        const along = (i + j) % 2 === 0;
        const across = 2 * (along ? v[k] - j : u[k] - i) - 1;
        const run = along ? u[k] - i : v[k] - j;
        const round = Math.sqrt(Math.max(0, 1 - across * across));
        out[k] = held(round * Math.cos((run - 0.5) * 1.9) * (1 - 0.25 * vary * lower(i, j)));
      }
    },
  },
  brick: {
    name: 'Brick',
    heights({ u, v }, vary, seed, out) {
      const lower = chanceOf(seed);
      const face = chanceOf(seed);
      for (let k = 0; k < out.length; k++) {
        const j = Math.floor(v[k] * 2);
        const x = u[k] + (j & 1 ? 0.5 : 0);
        const i = Math.floor(x);
        const a = x - i;
        const b = (v[k] * 2 - j) / 2;
        const joint = Math.min(a, 1 - a, b, 0.5 - b);
        out[k] =
          eased((joint - 0.025) / 0.03) *
          (1 - 0.35 * vary * lower(i, j) - 0.08 * vary * face(i * 9 + Math.floor(a * 9), j * 5 + Math.floor(b * 10)));
      }
    },
  },
  ashlar: {
    name: 'Ashlar',
    heights(at, vary, seed, out) {
      const { u, v } = at;
      const dressed = roughs(at, 4, 4, seed, 3);
      const widths = chanceOf(seed);
      const shifts = chanceOf(seed);
      for (let k = 0; k < out.length; k++) {
        // Courses of blocks of different widths, their faces pillowed and dressed.
        const j = Math.floor(v[k]);
        const wide = 1.2 + 0.8 * vary * widths(j, 3);
        const a = part(u[k] / wide + shifts(j, 11)) * wide;
        const b = v[k] - j;
        const joint = Math.min(a, wide - a, b, 1 - b);
        const face = 0.7 + 0.3 * eased(joint / 0.4) - 0.15 * vary * (0.5 + 0.5 * dressed[k]);
        out[k] = held(eased((joint - 0.04) / 0.05) * face);
      }
    },
  },
  scales: {
    name: 'Scales',
    heights({ u, v }, vary, seed, out) {
      const lower = [chanceOf(seed), chanceOf(seed)];
      for (let k = 0; k < out.length; k++) {
        // The scale whose round end covers the place last lies on top: rows below lie over those above.
        let best = 0;
        for (let m = 0; m < 2; m++) {
          const j = Math.floor(v[k] * 2) + m;
          const x = u[k] + (j & 1 ? 0.5 : 0);
          const i = Math.floor(x);
          const dx = x - i - 0.5;
          const dy = j / 2 + 0.5 - v[k];
          const up = dy > 0 ? dy : 0;
          const d = Math.sqrt(dx * dx + up * up);
          if (d < 0.5) best = Math.max(best, (0.35 + 0.65 * (d / 0.5)) * (1 - 0.2 * vary * lower[m](i, j)));
        }
        out[k] = held(best);
      }
    },
  },
  leather: {
    name: 'Leather',
    heights(at, vary, seed, out) {
      const away = toPoints(bent(at, noises(at, 2, 2, seed + 3), 0.15, -0.15), seed, 0.5 + 0.5 * vary);
      for (let k = 0; k < out.length; k++) out[k] = eased((away[k] / 0.7 - 1) * -1.6);
    },
  },
  chisel: {
    name: 'Chisel rows',
    heights({ u, v }, vary, seed, out) {
      const [lengths, shifts, depths] = [chanceOf(seed), chanceOf(seed), chanceOf(seed)];
      for (let k = 0; k < out.length; k++) {
        const j = Math.floor(v[k]);
        const t = 2 * (v[k] - j) - 1;
        // Each stroke digs in and runs out; its length differs from row to row.
        const x = u[k] * (0.4 + 0.3 * vary * lengths(j, 0)) + shifts(j, 1);
        const i = Math.floor(x);
        const dig = 1 - 0.6 * vary * (x - i) * depths(i, j);
        out[k] = held(1 - dig * (1 - t * t));
      }
    },
  },
  clay: {
    name: 'Cracked clay',
    heights(at, vary, seed, out) {
      // Cracks run where two points are equally near.
      const bend = noises(at, 1.5, 1.5, seed + 13);
      const gaps = toBorders(bent(at, bend, 0.25 * vary, 0.25 * vary), seed, 0.3 + 0.7 * vary);
      const face = noises(at, 5, 5, seed + 1);
      for (let k = 0; k < out.length; k++) out[k] = held(eased((gaps[k] - 0.02) / 0.1) * (0.9 + 0.1 * face[k]));
    },
  },
} as const satisfies Record<string, Texture>;
export type TextureId = keyof typeof textures;
