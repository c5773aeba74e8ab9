import { z } from 'zod';
import { boundsOf, type Region } from '../../geometry/region';
import { noise } from '../../relief/noise';
import type { FieldSpec } from '../../units/limits';
import { stillWanted } from '../../units/stillWanted';
import type { Track } from '../relief/follow';
import { cutTo, type CutTrack } from '../relief/patterns';

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

export const wanderDefaults: Wander = { wave: 20, swing: 0.3, lift: 0.1, chance: 60, seed: 1 };

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

/** Places of what wanders lie no closer than so, and no further apart, mm; so many of them make a wave. */
export const CLOSEST = 0.04;
const FURTHEST = 0.5;
const A_WAVE = 32;

/** How far apart places lie, so that waves are met, mm. */
export const wanderStep = (w: Wander): number =>
  w.swing || w.lift ? Math.min(FURTHEST, Math.max(CLOSEST, w.wave / A_WAVE)) : FURTHEST;

/** Visits places of a line, so far apart or a little closer, with how far along it they lie and its direction there. */
function eachPlace(
  { points: p, closed }: Track,
  step: number,
  visit: (x: number, y: number, s: number, tx: number, ty: number) => void,
): void {
  const n = p.length / 2;
  const ways = closed ? n : n - 1;
  const way = (i: number) => {
    const [a, b] = [2 * (((i % n) + n) % n), 2 * ((((i + 1) % n) + n) % n)];
    const [x, y] = [p[b] - p[a], p[b + 1] - p[a + 1]];
    const long = Math.hypot(x, y) || 1;
    return { x: p[a], y: p[a + 1], tx: x / long, ty: y / long, long: Math.hypot(x, y) };
  };
  let s = 0;
  let from = way(closed ? -1 : 0);
  for (let i = 0; i < ways; i++) {
    const at = way(i);
    const parts = Math.max(1, Math.ceil(at.long / step));
    for (let k = 0; k < parts; k++) {
      // At a corner halfway between both directions.
      const [tx, ty] = k ? [at.tx, at.ty] : [at.tx + from.tx, at.ty + from.ty];
      const one = Math.hypot(tx, ty) || 1;
      visit(
        at.x + (at.tx * at.long * k) / parts,
        at.y + (at.ty * at.long * k) / parts,
        s + (at.long * k) / parts,
        tx / one,
        ty / one,
      );
    }
    s += at.long;
    from = at;
  }
  const last = way(ways - 1);
  visit(last.x + last.tx * last.long, last.y + last.ty * last.long, s, last.tx, last.ty);
}

/** Lines that have wandered, cut to a region; `along` says how far along its line each place lies. */
export function wandered(
  lines: readonly Track[],
  region: Region,
  step: number,
  w: Wander,
  /** How far along all that wanders alike a line begins. */
  begins: (t: Track) => number,
): (CutTrack & { readonly line: number })[] {
  const { aside } = wandering(w);
  const cut = cutTo(region);
  return lines.flatMap((t, line) => {
    const s0 = begins(t);
    stillWanted(t.points.length);
    eachPlace(t, step, (x, y, s, tx, ty) => {
      const a = aside(line, s0 + s);
      cut.to(x - ty * a, y + tx * a, s0 + s);
    });
    const pieces = cut.end();
    return pieces.map((piece) => ({ line, ...piece }));
  });
}

/** Where lines that wander alike begin: along rows at an angle, degrees, from the middle of a region, or at their own beginning. */
export function beginsOf(way: number | string, region: Region): (t: Track) => number {
  const box = boundsOf(region);
  if (typeof way === 'number') {
    const [cos, sin] = [Math.cos((way * Math.PI) / 180), Math.sin((way * Math.PI) / 180)];
    return ({ points: p }) => p[0] * cos + p[1] * sin;
  }
  if (way === 'spokes' && box)
    return ({ points: p }) => Math.hypot(p[0] - (box.x0 + box.x1) / 2, p[1] - (box.y0 + box.y1) / 2);
  return () => 0;
}
