import fc from 'fast-check';
import { real } from '../testing/real';
import { fillFrom, flatField, heightAt, heightsAlong, sparser, sparserOver } from './field';
import { chance } from './noise';

const sides = fc.record({
  width: real(1, 40),
  height: real(1, 40),
  coarse: real(0.3, 5),
  fine: real(0.2, 1),
  seed: fc.integer(),
});

describe('a field filled from a coarser one', () => {
  it('has its heights between its nodes, and goes on level beyond them', () => {
    fc.assert(
      fc.property(sides, ({ width, height, coarse, fine, seed }) => {
        const from = flatField(width, height, coarse);
        from.z.forEach((_, i) => (from.z[i] = Math.sin(seed + 12.9 * i)));
        const f = flatField(width, height, fine);
        fillFrom(from, f);
        const inside = (v: number, count: number) => Math.min(v, (count - 1) * from.cell);
        for (let r = 0; r < f.rows; r++)
          for (let c = 0; c < f.cols; c++) {
            const [x, y] = [inside(c * fine, from.cols), inside(r * fine, from.rows)];
            // A place on the outermost node may be rounded beyond it.
            const z = heightAt(from, Math.max(0, x - 1e-9), Math.max(0, y - 1e-9));
            expect(Math.abs(f.z[r * f.cols + c] - z)).toBeLessThan(1e-5);
          }
      }),
      { numRuns: 40 },
    );
  });
  it('of a plane is that plane', () => {
    const from = flatField(12, 8, 0.5);
    from.z.forEach((_, i) => (from.z[i] = 0.25 * (i % from.cols) - Math.floor(i / from.cols)));
    const f = flatField(12, 8, 0.125);
    fillFrom(from, f);
    f.z.forEach((z, i) => expect(z).toBeCloseTo(0.0625 * (i % f.cols) - 0.25 * Math.floor(i / f.cols), 5));
  });
});

test('a field of fewer nodes lies nowhere below a node that it leaves out, and on an even slope is the same', () => {
  const f = flatField(12, 9, 0.5);
  for (let i = 0; i < f.z.length; i++) f.z[i] = 0.25 * (i % f.cols) - 0.5 * Math.floor(i / f.cols);
  expect([...sparserOver(f, f.z.length / 3).z]).toEqual([...sparser(f, f.z.length / 3).z]);
  // A blade one node wide, on nodes that are left out and that are kept, and a hole.
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 20 }),
      fc.integer({ min: 2, max: 12 }),
      fc.integer(),
      (blade, share, seed) => {
        const g = { ...f, z: f.z.map((h, i) => (i % f.cols === blade ? h + 3 : h + chance(i, 0, seed))) };
        g.z[seed % 7 === 0 ? 100 : 0] = NaN;
        const over = sparserOver(g, g.z.length / share);
        const lacking = [...g.z.keys()].filter((i) => {
          const [x, y] = [(i % g.cols) * g.cell, Math.floor(i / g.cols) * g.cell];
          if (x > (over.cols - 1) * over.cell || y > (over.rows - 1) * over.cell) return false;
          return heightAt(over, x, y) < g.z[i] - 1e-5;
        });
        expect(lacking).toEqual([]);
      },
    ),
  );
});

test('heights along a row are those at its places, beyond the field and beside what is empty too', () => {
  const f = { ...flatField(6, 4, 0.5), x0: 1, y0: -2 };
  f.z.forEach((_, i) => (f.z[i] = i === 40 ? NaN : chance(i, 0, 5)));
  fc.assert(
    fc.property(
      fc.oneof(fc.constantFrom(-2, 0, 1.5, 2), real(-3, 3)),
      fc.constantFrom(0, 1, -0.3),
      fc.integer({ min: -4, max: 8 }),
      fc.constantFrom(0.25, 0.5, 0.7),
      (y, x0, first, cell) => {
        const out = new Float32Array(20).fill(9);
        heightsAlong(f, y, { x0, first, cell }, 3, 18, out);
        const there = [...out.keys()].map((k) =>
          k < 3 || k >= 18 ? 9 : Math.fround(heightAt(f, x0 + (first + k) * cell, y)),
        );
        expect([...out]).toEqual(there);
      },
    ),
  );
});
