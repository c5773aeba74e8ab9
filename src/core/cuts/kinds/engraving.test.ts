import fc from 'fast-check';
import { real } from '../../testing/real';
import { normalise, type Loop } from '../../geometry/region';
import { moveLength, PLUNGE, RAPID, type Motion } from '../../motion/motion';
import {
  bruteDistance,
  bruteInside,
  cutOut,
  depths,
  distanceToLine,
  readMoves,
  scatter,
  testCone,
  testFlat,
  type TestCutter,
} from '../../testing/independent';
import { planOn, programOf } from '../../testing/job';
import { box, circleLoop, starLoop } from '../../testing/shapes';
import type { Line } from '../kind';

const blank = { width: 100, height: 60, thickness: 6 };
const proof = (
  kind: string,
  values: Record<string, unknown>,
  loops: Loop[],
  cutter: TestCutter,
  count = 1500,
  lines?: Line[],
) => {
  const { plan, job } = planOn(kind, values, normalise(loops), blank, {}, lines);
  const { text } = programOf(plan, job);
  const g = scatter(lines ? lines.map((l) => l.points) : loops, count, 1, 0.4);
  cutOut(g, readMoves(text), { 1: cutter });
  return { plan, text, g, m: plan.toolpaths[0]?.motion };
};
describe('line engraving', () => {
  const open: Line[] = [
    { points: Float64Array.of(5, 5, 30, 8, 20, 30), closed: false },
    { points: Float64Array.of(50, 10, 80, 10), closed: false },
    { points: Float64Array.of(50, 10.4, 80, 40), closed: false },
  ];
  it('cuts the groove of the cutter along every line, and nothing else', () => {
    const { g } = proof('line', { cutter: 'cone-3.175-20-0.1', depth: 0.6 }, [], testCone(40, 0.1, 3.175), 3000, open);
    const cone = testCone(40, 0.1, 3.175);
    let cut = 0;
    for (let i = 0; i < g.x.length; i++) {
      const d = Math.min(...open.map((l) => distanceToLine(l.points, g.x[i], g.y[i])));
      const want = Math.min(0, -0.6 + cone.profile(d));
      expect(Math.abs(g.z[i] - want)).toBeLessThan(0.002);
      if (want < 0) cut++;
    }
    expect(cut).toBeGreaterThan(300);
  });
  it('runs in passes, to and fro, and slows in sharp corners where asked', () => {
    const plan = (values: Record<string, unknown>) =>
      planOn('line', { cutter: 'cone-3.175-20-0.1', depth: 0.6, stepDown: 0.25, ...values }, [], blank, {}, open).plan
        .toolpaths[0].motion;
    const m = plan({});
    const lifts = (q: Motion) => q.z.reduce((n, z, i) => n + (i && q.kind[i] === RAPID && z > q.z[i - 1] ? 1 : 0), 0);
    expect(lifts(m)).toBeLessThanOrEqual(open.length + 1);
    let length = 0;
    for (let i = 1; i < m.count; i++) if (m.kind[i] !== RAPID && m.kind[i] !== PLUNGE) length += moveLength(m, i);
    expect(length).toBeCloseTo(3 * (Math.hypot(25, 3) + Math.hypot(10, 22) + 30 + Math.hypot(30, 29.6)), 3);
    const slow = plan({ cornerShare: 0.4 });
    const feeds = [...slow.feed].filter((f, i) => f > 0 && slow.kind[i] !== PLUNGE && slow.kind[i] !== RAPID);
    expect(Math.min(...feeds)).toBeCloseTo(400, 6);
    let slowed = 0;
    for (let i = 1; i < slow.count; i++)
      if (slow.kind[i] !== RAPID && Math.abs(slow.feed[i] - 400) < 1e-6) slowed += moveLength(slow, i);
    // One sharp corner, half a millimetre to each side of it, three passes.
    expect(slowed).toBeCloseTo(3, 1);
  });
  it.each(['hatch', 'crossed'])('fills outlines and stays inside by the width of the groove (%s)', (fill) => {
    const loops = normalise([starLoop(6, 20, 9, 24, 24), circleLoop(200, 8, 70, 30)]);
    const cone = testCone(40, 0.1, 3.175);
    for (const edge of ['inside', 'none']) {
      const { g } = proof(
        'line',
        { cutter: 'cone-3.175-20-0.1', depth: 0.5, fill, spacing: 0.4, angle: 30, edge },
        loops,
        cone,
        2500,
      );
      const d = depths(loops, g);
      let inside = 0;
      let cut = 0;
      for (let i = 0; i < d.length; i++) {
        if (d[i] < -0.002) expect(g.z[i]).toBe(0);
        if (d[i] > 1.2) {
          inside++;
          if (g.z[i] < 0) cut++;
        }
      }
      // The groove is 0.1 + 2 * 0.5 tan 20 = 0.464 mm wide at the face: rows 0.4 mm apart leave nothing.
      expect(inside).toBeGreaterThan(100);
      expect(cut).toBe(inside);
    }
  });
  it('says what to do where there is nothing to follow', () => {
    const { plan } = planOn(
      'line',
      { cutter: 'cone-3.175-20-0.1', depth: 0.2, edge: 'none' },
      normalise([box(0, 0, 9, 9)]),
      blank,
    );
    expect(plan.toolpaths).toEqual([]);
    expect(plan.remarks[0].text).toMatch(/pick lines or outlines/);
  });
});

