import fc from 'fast-check';
import { real } from '../../testing/real';
import { fewest, fewestAlong, followed, type Follower } from './follow';
import { lowParts } from './moves';

const TOLERANCE = 0.002;
const walk = fc.array(real(-0.05, 0.05), { minLength: 2, maxLength: 300 }).map((steps) => {
  let z = 0;
  return Float64Array.from(steps, (d) => (z += d));
});

it('passes every height within the tolerance, begins and ends in it, and goes on as far as it can', () => {
  fc.assert(
    fc.property(walk, (heights) => {
      const shares = heights.map((_, i) => i / (heights.length - 1));
      const way: [number, number][] = [[0, heights[0]]];
      fewest(shares, heights, TOLERANCE, (s, z) => way.push([s, z]));
      expect(way[way.length - 1]).toEqual([1, heights[heights.length - 1]]);
      let k = 0;
      shares.forEach((s, i) => {
        while (way[k + 1][0] < s) k++;
        const [[a, p], [b, q]] = [way[k], way[k + 1]];
        expect(Math.abs(p + ((q - p) * (s - a)) / (b - a) - heights[i])).toBeLessThan(TOLERANCE + 1e-9);
      });
    }),
  );
});
it('is one piece along a straight slope, and two over a roof', () => {
  const shares = Float64Array.from({ length: 101 }, (_, i) => i / 100);
  const count = (heights: Float64Array) => {
    let n = 0;
    fewest(shares, heights, TOLERANCE, () => n++);
    return n;
  };
  expect(count(shares.map((s) => 3 * s))).toBe(1);
  expect(count(shares.map((s) => -Math.abs(s - 0.5)))).toBe(2);
});
it('takes of an even bend as few pieces as any chain: each as long as both sides of the tolerance let it be', () => {
  const bend = 0.8;
  const shares = Float64Array.from({ length: 4001 }, (_, i) => i / 400);
  let n = 0;
  fewest(
    shares,
    shares.map((x) => (bend * x * x) / 2),
    TOLERANCE,
    () => n++,
  );
  // From one side of it to the other and back a chord stands off by twice the tolerance: L^2 bend / 8.
  const longest = Math.sqrt((16 * TOLERANCE) / bend);
  expect(n).toBeLessThan((1.03 * 10) / longest + 2);
  const p = Float64Array.from([...shares].flatMap((x) => [x, 0, (bend * x * x) / 2]));
  n = 0;
  fewestAlong(p, TOLERANCE, () => n++);
  expect(n).toBeLessThan((1.06 * 10) / longest + 2);
});

/** Most that points of a curve stand off a chain over some of them: sideways counting twice, and in height. */
function mostOff(p: Float64Array, chain: readonly (readonly [i: number, z: number])[]): number {
  let most = 0;
  for (let k = 1; k < chain.length; k++) {
    const [[a, za], [b, zb]] = [chain[k - 1], chain[k]];
    const [ex, ey] = [p[3 * b] - p[3 * a], p[3 * b + 1] - p[3 * a + 1]];
    for (let i = a; i <= b; i++) {
      const [dx, dy] = [p[3 * i] - p[3 * a], p[3 * i + 1] - p[3 * a + 1]];
      const t = i === a ? 0 : i === b ? 1 : (dx * ex + dy * ey) / (ex * ex + ey * ey);
      most = Math.max(most, 2 * Math.hypot(dx - t * ex, dy - t * ey) + Math.abs(p[3 * i + 2] - za - t * (zb - za)));
    }
  }
  return most;
}
it('goes along a curve in pieces that stand off no more than they may', () => {
  const p = new Float64Array(3 * 2000);
  for (let i = 0; i < 2000; i++) p.set([10 * Math.cos(i / 300), 10 * Math.sin(i / 300), Math.sin(i / 50)], 3 * i);
  const chain: [number, number][] = [[0, p[2]]];
  fewestAlong(p, TOLERANCE, (i, z) => chain.push([i, z]));
  expect(chain[chain.length - 1]).toEqual([1999, p[p.length - 1]]);
  expect(mostOff(p, chain)).toBeLessThan(TOLERANCE + 1e-9);
  expect(chain.length).toBeLessThan(400);
});
it('does so along whatever curve, up and down too', () => {
  const curve = fc.array(
    fc.tuple(fc.constantFrom(0, 0.01, 0.1, 0.05), real(-0.02, 0.02), fc.oneof(fc.constant(0), real(-0.01, 0.01))),
    { minLength: 2, maxLength: 200 },
  );
  fc.assert(
    fc.property(curve, (steps) => {
      let [x, y, z] = [0, 0, 0];
      const p = Float64Array.from(steps.flatMap(([dx, dy, dz]) => [(x += dx), (y += dy), (z += dz)]));
      const chain: [number, number][] = [[0, p[2]]];
      fewestAlong(p, TOLERANCE, (i, h) => chain.push([i, h]));
      expect(chain[chain.length - 1]).toEqual([steps.length - 1, p[p.length - 1]]);
      expect(mostOff(p, chain)).toBeLessThan(TOLERANCE + 1e-9);
    }),
  );
});
it('finds a crease between the places at which it asks', () => {
  const at = (x: number) => -Math.abs(x - 1.2345);
  const f: Follower = { at, step: 0.1 };
  const p = followed({ points: Float64Array.of(0, 0, 3, 0), closed: false, straight: true }, f, 0.001, TOLERANCE);
  let best = -Infinity;
  for (let i = 0; i < p.length; i += 3) best = Math.max(best, p[i + 2]);
  expect(best).toBeGreaterThan(-0.01);
  expect([p[0], p[p.length - 3]]).toEqual([0, 3]);
});

it('follows what dips below the face to where it comes up to it, and what passes it to where it passes', () => {
  const layer = { floor: -5, above: 0 };
  const ends = (...z: number[]) =>
    lowParts(Float64Array.from(z.flatMap((h, i) => [4 * i, 0, h])), layer).map((p) => [
      p[0],
      p[2],
      p[p.length - 3],
      p[p.length - 1],
    ]);
  expect(ends(0, -1, -1, 0)).toEqual([[0, 0, 12, 0]]);
  expect(ends(1, -1, -1, 1)).toEqual([[2, 0, 10, 0]]);
  expect(ends(0, -1, 0, 0, 0, -1, 0)).toEqual([
    [0, 0, 8, 0],
    [16, 0, 24, 0],
  ]);
  expect(ends(0, 0, 1)).toEqual([]);
});

it('goes as far above a surface as it is raised, between the points of a curve too', () => {
  const at = (x: number) => -1 + 0.1 * Math.abs(x - 5.03);
  const points = Float64Array.from({ length: 202 }, (_, i) => (i % 2 ? 0 : (i >> 1) / 10));
  const raised = Float64Array.from({ length: 101 }, (_, i) => i / 200);
  const p = followed({ points, raised, closed: false, straight: false }, { at, step: 0.1 }, 0.0005, TOLERANCE);
  for (let i = 3; i < p.length; i += 3)
    for (let t = 0; t <= 1; t += 0.25) {
      const x = p[i - 3] + (p[i] - p[i - 3]) * t;
      expect(Math.abs(p[i - 1] + (p[i + 2] - p[i - 1]) * t - at(x) - x / 20)).toBeLessThan(TOLERANCE + 0.001);
    }
  expect(p.length / 3).toBeLessThan(20);
});
