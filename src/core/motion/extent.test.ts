import fc from 'fast-check';
import { extentOf } from './extent';
import { isArc, MotionBuilder, sweepOf, type Motion } from './motion';

const n = fc.integer({ min: -40, max: 40 });
const move = fc.record({
  what: fc.constantFrom('rapid', 'line', 'plunge', 'arc', 'dwell'),
  x: n,
  y: n,
  z: fc.integer({ min: -6, max: 6 }),
  ccw: fc.boolean(),
  feed: fc.integer({ min: 1, max: 3000 }),
});
const motion = fc.array(move, { minLength: 1, maxLength: 12 }).map((moves): Motion => {
  const b = new MotionBuilder();
  b.rapid(1, 2, 5);
  for (const m of moves) {
    if (m.what === 'rapid') b.rapid(m.x, m.y, m.z);
    else if (m.what === 'line') b.line(m.x, m.y, m.z, m.feed);
    else if (m.what === 'plunge') b.plunge(m.z, m.feed);
    else if (m.what === 'dwell') b.dwell(0.5);
    // Half a turn about a place beside.
    else if (m.x || m.y) b.arc(m.ccw, b.lastX + 2 * m.x, b.lastY + 2 * m.y, m.z, b.lastX + m.x, b.lastY + m.y, m.feed);
  }
  return b.build();
});

/** A hundred places of every move, by the definition of an arc. */
function* places(m: Motion, i: number): Generator<readonly [number, number, number]> {
  if (i === 0) yield [m.x[0], m.y[0], m.z[0]];
  else if (!isArc(m.kind[i])) yield [m.x[i], m.y[i], m.z[i]];
  else {
    const r = Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]);
    const a = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
    for (let k = 1; k <= 100; k++) {
      const t = a + ((m.kind[i] === 4 ? 1 : -1) * sweepOf(m, i) * k) / 100;
      yield [m.cx[i] + r * Math.cos(t), m.cy[i] + r * Math.sin(t), m.z[i - 1] + ((m.z[i] - m.z[i - 1]) * k) / 100];
    }
  }
}

describe('how far and how fast a motion goes', () => {
  it('holds every place of every move, arcs between their ends too, and not much more', () => {
    fc.assert(
      fc.property(motion, (m) => {
        const { all, feed, plunge } = extentOf(m);
        const seen = { x0: Infinity, y0: Infinity, z0: Infinity, x1: -Infinity, y1: -Infinity, z1: -Infinity };
        for (let i = 0; i < m.count; i++)
          for (const [x, y, z] of places(m, i)) {
            Object.assign(seen, { x0: Math.min(seen.x0, x), y0: Math.min(seen.y0, y), z0: Math.min(seen.z0, z) });
            Object.assign(seen, { x1: Math.max(seen.x1, x), y1: Math.max(seen.y1, y), z1: Math.max(seen.z1, z) });
          }
        for (const k of Object.keys(seen) as (keyof typeof seen)[])
          expect(Math.abs(all[k] - seen[k])).toBeLessThan(0.05);
        const feeds = [...m.feed].filter((_, i) => i && [1, 2, 3, 4].includes(m.kind[i]));
        expect(feed).toBe(Math.max(0, ...feeds));
        const down = [...m.feed].filter(
          (_, i) =>
            i &&
            [1, 2, 3, 4].includes(m.kind[i]) &&
            !isArc(m.kind[i]) &&
            m.x[i] === m.x[i - 1] &&
            m.y[i] === m.y[i - 1] &&
            m.z[i] < m.z[i - 1],
        );
        expect(plunge).toBeGreaterThanOrEqual(Math.max(0, ...down));
      }),
    );
  });
  it('tells cutting from going by rapid above the face', () => {
    const b = new MotionBuilder();
    b.rapid(0, 0, 10);
    b.rapid(100, 0, 10);
    b.rapid(5, 5, -1);
    b.line(7, 5, -2, 900);
    b.rapid(7, 5, 10);
    b.rapid(-50, 0, 10);
    expect(extentOf(b.build()).cutting).toEqual({ x0: 5, y0: 5, z0: -2, x1: 7, y1: 5, z1: -1 });
    const up = new MotionBuilder();
    up.rapid(0, 0, 10);
    expect(extentOf(up.build()).cutting.x0).toBe(Infinity);
  });
});
