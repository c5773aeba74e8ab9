import { z } from 'zod';
import { noise } from '../../relief/noise';
import type { FieldSpec } from '../../units/limits';

/** How lines wander from their way: to both sides in waves, and up from what they follow. The same seed wanders the same way. */
export const wanderSchema = {
  /** Length of a wave, mm. */
  wave: z.number().min(0.2).max(500),
  /** Furthest to each side, mm. */
  swing: z.number().min(0).max(50),
  /** Furthest up, mm. */
  lift: z.number().min(0).max(20),
  /** How much of it is left to chance, per cent. */
  chance: z.number().min(0).max(100),
  seed: z.number().int().min(0).max(1_000_000),
};
export type Wander = { readonly [K in keyof typeof wanderSchema]: z.infer<(typeof wanderSchema)[K]> };

export const wanderFields = (when?: FieldSpec['when']): FieldSpec[] =>
  (
    [
      { kind: 'length', key: 'wave', label: 'Length of a wave' },
      { kind: 'length', key: 'swing', label: 'Swing to each side' },
      { kind: 'length', key: 'lift', label: 'Shallower by up to' },
      { kind: 'number', key: 'chance', label: 'Left to chance', unit: '%' },
      { kind: 'number', key: 'seed', label: 'Seed', whole: true },
    ] satisfies FieldSpec[]
  ).map((f) => (when ? { ...f, when } : f));

/** Between two lines chance has nothing in common. */
const APART = 37.71;
/** Two features of the noise are a wave. */
const FEATURES = 2;

/**
 * How far a line has left its way after going along it for `s` mm: `aside` within the swing to its left, `up` within 0 and the lift.
 * Waves that are not left to chance are the same in all lines, so that these keep their distance; what is left to chance is gradient
 * noise (see `relief/noise.ts`), which is 0 nowhere for all lines.
 */
export function wandering(w: Wander): { aside(line: number, s: number): number; up(line: number, s: number): number } {
  const luck = w.chance / 100;
  const chanceAt = (line: number, s: number, seed: number) =>
    Math.max(-1, Math.min(1, noise((FEATURES * s) / w.wave + 0.31, APART * line + 0.47, seed)));
  const turn = (2 * Math.PI) / w.wave;
  return {
    aside: (line, s) => w.swing * ((1 - luck) * Math.sin(turn * s) + luck * chanceAt(line, s, w.seed)),
    up: (line, s) => (w.lift / 2) * (1 - ((1 - luck) * Math.cos(turn * s) + luck * chanceAt(line, s, w.seed + 101))),
  };
}
