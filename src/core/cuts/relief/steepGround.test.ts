import fc from 'fast-check';
import { flatField, type HeightField } from '../../relief/field';
import { windowOf } from '../../relief/window';
import { steepGround, steepReach } from './steepGround';

const [WIDE, HIGH, CELL] = [24, 14, 0.1];

/** Hills and pits with walls and with slopes, some of them no larger than a speck. */
const ground = (hills: readonly (readonly [number, number, number, number])[]): HeightField => {
  const f = flatField(WIDE, HIGH, CELL);
  return {
    ...f,
    z: f.z.map((_, i) => {
      const [x, y] = [(i % f.cols) * CELL, Math.floor(i / f.cols) * CELL];
      let h = -3;
      for (const [cx, cy, size, up] of hills)
        h += up * Math.min(1, Math.max(0, ((size - Math.hypot(x - cx, y - cy)) * 2) / Math.abs(up) + 0.5));
      return h;
    }),
  };
};

describe('ground parted by how steep it is', () => {
  const hill = fc.tuple(
    fc.integer({ min: 0, max: WIDE }),
    fc.integer({ min: 0, max: HIGH }),
    fc.constantFrom(0, 0.1, 0.2, 0.4, 1, 2.5),
    fc.constantFrom(-4, -1, 0.3, 1, 4),
  );
  it('is parted alike by all who see as far round it as is said', () => {
    let parts = 0;
    fc.assert(
      fc.property(
        fc.array(hill, { minLength: 10, maxLength: 40 }),
        fc.integer({ min: 2, max: WIDE - 2 }),
        fc.integer({ min: 2, max: HIGH - 2 }),
        fc.constantFrom(0.15, 0.2, 0.3),
        (hills, x, y, step) => {
          const f = ground(hills);
          const box = { x0: x - 1, y0: y - 1, x1: x + 1, y1: y + 1 };
          const part = windowOf(f, box, steepReach(f, step));
          if (part !== f) parts++;
          const [all, some] = [steepGround(f, 1, step), steepGround(part, 1, step)];
          const [c0, r0] = [part.x0 / CELL, part.y0 / CELL].map(Math.round);
          for (let r = Math.round(box.y0 / CELL); r <= Math.round(box.y1 / CELL); r++)
            for (let c = Math.round(box.x0 / CELL); c <= Math.round(box.x1 / CELL); c++) {
              const [i, j] = [r * f.cols + c, (r - r0) * part.cols + c - c0];
              for (const mask of ['levels', 'noRows', 'narrow', 'strips'] as const)
                if (all[mask][i] > 0 !== some[mask][j] > 0) throw new Error(`${mask} at ${c} ${r}`);
            }
        },
      ),
      { numRuns: 15 },
    );
    expect(parts).toBeGreaterThan(7);
  });

  it('leaves to rows what is level, the foot of a slope and the bottom between two, and goes round on slopes alone', () => {
    const step = 0.2;
    // A trench along Y with walls of 70 degrees, 8 mm wide above, and a wide floor at one side of a step.
    const f = flatField(WIDE, HIGH, CELL);
    f.z.forEach((_, i) => {
      const x = (i % f.cols) * CELL;
      f.z[i] = x < 12 ? -8 + Math.max(0, Math.abs(x - 6) * 2.75) : -1 - Math.min(5, Math.max(0, x - 17) * 2.75);
    });
    const { levels, noRows, narrow, strips } = steepGround(f, 1, step);
    const at = (m: Float32Array, x: number) => m[70 * f.cols + Math.round(x / CELL)] > 0;
    for (const x of [4, 5, 7, 8, 17.6, 18]) expect([x, at(levels, x)]).toEqual([x, true]);
    // Bottom, level, foot, level.
    for (const x of [6, 14, 18.9, 21]) expect([x, at(levels, x)]).toEqual([x, false]);
    for (const x of [6, 6.2, 5.8, 14, 18.9, 21]) expect([x, at(noRows, x)]).toEqual([x, false]);
    expect(at(noRows, 4)).toBe(true);
    for (const x of [6, 18.8]) expect([x, at(narrow, x), at(strips, x)]).toEqual([x, true, true]);
    for (const x of [14, 21]) expect([x, at(strips, x)]).toEqual([x, false]);
  });
});
