import fc from 'fast-check';
import { curveThrough, isStraight, STRAIGHT, type Curve } from './curve';

const curves = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 49 }), fc.integer({ min: 0, max: 20 })), { minLength: 0, maxLength: 8 })
  .map((inner): Curve => {
    const xs = [...new Set(inner.map(([x]) => x))].sort((a, b) => a - b);
    const heights = inner.map(([, y]) => y / 20);
    return [
      [0, heights[0] ?? 0],
      ...xs.map((x, k): [number, number] => [x / 50, heights[k]]),
      [1, heights.at(-1) ?? 1],
    ];
  });

describe('a curve of greys', () => {
  it('is the straight line where its points lie on it', () => {
    const at = curveThrough([
      [0, 0],
      [0.3, 0.3],
      [1, 1],
    ]);
    for (let x = 0; x <= 1; x += 0.01) expect(at(x)).toBeCloseTo(x, 12);
    expect(isStraight(STRAIGHT)).toBe(true);
    expect(
      isStraight([
        [0, 0.1],
        [1, 1],
      ]),
    ).toBe(false);
  });
  it('goes through its points, and between two of them never beyond either', () => {
    fc.assert(
      fc.property(curves, (c) => {
        const at = curveThrough(c);
        for (const [x, y] of c) expect(at(x)).toBeCloseTo(y, 12);
        for (let k = 0; k + 1 < c.length; k++) {
          const [low, high] = [Math.min(c[k][1], c[k + 1][1]), Math.max(c[k][1], c[k + 1][1])];
          let last = at(c[k][0]);
          for (let i = 1; i <= 40; i++) {
            const h = at(c[k][0] + (i / 40) * (c[k + 1][0] - c[k][0]));
            expect(h).toBeGreaterThan(low - 1e-12);
            expect(h).toBeLessThan(high + 1e-12);
            // It goes one way only.
            expect((h - last) * (c[k + 1][1] - c[k][1])).toBeGreaterThan(-1e-12);
            last = h;
          }
        }
      }),
      { numRuns: 200 },
    );
  });
  it('has no corner at a point that it passes rising', () => {
    const at = curveThrough([
      [0, 0],
      [0.4, 0.2],
      [1, 1],
    ]);
    const e = 1e-6;
    expect((at(0.4 + e) - at(0.4)) / e).toBeCloseTo((at(0.4) - at(0.4 - e)) / e, 3);
  });
  it('is level beyond its first and its last', () => {
    const at = curveThrough([
      [0.2, 0.3],
      [0.8, 0.9],
    ]);
    expect([at(0), at(0.1), at(0.95), at(1)]).toEqual([0.3, 0.3, 0.9, 0.9]);
  });
});
