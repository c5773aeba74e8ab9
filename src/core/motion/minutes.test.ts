import { benchRouter, type Machine } from '../machine/profile';
import { normalise } from '../geometry/region';
import { layOut } from '../lettering/layout';
import { flatten, placement, transformPath } from '../geometry/path';
import { shippedFont } from '../testing/fonts';
import { planOn } from '../testing/job';
import { box, circleLoop, starLoop } from '../testing/shapes';
import { isArc, MotionBuilder, RAPID, withoutArcs, type Motion } from './motion';
import { seconds, timeOf } from './timing';

/**
 * The controller by small steps of time, written for this test: along the chords of the way the speed rises at the limit and
 * stays below what the move, the corner ahead and the braking way from every later corner allow. The latter is found by
 * walking the way backwards in small steps of length, not from the estimate's own pass over moves.
 */
function integrated(motion: Motion, m: Machine): number {
  // No arc is run faster than the pull towards its centre allows.
  const pull = Math.min(m.accel.x, m.accel.y);
  const c = withoutArcs(
    {
      ...motion,
      feed: motion.feed.map((f, i) =>
        isArc(motion.kind[i])
          ? Math.min(f, 60 * Math.sqrt(pull * Math.hypot(motion.x[i] - motion.cx[i], motion.y[i] - motion.cy[i])))
          : f,
      ),
    },
    0.005,
  );
  const dirs: [number, number, number][] = [];
  const lengths: number[] = [];
  const speeds: number[] = [];
  const accels: number[] = [];
  const axes = ['x', 'y', 'z'] as const;
  const least = (u: readonly number[], limit: { x: number; y: number; z: number }) =>
    Math.min(...axes.map((a, k) => (Math.abs(u[k]) > 1e-9 ? limit[a] / Math.abs(u[k]) : Infinity)));
  for (let i = 1; i < c.count; i++) {
    const d = [c.x[i] - c.x[i - 1], c.y[i] - c.y[i - 1], c.z[i] - c.z[i - 1]];
    const l = Math.hypot(...d);
    if (l < 1e-9) continue;
    const u = d.map((v) => v / l) as [number, number, number];
    dirs.push(u);
    lengths.push(l);
    accels.push(least(u, m.accel));
    speeds.push(Math.min(c.kind[i] === RAPID ? m.rapid : c.feed[i], least(u, m.maxFeed)) / 60);
  }
  const n = dirs.length;
  /** Fastest through the corner between move i and i + 1: a circle that leaves it by the deviation (cosine by dot product). */
  const corner = (i: number): number => {
    if (i + 1 >= n) return 0;
    const dot = dirs[i][0] * dirs[i + 1][0] + dirs[i][1] * dirs[i + 1][1] + dirs[i][2] * dirs[i + 1][2];
    const most = Math.min(speeds[i], speeds[i + 1]);
    if (dot > 0.999999) return most;
    if (dot < -0.999999) return 0;
    const change = dirs[i].map((v, k) => dirs[i + 1][k] - v);
    const size = Math.hypot(...change);
    const a = least(
      change.map((v) => v / size),
      m.accel,
    );
    // sin of half the angle between the sides of the corner.
    const s = Math.sqrt((1 + dot) / 2);
    return Math.min(most, Math.sqrt((a * m.junctionDeviation * s) / (1 - s)));
  };
  // Backwards: the speed at each step of the way from which everything ahead can still be braked for.
  const steps = lengths.map((l) => Math.max(4, Math.ceil(l / 0.05)));
  const first: number[] = [];
  let total = 0;
  for (const s of steps) {
    first.push(total);
    total += s;
  }
  const allowed = new Float64Array(total + 1);
  for (let i = n - 1; i >= 0; i--) {
    const h = lengths[i] / steps[i];
    allowed[first[i] + steps[i]] = Math.min(corner(i), i + 1 < n ? allowed[first[i + 1]] : 0);
    for (let k = steps[i] - 1; k >= 0; k--)
      allowed[first[i] + k] = Math.min(speeds[i], Math.sqrt(allowed[first[i] + k + 1] ** 2 + 2 * accels[i] * h));
    if (i > 0) allowed[first[i]] = Math.min(allowed[first[i]], corner(i - 1));
  }
  // Forwards: each small step at the mean of its end speeds.
  let t = 0;
  let v = 0;
  for (let i = 0; i < n; i++) {
    const h = lengths[i] / steps[i];
    v = Math.min(v, allowed[first[i]]);
    for (let k = 0; k < steps[i]; k++) {
      const next = Math.min(
        Math.sqrt(v * v + 2 * accels[i] * h),
        speeds[i],
        k + 1 < steps[i] ? allowed[first[i] + k + 1] : Math.min(corner(i), i + 1 < n ? allowed[first[i + 1]] : 0),
      );
      // From rest to rest within a step: up and down.
      t += v + next > 1e-9 ? (2 * h) / (v + next) : 2 * Math.sqrt(h / accels[i]);
      v = next;
    }
  }
  return t;
}