describe('drag engraving', () => {
  const line: Line[] = [{ points: Float64Array.of(5, 5, 30, 8), closed: false }];
  it('never turns the spindle on, and touches down slowly', () => {
    const { text, m } = proof(
      'drag',
      { cutter: 'drag-3-120-0.02', depth: 0.1, touch: 90 },
      [],
      testCone(120, 0, 3),
      100,
      line,
    );
    expect(text).not.toMatch(/\bM0?[34]\b|\bS[1-9]/);
    for (let i = 1; i < m.count; i++) {
      if (m.kind[i] === PLUNGE) expect(m.feed[i]).toBe(90);
      if (m.kind[i] === RAPID) expect(m.z[i]).toBeGreaterThan(0);
    }
  });
  it('takes only diamonds', () => {
    expect(planOn('drag', { depth: 0.1 }, [], blank, {}, line).plan.toolpaths[0].cutterId).toMatch(/^drag/);
  });
});

describe('drilling', () => {
  const holes = [circleLoop(64, 1.5, 10, 10), circleLoop(64, 1.5, 40, 12), circleLoop(64, 1.5, 25, 30)];
  it('drills each circle once, in pecks, to its depth', () => {
    const { m, g } = proof('drilling', { cutter: 'flat-3', depth: 5, peck: 2 }, holes, testFlat(3), 10);
    expect(g.z.every((z) => z === 0 || z === -5)).toBe(true);
    const bottoms = new Map<string, number[]>();
    for (let i = 1; i < m.count; i++)
      if (m.kind[i] === PLUNGE)
        bottoms.set(`${m.x[i].toFixed(2)}/${m.y[i].toFixed(2)}`, [
          ...(bottoms.get(`${m.x[i].toFixed(2)}/${m.y[i].toFixed(2)}`) ?? []),
          m.z[i],
        ]);
    expect(bottoms.size).toBe(3);
    for (const z of bottoms.values()) expect(z.map((v) => +v.toFixed(9))).toEqual([0.3, -1.7, -3.7, -5]);
    // It comes back down by rapid into its own hole only, and stays above what is not drilled yet.
    let deep = 0;
    for (let i = 1; i < m.count; i++) {
      if (m.x[i] !== m.x[i - 1] || m.y[i] !== m.y[i - 1]) {
        expect(Math.min(m.z[i], m.z[i - 1])).toBeGreaterThan(0);
        deep = 0;
      }
      if (m.kind[i] === RAPID) expect(m.z[i]).toBeGreaterThanOrEqual(deep + 0.29);
      else deep = Math.min(deep, m.z[i]);
    }
  });
  it('says which picked things are no holes, and drills nodes and centres where asked', () => {
    const square = normalise([box(0, 0, 10, 10)]);
    expect(planOn('drilling', { cutter: 'drill-3-118' }, square, blank).plan.remarks[0].text).toMatch(/is a circle/);
    expect(
      planOn('drilling', { cutter: 'drill-3-118', places: 'centres' }, square, blank).plan.toolpaths[0].motion.x[0],
    ).toBeCloseTo(5, 6);
    const nodes = planOn('drilling', { cutter: 'drill-3-118', places: 'nodes' }, [], blank, {}, [
      { points: Float64Array.of(1, 1, 5, 5, 9, 1), closed: false },
    ]).plan.toolpaths[0].motion;
    expect(new Set(nodes.x)).toEqual(new Set([1, 5, 9]));
    expect(planOn('drilling', { cutter: 'drill-2-118' }, normalise(holes), blank).plan.remarks[0].text).toMatch(
      /another size/,
    );
  });
});

