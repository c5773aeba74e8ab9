import fc from 'fast-check';
import { real } from '../../testing/real';
import { normalise, regionArea } from '../../geometry/region';
import { bruteDistance, bruteInside } from '../../testing/independent';
import { box, circleLoop, combLoop, starLoop } from '../../testing/shapes';
import { partsNear } from './near';
import { reachOf, restOf, sweptBy, without } from './reach';

const num = (min: number, max: number) => real(min, max);
const star = fc
  .tuple(fc.integer({ min: 3, max: 9 }), num(2, 14), num(0.3, 0.95), num(0, 40), num(0, 40))
  .map(([n, r, f, x, y]) => starLoop(n, r, r * f, x, y));
/** Places along a loop, some tenths of a millimetre apart. */
function* along(loop: Float64Array): Generator<[number, number]> {
  for (let i = 0, n = loop.length; i < n; i += 2) {
    const [ax, ay, bx, by] = [loop[i], loop[i + 1], loop[(i + 2) % n], loop[(i + 3) % n]];
    const k = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / 0.23));
    for (let j = 0; j < k; j++) yield [ax + ((bx - ax) * j) / k, ay + ((by - ay) * j) / k];
  }
}
const toParts = (parts: readonly Float64Array[], x: number, y: number) => {
  let best = Infinity;
  for (const p of parts)
    for (let i = 0; i + 3 < p.length; i += 2) best = Math.min(best, bruteDistance([p.slice(i, i + 4)], x, y));
  return best;
};

describe('parts of a loop near a region', () => {
  it('hold every place within reach, and none that is far beyond it', () => {
    fc.assert(
      fc.property(fc.array(star, { minLength: 1, maxLength: 3 }), star, num(0.2, 3), (loops, loop, reach) => {
        const region = normalise(loops, 'evenodd');
        const parts = partsNear(region, reach, 0.2)(loop);
        const away = (x: number, y: number) => (bruteInside(region, x, y) ? 0 : bruteDistance(region, x, y));
        for (const [x, y] of along(loop)) {
          if (parts === null) expect(away(x, y)).toBeLessThan(reach + 0.5);
          else if (away(x, y) <= reach) expect(toParts(parts, x, y)).toBeLessThan(1e-6);
        }
        for (const p of parts ?? [])
          for (let i = 0; i < p.length; i += 2) expect(away(p[i], p[i + 1])).toBeLessThan(reach + 0.2 + 0.101);
      }),
      { numRuns: 60 },
    );
  });
});

describe('reach of a disc', () => {
  it('of a square leaves four corners of (1 - pi / 4) r^2', () => {
    const { reached, area } = reachOf([box(0, 0, 30, 20)], 3);
    expect(regionArea(reached) + area).toBeCloseTo(600, 0);
    // Hair-thin points of the corners are left out of account.
    expect(Math.abs(area - 4 * (1 - Math.PI / 4) * 9)).toBeLessThan(0.15);
  });
  it('is the same for parts that lie beside each other as for each alone', () => {
    const parts = [
      box(0, 0, 20, 10),
      circleLoop(200, 8, 40, 10),
      combLoop(6, 1.4, 5).map((v, i) => v + (i % 2 ? 30 : 0)),
    ];
    const together = reachOf(normalise(parts), 1.1);
    const alone = parts.map((p) => reachOf(normalise([p]), 1.1));
    expect(together.area).toBeCloseTo(
      alone.reduce((s, a) => s + a.area, 0),
      3,
    );
    expect(regionArea(together.reached)).toBeCloseTo(
      alone.reduce((s, a) => s + regionArea(a.reached), 0),
      3,
    );
  });
  it('leaves everything where nothing is reached, and nothing where all is', () => {
    const square = [box(0, 0, 10, 10)];
    expect(restOf(square, sweptBy([])).area).toBeCloseTo(100, 6);
    expect(restOf(square, sweptBy(square)).area).toBe(0);
    expect(regionArea(without(square, [box(4, -1, 20, 20)]))).toBeCloseTo(40, 6);
  });
});
