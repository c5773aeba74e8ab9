import fc from 'fast-check';
import { real } from '../testing/real';
import { fitMoves, fitMovesAnywhere, type FittedMove } from './fitMoves';

const num = (min: number, max: number) => real(min, max);
/** Points of lines and helices, joined, with their own steps. */
const ways = fc
  .array(
    fc.record({
      arc: fc.boolean(),
      turn: num(-4, 4).filter((a) => Math.abs(a) > 0.3),
      r: num(0.3, 30),
      rise: num(-2, 2),
      length: num(0.5, 20),
      n: fc.integer({ min: 6, max: 60 }),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((parts) => {
    const out = [0, 0, 0];
    let heading = 0.3;
    for (const q of parts) {
      const [x, y, z] = out.slice(-3);
      if (q.arc) {
        const s = Math.sign(q.turn);
        const [cx, cy] = [x - s * q.r * Math.sin(heading), y + s * q.r * Math.cos(heading)];
        const n = Math.max(q.n, Math.ceil(Math.abs(q.turn) * 8));
        for (let k = 1; k <= n; k++)
          out.push(
            cx + s * q.r * Math.sin(heading + (q.turn * k) / n),
            cy - s * q.r * Math.cos(heading + (q.turn * k) / n),
            z + (q.rise * k) / n,
          );
        heading += q.turn;
      } else
        for (let k = 1; k <= q.n; k++)
          out.push(
            x + (q.length * Math.cos(heading) * k) / q.n,
            y + (q.length * Math.sin(heading) * k) / q.n,
            z + (q.rise * k) / q.n,
          );
      heading += 0.7;
    }
    return Float64Array.from(out);
  });

/** Nearest distance of a point to a move, by many places of it. */
function away(p: Float64Array, from: number, m: FittedMove, q: readonly number[]): number {
  const [ax, ay, az, bx, by, bz] = [...p.slice(3 * from, 3 * from + 3), ...p.slice(3 * m.to, 3 * m.to + 3)];
  let best = Infinity;
  const n = 4000;
  for (let k = 0; k <= n; k++) {
    const f = k / n;
    let [x, y] = [ax + (bx - ax) * f, ay + (by - ay) * f];
    if (m.sweep !== 0) {
      const r = Math.hypot(ax - m.cx, ay - m.cy);
      const a = Math.atan2(ay - m.cy, ax - m.cx) + m.sweep * f;
      [x, y] = [m.cx + r * Math.cos(a), m.cy + r * Math.sin(a)];
    }
    best = Math.min(best, Math.hypot(q[0] - x, q[1] - y, q[2] - az - (bz - az) * f));
  }
  return best;
}

describe('moves through points', () => {
  it('keep to every point and to the middle of every chord', () => {
    fc.assert(
      fc.property(ways, num(0.0005, 0.02), (p, tolerance) => {
        let from = 0;
        for (const m of fitMoves(p, tolerance)) {
          expect(m.to).toBeGreaterThan(from);
          for (let k = from; k < m.to; k++) {
            const a = [...p.slice(3 * k, 3 * k + 3)];
            const b = [...p.slice(3 * k + 3, 3 * k + 6)];
            expect(away(p, from, m, a)).toBeLessThan(tolerance + 0.005);
            if (m.sweep !== 0)
              expect(
                Math.abs(
                  Math.hypot((a[0] + b[0]) / 2 - m.cx, (a[1] + b[1]) / 2 - m.cy) -
                    Math.hypot(p[3 * from] - m.cx, p[3 * from + 1] - m.cy),
                ),
              ).toBeLessThan(tolerance + 1e-9);
          }
          if (m.sweep !== 0) {
            // Its two ends lie on one circle, and the sweep leads from one to the other.
            const r = Math.hypot(p[3 * from] - m.cx, p[3 * from + 1] - m.cy);
            const a = Math.atan2(p[3 * from + 1] - m.cy, p[3 * from] - m.cx) + m.sweep;
            expect(
              Math.hypot(m.cx + r * Math.cos(a) - p[3 * m.to], m.cy + r * Math.sin(a) - p[3 * m.to + 1]),
            ).toBeLessThan(1e-6);
          }
          from = m.to;
        }
        expect(from).toBe(p.length / 3 - 1);
      }),
      { numRuns: 30 },
    );
  });
  it('are one line for a line and two arcs for a circle, however many points there are', () => {
    for (const n of [40, 400, 4000]) {
      const line = Float64Array.from({ length: 3 * (n + 1) }, (_, i) => [5, -2, 1][i % 3] * (Math.floor(i / 3) / n));
      expect(fitMoves(line, 0.0012).map((m) => m.sweep)).toEqual([0]);
      const circle = Float64Array.from(
        { length: 3 * (n + 1) },
        (_, i) =>
          [
            12 * Math.cos((2 * Math.PI * Math.floor(i / 3)) / n),
            12 * Math.sin((2 * Math.PI * Math.floor(i / 3)) / n),
            -1,
          ][i % 3],
      );
      if (12 * (1 - Math.cos(Math.PI / n)) < 0.0012) expect(fitMoves(circle, 0.0012)).toHaveLength(2);
    }
  });
  it('are one helix where a circle rises evenly', () => {
    const n = 300;
    const p = Float64Array.from(
      { length: 3 * (n + 1) },
      (_, i) =>
        [
          4 * Math.cos((4 * Math.floor(i / 3)) / n),
          4 * Math.sin((4 * Math.floor(i / 3)) / n),
          (-2 * Math.floor(i / 3)) / n,
        ][i % 3],
    );
    const got = fitMoves(p, 0.0007);
    expect(got).toHaveLength(1);
    expect(got[0].sweep).toBeCloseTo(4, 3);
  });
  it('do not cut short a way that turns back', () => {
    const p = Float64Array.of(0, 0, 0, 4, 0, 0, 8, 0, 0, 4, 0, 0, 0, 0, 0);
    expect(fitMoves(p, 0.01).map((m) => m.to)).toEqual([2, 4]);
  });
});

describe('moves fitted wherever the line lies', () => {
  it('are those of the line itself, moved with it, and reach the same points', () => {
    fc.assert(
      fc.property(ways, num(-300, 300), num(-300, 300), num(0.0005, 0.02), (p, dx, dy, tolerance) => {
        const moved = p.map((v, i) => v + [dx, dy, 0][i % 3]);
        const there = fitMovesAnywhere(moved, tolerance);
        expect(there.at(-1)!.to).toBe(p.length / 3 - 1);
        // Within the tolerance and what rounding to a nanometre's thousandth is worth.
        let from = 0;
        for (const m of there) {
          const middle = 3 * ((from + m.to) >> 1);
          expect(away(moved, from, m, [...moved.slice(middle, middle + 3)])).toBeLessThan(tolerance + 0.01);
          from = m.to;
        }
        const again = fitMovesAnywhere(
          moved.map((v, i) => v + [7.25, -3.5, 0][i % 3]),
          tolerance,
        );
        expect(again.map((m) => m.to)).toEqual(there.map((m) => m.to));
        again.forEach((m, k) => {
          if (m.sweep === 0) return;
          expect(m.cx - there[k].cx).toBeCloseTo(7.25, 6);
          expect(m.cy - there[k].cy).toBeCloseTo(-3.5, 6);
        });
      }),
      { numRuns: 30 },
    );
  });
  it('are told apart by tolerance, weight and height', () => {
    const p = Float64Array.from({ length: 3 * 40 }, (_, i) => {
      const a = (i - (i % 3)) / 60;
      return [10 * Math.cos(a), 10 * Math.sin(a), -Math.sin(3 * a)][i % 3];
    });
    const counts = [0.0005, 0.01, 0.3].map((t) => fitMovesAnywhere(p, t).length);
    expect(counts[0]).toBeGreaterThan(counts[1]);
    expect(counts[1]).toBeGreaterThan(counts[2]);
    expect(fitMovesAnywhere(p, 0.01, 4).length).toBeLessThanOrEqual(counts[1]);
    const level = p.map((v, i) => (i % 3 === 2 ? 0 : v));
    expect(fitMovesAnywhere(level, 0.01).length).toBeLessThan(counts[1]);
  });
});