/**
 * Round moves by themselves, as the equations of motion have it: the way is one curve, run from rest to rest at the feed, at
 * the speed that the pull towards the centre allows, or at what the way is long enough for.
 */
const alongArc = (r: number, turn: number, rise: number, feed: number, m: Machine): number => {
  const flat = r * turn;
  const long = Math.hypot(flat, rise);
  const share = flat / long;
  const v = Math.min(feed / 60, Math.sqrt(Math.min(m.accel.x, m.accel.y) * r));
  // Speeding up: no axis beyond its own; directions change all the time, so between the least of X and Y and what their diagonal allows.
  const a = Math.min(m.accel.x / share, m.accel.z / Math.max(1e-9, Math.abs(rise) / long));
  const ramp = (v * v) / a;
  return long > ramp ? long / v + v / a : 2 * Math.sqrt(long / a);
};

const word = (() => {
  const { paths } = layOut(
    { text: 'Lock 7', capHeight: 12, tracking: 0, kerning: true, leading: 1.6, align: 'centre', stretch: 100 },
    shippedFont('libre-baskerville'),
  );
  return normalise(paths.map((p) => flatten(transformPath(p, placement(50, 25, 0)), 0.001)));
})();
const pocket = normalise([starLoop(9, 24, 11, 30, 30)]);
const ring = normalise([circleLoop(400, 20, 40, 30)]);
const blank = { width: 120, height: 70, thickness: 6 };
const programs: Record<string, () => Motion> = {
  'V-carving a word': () =>
    planOn('vcarve', { cutter: 'v-12-60-0' }, word, blank, { stepDown: 3 }).plan.toolpaths[0].motion,
  'V-carving with a floor': () =>
    planOn('vcarve', { cutter: 'v-12-60-0', limit: 1 }, pocket, blank, { stepOver: 0.4 }).plan.toolpaths[0].motion,
  'clearing along the outline': () =>
    planOn('area', { cutters: ['flat-3'], depth: 2 }, pocket, blank, { stepDown: 1, stepOver: 1.2 }).plan.toolpaths[0]
      .motion,
  'clearing in rows': () =>
    planOn('area', { cutters: ['flat-3'], depth: 2, pattern: 'hatch', angle: 20 }, pocket, blank, {
      stepDown: 1,
      stepOver: 1.2,
    }).plan.toolpaths[0].motion,
  'clearing what was left': () =>
    planOn('area', { cutters: ['flat-6', 'flat-1'], depth: 1 }, pocket, blank, { stepOver: 0.5 }).plan.toolpaths[1]
      .motion,
  'cutting free with tabs': () =>
    planOn('profile', { cutter: 'flat-3' }, ring, blank, { stepDown: 2 }).plan.toolpaths[0].motion,
  'engraving a word in lines': () =>
    planOn('line', { cutter: 'cone-3.175-20-0.1', depth: 0.2 }, word, blank).plan.toolpaths[0].motion,
  'hatching a word': () =>
    planOn('drag', { fill: 'crossed', spacing: 0.25, depth: 0.08 }, word, blank).plan.toolpaths[0].motion,
  drilling: () =>
    planOn(
      'drilling',
      { cutter: 'drill-3-118', depth: 5, peck: 1 },
      normalise([circleLoop(64, 1.5, 10, 10), circleLoop(64, 1.5, 60, 10), circleLoop(64, 1.5, 30, 50)]),
      blank,
    ).plan.toolpaths[0].motion,
  skimming: () =>
    planOn('skim', { cutter: 'flat-6', depth: 0.5 }, [box(0, 0, 1, 1)], blank, { stepOver: 4 }).plan.toolpaths[0]
      .motion,
};

describe('minutes of round moves', () => {
  const machine = { ...benchRouter, accel: { x: 400, y: 400, z: 200 } };
  it.each([0.3, 1, 3, 12, 50])('turns and helices of radius %s mm within 2 %% of the equations of motion', (r) => {
    for (const [turns, rise] of [
      [6, 0],
      [10, -1],
      [8, -0.2 * r],
    ] as const)
      for (const feed of [300, 1500, 4000]) {
        const b = new MotionBuilder();
        b.rapid(r, 0, 0);
        for (let k = 1; k <= 2 * turns; k++) b.arc(true, k % 2 ? -r : r, 0, (rise * k) / (2 * turns), 0, 0, feed);
        const want = alongArc(r, 2 * Math.PI * turns, rise, feed, machine);
        expect(Math.abs(seconds(timeOf(b.build(), machine)) / want - 1)).toBeLessThan(0.02);
      }
  });
});

describe('minutes of whole programs', () => {
  it.each(Object.entries(programs))('%s: within 2 %% of small steps of the same limits', (_name, plan) => {
    const motion = plan();
    for (const machine of [
      benchRouter,
      { ...benchRouter, accel: { x: 150, y: 220, z: 90 }, junctionDeviation: 0.03 },
    ]) {
      const want = integrated(motion, machine);
      expect(want).toBeGreaterThan(2);
      expect(Math.abs(seconds(timeOf(motion, machine)) / want - 1)).toBeLessThan(0.02);
    }
  });
});
