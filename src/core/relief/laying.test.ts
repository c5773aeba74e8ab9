import fc from 'fast-check';
import { real } from '../testing/real';
import { meetings, type Meeting } from './form';
import { layAll, type Layer } from './laying';
import { lay } from './stack';

const ways = Object.keys(meetings) as Meeting[];
/** Heights, some of them empty, some alike. */
const height = fc.oneof(
  { weight: 4, arbitrary: real(-5, 5) },
  { weight: 2, arbitrary: fc.constantFrom(0, 1, -1) },
  { weight: 1, arbitrary: fc.constant(NaN) },
);
const share = fc.oneof(fc.constantFrom(0, 0.5, 1), real(0, 1));
const many = (of: fc.Arbitrary<number>, n: number) =>
  fc.array(of, { minLength: n, maxLength: n }).map((a) => Float32Array.from(a));
const layers = (n: number): fc.Arbitrary<Layer[]> =>
  fc.array(
    fc.record({
      z: many(height, n),
      weights: fc.option(many(share, n), { nil: null }),
      meets: fc.constantFrom(...ways),
      strength: fc.constantFrom(0, 0.5, 1, 2),
      base: fc.constantFrom(0, 1, -0.25, 0.1),
    }),
    { maxLength: 5 },
  );

describe('forms laid on each other', () => {
  it('come out as if each was laid by itself', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 23 }).chain((n) => fc.tuple(many(height, n), layers(n))),
        ([under, stack]) => {
          const [one, all] = [under.slice(), under.slice()];
          for (const l of stack) lay(one, l.z, l, l.weights);
          layAll(all, stack);
          one.forEach((h, i) => {
            expect(all[i] === all[i]).toBe(h === h);
            if (h === h) expect(Math.abs(all[i] - h)).toBeLessThan(1e-5);
          });
        },
      ),
      { numRuns: 300 },
    );
  });
  it('are laid wherever they lie, beyond what is laid at once', () => {
    const n = 100_003;
    const under = new Float32Array(n).map((_, k) => (k % 3 ? k / n : NaN));
    const z = new Float32Array(n).map((_, k) => (k % 7 ? 1 - k / n : NaN));
    const weights = new Float32Array(n).map((_, k) => (k % 11) / 10);
    const stack: Layer[] = ways.map((meets, k) => ({
      z,
      weights: k % 2 ? weights : null,
      meets,
      strength: 1 + k / 4,
      base: 0.1 * k,
    }));
    const [one, all] = [under.slice(), under.slice()];
    for (const l of stack) lay(one, l.z, l, l.weights);
    layAll(all, stack);
    for (let i = 0; i < n; i++)
      if (!(Math.abs(all[i] - one[i]) < 1e-5) && (all[i] === all[i] || one[i] === one[i]))
        throw new Error(`node ${i}: ${all[i]}, not ${one[i]}`);
  });
});
