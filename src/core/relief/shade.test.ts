import { filled, flatField } from './field';
import { shade } from './shade';

describe('a field seen from above', () => {
  it('is of one brightness where it is level, and darker where it lies deeper', () => {
    const f = flatField(20, 10, 0.5);
    const face = shade(f, 40, 20, 5);
    for (const v of face) expect(v).toBeCloseTo(1, 6);
    const floor = shade(flatField(20, 10, 0.5, -5), 40, 20, 5);
    for (const v of floor) expect(v).toBeCloseTo(0.65, 6);
  });
  it('is lit on a plane by its normal, however many points it is asked for', () => {
    // Normals of z = ax + by against the light, worked out by angles.
    const light = [-0.48, 0.48, 0.735];
    for (const [a, b] of [
      [0.3, 0],
      [0, -0.4],
      [-0.5, 0.25],
    ] as const) {
      const f = flatField(12, 8, 0.25);
      for (let r = 0; r < f.rows; r++)
        for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = a * c * 0.25 + b * r * 0.25;
      const length = Math.hypot(a, b, 1);
      const lit = (-a * light[0]! - b * light[1]! + light[2]!) / length / light[2]!;
      for (const [cols, rows] of [
        [12, 8],
        [120, 80],
        [7, 31],
        [1, 1],
      ] as const)
        expect(
          Math.max(
            ...shade(f, cols, rows, 0).map((v) => Math.abs(v - (cols === 1 ? 1 : Math.min(1, 0.25 + 0.75 * lit)))),
          ),
        ).toBeLessThan(1e-4);
    }
  });
  it('is brighter on slopes that look to the upper left, darker on those that look away, and its top row is that of the greatest Y', () => {
    const f = flatField(20, 20, 0.5);
    // A ridge along Y in the middle; a step up at Y > 15.
    for (let r = 0; r < f.rows; r++)
      for (let c = 0; c < f.cols; c++) f.z[r * f.cols + c] = -0.4 * Math.abs(c * 0.5 - 10) - (r * 0.5 > 15 ? 0 : 1);
    const s = shade(f, 40, 40, 0);
    expect(s[30 * 40 + 8]).toBeGreaterThan(s[30 * 40 + 32]);
    const deep = shade(f, 40, 40, 6);
    expect(deep[2 * 40 + 8]).toBeGreaterThan(deep[30 * 40 + 8]);
  });
  it('sees empty places at the height that they are given, and not at all without one', () => {
    const f = flatField(12, 8, 0.5);
    for (let i = 0; i < f.z.length; i++) f.z[i] = i % 7 === 3 ? NaN : -Math.abs(Math.sin(i));
    expect([...shade(f, 31, 20, 2, undefined, -0.5)]).toEqual([...shade(filled(f, -0.5), 31, 20, 2)]);
    expect(shade(f, 31, 20, 2).some(Number.isNaN)).toBe(true);
  });
});
