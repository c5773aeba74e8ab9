import fc from 'fast-check';
import { bruteDistance } from '../testing/independent';
import { real } from '../testing/real';
import { box, circleLoop, starLoop } from '../testing/shapes';
import { makeSegmentIndex } from './segmentIndex';

const place = fc.oneof(fc.integer({ min: -14, max: 14 }), real(-14, 14));
/** Round values and others, loops that touch and cross, and a dense one among sparse ones. */
const outlines = fc.array(
  fc.oneof(
    fc.tuple(place, place, fc.integer({ min: 1, max: 9 })).map(([x, y, w]) => box(x, y, x + w, y + 1)),
    fc.tuple(fc.integer({ min: 3, max: 300 }), real(0.05, 6), place, place).map((v) => circleLoop(...v)),
    fc
      .tuple(fc.integer({ min: 3, max: 9 }), real(0.5, 6), place, place)
      .map(([n, r, x, y]) => starLoop(n, r, r / 3, x, y)),
  ),
  { minLength: 1, maxLength: 6 },
);
const places = fc.array(fc.tuple(place, place), { minLength: 1, maxLength: 30 });

describe('segments near places', () => {
  it('are as far as the nearest of all is, along rows and from afar, up to the most that is asked for', () => {
    fc.assert(
      fc.property(outlines, places, fc.constantFrom(0, 0.3, 2, Infinity), (r, asked, most) => {
        const index = makeSegmentIndex(r);
        for (const [x, y] of asked)
          for (const along of [0, 0.01, 0.3, 40]) {
            const d = index.distance(x + along, y, most);
            const own = bruteDistance(r, x + along, y);
            if (own <= most) expect(Math.abs(d - own)).toBeLessThan(1e-9 * (1 + own));
            else expect(d).toBeGreaterThan(most);
          }
      }),
    );
  });
  it('are the same ones whatever was asked before, also where several are equally near', () => {
    fc.assert(
      fc.property(outlines, places, (r, asked) => {
        const index = makeSegmentIndex(r);
        for (const [x, y] of asked) {
          index.distance(y, x);
          expect(index.nearest(x, y)).toBe(makeSegmentIndex(r).nearest(x, y));
          expect(index.distanceTo(index.nearest(x, y), x, y)).toBe(index.distance(x, y));
        }
      }),
    );
    // The middle of a square is equally far from its four sides.
    const square = makeSegmentIndex([box(0, 0, 2, 2)]);
    const first = square.nearest(1, 1);
    square.distance(1, 0.1);
    square.distance(0.1, 1);
    expect(square.nearest(1, 1)).toBe(first);
  });
});
