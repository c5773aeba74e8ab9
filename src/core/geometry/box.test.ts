import fc from 'fast-check';
import { real } from '../testing/real';
import { boxesMeet, boxHolds, inBox, noBox, orNull, widen, type Bounds } from './box';
import { arcChords } from './path';

/** Places on a coarse grid, so that edges and corners fall on each other. */
const at = fc.integer({ min: -4, max: 4 });
const points = fc.array(fc.tuple(at, at), { minLength: 1, maxLength: 6 });
const over = (list: readonly (readonly [number, number])[]): Bounds => {
  const b = noBox();
  for (const [x, y] of list) widen(b, x, y);
  return b;
};
const everywhere = Array.from({ length: 17 * 17 }, (_, k) => [(k % 17) / 2 - 4, Math.floor(k / 17) / 2 - 4] as const);

describe('boxes', () => {
  it('hold their points and no more than they must', () => {
    fc.assert(
      fc.property(points, (list) => {
        const b = over(list);
        for (const [x, y] of list) expect(inBox(b, x, y)).toBe(true);
        for (const edge of [b.x0, b.x1]) expect(list.some(([x]) => x === edge)).toBe(true);
        for (const edge of [b.y0, b.y1]) expect(list.some(([, y]) => y === edge)).toBe(true);
        expect(orNull(b)).toBe(b);
      }),
    );
    expect(orNull(noBox())).toBeNull();
  });
  it('meet where some place lies in both, and hold each other where every place of the one lies in the other', () => {
    fc.assert(
      fc.property(points, points, (p, q) => {
        const [a, b] = [over(p), over(q)];
        // Corners lie on whole numbers: places half a step apart find all that two boxes have in common.
        const inA = everywhere.filter(([x, y]) => inBox(a, x, y));
        const inB = everywhere.filter(([x, y]) => inBox(b, x, y));
        const both = inA.filter(([x, y]) => inBox(b, x, y));
        expect(boxesMeet(a, b)).toBe(both.length > 0);
        expect(boxesMeet(b, a)).toBe(both.length > 0);
        expect(boxHolds(a, b)).toBe(both.length === inB.length);
      }),
    );
    const { x0, y0, x1, y1 } = noBox();
    expect(boxesMeet({ x0, y0, x1, y1 }, over([[0, 0]]))).toBe(false);
  });
});

describe('chords of an arc', () => {
  it('stay within the tolerance, and are no more than it takes', () => {
    const num = (min: number, max: number) => real(min, max);
    fc.assert(
      fc.property(num(-2 * Math.PI, 2 * Math.PI), num(1e-4, 500), num(1e-4, 1), (sweep, r, tolerance) => {
        const n = arcChords(sweep, r, tolerance);
        const off = (k: number) => r * (1 - Math.cos(Math.abs(sweep) / k / 2));
        expect(n).toBeGreaterThanOrEqual(1);
        expect(Math.abs(sweep) / n).toBeLessThanOrEqual(Math.PI + 1e-9);
        expect(off(n)).toBeLessThanOrEqual(tolerance * (1 + 1e-6));
        if (n > 4) expect(off(n - 1)).toBeGreaterThan(tolerance * (1 - 1e-6));
      }),
    );
  });
});
