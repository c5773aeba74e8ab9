import fc from 'fast-check';
import { real } from '../../testing/real';
import { normalise, regionArea, type Region } from '../../geometry/region';
import { bruteDistance, bruteInside } from '../../testing/independent';
import { box, circleLoop, hole, starLoop, turned } from '../../testing/shapes';
import { hatchRows, zigzags } from './hatch';

const regions: fc.Arbitrary<Region> = fc.oneof(
  fc.constant(normalise([box(0, 0, 40, 25)])),
  fc.constant(normalise([circleLoop(300, 18), hole(circleLoop(200, 7, 3, 1))])),
  real(0, 90).map((a) => normalise(turned([starLoop(5, 22, 9)], a))),
);
const length = (l: Float64Array) => Math.hypot(l[2] - l[0], l[3] - l[1]);

describe('rows of a hatch', () => {
  it('(long) lie inside, level with their angle, a step apart, and their lengths times the step make the area', () => {
    fc.assert(
      fc.property(regions, real(-180, 180), real(0.15, 0.6), (region, angle, step) => {
        const rows = hatchRows(region, angle, step);
        const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
        let sum = 0;
        rows.forEach((row, k) => {
          for (const l of row) {
            sum += length(l);
            const across = (x: number, y: number) => -s * x + c * y;
            expect(across(l[0], l[1])).toBeCloseTo(across(l[2], l[3]), 9);
            expect(Math.abs(across(l[0], l[1]) / step - Math.round(across(l[0], l[1]) / step))).toBeLessThan(1e-5);
            if (k) for (const o of rows[k - 1]) expect(across(l[0], l[1]) - across(o[0], o[1])).toBeCloseTo(step, 9);
            // Ends on the outline, middle inside.
            expect(bruteDistance(region, l[0], l[1])).toBeLessThan(1e-6);
            expect(bruteDistance(region, l[2], l[3])).toBeLessThan(1e-6);
            if (length(l) > 1e-3) expect(bruteInside(region, (l[0] + l[2]) / 2, (l[1] + l[3]) / 2)).toBe(true);
          }
        });
        expect(sum * step).toBeGreaterThan(0.94 * regionArea(region));
        expect(sum * step).toBeLessThan(1.06 * regionArea(region));
      }),
      { numRuns: 60 },
    );
  });
  it('are joined to and fro without leaving the region, and none is lost or run twice', () => {
    fc.assert(
      fc.property(regions, real(-180, 180), real(0.4, 2), (region, angle, step) => {
        const rows = hatchRows(region, angle, step);
        const lines = zigzags(rows, region, 4 * step);
        const key = (l: ArrayLike<number>, i: number) => `${l[i].toFixed(6)} ${l[i + 1].toFixed(6)}`;
        const left = new Map<string, number>();
        for (const l of rows.flat()) for (const i of [0, 2]) left.set(key(l, i), (left.get(key(l, i)) ?? 0) + 1);
        for (const l of lines) {
          for (let i = 0; i < l.length; i += 2) left.set(key(l, i), left.get(key(l, i))! - 1);
          for (let i = 0; i + 3 < l.length; i += 2) {
            const [mx, my] = [(l[i] + l[i + 2]) / 2, (l[i + 1] + l[i + 3]) / 2];
            expect(bruteInside(region, mx, my) || bruteDistance(region, mx, my) < 2e-4).toBe(true);
          }
        }
        expect([...left.values()].every((v) => v === 0)).toBe(true);
        if (rows.flat().length > 6) expect(lines.length).toBeLessThan(rows.flat().length);
      }),
      { numRuns: 60 },
    );
  });
  it('of nothing are none, and too many are refused in words', () => {
    expect(hatchRows([], 0, 1)).toEqual([]);
    expect(() => hatchRows([box(0, 0, 4e5, 4e5)], 0, 1)).toThrow(/too close together/);
  });
});
