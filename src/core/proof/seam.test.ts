import fc from 'fast-check';
import { real } from '../testing/real';
import { wallAt } from './seam';

describe('where a wall stands across a line', () => {
  /** Heights along a line: 0, and 2 mm lower between two places; `off`: rounding, which differs with how closely one looks. */
  const groove =
    (from: number, to: number, off: (count: number) => number) =>
    (a: number, b: number, count: number): Float32Array =>
      Float32Array.from({ length: count }, (_, i) => {
        const x = a + ((b - a) * i) / (count - 1) + off(count);
        return x >= from && x < to ? -2 : 0;
      });
  const span = [-1, 1.05] as const;

  it('is within a thousandth, on any place between two heights and on one of them, however it is rounded', () => {
    const place = fc.oneof(
      real(-0.9, 0.4),
      // Just where heights are looked at.
      fc.integer({ min: 5, max: 60 }).map((k) => -1 + (2.05 * k) / 103),
      fc.constantFrom(0, -0.5, 0.3),
    );
    const rounding = fc.constantFrom(0, 1e-9, -1e-9);
    fc.assert(
      fc.property(place, rounding, rounding, (at, coarse, fine) => {
        const off = (count: number) => (count > 60 ? coarse : fine);
        expect(Math.abs(wallAt(groove(at, 9, off), -1, span, true, true) - at)).toBeLessThan(0.001);
        // Behind a groove that begins before the line does.
        expect(Math.abs(wallAt(groove(-9, at, off), -1, span, true, false) - at)).toBeLessThan(0.001);
      }),
      { numRuns: 2000 },
    );
  });

  it('is that of its own pocket where another lies beside it', () => {
    const [beside, own] = [groove(-9, -0.7, () => 0), groove(0.1234, 9, () => 0)];
    const both = (a: number, b: number, count: number) => {
      const near = beside(a, b, count);
      return own(a, b, count).map((h, i) => Math.min(h, near[i]));
    };
    expect(wallAt(both, -1, span, true, true)).toBeCloseTo(0.1234, 3);
  });

  it('is exact where it leans', () => {
    const leaning = (a: number, b: number, count: number) =>
      Float32Array.from({ length: count }, (_, i) => Math.min(0, -(a + ((b - a) * i) / (count - 1) - 0.2137) / 0.577));
    expect(wallAt(leaning, -0.3, span, false, true)).toBeCloseTo(0.2137 + 0.3 * 0.577, 5);
  });

  it('is nowhere where there is none', () => {
    const flat = (_a: number, _b: number, count: number) => new Float32Array(count);
    expect(wallAt(flat, -1, span, true, true)).toBeNaN();
    expect(wallAt(flat, -1, span, true, false)).toBeNaN();
    // What lies below from the start is passed downwards nowhere.
    expect(
      wallAt(
        groove(-9, 9, () => 0),
        -1,
        span,
        true,
        true,
      ),
    ).toBeNaN();
  });
});
