import fc from 'fast-check';
import { real } from '../../testing/real';
import { fitArcs, pointAt } from '../../motion/arcPolyline';
import { bruteDistance, bruteInside } from '../../testing/independent';
import { box, circleLoop, starLoop } from '../../testing/shapes';
import { findLead } from './leads';
import { placeTabs, tabSpans } from './tabs';

const square = fitArcs(box(0, 0, 60, 40), true, 1e-3);
const plan = { by: 'count' as const, count: 4, spacing: 80, length: 6, at: [] };
/** Distance to the nearest corner of the square. */
const toCorner = (x: number, y: number) =>
  Math.min(
    ...[
      [0, 0],
      [60, 0],
      [60, 40],
      [0, 40],
    ].map(([a, b]) => Math.hypot(x - a, y - b)),
  );

describe('holding tabs', () => {
  it('stand as many as asked, away from corners, evenly enough', () => {
    for (let count = 1; count <= 8; count++) {
      const {
        placed: [tabs],
        short,
      } = placeTabs([square], { ...plan, count }, 9);
      expect(short).toEqual([]);
      expect(tabs).toHaveLength(count);
      for (const s of tabs)
        expect(toCorner(pointAt(square, s).x, pointAt(square, s).y)).toBeGreaterThanOrEqual(plan.length - 1e-6);
      const gaps = [...tabs]
        .sort((a, b) => a - b)
        .map((s, i, l) => (i + 1 < l.length ? l[i + 1] : l[0] + square.length) - s);
      if (count > 1) expect(Math.min(...gaps)).toBeGreaterThan((0.4 * square.length) / count);
    }
  });
  it('go by a distance where that is asked', () => {
    expect(placeTabs([square], { ...plan, by: 'spacing', spacing: 50 }, 9).placed[0]).toHaveLength(4);
    expect(placeTabs([square], { ...plan, by: 'spacing', spacing: 25 }, 9).placed[0]).toHaveLength(8);
    // Never fewer than two, or the part would swing.
    expect(placeTabs([square], { ...plan, by: 'spacing', spacing: 5000 }, 9).placed[0]).toHaveLength(2);
  });
  it('stand where they are put, on the track that is nearest', () => {
    const inner = fitArcs(box(20, 15, 40, 25), true, 1e-3);
    const {
      placed: [outer, in_],
    } = placeTabs(
      [square, inner],
      {
        ...plan,
        at: [
          { x: 30, y: -2 },
          { x: 30, y: 24 },
        ],
      },
      9,
    );
    expect(pointAt(square, outer[0])).toMatchObject({ x: 30, y: 0 });
    expect(pointAt(inner, in_[0])).toMatchObject({ x: 30, y: 25 });
  });
  it('move off places that are bad for another reason', () => {
    const clamp = (x: number, y: number) => (x > 20 && x < 40 && y < 5 ? 4 : 0);
    const {
      placed: [tabs],
    } = placeTabs([square], { ...plan, count: 4 }, 9, clamp);
    expect(tabs.every((s) => clamp(pointAt(square, s).x, pointAt(square, s).y) === 0)).toBe(true);
  });
  it('are fewer where the outline holds no more, and that is told', () => {
    const small = fitArcs(circleLoop(90, 5), true, 1e-3);
    const few = placeTabs([square, small], { ...plan, count: 6 }, 9);
    expect(few.placed.map((t) => t.length)).toEqual([6, 1]);
    const none = placeTabs([small], { ...plan, count: 3, length: 24 }, 27);
    expect(none).toEqual({ placed: [[]], short: [{ track: 0, got: 0, asked: 3 }] });
    expect(placeTabs([small], { ...plan, count: 3 }, 9)).toMatchObject({ short: [{ track: 0, got: 2, asked: 3 }] });
  });
  it('cover spans that do not overlap and are as long as the tabs where those stand apart', () => {
    fc.assert(
      fc.property(fc.array(real(0, 199.9), { maxLength: 8 }), real(0.5, 12), (tabs, length) => {
        const spans = tabSpans(square, tabs, length);
        for (let i = 0; i < spans.length; i++) {
          expect(spans[i][1]).toBeGreaterThan(spans[i][0]);
          expect(spans[i][0]).toBeGreaterThanOrEqual(0);
          expect(spans[i][1]).toBeLessThanOrEqual(square.length + 1e-9);
          if (i) expect(spans[i][0]).toBeGreaterThan(spans[i - 1][1]);
        }
        // By sampling: a place is covered when a tab is within half a length of it, round the loop.
        for (let k = 0; k < 100; k++) {
          const s = ((k + 0.37) / 100) * square.length;
          const near = Math.min(
            Infinity,
            ...tabs.map((t) => Math.min(Math.abs(t - s), square.length - Math.abs(t - s))),
          );
          if (Math.abs(near - length / 2) > 1e-5)
            expect(spans.some(([a, b]) => s >= a && s <= b)).toBe(near < length / 2);
        }
      }),
    );
  });
});

describe('ways in and out', () => {
  const star = starLoop(5, 25, 12);
  const track = fitArcs(star, true, 1e-3);
  it.each(['arc', 'line'] as const)(
    'by %s meet the track where they should, and touch nothing that is forbidden',
    (kind) => {
      // Waste lies outside of a counter-clockwise outline: on the right.
      const free = (x: number, y: number) => !bruteInside([star], x, y);
      const lead = findLead(track, 0, kind, 4, -1, free)!;
      expect(lead).not.toBeNull();
      const on = pointAt(track, lead.s);
      const end = pointAt(lead.into, lead.into.length);
      const begin = pointAt(lead.out, 0);
      expect(Math.hypot(end.x - on.x, end.y - on.y)).toBeLessThan(1e-6);
      expect(Math.hypot(begin.x - on.x, begin.y - on.y)).toBeLessThan(1e-6);
      for (const way of [lead.into, lead.out])
        for (let i = 1; i < 40; i++) {
          const p = pointAt(way, (way.length * i) / 40);
          expect(free(p.x, p.y) || bruteDistance([star], p.x, p.y) < 1e-3).toBe(true);
        }
      if (kind === 'arc') expect(end.dx * on.dx + end.dy * on.dy).toBeGreaterThan(0.99);
      else expect(end.dx * on.dx + end.dy * on.dy).toBeCloseTo(Math.SQRT1_2, 2);
    },
  );
  it('are smaller where there is little room, and none where there is none', () => {
    const hole = circleLoop(64, 10, 0, 0);
    const t = fitArcs(hole, true, 1e-3);
    const inside = (x: number, y: number) => Math.hypot(x, y) < 10;
    const roomy = findLead(t, 0, 'arc', 2, 1, inside)!;
    const tight = findLead(t, 0, 'arc', 8, 1, (x, y) => Math.hypot(x, y) < 10 && Math.hypot(x, y) > 6.5)!;
    expect(tight.into.length).toBeLessThan((8 * Math.PI) / 2);
    expect(roomy.into.length).toBeCloseTo(Math.PI, 1);
    expect(findLead(t, 0, 'arc', 2, 1, () => false)).toBeNull();
    expect(findLead(t, 0, 'none', 2, 1, inside)).toBeNull();
  });
});
