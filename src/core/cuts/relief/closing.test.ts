import fc from 'fast-check';
import { formOf } from '../../cutters/cutter';
import { flatField, heightAt, type HeightField } from '../../relief/field';
import { chance } from '../../relief/noise';
import { cutterOf } from '../../testing/job';
import { box } from '../../testing/shapes';
import { leftOver, terraces, type Pass } from './closing';
import { bounded, groundOf, placeDefaults } from './place';
import { reliefWanted } from './surface';

const [WIDE, HIGH, CELL] = [24, 16, 0.2];
const ground = (seed: number): HeightField => {
  const f = flatField(WIDE, HIGH, CELL);
  return {
    ...f,
    z: f.z.map((_, i) => {
      const [x, y] = [(i % f.cols) * CELL, Math.floor(i / f.cols) * CELL];
      // A place that lies lowest of all stays as it is.
      if (i === 700) return -5;
      return -2 + Math.sin(x * 1.3 + seed) + 0.8 * Math.cos(y * 1.7) + 0.05 * chance(i, 0, seed);
    }),
  };
};
const context = {
  blank: { width: WIDE, height: HIGH },
  region: () => [box(3.03, 2.03, 19.07, 13.05)],
  budget: { offset: 0.01, flatten: 0.01 },
} as never;

const ways = {
  rows: (f: HeightField, passes: readonly Pass[]) => leftOver(f, passes, -5, 0.1),
  slopes: (f: HeightField, passes: readonly Pass[]) =>
    leftOver(
      f,
      passes.map((p) => ({ ...p, step: 0.1, climb: 0.7 })),
      -5,
      0.1,
    ),
  levels: (f: HeightField, passes: readonly Pass[]) =>
    terraces(
      f,
      passes.map((p) => ({ ...p, levels: [-0.5, -1.5, -2.5, -3.5, -5] })),
      -5,
      0.1,
    ),
};

describe('what is left of a surface that has changed in one place', () => {
  const cutters = ['taperedBall-6-0.25-5', 'ball-3', 'flat-3'].map((id) => formOf(cutterOf(id)));
  it.each(Object.keys(ways) as (keyof typeof ways)[])('by %s is the same as of one that is new', (way) => {
    let nth = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 1, max: 12 }),
        fc.constantFrom(0.3, -0.3),
        fc.constantFrom('relief', 'inside'),
        fc.constantFrom('middle', 'edge'),
        fc.constantFrom([0], [1], [2], [1, 0]),
        fc.constantFrom(0.05, 0.05, 2.5),
        (c0, r0, size, by, where, rim, which, spare) => {
          const was = ground(1);
          const passes = which.map((k, n) => ({
            form: cutters[k],
            place: bounded({ ...placeDefaults, where, rim } as never, context, groundOf(was), cutters[k]),
            step: 0.3,
            spare: n ? spare : 0,
          }));
          const z = was.z.slice();
          for (let r = r0; r < Math.min(was.rows, r0 + size); r++)
            for (let c = c0; c < Math.min(was.cols, c0 + size); c++)
              if (r * was.cols + c !== 700) z[r * was.cols + c] = Math.min(0, z[r * was.cols + c] + by);
          const now = { ...was, z };
          ways[way](was, passes)(1, 1);
          const after = ways[way](now, passes);
          // Far away from where anything was known.
          const far = 1000 * ++nth;
          const moved = passes.map((p) => ({
            ...p,
            place: {
              ...p.place,
              centres: p.place.centres.map((l) => l.map((v, i) => (i % 2 ? v : v + far))),
              wall: (x: number, y: number) => p.place.wall(x - far, y),
            },
          }));
          const fresh = ways[way]({ ...now, x0: far }, moved);
          for (let k = 0; k < 300; k++) {
            const [x, y] = [WIDE * chance(k, 1, 9), HIGH * chance(k, 2, 9)].map(Math.abs);
            const [a, b] = [after(x, y), fresh(far + x, y)];
            expect(a === b || Math.abs(a - b) < 1e-4 || `${a} for ${b} at ${x}, ${y}`).toBe(true);
          }
        },
      ),
      { numRuns: way === 'slopes' ? 5 : 25 },
    );
  });
});

it('a relief is wanted along rows as at each place of them', () => {
  const f = ground(2);
  f.z[900] = NaN;
  const g = groundOf(f);
  const form = formOf(cutterOf('ball-3'));
  for (const where of ['relief', 'inside', 'outside'])
    for (const startDepth of [0, 1.5]) {
      const place = { ...placeDefaults, where } as never;
      const list = [{ form, place: bounded(place, context, g, form) }];
      const w = reliefWanted(place, g, 0.1, startDepth, list, () => 0);
      for (const y of [0, 2.03, 4, 7.31, HIGH]) {
        const out = new Float32Array(60);
        w.surfaceAlong!(y, { x0: -1, first: 2, cell: 0.37 }, out);
        const there = [...out.keys()].map((k) => w.surface(-1 + (k + 2) * 0.37, y));
        expect(out.findIndex((h, k) => !(Math.abs(h - there[k]) < 1e-5))).toBe(-1);
      }
      const h = heightAt(f, 8, 7.3) + 0.1;
      expect(w.surface(8, 7.3)).toBe(where !== 'outside' && h < -startDepth ? h : 0);
    }
});
