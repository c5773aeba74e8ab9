import fc from 'fast-check';
import { bruteDistance, bruteInside } from '../testing/independent';
import { box, circleLoop, hole, loop, starLoop, turned } from '../testing/shapes';
import type { Region } from '../geometry/region';
import { deepest, distances } from './distance';
import { gridOf } from './field';

const shapes: Readonly<Record<string, Region>> = {
  box: [box(2, 2, 12, 9)],
  frame: [box(1, 1, 14, 11), hole(box(4, 4, 9, 8))],
  star: [starLoop(5, 5, 2, 7, 6)],
  turned: turned([starLoop(7, 5, 3, 7, 6)], 17),
  circle: [circleLoop(400, 4, 7, 6)],
  touching: [box(1, 1, 5, 5), box(5, 5, 9, 9)],
  'a hair': [loop(2, 2, 13, 2, 13, 2.001, 2, 2.001)],
};

describe('distances of nodes from outlines', () => {
  it.each(Object.keys(shapes))('are to the nearest segment, and inside where the outline is round them: %s', (name) => {
    const region = shapes[name];
    const g = gridOf(15, 12, 0.25);
    const d = distances(region, g);
    for (let r = 0; r < g.rows; r++)
      for (let c = 0; c < g.cols; c++) {
        const [x, y] = [c * g.cell, r * g.cell];
        const want = bruteDistance(region, x, y);
        const got = d[r * g.cols + c];
        expect(Math.abs(Math.abs(got) - want)).toBeLessThan(1e-5);
        if (want > 1e-9) expect(got > 0).toBe(bruteInside(region, x, y));
      }
  });
  it('beyond the most that is asked are at least that, on the right side', () => {
    const g = gridOf(15, 12, 0.25);
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(shapes)),
        fc.double({ min: 0.1, max: 6, noNaN: true }),
        (region, most) => {
          const [all, near] = [distances(region, g), distances(region, g, most)];
          all.forEach((d, i) => {
            if (Math.abs(d) <= most) expect(near[i]).toBe(d);
            else expect(near[i] * Math.sign(d)).toBeGreaterThanOrEqual(most);
          });
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('the largest circle inside', () => {
  it('is that of the closed form', () => {
    expect(deepest([box(0, 0, 10, 4)])).toBeCloseTo(2, 3);
    expect(deepest([box(0, 0, 10, 10), hole(box(4, 4, 6, 6))])).toBeCloseTo(4 / (1 + Math.SQRT1_2), 3);
    expect(deepest([circleLoop(720, 3, 1, 1)])).toBeCloseTo(3 * Math.cos(Math.PI / 720), 3);
    // A right triangle of legs a, b: (a + b - c) / 2.
    expect(deepest([loop(0, 0, 3, 0, 0, 4)])).toBeCloseTo(1, 3);
    expect(deepest([])).toBe(0);
  });
});
