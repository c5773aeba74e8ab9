import fc from 'fast-check';
import { real } from '../../testing/real';
import { ARC_CCW, ARC_CW, FEED, MotionBuilder, moveLength, withoutArcs, type Motion } from '../../motion/motion';
import { easedShare } from '../easing';
import { ClearedLevel, easeLevel } from './engaged';

const R = 3;
const box = { x0: -40, y0: -40, x1: 40, y1: 40 };
const eased = (m: Motion, step: number, easing: 'gentle' | 'strong', level = new ClearedLevel(box, R)): Motion => {
  const to = new MotionBuilder();
  to.rapid(m.x[0], m.y[0], m.z[0]);
  easeLevel(m, -1, level, step, easing, to);
  return to.build();
};
/** Rings round the middle, `step` apart, the innermost first; with corners, or round. */
const rings = (step: number, count: number, round: boolean): Motion => {
  const b = new MotionBuilder();
  b.rapid(step, 0, 5);
  b.plunge(-1, 100);
  for (let k = 1; k <= count; k++) {
    const s = k * step;
    b.line(s, 0, -1, 1000);
    if (round) {
      b.arc(true, -s, 0, -1, 0, 0, 1000);
      b.arc(true, s, 0, -1, 0, 0, 1000);
    } else for (const [x, y] of [[s, s], [-s, s], [-s, -s], [s, -s], [s, 0]]) b.line(x, y, -1, 1000); // prettier-ignore
  }
  b.lift(5);
  return b.build();
};
const toSegment = (x: number, y: number, ax: number, ay: number, bx: number, by: number): number => {
  const long = (bx - ax) ** 2 + (by - ay) ** 2;
  const t = long ? Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long)) : 0;
  return Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
};
/** Feed of a motion at a place of one of its lines, as it went there first. */
const feedAt = (m: Motion, x: number, y: number): number => {
  for (let i = 1; i < m.count; i++)
    if (m.kind[i] === FEED && toSegment(x, y, m.x[i - 1], m.y[i - 1], m.x[i], m.y[i]) < 1e-6) return m.feed[i];
  return NaN;
};