describe('skimming', () => {
  it('takes the whole face down, at any angle, and needs no artwork', () => {
    fc.assert(
      fc.property(real(-90, 90), fc.constantFrom('flat-6', 'flat-12'), (angle, cutter) => {
        const { plan, job } = planOn(
          'skim',
          { cutter, depth: 0.8, angle, stepOver: 4, stepDown: 0.5, overlap: 0.5 },
          [],
          blank,
          {},
          [],
        );
        const g = scatter([box(0, 0, blank.width, blank.height)], 400, 0, 0);
        cutOut(g, readMoves(programOf(plan, job).text), { 1: testFlat(cutter === 'flat-6' ? 6 : 12) });
        for (const z of g.z) expect(z).toBeCloseTo(-0.8, 4);
      }),
      { numRuns: 12 },
    );
  });
});

describe('profile in detail', () => {
  const edge = [box(20, 15, 80, 45)];
  const lowest = (m: Motion) => Math.min(...m.z);
  const tabs = { by: 'count', count: 4, spacing: 40, length: 6, height: 2, at: [] };
  const at = (shape: string, u: number) =>
    shape === 'rectangular'
      ? 1
      : shape === 'triangular'
        ? Math.max(0, 1 - Math.abs(u) / 3)
        : Math.sqrt(Math.max(0, 1 - (u / 3) ** 2));
  it.each(['rectangular', 'triangular', 'rounded'])(
    'leaves %s tabs of their length and height on the edge of the part',
    (shape) => {
      const where = [
        { x: 50, y: 14 },
        { x: 50, y: 46 },
      ];
      const { plan, job } = planOn(
        'profile',
        { cutter: 'flat-3', through: true, tabs: { ...tabs, shape, at: where } },
        edge,
        blank,
        { stepDown: 2 },
      );
      const points = Array.from({ length: 240 }, (_, i) => 44 + i * 0.05);
      const g = {
        x: Float64Array.from(points),
        y: new Float64Array(points.length).fill(13.5),
        z: new Float64Array(points.length),
      };
      cutOut(g, readMoves(programOf(plan, job).text), { 1: testFlat(3) });
      points.forEach((x, i) => {
        const u = x - 50;
        if (Math.abs(Math.abs(u) - 3) < 0.1) return;
        const want = Math.abs(u) > 3 ? -6 : -6 + 2 * at(shape, u);
        // Along the middle of the channel the tab is as narrow as anywhere: there it has its length.
        expect(Math.abs(g.z[i] - want)).toBeLessThan(shape === 'rounded' ? 0.12 : 0.06);
      });
    },
  );
  it('spreads tabs by distance, off clamps', () => {
    const clamps = [{ x0: 40, y0: 5, x1: 60, y1: 15 }];
    const { plan } = planOn(
      'profile',
      { cutter: 'flat-3', through: true, tabs: { ...tabs, shape: 'rectangular', by: 'spacing', spacing: 31 } },
      edge,
      { ...blank, ...({ clamps } as object) },
      {},
    );
    expect(plan.tabs).toHaveLength(6);
    for (const t of plan.tabs) expect(t.x > 40 && t.x < 60 && t.y < 15).toBe(false);
  });
  it('comes in and out along arcs that touch no neighbour', () => {
    const two = normalise([box(10, 10, 40, 40), box(45, 10, 75, 40)]);
    const { plan, job } = planOn(
      'profile',
      { cutter: 'flat-3', through: true, lead: 'arc', leadSize: 4, tabs: { ...tabs, shape: 'rectangular', count: 0 } },
      two,
      blank,
      { stepDown: 3 },
    );
    const g = scatter(two, 1500, 0, 0.5);
    cutOut(g, readMoves(programOf(plan, job).text), { 1: testFlat(3) });
    for (let i = 0; i < g.x.length; i++)
      if (bruteInside(two, g.x[i], g.y[i]) && bruteDistance(two, g.x[i], g.y[i]) > 0.002) expect(g.z[i]).toBe(0);
    const m = plan.toolpaths[0].motion;
    // It comes down away from the outline: further than the radius from the part.
    for (let i = 1; i < m.count; i++)
      if (m.kind[i] === PLUNGE) expect(bruteDistance(two, m.x[i], m.y[i])).toBeGreaterThan(2);
  });
  it('cuts openings before what holds them, and goes round once more at full depth where something was left for it', () => {
    const nested = normalise([box(10, 10, 90, 50), box(20, 20, 40, 40), box(50, 20, 80, 40)], 'evenodd');
    const { plan } = planOn(
      'profile',
      { cutter: 'flat-2', through: true, finish: 0.3, tabs: { ...tabs, shape: 'rectangular', count: 0 } },
      nested,
      blank,
      { stepDown: 2 },
    );
    const m = plan.toolpaths[0].motion;
    let outer = Infinity;
    let inner = -1;
    const outside = (i: number) => m.x[i] < 10 || m.x[i] > 90 || m.y[i] < 10 || m.y[i] > 50;
    // The finishing round is the last fifth of the way or less: the rough passes come in order before it.
    const firstFinish = [...m.z.keys()].findIndex(
      (i) => i > 0 && m.kind[i] !== RAPID && Math.abs(bruteDistance(nested, m.x[i], m.y[i]) - 1) < 0.01,
    );
    for (let i = 1; i < firstFinish; i++) {
      if (m.kind[i] === RAPID) continue;
      if (outside(i)) outer = Math.min(outer, i);
      else inner = Math.max(inner, i);
    }
    expect(inner).toBeGreaterThan(0);
    expect(inner).toBeLessThan(outer);
    expect(lowest(m)).toBeCloseTo(-6, 9);
    for (let i = 1; i < firstFinish; i++)
      if (m.kind[i] !== RAPID) expect(bruteDistance(nested, m.x[i], m.y[i])).toBeGreaterThan(1.29);
  });
  it('runs open lines on the line', () => {
    const { plan } = planOn(
      'profile',
      { cutter: 'flat-3', side: 'on', through: false, depth: 2 },
      [],
      blank,
      { stepDown: 1 },
      [{ points: Float64Array.of(5, 5, 45, 5), closed: false }],
    );
    const m = plan.toolpaths[0].motion;
    expect(lowest(m)).toBe(-2);
    for (const y of m.y) expect(y).toBe(5);
  });
});

