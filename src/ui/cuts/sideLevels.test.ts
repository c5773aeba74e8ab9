import fc from 'fast-check';
import { real } from '@/core/testing/real';
import { labelPlaces, sideScale } from './sideLevels';

describe('the side view of a cut', () => {
  it('draws depths to one scale, in order, and all of it in its height', () => {
    const mm = real(0.01, 200);
    fc.assert(
      fc.property(mm, mm, (highest, deepest) => {
        const { y, k, above } = sideScale(highest, deepest, 120);
        expect(y(highest)).toBeCloseTo(0, 6);
        expect(y(-deepest)).toBeLessThanOrEqual(120 + 1e-6);
        expect(y(-deepest) - y(0)).toBeCloseTo(k * deepest, 6);
        expect(y(-deepest / 2) - y(0)).toBeCloseTo((k * deepest) / 2, 6);
        expect(above).toBeGreaterThan(0);
        expect(above).toBeLessThanOrEqual(1);
        // Heights have the scale of depths wherever they fit.
        if (highest * 2 < deepest) expect(above).toBe(1);
      }),
    );
  });

  it('is no larger than what is wide allows', () => {
    const { y, k } = sideScale(10, 0.1, 120, 30);
    expect(k).toBe(30);
    expect(y(-0.1) - y(0)).toBeCloseTo(3, 9);
  });

  it('keeps labels apart, in order, and inside', () => {
    fc.assert(
      fc.property(fc.array(real(0, 120), { minLength: 1, maxLength: 7 }), (at) => {
        const sorted = [...at].sort((a, b) => a - b);
        const places = labelPlaces(sorted, 13, 120);
        places.forEach((p, i) => {
          expect(p).toBeLessThanOrEqual(120);
          if (i) expect(p - places[i - 1]).toBeGreaterThanOrEqual(13 - 1e-9);
        });
      }),
    );
    expect(labelPlaces([10, 50, 100], 13, 120)).toEqual([10, 50, 100]);
  });
});
