import fc from 'fast-check';
import { real } from '../../testing/real';
import { formOf } from '../../cutters/cutter';
import { MotionBuilder } from '../../motion/motion';
import { flatField, type HeightField } from '../../relief/field';
import { cutterOf, planOn } from '../../testing/job';
import { box } from '../../testing/shapes';
import { budgetOf } from '../budget';
import type { CutContext } from '../kind';
import { goAlong } from './along';
import { rowTracks, spiralTracks } from './patterns';
import { remembered } from './remembered';
import type { Track } from './follow';

const waves = (f: HeightField): HeightField => {
  for (let i = 0; i < f.z.length; i++)
    f.z[i] = -2 + 0.6 * Math.sin((i % f.cols) / 7) * Math.cos(Math.floor(i / f.cols) / 9);
  return f;
};
/** The same with other heights in a box of nodes. */
const changed = (f: HeightField, c0: number, r0: number, c1: number, r1: number): HeightField => {
  const z = f.z.slice();
  for (let r = r0; r <= r1; r++) for (let c = c0; c <= c1; c++) z[r * f.cols + c] += 0.4;
  return { ...f, z };
};

describe('what is remembered of ways', () => {
  const f = waves(flatField(20, 12, 0.25));
  const place = (most: number) => fc.oneof(fc.integer({ min: -2, max: most + 2 }), real(-2, most + 2));
  const track: fc.Arbitrary<Track> = fc.record({
    points: fc
      .array(fc.tuple(place(20), place(12)), { minLength: 1, maxLength: 6 })
      .map((p) => Float64Array.from(p.flat())),
    closed: fc.boolean(),
    straight: fc.boolean(),
  });
  let made = 0;
  it('is forgotten where anything within reach has changed, and else kept', () => {
    fc.assert(
      fc.property(
        track,
        fc.nat({ max: 75 }),
        fc.nat({ max: 45 }),
        fc.nat({ max: 5 }),
        fc.constantFrom(0.3, 1, 2.5),
        (t, c, r, size, reach) => {
          const key = `k${made++}`;
          const first = remembered(f, key, reach);
          expect(first.of(t)).toBeNull();
          const way = Float64Array.of(1, 2, 3);
          first.keep(t, way);
          first.done();
          const to = changed(f, c, r, Math.min(f.cols - 1, c + size), Math.min(f.rows - 1, r + size));
          const got = remembered(to, key, reach).of(t);
          // The nearest that the track comes to what has changed.
          let near = Infinity;
          const n = t.points.length / 2;
          for (let i = 0; i < n; i++)
            for (let s = 0; s <= 1; s += 1 / 64) {
              const j = i + 1 < n ? i + 1 : t.closed ? 0 : i;
              const at = (k: number) => t.points[2 * i + k] * (1 - s) + t.points[2 * j + k] * s;
              const away = (v: number, a: number, b: number) => Math.max(0, a - v, v - b);
              const dx = away(at(0), c * f.cell, Math.min(f.cols - 1, c + size) * f.cell);
              const dy = away(at(1), r * f.cell, Math.min(f.rows - 1, r + size) * f.cell);
              near = Math.min(near, Math.hypot(dx, dy));
            }
          if (near <= reach) expect(got).toBeNull();
          // Squares of eight nodes, a long stretch of the track, and a little more.
          if (near > reach + 7) expect(got).toBe(way);
          // What was given up half-way has changed nothing, and another track is another.
          expect(remembered(f, key, reach).of(t)).toBe(way);
          expect(remembered(f, key, reach).of({ ...t, closed: !t.closed })).toBeNull();
          expect(remembered(f, key, reach).of({ ...t, least: -1 })).toBeNull();
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('a surface that has changed in one place', () => {
  const region = [box(1, 1, 39, 29)];
  const preset = { rpm: 12000, feed: 800, plunge: 300, stepDown: 1, stepOver: 0.5 };
  const { blank } = planOn('skim', {}, [], { width: 40, height: 30, thickness: 6 }).job;
  const along = (field: HeightField, pattern: string, walls: Float64Array[], least = -4) => {
    let asked = 0;
    const c = {
      blank,
      budget: budgetOf(),
      expect: () => void asked++,
      progress: () => {},
    } as unknown as CutContext;
    const b = new MotionBuilder();
    goAlong(
      b,
      {
        field,
        form: formOf(cutterOf('ball-2')),
        allowance: 0,
        least,
        walls,
        region,
        step: 0.5,
        tracks: (chord) =>
          pattern === 'rows' ? rowTracks(region, 20, 0.5, false) : spiralTracks(region, 0.5, true, chord),
        layers: [{ floor: least, above: 0 }],
        preset,
        lead: 1,
        links: true,
      },
      c,
      () => {},
    );
    return { m: b.build(), asked };
  };
  it.each(['rows', 'spiral'])('is gone along in %s as if nothing was known', (pattern) => {
    const before = waves(flatField(40, 30, 0.25));
    const first = along(before, pattern, []);
    expect(first.asked).toBe(1);
    for (const after of [changed(before, 20, 20, 34, 30), changed(before, 0, 0, 3, 3), before]) {
      const { m, asked } = along(after, pattern, []);
      // Not all of it was followed anew.
      expect(asked).toBe(0);
      // A wall that is far away changes nothing but what is remembered.
      const anew = along(after, pattern, [box(200, 200, 201, 201 + Math.random())]);
      expect(anew.asked).toBe(1);
      expect(m.count).toBe(anew.m.count);
      for (const axis of ['x', 'y', 'z'] as const)
        for (let i = 0; i < m.count; i++) expect(Math.abs(m[axis][i] - anew.m[axis][i])).toBeLessThan(1e-6);
    }
  });
  it.each(['rows', 'spiral'])(
    'is gone along in %s as if nothing was known when it may go lower, or less low',
    (pattern) => {
      const before = waves(flatField(40, 30, 0.25));
      // The lowest of it lies at -2.6.
      for (const [was, is, all] of [
        [-4, -3, false],
        [-1.8, -1.9, true],
        [-3, -1, true],
      ] as const) {
        along(before, pattern, [], was);
        for (const after of [before, changed(before, 20, 20, 34, 30)]) {
          const { m, asked } = along(after, pattern, [], is);
          // Each of its ways comes as low as that, or none.
          if (!all) expect(asked).toBe(0);
          const anew = along(after, pattern, [box(200, 200, 201, 201 + Math.random())], is);
          expect(m.count).toBe(anew.m.count);
          for (const axis of ['x', 'y', 'z'] as const)
            for (let i = 0; i < m.count; i++) expect(Math.abs(m[axis][i] - anew.m[axis][i])).toBeLessThan(1e-6);
        }
      }
    },
  );
  it('is remembered for each of two cuts that take turns with one cutter', () => {
    const before = waves(flatField(40, 30, 0.3));
    for (const pattern of ['rows', 'spiral']) expect(along(before, pattern, []).asked).toBe(1);
    const after = changed(before, 50, 50, 60, 60);
    for (const pattern of ['rows', 'spiral']) expect(along(after, pattern, []).asked).toBe(0);
  });
});