describe('V-carve in detail', () => {
  it('runs sharp corners out above the face, and leaves a flat face as it is', () => {
    const square = [box(10, 10, 40, 22)];
    const { plan, job } = planOn('vcarve', { cutter: 'v-12-60-0', overRise: 0.4 }, square, blank, { stepDown: 2 });
    const m = plan.toolpaths[0].motion;
    let high = -Infinity;
    for (let i = 1; i < m.count; i++) if (m.kind[i] !== RAPID) high = Math.max(high, m.z[i]);
    expect(high).toBeCloseTo(0.4, 6);
    const g = scatter(square, 1500, 0.5, 0.3);
    cutOut(g, readMoves(programOf(plan, job).text), { 1: testCone(60, 0, 12) });
    const d = depths(square, g);
    for (let i = 0; i < d.length; i++) if (d[i] < -0.002) expect(g.z[i]).toBe(0);
  });
  it('leaves letters standing where a boundary is picked with them', () => {
    const raised = normalise([box(5, 5, 60, 45), circleLoop(300, 8, 30, 25)], 'evenodd');
    const { plan, job } = planOn(
      'vcarve',
      { cutter: 'v-12-60-0', limit: 1, endMills: ['flat-6', 'flat-2'] },
      raised,
      blank,
      { stepDown: 2, stepOver: 0.5 },
    );
    expect(plan.toolpaths.map((t) => t.cutterId)).toEqual(['flat-6', 'flat-2', 'v-12-60-0']);
    const g = scatter(raised, 1500, 0.5, 0.5);
    cutOut(g, readMoves(programOf(plan, job).text), { 1: testFlat(6), 2: testFlat(2), 3: testCone(60, 0, 12) });
    const d = depths(raised, g);
    const tan = Math.tan(Math.PI / 6);
    for (let i = 0; i < d.length; i++) {
      expect((d[i] > 0 ? -Math.min(1, d[i] / tan) : 0) - g.z[i]).toBeLessThan(0.005);
      if (d[i] > 1.5) expect(g.z[i]).toBeLessThan(-1 + (0.5 / tan) * 1.45);
    }
    expect(g.z.filter((_, i) => Math.hypot(g.x[i] - 30, g.y[i] - 25) < 7.99).every((z) => z === 0)).toBe(true);
  });
});
