import fc from 'fast-check';
import { real } from '../testing/real';
import { chance, noise } from './noise';
import { noiseKernel } from './noiseKernel';
import { inDoubles, noiseRows, type NoiseRows, type Places } from './noiseRows';

const ways: [string, NoiseRows][] = [
  ['in doubles', inDoubles],
  ['by the kernel', noiseRows(4096)],
];
/** Rows that run on evenly, fine and coarse, forwards and back; that stand; that jump; on whole numbers and halves. */
const places: fc.Arbitrary<Places> = fc
  .record({
    n: fc.integer({ min: 1, max: 61 }),
    from: fc.tuple(real(-900, 900), real(-900, 900)),
    by: fc.constantFrom([0.01, 0], [-0.03, 0.02], [0.37, -0.21], [0, 0], [1, 0], [0.5, 0.5], [-2.7, 9.3]),
    whole: fc.boolean(),
  })
  .map(({ n, from, by, whole }) => {
    const row = (k: 0 | 1) =>
      Float64Array.from({ length: n }, (_, i) => (whole ? Math.round(from[k]) : from[k]) + i * by[k]);
    return { u: row(0), v: row(1) };
  });
const seeds = fc.nat({ max: 1_000_031 });

describe.each(ways)('noise at the places of a row, %s', (_, rows) => {
  it('is that of each place', () => {
    fc.assert(
      fc.property(places, seeds, fc.constantFrom(1, 2, 5), (at, seed, octaves) => {
        const got = rows.roughs(at, 0.4, 1.7, seed, octaves);
        expect(got.length).toBe(at.u.length);
        got.forEach((h, k) => {
          let [sum, all] = [0, 0];
          for (let o = 0; o < octaves; o++) {
            // The places of each size, from those of the one before: x to 2 x + 17.3, y to 2 y - 9.1.
            const by = 2 ** o;
            const x = at.u[k] * 0.4 * by + 17.3 * (by - 1);
            const y = at.v[k] * 1.7 * by - 9.1 * (by - 1);
            sum += noise(x, y, seed + o) / by;
            all += 1 / by;
          }
          expect(Math.abs(h - sum / all)).toBeLessThan(3e-6);
        });
      }),
    );
  });
  it('knows the points that are nearest, held against all of a wide neighbourhood', () => {
    fc.assert(
      fc.property(places, seeds, fc.constantFrom(0, 0.2, 0.7, 1), (at, seed, spread) => {
        const near = rows.toPoints(at, seed, spread);
        const gaps = rows.toBorders(at, seed, spread);
        at.u.forEach((x, k) => {
          const y = at.v[k];
          const all: number[] = [];
          for (let q = -3; q <= 3; q++)
            for (let p = -3; p <= 3; p++) {
              const [i, j] = [Math.floor(x) + p, Math.floor(y) + q];
              const [a, b] = [chance(i, j, seed) - 0.5, chance(i, j, seed + 7919) - 0.5];
              all.push(Math.hypot(i + 0.5 + spread * a - x, j + 0.5 + spread * b - y));
            }
          const [best, second] = all.sort((a, b) => a - b);
          // Close to a point a single float that is squared holds half of its digits.
          expect(Math.abs(near[k] - best)).toBeLessThan(3e-6);
          expect(Math.abs(gaps[k] - (second - best))).toBeLessThan(2e-6);
        });
      }),
    );
  });
});

describe('noise', () => {
  it('is 0 at whole numbers, goes without jumps, and stays in bounds', () => {
    const anywhere = real(-300, 300);
    fc.assert(
      fc.property(anywhere, anywhere, fc.nat(), (x, y, seed) => {
        expect(Math.abs(noise(Math.round(x), Math.round(y), seed))).toBe(0);
        const h = noise(x, y, seed);
        expect(Math.abs(h)).toBeLessThanOrEqual(1.1);
        expect(Math.abs(noise(x + 1e-6, y - 1e-6, seed) - h)).toBeLessThan(1e-4);
      }),
    );
  });
  it('is made by the kernel here, for longer and longer rows', () => {
    const lengths = [3, 5000, 20_000, 7];
    for (const n of lengths) {
      const at = { u: new Float64Array(n).map((_, k) => k / 7), v: new Float64Array(n).fill(0.3) };
      const made = noiseKernel(n)!.roughs(at, 1, 1, 5, 3);
      expect(made.length).toBe(n);
      expect(made[n - 1]).toBeCloseTo(inDoubles.roughs(at, 1, 1, 5, 3)[n - 1], 6);
    }
  });
});