describe('feeds of a clearing are eased where more of the cutter is in material', () => {
  it('in a first line, by as much as all of its rim is more than beside a line', () => {
    for (const step of [0.5, 1.5, 3]) {
      const b = new MotionBuilder();
      b.rapid(-30, 0, 5);
      b.plunge(-1, 100);
      b.line(30, 0, -1, 1000);
      b.line(30, step, -1, 1000);
      b.line(-30, step, -1, 1000);
      const usual = Math.acos(1 - step / R) / Math.PI;
      for (const [easing, share] of [
        ['strong', usual],
        ['gentle', Math.sqrt(usual)],
      ] as const) {
        const m = eased(b.build(), step, easing);
        // In eighths, none below two of them; squares of a tenth of the radius are not finer than an eighth tells.
        const first = feedAt(m, 0, 0) / 1000;
        expect(first).toBeLessThanOrEqual(Math.max(0.25, share) + 0.13);
        expect(first).toBeGreaterThanOrEqual(Math.max(0.25, share - 0.25));
        expect(feedAt(m, 0, step)).toBe(1000);
      }
    }
  });

  it('not round a way that others have cleared', () => {
    const level = new ClearedLevel(box, R);
    level.clearAll([Float64Array.of(-39, -39, 39, -39, 39, 39, -39, 39)]);
    const m = rings(1.5, 8, false);
    expect([...eased(m, 1.5, 'strong', level).feed]).toEqual([...m.feed]);
  });

  it('before it comes into material, not after', () => {
    const level = new ClearedLevel(box, R);
    level.clearAll([Float64Array.of(-39, -39, 0, -39, 0, 39, -39, 39)]);
    const b = new MotionBuilder();
    b.rapid(-20, 0, 5);
    b.plunge(-1, 100);
    b.line(20, 0, -1, 1000);
    const m = eased(b.build(), 1.5, 'strong', level);
    // At -0.81 of its radius a rim meets 1.2 times as much as beside a line; stretches are a quarter of it long.
    expect(feedAt(m, -0.81 * R, 0)).toBeLessThan(1000);
    expect(feedAt(m, -1.5 * R, 0)).toBe(1000);
    expect(feedAt(m, R, 0)).toBe(250);
  });

  it('in the corners of rings, and nowhere along their sides but for the first', () => {
    const step = 1.5;
    const m = eased(rings(step, 8, false), step, 'strong');
    const s = 7 * step;
    // Sides of the seventh ring, well away from its corners; and just before one.
    for (const at of [-4, 0.5, 4]) expect(feedAt(m, at, s)).toBe(1000);
    expect(feedAt(m, s, s - 0.1)).toBeLessThan(800);
    expect(feedAt(m, step, step / 2)).toBeLessThan(500);
  });

  it('goes the same way as before, arcs too', () => {
    fc.assert(
      fc.property(real(0.4, 3), fc.boolean(), (step, round) => {
        const was = rings(step, 6, round);
        const is = eased(was, step, 'gentle');
        const long = (m: Motion) => Array.from({ length: m.count }, (_, i) => moveLength(m, i)).reduce((a, b) => a + b);
        expect(long(is)).toBeCloseTo(long(was), 6);
        for (const m of [is, was]) expect(m.count).toBeGreaterThan(10);
        for (let i = 1; i < is.count; i++) {
          if (is.kind[i] !== ARC_CW && is.kind[i] !== ARC_CCW) continue;
          expect(Math.hypot(is.x[i], is.y[i])).toBeCloseTo(Math.hypot(is.x[i - 1], is.y[i - 1]), 9);
        }
      }),
      { numRuns: 20 },
    );
  });

  it('by what a disc meets that keeps to none of the way before it (property over ways)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -12, max: 12 }), fc.integer({ min: -12, max: 12 })), {
          minLength: 3,
          maxLength: 8,
        }),
        fc.constantFrom(0.8, 1.5, 2.5),
        (points, step) => {
          const b = new MotionBuilder();
          b.rapid(points[0][0], points[0][1], 5);
          b.plunge(-1, 100);
          for (const [x, y] of points) b.line(x, y, -1, 1000);
          const m = withoutArcs(eased(b.build(), step, 'strong'), 0.01);
          const usual = Math.acos(1 - step / R) / Math.PI;
          for (let i = 3; i < m.count; i++) {
            const [ax, ay, bx, by] = [m.x[i - 1], m.y[i - 1], m.x[i], m.y[i]];
            const long = Math.hypot(bx - ax, by - ay);
            if (m.kind[i] !== FEED || long < 1) continue;
            const [dx, dy] = [(bx - ax) / long, (by - ay) / long];
            const [x, y] = [ax + dx * (long / 2), ay + dy * (long / 2)];
            /** Share of the rim ahead that nothing before has come to: a disc a little smaller or larger. */
            const met = (by: number) => {
              let n = 0;
              for (let k = 0; k < 180; k++) {
                const a = ((k + 0.5) / 180 - 0.5) * Math.PI;
                const [c, s] = [Math.cos(a) * R * 1.001, Math.sin(a) * R * 1.001];
                const [px, py] = [x + c * dx - s * dy, y + c * dy + s * dx];
                let near = toSegment(px, py, ax, ay, x, y);
                for (let j = 2; j < i; j++)
                  near = Math.min(near, toSegment(px, py, m.x[j - 1], m.y[j - 1], m.x[j], m.y[j]));
                if (near > R + by) n++;
              }
              return n / 180;
            };
            // What its stretches and squares cannot tell apart: no faster than for what is met for certain, however small.
            const certain = met(0.3 * R);
            if (certain > 0)
              expect(m.feed[i] / 1000).toBeLessThanOrEqual(easedShare('strong', (certain - 0.07) / usual) + 1e-9);
            const utmost = met(-0.3 * R) + 0.15;
            if (long > 6)
              expect(m.feed[i] / 1000).toBeGreaterThanOrEqual(
                Math.min(1, easedShare('strong', (1.3 * utmost) / usual)) - 0.125,
              );
          }
        },
      ),
    );
  });
});
