import fc from 'fast-check';
import {
  across,
  curve,
  egg,
  facets,
  leaf,
  limb,
  met,
  mirrored,
  moved,
  plate,
  ring,
  rope,
  turned,
  type Point,
} from './kit';

/** How far a place lies from a line, looking at every segment of it. */
function awayOf(points: readonly Point[], x: number, y: number): number {
  let least = Infinity;
  for (let i = 1; i < points.length; i++)
    for (let k = 0; k <= 400; k++) {
      const t = k / 400;
      const [px, py] = [0, 1].map((d) => points[i - 1][d] * (1 - t) + points[i][d] * t);
      least = Math.min(least, Math.hypot(x - px, y - py));
    }
  return least;
}

const place = fc.integer({ min: -60, max: 60 });
const point = fc.tuple(place, place).map(([x, y]): Point => [x, y]);

describe('strokes', () => {
  it('along any line are as high as the distance to it says, and nothing beyond', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 6 }), point, (line, [x, y]) => {
        const s = limb(line, 7, 10, 'ridge');
        const away = awayOf(line, x, y);
        const h = s.at(x, y);
        // Whole numbers at a distance of exactly the radius may fall on either side of it.
        if (Math.abs(away - 7) < 0.02) return;
        if (away > 7) expect(h).toBeNaN();
        else expect(Math.abs(h - 10 * (1 - away / 7))).toBeLessThan(0.3);
        if (h === h) {
          expect(x >= s.box[0] && x <= s.box[2] && y >= s.box[1] && y <= s.box[3]).toBe(true);
        }
      }),
      { numRuns: 400 },
    );
  });
  it('have the shapes across that they are named after', () => {
    const line: Point[] = [
      [-20, 0],
      [20, 0],
    ];
    for (const y of [-3.9, -2, 0, 1, 3]) {
      const q = Math.abs(y) / 4;
      expect(limb(line, 4, 6).at(5, y)).toBeCloseTo(6 * Math.sqrt(1 - q * q), 9);
      expect(limb(line, 4, 6, 'soft').at(5, y)).toBeCloseTo(6 * (1 - q * q), 9);
      expect(limb(line, 4, 6, 'bell').at(-5, y)).toBeCloseTo(6 * (1 - q * q) ** 2, 9);
    }
    expect(limb(line, (t) => 2 + 4 * t, 6, 'ridge').at(0, 2)).toBeCloseTo(6 * (1 - 2 / 4), 9);
    expect(limb(line, 4, (t) => 10 * t, 'ridge').at(-10, 0)).toBeCloseTo(2.5, 9);
    // A ball's own: the foot of an egg turned by a right angle.
    expect(egg([3, 4], 10, 5, 8).at(3, 4 + 3)).toBeCloseTo(8 * 0.8, 9);
    expect(egg([3, 4], 10, 5, 8, 90).at(3 + 3, 4)).toBeCloseTo(8 * 0.8, 9);
    expect(egg([3, 4], 10, 5, 8, 90).at(3 + 5.1, 4)).toBeNaN();
    expect(ring([0, 0], 10, 2, 3).at(0, 11)).toBeCloseTo(3 * Math.sqrt(0.75), 9);
    expect(ring([0, 0], 10, 2, 3).at(0, 7.9)).toBeNaN();
  });
  it('are level in all places of a shape at its middle, and nothing at its rim', () => {
    for (const f of Object.values(across)) {
      expect(f(0)).toBe(1);
      expect(f(1)).toBe(0);
    }
  });
  it('as plates lean at their rim alone, whichever way round their outline goes', () => {
    const square: Point[] = [
      [0, 0],
      [20, 0],
      [20, 10],
      [0, 10],
    ];
    for (const outline of [square, [...square].reverse()]) {
      const p = plate(outline, 3, 1.5);
      expect(p.at(10, 5)).toBe(3);
      expect(p.at(1, 5)).toBeCloseTo(1.5, 9);
      expect(p.at(19.5, 9)).toBeCloseTo(0.75, 9);
      expect(p.at(-0.1, 5)).toBeNaN();
      expect(p.at(10, 10.1)).toBeNaN();
    }
  });
  it('as stars of facets fall straight from the middle to tips and notches', () => {
    const s = facets([0, 0], 5, 50, 20, 15);
    expect(s.at(0, 0)).toBe(15);
    for (let k = 0; k < 5; k++) {
      const a = ((90 + 72 * k) * Math.PI) / 180;
      expect(s.at(25 * Math.cos(a), 25 * Math.sin(a))).toBeCloseTo(7.5, 9);
      const b = a + Math.PI / 5;
      expect(s.at(10 * Math.cos(b), 10 * Math.sin(b))).toBeCloseTo(7.5, 9);
      expect(s.at(20.1 * Math.cos(b), 20.1 * Math.sin(b))).toBeNaN();
    }
  });
  it('meet what is there as they say', () => {
    const how = (h: 'over' | 'soft' | 'cut' | 'on', fillet = 0) => ({ how: h, fillet });
    expect(met(NaN, 4, how('over'))).toBe(4);
    expect(met(5, 4, how('over'))).toBe(5);
    expect(met(5, NaN, how('cut'))).toBe(5);
    expect(met(5, 2, how('cut'))).toBe(3);
    expect(met(1, 2, how('cut'))).toBe(0);
    expect(met(NaN, 2, how('cut'))).toBeNaN();
    expect(met(5, 2, how('on'))).toBe(7);
    expect(met(NaN, 2, how('on'))).toBeNaN();
    const number = fc.integer({ min: 0, max: 20 });
    fc.assert(
      fc.property(number, number, fc.integer({ min: 1, max: 8 }), (a, b, f) => {
        const m = met(a, b, how('soft', f));
        expect(m).toBeGreaterThanOrEqual(Math.max(a, b));
        expect(m).toBeLessThanOrEqual(Math.max(a, b) + f / 4);
        expect(met(b, a, how('soft', f))).toBe(m);
        if (Math.abs(a - b) >= f) expect(m).toBe(Math.max(a, b));
        if (a === b) expect(m).toBe(a + f / 4);
      }),
    );
  });
  it('are the same strokes elsewhere, turned, larger, and in the mirror', () => {
    const s = [
      leaf(curve([0, 0], [10, 8], [20, 8], [30, 0]), 6, 5, { rib: 0.3, veins: 4, vein: 0.2 }),
      rope(
        [
          [-10, -8],
          [25, -8],
        ],
        3,
        4,
        6,
      ),
    ];
    fc.assert(
      fc.property(point, fc.constantFrom(0, 45, 90, 180, 33), (p, degrees) => {
        const a = (degrees * Math.PI) / 180;
        for (const one of s) {
          // Beside the very rim and the middle line, where roundings decide.
          const [x, y] = [p[0] / 2 + 0.137, p[1] / 4 + 0.211];
          const h = one.at(x, y);
          const [tx, ty] = [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)];
          for (const { stroke, at, want } of [
            { stroke: turned([one], degrees)[0], at: [tx, ty], want: h },
            { stroke: mirrored([one], 4)[0], at: [8 - x, y], want: h },
            { stroke: moved([one], 3, -2, 2)[0], at: [2 * x + 3, 2 * y - 2], want: 2 * h },
          ]) {
            const got = stroke.at(at[0], at[1]);
            if (want !== want) {
              expect(got).toBeNaN();
              continue;
            }
            expect(got).toBeCloseTo(want, 6);
            const [x0, y0, x1, y1] = stroke.box;
            expect(at[0] >= x0 && at[0] <= x1 && at[1] >= y0 && at[1] <= y1).toBe(true);
          }
        }
      }),
      { numRuns: 200 },
    );
  });
});
