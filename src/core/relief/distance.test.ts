import fc from 'fast-check';
import { real } from '../testing/real';
import { bruteDistance, bruteInside } from '../testing/independent';
import { box, circleLoop, hole, loop, starLoop, turned } from '../testing/shapes';
import type { Region } from '../geometry/region';
import { columnsOf, deepest, distances, nearestSegments } from './distance';
import { whileWanted } from '../units/stillWanted';
import { gridOf } from './field';
import type { Line } from './form';

const shapes: Readonly<Record<string, Region>> = {
  box: [box(2, 2, 12, 9)],
  frame: [box(1, 1, 14, 11), hole(box(4, 4, 9, 8))],
  star: [starLoop(5, 5, 2, 7, 6)],
  turned: turned([starLoop(7, 5, 3, 7, 6)], 17),
  circle: [circleLoop(400, 4, 7, 6)],
  touching: [box(1, 1, 5, 5), box(5, 5, 9, 9)],
  // Its middle lies on a node, equally near to all of its notches.
  spikes: [starLoop(200, 5.5, 5, 7, 6)],
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
      fc.property(fc.constantFrom(...Object.values(shapes)), real(0.1, 6), (region, most) => {
        const [all, near] = [distances(region, g), distances(region, g, most)];
        all.forEach((d, i) => {
          if (Math.abs(d) <= most) expect(near[i]).toBe(d);
          else expect(near[i] * Math.sign(d)).toBeGreaterThanOrEqual(most);
        });
      }),
      { numRuns: 30 },
    );
  });
});

describe('the nearest segment of a node', () => {
  // On the grid's own places too, so that ends lie above each other, on nodes, and on each other.
  const place = fc.oneof(fc.integer({ min: -4, max: 24 }), real(-4, 24));
  const line: fc.Arbitrary<Line> = fc.record({
    points: fc.array(place, { minLength: 6, maxLength: 40 }).map((p) => Float64Array.from(p.slice(0, p.length & ~1))),
    closed: fc.boolean(),
  });
  const far = (s: Float64Array, at: number, x: number, y: number) => {
    const [px, py] = [x - s[at], y - s[at + 1]];
    const t = Math.min(1, Math.max(0, (px * s[at + 2] + py * s[at + 3]) * s[at + 4]));
    return Math.hypot(px - t * s[at + 2], py - t * s[at + 3]);
  };
  it('is as near as any, of lines open and closed, in squares and bands of them', () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 6 }), fc.nat({ max: 3 }), (lines, from) => {
        const { s } = columnsOf(lines);
        const g = { ...gridOf(20, 14, 0.25), first: 16 * from };
        let told = 0;
        nearestSegments(lines, g, (node, square, at) => {
          told++;
          const [x, y] = [g.x0 + (node % g.cols) * g.cell, g.y0 + (g.first + Math.floor(node / g.cols)) * g.cell];
          let best = Infinity;
          for (let k = 0; k < s.length; k += 5) best = Math.min(best, far(s, k, x, y));
          expect(Math.abs(Math.sqrt(square) - best)).toBeLessThan(1e-7);
          expect(Math.abs(far(s, at, x, y) - best)).toBeLessThan(1e-7);
        });
        expect(told).toBe(g.cols * g.rows);
      }),
      { numRuns: 60 },
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
  it('is half the width of what is as wide all along, however it lies, and found without a walk along its middle', () => {
    const { sin, cos, PI } = Math;
    fc.assert(
      fc.property(
        real(1, 300),
        real(0.5, 30),
        fc.constantFrom(0, 3, 21, 45, 90, 137),
        fc.constantFrom(0, 0.3, 1),
        (w, h, angle, lean) => {
          // A parallelogram: its upper side lies aside by `lean` of its height.
          const a = (angle * PI) / 180;
          const at = (x: number, y: number) => [x * cos(a) - y * sin(a), x * sin(a) + y * cos(a)];
          const [long, tall] = [Math.max(w, 3 * h), h];
          const region = [loop(...[at(0, 0), at(long, 0), at(long + lean * tall, tall), at(lean * tall, tall)].flat())];
          let steps = 0;
          const r = whileWanted(
            () => void steps++,
            () => deepest(region),
          );
          expect(r).toBeGreaterThanOrEqual(tall / 2 - 1.01e-4);
          expect(r).toBeLessThanOrEqual(tall / 2 + 1e-9);
          // It is asked at each 64th square.
          expect(steps).toBeLessThan(50);
        },
      ),
      { numRuns: 60 },
    );
    // A ring between two rounds.
    const r = deepest([circleLoop(200, 20, 0, 0), hole(circleLoop(150, 14, 0, 0))]);
    expect(r).toBeGreaterThan(3 - 1e-4);
    expect(r).toBeLessThan(3 + 20 * (1 - cos(PI / 150)));
  });
  it('is no smaller than any circle that is tried, and held by its own middle', () => {
    fc.assert(
      fc.property(fc.array(real(2, 9), { minLength: 3, maxLength: 12 }), (radii) => {
        // A star-shaped outline about 10, 10.
        const points = radii.flatMap((q, k) => {
          const a = (2 * Math.PI * k) / radii.length;
          return [10 + q * Math.cos(a), 10 + q * Math.sin(a)];
        });
        const region = [loop(...points)];
        const g = gridOf(20, 20, 0.25);
        const most = distances(region, g).reduce((m, d) => Math.max(m, d), 0);
        const r = deepest(region);
        expect(r).toBeGreaterThanOrEqual(most - 1.01e-4);
        // No place lies further from a node than half a diagonal.
        expect(r).toBeLessThanOrEqual(most + 0.25 * Math.SQRT1_2 + 1e-4);
      }),
      { numRuns: 60 },
    );
  });
});
