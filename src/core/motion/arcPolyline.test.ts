import fc from 'fast-check';
import { real } from '../testing/real';
import { circleLoop, starLoop } from '../testing/shapes';
import { MotionBuilder, moveLength } from './motion';
import { fitArcs, nearestOn, pointAt, pointsEvenly, run, slice } from './arcPolyline';

const tracks = fc.oneof(
  fc
    .tuple(fc.integer({ min: 6, max: 300 }), real(1, 40))
    .map(([k, r]) => fitArcs(circleLoop(k, r, 3, -2), true, 0.001)),
  fc.tuple(fc.integer({ min: 3, max: 9 }), real(3, 30)).map(([k, r]) => fitArcs(starLoop(k, r, r / 2), true, 0.001)),
  fc.array(fc.integer({ min: -300, max: 300 }), { minLength: 4, maxLength: 20 }).map((v) =>
    fitArcs(
      Float64Array.from(v.slice(0, v.length & ~1), (q) => q / 10),
      false,
      0.001,
    ),
  ),
);
const share = real(0, 1);

describe('tracks', () => {
  it('are as long as their slices together, wherever they are parted', () => {
    fc.assert(
      fc.property(tracks, share, share, (t, a, b) => {
        fc.pre(t.length > 1e-3);
        const [s, e] = [Math.min(a, b) * t.length, Math.max(a, b) * t.length];
        const sum = (list: ReturnType<typeof slice>) => list.reduce((n, q) => n + q.length, 0);
        expect(sum(slice(t, 0, s)) + sum(slice(t, s, e)) + sum(slice(t, e, t.length))).toBeCloseTo(t.length, 6);
        if (t.closed) expect(sum(slice(t, s, s + 2.5 * t.length))).toBeCloseTo(2.5 * t.length, 5);
      }),
    );
  });
  it('are where they say: a slice begins and ends at its places, and its pieces join', () => {
    fc.assert(
      fc.property(tracks, share, share, (t, a, b) => {
        fc.pre(t.length > 1e-3 && Math.abs(a - b) > 1e-3);
        const [s, e] = [Math.min(a, b) * t.length, Math.max(a, b) * t.length];
        const list = slice(t, s, e);
        const [p, q] = [pointAt(t, s), pointAt(t, e - 1e-12)];
        expect(Math.hypot(list[0].x0 - p.x, list[0].y0 - p.y)).toBeLessThan(1e-6);
        const last = list[list.length - 1];
        expect(Math.hypot(last.x1 - q.x, last.y1 - q.y)).toBeLessThan(1e-6);
        for (let i = 1; i < list.length; i++)
          expect(Math.hypot(list[i].x0 - list[i - 1].x1, list[i].y0 - list[i - 1].y1)).toBeLessThan(1e-6);
      }),
    );
  });
  it('are the same whether they are asked one by one or for places that lie evenly along it', () => {
    fc.assert(
      fc.property(tracks, share, fc.integer({ min: 1, max: 40 }), (t, from, count) => {
        fc.pre(t.length > 1e-3);
        const all = pointsEvenly({ ...t, closed: true }, from * t.length, count);
        expect(all).toHaveLength(count);
        all.forEach((p, i) => {
          const q = pointAt({ ...t, closed: true }, from * t.length + (t.length * i) / count);
          // At a corner, and where a line ends, either side will do.
          const beside = [-1e-7, 1e-7].map((d) =>
            pointAt({ ...t, closed: true }, from * t.length + (t.length * i) / count + d),
          );
          expect(Math.min(...[q, ...beside].map((b) => Math.hypot(p.x - b.x, p.y - b.y)))).toBeLessThan(1e-6);
          expect(Math.min(...[q, ...beside].map((b) => Math.hypot(p.dx - b.dx, p.dy - b.dy)))).toBeLessThan(1e-5);
        });
      }),
    );
  });
  it('know the place that is nearest to a point', () => {
    fc.assert(
      fc.property(tracks, real(-60, 60), real(-60, 60), (t, x, y) => {
        fc.pre(t.length > 1e-3);
        const n = nearestOn(t, x, y);
        const p = pointAt(t, n.s);
        expect(Math.hypot(p.x - x, p.y - y)).toBeCloseTo(n.distance, 6);
        for (let i = 0; i <= 200; i++) {
          const q = pointAt(t, (t.length * i) / 200);
          expect(n.distance).toBeLessThanOrEqual(Math.hypot(q.x - x, q.y - y) + 1e-9);
        }
      }),
    );
  });
  it('run from one height to another evenly with the way', () => {
    fc.assert(
      fc.property(tracks, (t) => {
        fc.pre(t.length > 1e-3);
        const b = new MotionBuilder();
        const p = pointAt(t, 0);
        b.rapid(p.x, p.y, 1);
        run(b, slice(t, 0, t.length), 1, -3, 500);
        const m = b.build();
        expect(m.z[m.count - 1]).toBe(-3);
        let way = 0;
        let flat = 0;
        for (let i = 1; i < m.count; i++) {
          const drop = m.z[i - 1] - m.z[i];
          const l = moveLength(m, i);
          way += l;
          flat += Math.sqrt(Math.max(0, l * l - drop * drop));
          expect(drop).toBeGreaterThanOrEqual(-1e-12);
        }
        expect(flat).toBeCloseTo(t.length, 5);
        expect(way).toBeGreaterThan(t.length);
      }),
    );
  });
});
