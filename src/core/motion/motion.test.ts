import fc from 'fast-check';
import { real } from '../testing/real';
import { benchRouter } from '../machine/profile';
import { circleLoop } from '../testing/shapes';
import { MotionBuilder } from './motion';
import { seconds, timeOf } from './timing';
import { fitArcs, nearestOn, pointAt, slice } from './arcPolyline';

const machine = {
  ...benchRouter,
  accel: { x: 500, y: 500, z: 200 },
  maxFeed: { x: 6000, y: 6000, z: 1200 },
  rapid: 6000,
  junctionDeviation: 0.01,
};
const line = (...points: [number, number, number, number][]) => {
  const b = new MotionBuilder();
  b.rapid(0, 0, 0);
  for (const [x, y, z, f] of points) b.line(x, y, z, f);
  return b.build();
};

/** The same limits by small steps of time: speed rises at the acceleration limit and falls in time for what is ahead. */
function stepped(lengths: number[], feeds: number[], corners: number[], a: number): number {
  let t = 0;
  let v = 0;
  const dt = 1e-4;
  for (let i = 0; i < lengths.length; i++) {
    let left = lengths[i];
    while (left > 0) {
      let most = feeds[i];
      let ahead = left;
      for (let k = i; k < lengths.length; k++) {
        most = Math.min(most, Math.sqrt((k + 1 < lengths.length ? corners[k] : 0) ** 2 + 2 * a * ahead));
        if (k + 1 < lengths.length) {
          most = Math.min(most, Math.sqrt(feeds[k + 1] ** 2 + 2 * a * ahead));
          ahead += lengths[k + 1];
        }
      }
      v = Math.min(most, v + a * dt);
      const d = Math.max(v * dt, 1e-7);
      left -= d;
      t += dt;
    }
  }
  return t;
}

describe('minutes', () => {
  it('of one move are a trapezoid', () => {
    // 100 mm at 3000 mm/min with 500 mm/s2: 0.1 s up, 0.1 s down, the rest at 50 mm/s.
    expect(seconds(timeOf(line([100, 0, 0, 3000]), machine))).toBeCloseTo(0.2 + (100 - 5) / 50, 6);
  });
  it('of a short move are a triangle', () =>
    expect(seconds(timeOf(line([1, 0, 0, 6000]), machine))).toBeCloseTo(2 * Math.sqrt(1 / 500), 6));
  it('stop at a reversal and not in a straight line', () => {
    const straight = seconds(timeOf(line([50, 0, 0, 3000], [100, 0, 0, 3000]), machine));
    expect(straight).toBeCloseTo(seconds(timeOf(line([100, 0, 0, 3000]), machine)), 6);
    expect(seconds(timeOf(line([50, 0, 0, 3000], [0, 0, 0, 3000]), machine))).toBeCloseTo(
      2 * seconds(timeOf(line([50, 0, 0, 3000]), machine)),
      6,
    );
  });
  it('heed the limits of each axis', () =>
    expect(seconds(timeOf(line([0, 0, -40, 6000]), machine))).toBeCloseTo(20 / 200 + 40 / 20, 5));
  it('agree within 2 % with small steps of time under the same limits', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(real(2, 30), real(-2, 2), fc.integer({ min: 400, max: 5000 })), {
          minLength: 2,
          maxLength: 6,
        }),
        (moves) => {
          let x = 0;
          let y = 0;
          let way = 0;
          const points: [number, number, number, number][] = [];
          const corners: number[] = [];
          moves.forEach(([l, turn, f], i) => {
            if (i) {
              // Junction deviation along X and Y with the acceleration that the change of direction allows.
              const cos = -Math.cos(turn);
              const half = Math.sqrt((1 - cos) / 2);
              const jx = Math.cos(way + turn) - Math.cos(way);
              const jy = Math.sin(way + turn) - Math.sin(way);
              const j = Math.hypot(jx, jy) || 1;
              const a = Math.min(500 / Math.max(1e-9, Math.abs(jx / j)), 500 / Math.max(1e-9, Math.abs(jy / j)));
              corners.push(half > 1 - 1e-9 ? Infinity : Math.sqrt((a * 0.01 * half) / (1 - half)));
            }
            way += i ? turn : 0;
            x += l * Math.cos(way);
            y += l * Math.sin(way);
            points.push([x, y, 0, f]);
          });
          // The planner bounds acceleration per axis; the stepper takes each move's own bound, the smallest of all for braking.
          const bounds = points.map((p, i) => {
            const q = i ? points[i - 1] : [0, 0];
            const l = Math.hypot(p[0] - q[0], p[1] - q[1]);
            return Math.min(
              500 / Math.max(1e-9, Math.abs(p[0] - q[0]) / l),
              500 / Math.max(1e-9, Math.abs(p[1] - q[1]) / l),
            );
          });
          const mine = seconds(timeOf(line(...points), machine));
          const slow = stepped(
            moves.map((m) => m[0]),
            moves.map((m) => m[2] / 60),
            corners,
            Math.min(...bounds),
          );
          const fast = stepped(
            moves.map((m) => m[0]),
            moves.map((m) => m[2] / 60),
            corners,
            Math.max(...bounds),
          );
          expect(mine).toBeLessThan(slow * 1.02 + 0.002);
          expect(mine).toBeGreaterThan(fast * 0.98 - 0.002);
        },
      ),
      { numRuns: 40, endOnFailure: true },
    );
  });
});

