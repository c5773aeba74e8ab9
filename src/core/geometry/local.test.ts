import fc from 'fast-check';
import { axisFor, branchesFor, insetsOf } from './insets';
import { fromLocal, groupsOf, toLocal } from './local';
import { UNITS_PER_MM } from './places';
import {
  components,
  contains,
  intersect,
  normalise,
  offset,
  regionArea,
  subtract,
  unite,
  type Loop,
  type Region,
} from './region';

const box = (x: number, y: number, w: number, h: number): Loop =>
  Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const moved = (r: Region, dx: number, dy: number): Region =>
  r.map((l) => l.map((v, i) => Math.round((v + (i & 1 ? dy : dx)) * UNITS_PER_MM) / UNITS_PER_MM));
/** Millimetres on the grid. */
const mm = (min: number, max: number) =>
  fc.integer({ min: min * UNITS_PER_MM, max: max * UNITS_PER_MM }).map((v) => v / UNITS_PER_MM);
const boxes = fc
  .array(fc.tuple(mm(0, 60), mm(0, 60), mm(1, 12), mm(1, 12)), { minLength: 1, maxLength: 14 })
  .map((list) => list.map((b) => box(...b)));
const far = mm(-3000, 3000);
const covered = (list: readonly Loop[], x: number, y: number) =>
  list.some((l) => x > l[0] && x < l[2] && y > l[1] && y < l[5]);
/** Places a hair off the grid, so that none lies on an outline. */
const places = fc
  .array(fc.tuple(mm(-3, 75), mm(-3, 75)), { minLength: 40, maxLength: 40 })
  .map((list) => list.map(([x, y]) => [x + 3.3e-6, y + 3.3e-6] as const));

describe('outlines, wherever they lie', () => {
  it('go to their own corner and back to the last bit', () => {
    fc.assert(
      fc.property(boxes, far, far, (list, dx, dy) => {
        const there = moved(list, dx, dy);
        const at = toLocal(there);
        expect(at.exact).toBe(true);
        expect(at.loops[0].slice(0, 2)).toEqual(new Float64Array(2));
        expect(fromLocal(at.loops, at.x, at.y)).toEqual(there);
      }),
    );
    expect(toLocal([Float64Array.of(0, 0, 1 / 3, 0, 0, 1)]).exact).toBe(false);
  });
  it('are combined and offset to the same outlines, moved', () => {
    fc.assert(
      fc.property(boxes, boxes, far, far, (a, b, dx, dy) => {
        const [p, q] = [moved(a, dx, dy), moved(b, dx, dy)];
        const [ra, rb] = [normalise(a), normalise(b)];
        const [rp, rq] = [normalise(p), normalise(q)];
        expect(rp).toEqual(moved(ra, dx, dy));
        for (const work of [unite, intersect, subtract]) expect(work(rp, rq)).toEqual(moved(work(ra, rb), dx, dy));
        for (const d of [1, -0.4]) expect(offset(rp, d)).toEqual(moved(offset(ra, d), dx, dy));
      }),
      { numRuns: 40 },
    );
  });
  it('hold what they held as one, though each group is combined for itself', () => {
    fc.assert(
      fc.property(boxes, boxes, places, (a, b, at) => {
        const [ra, rb] = [normalise(a), normalise(b)];
        const [u, i, s] = [unite(ra, rb), intersect(ra, rb), subtract(ra, rb)];
        for (const [x, y] of at) {
          const [ina, inb] = [covered(a, x, y), covered(b, x, y)];
          expect([contains(ra, x, y), contains(u, x, y), contains(i, x, y), contains(s, x, y)]).toEqual([
            ina,
            ina || inb,
            ina && inb,
            ina && !inb,
          ]);
        }
        expect(regionArea(u)).toBeCloseTo(regionArea(ra) + regionArea(rb) - regionArea(i), 3);
        // Grown, they meet where they lie closer than twice the distance.
        const grown = offset(ra, 2, 0.001, 'square');
        expect(regionArea(grown)).toBeGreaterThan(regionArea(ra));
        expect(regionArea(normalise(grown))).toBeCloseTo(regionArea(grown), 6);
        expect(components(grown).length).toBeLessThanOrEqual(components(ra).length);
        for (const [x, y] of at)
          if (
            covered(
              a.map((l) => box(l[0] - 1.99, l[1], l[2] - l[0] + 3.98, l[5] - l[1])),
              x,
              y,
            )
          )
            expect(contains(grown, x, y)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
  it('fall into groups that lie further apart than asked, and no further', () => {
    const three = [box(0, 0, 10, 10), box(12, 0, 10, 10), box(0, 30, 10, 10)];
    expect(groupsOf(three, 1)).toEqual([[0], [1], [2]]);
    expect(groupsOf(three, 2)).toEqual([[0, 1], [2]]);
    expect(groupsOf(three, 20)).toEqual([[0, 1, 2]]);
    // One that holds another is one group with it, whichever comes first.
    expect(groupsOf([box(4, 4, 1, 1), box(0, 0, 10, 10), box(40, 0, 1, 1)], 0)).toEqual([[0, 1], [2]]);
  });
  it('have one medial axis, its insets and branches wherever they are moved to', () => {
    const comb = Float64Array.of(0, 0, 40, 0, 40, 9, 31, 9, 30, 3, 21, 3.5, 20, 12, 11, 12, 10, 2.5, 1, 3);
    fc.assert(
      fc.property(far, far, (dx, dy) => {
        const [here, there] = [[comb], moved([comb], dx, dy)];
        expect(axisFor(there).trace).toBe(axisFor(here).trace);
        const near = (a: Region, b: Region) => {
          expect(b.length).toBe(a.length);
          moved(a, dx, dy).forEach((l, k) => l.forEach((v, i) => expect(b[k][i]).toBeCloseTo(v, 9)));
        };
        near(insetsOf(here).at(0.7, 0.001), insetsOf(there).at(0.7, 0.001));
        const [a, b] = [branchesFor(here, 0.002), branchesFor(there, 0.002)];
        expect(b.samples.length).toBe(a.samples.length);
        for (let k = 0; k < a.samples.length; k += 3) {
          expect(b.samples[k]).toBeCloseTo(a.samples[k] + dx, 9);
          expect(b.samples[k + 1]).toBeCloseTo(a.samples[k + 1] + dy, 9);
          expect(b.samples[k + 2]).toBe(a.samples[k + 2]);
        }
      }),
      { numRuns: 30 },
    );
  });
});
