import fc from 'fast-check';
import { real } from '../../testing/real';
import type { Branches } from '../../geometry/medial/branches';
import { makeStrokes } from './strokes';

const costs = { feed: 1000, plunge: 300, rapid: 4000, clearance: 2 };
/** Branches along x, each given by its clearances at whole millimetres; each hangs on its own nodes. */
function along(list: readonly (readonly number[])[]): Branches {
  const samples: number[] = [];
  const start = [0];
  list.forEach((rs, e) => {
    rs.forEach((r, i) => samples.push(i, 5 * e, r));
    start.push(samples.length / 3);
  });
  return {
    samples: Float64Array.from(samples),
    start: Int32Array.from(start),
    from: Int32Array.from(list, (_, e) => 2 * e),
    to: Int32Array.from(list, (_, e) => 2 * e + 1),
    count: list.length,
    plunges: new Float64Array(0),
  };
}
/** Length in x of what has a clearance between two limits: by itself, chord by chord. */
const wanted = (rs: readonly number[], low: number, high: number): number => {
  let sum = 0;
  for (let i = 1; i < rs.length; i++) {
    const [a, b] = [Math.min(rs[i - 1], rs[i]), Math.max(rs[i - 1], rs[i])];
    sum += a === b ? (a >= low && a <= high ? 1 : 0) : Math.max(0, Math.min(b, high) - Math.max(a, low)) / (b - a);
  }
  return sum;
};
const covered = (strokes: readonly Float64Array[], y: number): number => {
  // Strokes may come back along themselves: what is covered counts once.
  const spans: [number, number][] = [];
  for (const s of strokes)
    for (let i = 3; i < s.length; i += 3)
      if (s[i + 1] === y && s[i - 2] === y) spans.push([Math.min(s[i - 3], s[i]), Math.max(s[i - 3], s[i])]);
  spans.sort((a, b) => a[0] - b[0]);
  let sum = 0;
  let to = -Infinity;
  for (const [a, b] of spans) {
    sum += Math.max(0, b - Math.max(a, to));
    to = Math.max(to, b);
  }
  return sum;
};

describe('strokes along branches', () => {
  it('cover all between the limits, from wide to narrow as from narrow to wide, also where the knee is the limit', () => {
    const r = fc.integer({ min: 0, max: 20 }).map((v) => v / 10);
    fc.assert(
      fc.property(
        fc.array(fc.array(r, { minLength: 2, maxLength: 8 }), { minLength: 1, maxLength: 4 }),
        r,
        real(0.1, 2.2),
        fc.constantFrom('high', 'below', 'low'),
        (list, low, high, where) => {
          fc.pre(high > low + 0.01);
          const knee = where === 'high' ? high : where === 'low' ? low : (low + high) / 2;
          const strokes = makeStrokes(along(list), low, high, knee, (c) => -Math.min(c, knee), costs);
          list.forEach((rs, e) => expect(covered(strokes, 5 * e)).toBeCloseTo(wanted(rs, low, high), 2));
          // The tip is where the clearance asks for: never below, and above by the tolerance at most.
          for (const s of strokes)
            for (let i = 0; i < s.length; i += 3) {
              const rs = list[Math.round(s[i + 1] / 5)];
              const k = Math.min(rs.length - 2, Math.floor(s[i]));
              const c = rs[k] + (rs[k + 1] - rs[k]) * (s[i] - k);
              expect(Math.abs(s[i + 2] + Math.min(c, knee))).toBeLessThan(1e-6);
            }
        },
      ),
    );
  });
  it('of one chord that runs past its limit are the part below it, whichever way it runs', () => {
    for (const rs of [
      [1, 0],
      [0, 1],
    ]) {
      const [s] = makeStrokes(along([rs]), 0, 0.5, 0.5, (c) => -c, costs);
      expect(covered([s], 0)).toBeCloseTo(0.5, 9);
    }
  });
  it('join branches that meet in a node into one, going back where that is quicker than lifting', () => {
    // A star of three short branches from one node.
    const b = {
      ...along([
        [0, 1],
        [0, 1],
        [0, 1],
      ]),
      to: Int32Array.of(9, 9, 9),
    };
    for (let e = 0; e < 3; e++) {
      const a = (2 * Math.PI * e) / 3;
      b.samples.set([Math.cos(a), Math.sin(a), 0, 0, 0, 1], 6 * e);
    }
    expect(makeStrokes(b, 0, 2, 2, (c) => -c, costs)).toHaveLength(1);
    // With a slow feed it is quicker to lift.
    expect(makeStrokes(b, 0, 2, 2, (c) => -c, { ...costs, feed: 1 }).length).toBeGreaterThan(1);
  });
});