describe('a motion put to others', () => {
  const places = fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), fc.constantFrom(-2, -1, 5));
  const moves = fc.array(fc.tuple(fc.constantFrom('rapid', 'line', 'arc', 'dwell'), places), { maxLength: 20 });
  const put = (b: MotionBuilder, [kind, [x, y, z]]: [string, [number, number, number]]) => {
    if (kind === 'rapid') b.rapid(x, y, z);
    else if (kind === 'line') b.line(x, y, z, 100 + x);
    else if (kind === 'dwell') b.dwell(0.5);
    else b.arc(x > 0, x, y, z, x + 1, y + 2, 200 + y);
  };

  it('in two parts, the second from where the first ends, is as if it had been made at once', () => {
    fc.assert(
      fc.property(moves, moves, (first, second) => {
        const [whole, one, two, both] = Array.from({ length: 4 }, () => new MotionBuilder());
        for (const b of [whole, one]) b.rapid(0, 0, 5);
        for (const m of first) for (const b of [whole, one]) put(b, m);
        two.rapid(one.lastX, one.lastY, one.lastZ);
        for (const m of second) for (const b of [whole, two]) put(b, m);
        both.add(one.build());
        both.add(two.build());
        const { cx, cy, ...all } = whole.build();
        const got = both.build();
        expect(got).toMatchObject(all);
        const arcs = [...got.kind.keys()].filter((i) => got.kind[i] >= 3 && got.kind[i] <= 4);
        expect(arcs.map((i) => [got.cx[i], got.cy[i]])).toEqual(arcs.map((i) => [cx[i], cy[i]]));
      }),
    );
  });
});

describe('tracks', () => {
  it('find the arcs in a divided circle', () => {
    const t = fitArcs(circleLoop(400, 10), true, 0.002);
    expect(t.segments.filter((s) => s.sweep !== 0).length).toBeGreaterThan(0);
    expect(t.segments.length).toBeLessThan(8);
    expect(t.length).toBeCloseTo(20 * Math.PI, 2);
    for (let s = 0; s < t.length; s += 1.7) {
      const p = pointAt(t, s);
      expect(Math.hypot(p.x, p.y)).toBeCloseTo(10, 2);
      expect(Math.abs(nearestOn(t, p.x, p.y).s - s)).toBeLessThan(1e-3);
    }
  });
  it('keep corners of a box as lines, and slices add up', () => {
    const t = fitArcs(Float64Array.of(0, 0, 10, 0, 10, 6, 0, 6), true, 0.002);
    expect(t.segments.every((s) => s.sweep === 0)).toBe(true);
    fc.assert(
      fc.property(real(0, 40), real(0, 70), (a, l) => {
        expect(slice(t, a, a + l).reduce((s, q) => s + q.length, 0)).toBeCloseTo(l, 6);
      }),
    );
  });
});
