import fc from 'fast-check';
import { real } from '../testing/real';
import { distanceToLine } from '../testing/independent';
import { splinePath, splinePoint } from './bspline';
import { roundedPath } from './corners';
import { makeArcLengthPath } from './arcLengthPath';
import { circlePath, flatten, type Path } from './path';
import { loopArea } from './region';
import { pointOn } from './segment';
import { warpPath } from './warp';

const n = real(-50, 50);
const cubic = fc.array(n, { minLength: 8, maxLength: 8 }).map(([x, y, x1, y1, x2, y2, ex, ey]): Path => ({
  x,
  y,
  closed: false,
  segments: [{ k: 'cubic', x1, y1, x2, y2, x: ex, y: ey }],
}));

describe('a guide', () => {
  it('measures a circle, and goes round it at unit speed', () => {
    const g = makeArcLengthPath(circlePath(2, 3, 10));
    expect(g.length).toBeCloseTo(20 * Math.PI, 6);
    fc.assert(
      fc.property(real(-200, 200), (s) => {
        const p = g.at(s);
        expect(p.x).toBeCloseTo(2 + 10 * Math.cos(s / 10), 3);
        expect(p.y).toBeCloseTo(3 + 10 * Math.sin(s / 10), 3);
        expect(p.tx * (p.x - 2) + p.ty * (p.y - 3)).toBeCloseTo(0, 6);
        expect(Math.hypot(p.tx, p.ty)).toBeCloseTo(1, 9);
      }),
    );
  });
  it('measures any curve as its chords do, and goes on straight beyond its ends', () => {
    fc.assert(
      fc.property(cubic, (p) => {
        const l = flatten(p, 1e-4);
        let sum = 0;
        for (let i = 2; i < l.length; i += 2) sum += Math.hypot(l[i] - l[i - 2], l[i + 1] - l[i - 1]);
        fc.pre(sum > 0.01);
        const g = makeArcLengthPath(p);
        expect(Math.abs(g.length - sum)).toBeLessThan(0.002 * sum + 1e-3);
        const [a, b] = [g.at(-7), g.at(g.length + 7)];
        expect(Math.hypot(a.x - p.x, a.y - p.y)).toBeCloseTo(7, 6);
        expect(Math.hypot(b.x - p.segments[0].x, b.y - p.segments[0].y)).toBeCloseTo(7, 6);
      }),
    );
  });
});

describe('bending by a map', () => {
  it('that moves nothing leaves the path where it is', () => {
    fc.assert(
      fc.property(cubic, (p) => {
        const bent = warpPath(p, (x, y) => ({ x, y }), 5);
        const m = bent.segments.length;
        for (let i = 0; i < m; i++) {
          const from = i ? bent.segments[i - 1] : bent;
          for (const t of [0, 0.3, 0.7, 1]) {
            const q = pointOn(from, bent.segments[i], t);
            const want = pointOn(p, p.segments[0], (i + t) / m);
            expect(Math.hypot(q.x - want.x, q.y - want.y)).toBeLessThan(1e-6);
          }
        }
      }),
    );
  });
  it('onto a circle lays a level line on it, with few nodes', () => {
    const line: Path = { x: 0, y: 0, closed: false, segments: [{ k: 'line', x: 60, y: 0 }] };
    const bent = warpPath(line, (x, y) => ({ x: (40 + y) * Math.sin(x / 40), y: (40 + y) * Math.cos(x / 40) }), 6);
    expect(bent.segments).toHaveLength(10);
    const l = flatten(bent, 1e-4);
    for (let i = 0; i < l.length; i += 2) expect(Math.abs(Math.hypot(l[i], l[i + 1]) - 40)).toBeLessThan(1e-3);
  });
});

describe('a B-spline', () => {
  const spline = fc
    .tuple(
      fc.integer({ min: 1, max: 3 }),
      fc.array(fc.tuple(n, n), { minLength: 4, maxLength: 9 }),
      fc.array(real(0, 1), { minLength: 9, maxLength: 9 }),
    )
    .map(([degree, list, gaps]) => {
      const points = list.map(([x, y]) => ({ x, y }));
      // Ends clamped; inner knots as often as the degree at most: more often would break the curve in two.
      const inner = points.length - degree - 1;
      const knots = [...Array(degree + 1).fill(0)];
      for (let i = 0, at = 0, times = degree; i < inner; i++) {
        const again = gaps[i] < 0.3 && times < degree;
        times = again ? times + 1 : 1;
        knots.push((at += again ? 0 : 0.1 + gaps[i]));
      }
      const end = knots[knots.length - 1] + 1;
      return { degree, points, knots: [...knots, ...Array(degree + 1).fill(end)], end };
    });
  it('becomes cubics that pass through what de Boor says', () => {
    fc.assert(
      fc.property(spline, real(0, 0.999), ({ degree, points, knots, end }, share) => {
        const p = splinePath(degree, knots, points, null, 0.001);
        expect(p).not.toBeNull();
        const q = splinePoint(degree, knots, points, null, share * end);
        const l = flatten(p!, 0.0005);
        expect(distanceToLine(l, q.x, q.y)).toBeLessThan(0.002);
      }),
    );
  });
  it('whose knots and points do not fit is refused', () => {
    const points = [0, 1, 2, 3].map((x) => ({ x, y: x }));
    expect(splinePath(3, [0, 0, 0, 1, 1, 1], points, null, 0.01)).toBeNull();
    expect(splinePath(3, [0, 0, 0, 0, 1, 1, 1, NaN], points, null, 0.01)).toBeNull();
    expect(splinePath(3, [0, 0, 0, 2, 1, 1, 1, 1], points, null, 0.01)).toBeNull();
    expect(splinePath(0, [0, 0, 0, 0, 0], points, null, 0.01)).toBeNull();
  });
  it('with weights stays on the circle that it stands for', () => {
    const w = Math.SQRT1_2;
    const p = splinePath(
      2,
      [0, 0, 0, 1, 1, 1],
      [
        { x: 10, y: 0 },
        { x: 10, y: 10 },
        { x: 0, y: 10 },
      ],
      [1, w, 1],
      0.001,
    )!;
    const l = flatten(p, 0.001);
    for (let i = 0; i < l.length; i += 2) expect(Math.hypot(l[i], l[i + 1])).toBeCloseTo(10, 6);
  });
});

describe('rounded corners', () => {
  it('take (tan a - a) r^2 from each corner of a polygon, a half of the outer angle', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 14 }), real(5, 40), real(0.05, 0.4), (k, radius, share) => {
        const corners = Array.from({ length: k }, (_, i) => ({
          x: radius * Math.cos((2 * Math.PI * i) / k),
          y: radius * Math.sin((2 * Math.PI * i) / k),
        }));
        const side = 2 * radius * Math.sin(Math.PI / k);
        const a = Math.PI / k;
        // As large as the sides leave room for.
        const r = (share * side) / Math.tan(a);
        const p = roundedPath(corners, r);
        const whole = (k / 2) * radius * radius * Math.sin((2 * Math.PI) / k);
        expect(loopArea(flatten(p, 1e-4))).toBeCloseTo(whole - k * (Math.tan(a) - a) * r * r, 1);
        expect(p.segments.filter((s) => s.k === 'arc')).toHaveLength(k);
        expect(roundedPath(corners, 0).segments.every((s) => s.k === 'line')).toBe(true);
      }),
    );
  });
  it('stay sharp where they are asked to', () => {
    const square = [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ].map(([x, y]) => ({ x, y }));
    expect(roundedPath(square, 2, [true, false, true, false]).segments.filter((s) => s.k === 'arc')).toHaveLength(2);
  });
});
