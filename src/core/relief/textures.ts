import { chance, noise, rough, toBorder, toPoint } from './noise';

/**
 * Textures of our own: how high a ground is at a place, 0 to 1. `u`, `v` count in features along and across; `vary` 0..1 says how
 * far it leaves a regular pattern.
 */
export interface Texture {
  readonly name: string;
  readonly at: (u: number, v: number, vary: number, seed: number) => number;
}

const wave = (t: number): number => 0.5 + 0.5 * Math.sin(2 * Math.PI * t);
const part = (t: number): number => t - Math.floor(t);
const held = (t: number): number => (t < 0 ? 0 : t > 1 ? 1 : t);
/** From 0 to 1, level at both ends. */
const eased = (t: number): number => {
  const h = held(t);
  return h * h * (3 - 2 * h);
};

/** Every texture, by its id, in the order in which they are offered. */
export const textures = {
  ripples: { name: 'Ripples', at: (u, v, vary, seed) => wave(v + 0.5 * vary * noise(u * 0.4, v * 0.4, seed)) },
  water: {
    name: 'Flowing water',
    at: (u, v, vary, seed) => {
      const bend = vary * rough(u * 0.25, v * 0.5, seed, 3);
      return 0.7 * wave(v + 1.2 * bend) + 0.3 * wave(2.7 * v + 0.35 * u + 2 * bend);
    },
  },
  sand: {
    name: 'Sand',
    at: (u, v, vary, seed) => {
      // Blown by the wind: long backs, short lees.
      const t = part(v + 0.6 * vary * rough(u * 0.3, v * 0.3, seed, 2));
      const back = t < 0.7 ? eased(t / 0.7) : eased((1 - t) / 0.3);
      return held(0.94 * back + 0.06 * (0.5 + 0.5 * noise(u * 9, v * 9, seed + 31)));
    },
  },
  grain: {
    name: 'Wood grain',
    at: (u, v, vary, seed) => {
      const t = part(v + 1.5 * vary * rough(u * 0.12, v * 0.5, seed, 3));
      // Early wood rises slowly to the hard line of the late.
      const ring = t < 0.8 ? eased(t / 0.8) : eased((1 - t) / 0.2);
      return held(0.85 * ring + 0.15 * (0.5 + 0.5 * noise(u * 0.8, v * 14, seed + 5)));
    },
  },
  stone: { name: 'Rough stone', at: (u, v, vary, seed) => held(0.5 + (0.35 + 0.35 * vary) * rough(u, v, seed, 5)) },
  hammered: {
    name: 'Hammered metal',
    at: (u, v, vary, seed) => {
      const d = toPoint(u, v, seed, 0.2 + 0.7 * vary) / 0.8;
      return held(d * d);
    },
  },
  stipple: { name: 'Stipple', at: (u, v, vary, seed) => eased((toPoint(u, v, seed, vary) - 0.12) / 0.25) },
  woven: {
    name: 'Woven reed',
    at: (u, v, vary, seed) => {
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const along = (i + j) % 2 === 0;
      const [across, run] = along ? [part(v), part(u)] : [part(u), part(v)];
      const round = Math.sqrt(Math.max(0, 1 - (2 * across - 1) ** 2));
      const over = Math.cos((run - 0.5) * 1.9);
      return held(round * over * (1 - 0.25 * vary * chance(i, j, seed)));
    },
  },
  brick: {
    name: 'Brick',
    at: (u, v, vary, seed) => {
      const j = Math.floor(v * 2);
      const x = u + (j & 1 ? 0.5 : 0);
      const i = Math.floor(x);
      const [a, b] = [part(x), part(v * 2) / 2];
      const joint = Math.min(a, 1 - a, b, 0.5 - b);
      return (
        eased((joint - 0.025) / 0.03) *
        (1 -
          0.35 * vary * chance(i, j, seed) -
          0.08 * vary * chance(i * 9 + Math.floor(a * 9), j * 5 + Math.floor(b * 10), seed))
      );
    },
  },
  ashlar: {
    name: 'Ashlar',
    at: (u, v, vary, seed) => {
      // Courses of blocks of different widths, their faces pillowed and dressed.
      const j = Math.floor(v);
      const wide = 1.2 + 0.8 * vary * chance(j, 3, seed);
      const x = u / wide + chance(j, 11, seed);
      const a = part(x) * wide;
      const joint = Math.min(a, wide - a, part(v), 1 - part(v));
      return held(
        eased((joint - 0.04) / 0.05) *
          (0.7 + 0.3 * eased(joint / 0.4) - 0.15 * vary * (0.5 + 0.5 * rough(u * 4, v * 4, seed, 3))),
      );
    },
  },
  scales: {
    name: 'Scales',
    at: (u, v, vary, seed) => {
      // The scale whose round end covers the place last lies on top: rows below lie over those above.
      let best = 0;
      for (let k = 0; k < 2; k++) {
        const j = Math.floor(v * 2) + k;
        const x = u + (j & 1 ? 0.5 : 0);
        const i = Math.floor(x);
        const dx = part(x) - 0.5;
        const dy = j / 2 + 0.5 - v;
        const up = dy > 0 ? dy : 0;
        const d = Math.sqrt(dx * dx + up * up);
        if (d < 0.5) best = Math.max(best, (0.35 + 0.65 * (d / 0.5)) * (1 - 0.2 * vary * chance(i, j, seed)));
      }
      return held(best);
    },
  },
  leather: {
    name: 'Leather',
    at: (u, v, vary, seed) => {
      const bend = 0.15 * noise(u * 2, v * 2, seed + 3);
      return eased((toPoint(u + bend, v - bend, seed, 0.5 + 0.5 * vary) / 0.7 - 1) * -1.6);
    },
  },
  chisel: {
    name: 'Chisel rows',
    at: (u, v, vary, seed) => {
      const j = Math.floor(v);
      const t = 2 * part(v) - 1;
      // Each stroke digs in and runs out; its length differs from row to row.
      const x = u * (0.4 + 0.3 * vary * chance(j, 0, seed)) + chance(j, 1, seed);
      const dig = 1 - 0.6 * vary * part(x) * chance(Math.floor(x), j, seed);
      return held(1 - dig * (1 - t * t));
    },
  },
  clay: {
    name: 'Cracked clay',
    at: (u, v, vary, seed) => {
      // Cracks run where two points are equally near.
      const bend = 0.25 * vary * noise(u * 1.5, v * 1.5, seed + 13);
      const crack = 1 - eased((toBorder(u + bend, v + bend, seed, 0.3 + 0.7 * vary) - 0.02) / 0.1);
      return held((1 - crack) * (0.9 + 0.1 * noise(u * 5, v * 5, seed + 1)));
    },
  },
} as const satisfies Record<string, Texture>;
export type TextureId = keyof typeof textures;
