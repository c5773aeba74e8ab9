import fc from 'fast-check';
import { real } from '../testing/real';
import {
  align,
  alignments,
  around,
  distribute,
  mirrored,
  ringPlaces,
  rowPlaces,
  turnedAbout,
  wrap,
  type Boxed,
} from './arrange';

const n = real(-100, 100);
const boxes = fc
  .array(fc.tuple(n, n, real(0.1, 40), real(0.1, 40)), {
    minLength: 1,
    maxLength: 8,
  })
  .map((l) => l.map(([x, y, w, h], i): Boxed => ({ id: String(i), box: { x0: x, y0: y, x1: x + w, y1: y + h } })));
const moved = (b: Boxed, s: { dx: number; dy: number }) => ({
  x0: b.box.x0 + s.dx,
  y0: b.box.y0 + s.dy,
  x1: b.box.x1 + s.dx,
  y1: b.box.y1 + s.dy,
});
const item = fc.record({ x: n, y: n, angle: real(-180, 180), mirror: fc.boolean() });
/** Where a point of an item lies: mirrored, turned, moved. */
const pointOf = (i: { x: number; y: number; angle: number; mirror: boolean }, px: number, py: number) => {
  const t = (i.angle * Math.PI) / 180;
  const q = i.mirror ? -px : px;
  return { x: i.x + q * Math.cos(t) - py * Math.sin(t), y: i.y + q * Math.sin(t) + py * Math.cos(t) };
};

describe('aligning', () => {
  it('brings the edge or middle that is named onto that of the other, and moves nothing the other way', () => {
    const of = {
      left: (b: Boxed['box']) => b.x0,
      centre: (b: Boxed['box']) => (b.x0 + b.x1) / 2,
      right: (b: Boxed['box']) => b.x1,
      bottom: (b: Boxed['box']) => b.y0,
      middle: (b: Boxed['box']) => (b.y0 + b.y1) / 2,
      top: (b: Boxed['box']) => b.y1,
    };
    fc.assert(
      fc.property(boxes, fc.constantFrom(...alignments), (list, a) => {
        const to = around(list.map((b) => b.box))!;
        align(list, a, to).forEach((s, i) => {
          expect(of[a](moved(list[i], s))).toBeCloseTo(of[a](to), 9);
          expect(['left', 'centre', 'right'].includes(a) ? s.dy : s.dx).toBe(0);
        });
      }),
    );
  });
});

describe('distributing', () => {
  it('makes all gaps equal and leaves the outermost where they are', () => {
    fc.assert(
      fc.property(boxes, fc.constantFrom('x' as const, 'y' as const), (list, axis) => {
        const shifts = distribute(list, axis);
        if (list.length < 3) return expect(shifts).toEqual([]);
        const [lo, hi] = axis === 'x' ? (['x0', 'x1'] as const) : (['y0', 'y1'] as const);
        const placed = shifts.map((s) =>
          moved(
            list.find((b) => b.id === s.id)!,
            s,
          ),
        );
        const gaps = placed.slice(1).map((b, i) => b[lo] - placed[i][hi]);
        for (const g of gaps) expect(g).toBeCloseTo(gaps[0], 8);
        const first = shifts[0];
        expect(axis === 'x' ? first.dx : first.dy).toBeCloseTo(0, 9);
        expect(placed[placed.length - 1][hi]).toBeCloseTo(
          list.find((b) => b.id === shifts[shifts.length - 1].id)!.box[hi],
          8,
        );
      }),
    );
  });
});

describe('copies', () => {
  it('in rows stand a step apart, and the original is not doubled', () => {
    const places = rowPlaces(3, 2, 10, -20);
    expect(places).toHaveLength(5);
    expect(places).not.toContainEqual({ dx: 0, dy: 0 });
    expect(new Set(places.map((p) => `${p.dx}/${p.dy}`)).size).toBe(5);
  });
  it('in a ring keep their distance from its centre and stand evenly', () => {
    fc.assert(
      fc.property(
        item,
        n,
        n,
        fc.integer({ min: 2, max: 40 }),
        fc.constantFrom(360, 180, 90, -120),
        fc.boolean(),
        (i, cx, cy, count, sweep, turn) => {
          const ring = ringPlaces(i, count, cx, cy, sweep, turn);
          const r = Math.hypot(i.x - cx, i.y - cy);
          fc.pre(r > 0.1);
          const step = sweep / (sweep === 360 ? count : count - 1);
          ring.forEach((p, k) => {
            expect(Math.hypot(p.x - cx, p.y - cy)).toBeCloseTo(r, 8);
            const a = wrap(
              ((Math.atan2(p.y - cy, p.x - cx) - Math.atan2(i.y - cy, i.x - cx)) * 180) / Math.PI - k * step,
            );
            expect(Math.min(Math.abs(a), 360 - Math.abs(a))).toBeLessThan(1e-6);
            expect(Math.abs(wrap(p.angle - i.angle - (turn ? k * step : 0)))).toBeLessThan(1e-6);
          });
        },
      ),
    );
  });
});

describe('mirroring and turning', () => {
  it('in an upright or level line sends every point of an item to its mirror image', () => {
    fc.assert(
      fc.property(
        item,
        n,
        n,
        n,
        n,
        fc.constantFrom('upright' as const, 'level' as const),
        (i, cx, cy, px, py, axis) => {
          const before = pointOf(i, px, py);
          const after = pointOf(mirrored(i, axis, cx, cy), px, py);
          // Its own mirror image may lie at another point of the item for a level line: both are mirrored left to right first.
          expect(after.x).toBeCloseTo(axis === 'upright' ? 2 * cx - before.x : before.x, 6);
          expect(after.y).toBeCloseTo(axis === 'upright' ? before.y : 2 * cy - before.y, 6);
        },
      ),
    );
  });
  it('twice is nothing', () => {
    fc.assert(
      fc.property(item, n, n, fc.constantFrom('upright' as const, 'level' as const), (i, cx, cy, axis) => {
        const back = mirrored(mirrored(i, axis, cx, cy), axis, cx, cy);
        expect(back.mirror).toBe(i.mirror);
        expect(Math.hypot(back.x - i.x, back.y - i.y)).toBeLessThan(1e-9);
        expect(Math.abs(wrap(back.angle - i.angle))).toBeLessThan(1e-9);
      }),
    );
  });
  it('about a point keeps distances and adds to the turn', () => {
    fc.assert(
      fc.property(item, real(-360, 360), n, n, n, n, (i, a, cx, cy, px, py) => {
        const [p, q] = [pointOf(i, px, py), pointOf(turnedAbout(i, a, cx, cy), px, py)];
        const t = (a * Math.PI) / 180;
        expect(q.x).toBeCloseTo(cx + (p.x - cx) * Math.cos(t) - (p.y - cy) * Math.sin(t), 6);
        expect(q.y).toBeCloseTo(cy + (p.x - cx) * Math.sin(t) + (p.y - cy) * Math.cos(t), 6);
      }),
    );
  });
});
