import fc from 'fast-check';
import { real } from '../testing/real';
import { bruteInside } from '../testing/independent';
import { box, circleLoop, starLoop } from '../testing/shapes';
import { makeInside, makeStretches } from './inside';
import { normalise } from './region';

// Closer to a line than doubles can tell is on it, and on an edge either may be right.
const num = (min: number, max: number) => real(min, max).map((v) => (Math.abs(v) < 1e-9 ? 0 : v));
const loops = fc.array(
  fc.oneof(
    fc.tuple(num(-9, 9), num(-9, 9), num(0.1, 8), num(0.1, 8)).map(([x, y, w, h]) => box(x, y, x + w, y + h)),
    fc
      .tuple(fc.integer({ min: 3, max: 60 }), num(0.2, 6), num(-9, 9), num(-9, 9))
      .map(([n, r, x, y]) => circleLoop(n, r, x, y)),
    fc
      .tuple(fc.integer({ min: 3, max: 9 }), num(0.5, 6), num(-9, 9), num(-9, 9))
      .map(([n, r, x, y]) => starLoop(n, r, r / 3, x, y)),
  ),
  { minLength: 1, maxLength: 5 },
);

describe('inside, row by row', () => {
  it('is inside by crossings, in whatever order rows are asked', () => {
    fc.assert(
      fc.property(
        loops,
        fc.array(fc.tuple(num(-12, 12), num(-12, 12)), { minLength: 1, maxLength: 40 }),
        (l, points) => {
          const region = normalise(l, 'evenodd');
          const inside = makeInside(region);
          for (const [x, y] of points)
            for (const q of [x, x + 0.7]) expect(inside(q, y)).toBe(bruteInside(region, q, y));
        },
      ),
    );
  });
  it('says from where to where places of a row lie inside, on a grid and beside it', () => {
    fc.assert(
      fc.property(
        loops,
        fc.oneof(fc.integer({ min: -12, max: 12 }), num(-12, 12)),
        fc.oneof(fc.constant(0), num(-3, 3)),
        fc.integer({ min: -40, max: 40 }),
        fc.constantFrom(0.1, 0.25, 0.5, 1),
        fc.integer({ min: 0, max: 90 }),
        (l, y, x0, first, cell, count) => {
          const region = normalise(l, 'evenodd');
          const inside = makeInside(region);
          const all = Array.from({ length: count }, (_, k) => inside(x0 + (first + k) * cell, y));
          const told = new Array<boolean>(count).fill(false);
          for (const [from, to] of makeStretches(region)(y, { x0, first, cell }, count)) told.fill(true, from, to);
          expect(told).toEqual(all);
        },
      ),
    );
    const whole = makeStretches([box(0, 0, 4, 4)]);
    expect(whole(2, { x0: 0, first: 0, cell: 0.5 }, 20)).toEqual([[0, 8]]);
    expect(whole(2, { x0: 1, first: 0, cell: 0.5 }, 3)).toEqual([[0, 3]]);
    expect(whole(5, { x0: 0, first: 0, cell: 0.5 }, 20)).toEqual([]);
  });
  it('knows rows that run through corners and along edges, and has no inside without loops', () => {
    const inside = makeInside([box(0, 0, 4, 4)]);
    expect([inside(2, 2), inside(5, 2), inside(-1, 2), inside(2, -0.001), inside(2, 4.001)]).toEqual([
      true,
      false,
      false,
      false,
      false,
    ]);
    expect(makeInside([starLoop(4, 3, 1, 0, 0)])(0, 0)).toBe(true);
    expect(makeInside([])(0, 0)).toBe(false);
  });
});
