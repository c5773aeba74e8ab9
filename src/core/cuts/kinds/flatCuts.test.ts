import fc from 'fast-check';
import { real } from '../../testing/real';
import { normalise, type Loop } from '../../geometry/region';
import { circlePath, flatten } from '../../geometry/path';
import { moveLength, RAPID, type Motion } from '../../motion/motion';
import {
  bruteDistance,
  bruteInside,
  cutOut,
  depths,
  readMoves,
  scatter,
  testCone,
  testFlat,
} from '../../testing/independent';
import { patterns } from '../clearing/clear';
import { planOn, programOf } from '../../testing/job';
import { box, circleLoop, combLoop, provingShapes, starLoop } from '../../testing/shapes';

/** Cuts a plan's program at points around loops; distances are positive inside. */
function cutOn(
  kind: string,
  values: Record<string, unknown>,
  loops: Loop[],
  diameter: number | Record<number, number>,
  count: number,
  margin: number,
  dialect = 'metric',
) {
  const { plan, job } = planOn(kind, values, loops, { width: 100, height: 60, thickness: 6 });
  const { text } = programOf(plan, job, dialect);
  const g = scatter(loops, count, margin, 0.4);
  cutOut(
    g,
    readMoves(text),
    Object.fromEntries(
      Object.entries(typeof diameter === 'number' ? { 1: diameter } : diameter).map(([n, v]) => [n, testFlat(v)]),
    ),
  );
  return { g, d: depths(loops, g), plan };
}

/** Whether a disc of radius r inside the outline covers a point: some centre within r of it is r away from the outline. */
function reachable(loops: Loop[], x: number, y: number, d: number, r: number): boolean {
  if (d <= 0) return false;
  if (d >= r) return true;
  for (let i = 0; i < 60; i++)
    for (const k of [0.98, 0.8, 0.5]) {
      const cx = x + k * r * Math.cos((Math.PI * i) / 30);
      const cy = y + k * r * Math.sin((Math.PI * i) / 30);
      if (bruteInside(loops, cx, cy) && bruteDistance(loops, cx, cy) >= r + 0.002) return true;
    }
  return false;
}

describe('area clearance, cut by a machine written for the tests', () => {
  const shapes: Record<string, { loops: Loop[]; fill: 'evenodd' | 'nonzero' }> = {
    'a 7-point star': provingShapes['a 7-point star'],
    'a square ring': provingShapes['a square ring'],
    'two squares 0.01 mm apart in a frame': provingShapes['two squares 0.01 mm apart in a frame'],
    'duplicate and collinear points': provingShapes['duplicate and collinear points'],
    '(long) a comb of 200 slots': {
      loops: [combLoop(200, 0.4, 4).map((v, i) => v * (i % 2 ? 1.5 : 1))],
      fill: 'nonzero',
    },
    'a circle': { loops: [circleLoop(900, 12, 14, 14)], fill: 'nonzero' },
  };
  it.each(Object.entries(shapes))('gouges nothing and leaves nothing within reach on %s', (_name, { loops, fill }) => {
    const region = normalise(loops, fill);
    for (const [stepOver, pattern] of [
      [0.6, 'contours'],
      [1.35, 'contours'],
      [1.35, 'hatch'],
      [0.6, 'trochoidal'],
      [1.35, 'trochoidal'],
    ].slice(_name.includes('comb') ? -2 : 0)) {
      const { g, d } = cutOn(
        'area',
        { cutters: ['flat-1.5'], depth: 2, stepOver, stepDown: 1, pattern },
        region,
        1.5,
        500,
        0.3,
      );
      let gouge = 0;
      let want = 0;
      let missed = 0;
      for (let i = 0; i < d.length; i++) {
        if (d[i] < -0.002 && g.z[i] < -1e-9) gouge = Math.max(gouge, -d[i]);
        if (g.z[i] < -2 - 1e-4) gouge = Math.max(gouge, -2 - g.z[i]);
        if (!reachable(region, g.x[i], g.y[i], d[i], 0.75)) continue;
        want++;
        if (g.z[i] > -2 + 1e-4) missed++;
      }
      expect(want).toBeGreaterThan(_name.includes('comb') ? 0 : 100);
      expect(gouge).toBe(0);
      expect(missed).toBeLessThanOrEqual(1e-4 * want);
    }
  });

  it('keeps its wall allowance', () => {
    const { g, d } = cutOn(
      'area',
      { cutters: ['flat-3'], depth: 1, stepOver: 1, allowance: 0.5 },
      normalise([box(2, 2, 30, 20)]),
      3,
      4000,
      0.3,
    );
    for (let i = 0; i < d.length; i++) if (d[i] < 0.498) expect(g.z[i]).toBe(0);
  });

  it('enters by ramps no steeper than asked and no deeper than the step-down', () => {
    const { plan } = planOn(
      'area',
      { cutters: ['flat-3'], depth: 3, stepDown: 1, stepOver: 1.2, ramp: 4 },
      normalise([box(2, 2, 40, 30)]),
      {},
    );
    const m = plan.toolpaths[0].motion;
    for (let i = 1; i < m.count; i++) {
      const dz = m.z[i - 1] - m.z[i];
      if (m.kind[i] === RAPID || dz <= 1e-9) continue;
      const run = Math.sqrt(Math.max(0, moveLength(m, i) ** 2 - dz * dz));
      if (run < 1e-9) expect(m.z[i - 1]).toBeGreaterThanOrEqual(-2 - 1e-9);
      else expect(Math.atan2(dz, run)).toBeLessThanOrEqual((4.05 * Math.PI) / 180);
    }
  });

  const lengthBelow = (m: Motion, z: number) => {
    let sum = 0;
    for (let i = 1; i < m.count; i++)
      if (m.kind[i] !== RAPID && m.z[i] <= z + 1e-9 && m.z[i - 1] <= z + 1e-9) sum += moveLength(m, i);
    return sum;
  };
  it.each(patterns)('takes with each cutter what the wider ones left, and nothing twice (%s)', (pattern) => {
    const region = normalise(
      [starLoop(9, 25, 11, 28, 28), box(60, 4, 95, 30), box(70, 12, 80, 20).slice().reverse()].map((l) => l),
    );
    const wide = { cutters: ['flat-6', 'flat-3', 'flat-1'], depth: 2, stepDown: 1, pattern, angle: 25 };
    const { g, d, plan } = cutOn('area', { ...wide, stepOver: 0.7 }, region, { 1: 6, 2: 3, 3: 1 }, 1500, 0.3);
    let missed = 0;
    let want = 0;
    for (let i = 0; i < d.length; i++) {
      if (d[i] < -0.002) expect(g.z[i]).toBe(0);
      expect(g.z[i]).toBeGreaterThan(-2 - 1e-9);
      if (!reachable(region, g.x[i], g.y[i], d[i], 0.5)) continue;
      want++;
      if (g.z[i] > -2 + 1e-4) missed++;
    }
    expect(want).toBeGreaterThan(800);
    expect(missed).toBeLessThanOrEqual(1e-3 * want);
    expect(plan.toolpaths.map((t) => t.cutterId)).toEqual(wide.cutters);
    // The small one alone would go many times as far.
    const alone = cutOn('area', { ...wide, cutters: ['flat-1'], stepOver: 0.7 }, region, { 1: 1 }, 10, 0.3).plan;
    expect(lengthBelow(plan.toolpaths[2].motion, -2)).toBeLessThan(0.25 * lengthBelow(alone.toolpaths[0].motion, -2));
  });

  it('leans its walls as the cone that finishes them', () => {
    const region = normalise([starLoop(5, 24, 15, 28, 28)]);
    const { plan, job } = planOn(
      'area',
      { cutters: ['flat-3'], depth: 3, stepDown: 0.75, stepOver: 1.2, wall: 'v-12-60-0' },
      region,
      { width: 100, height: 60, thickness: 6 },
    );
    const g = scatter(region, 2500, 0.3, 2);
    cutOut(g, readMoves(programOf(plan, job).text), { 1: testFlat(3), 2: testCone(60, 0, 12) });
    const d = depths(region, g);
    const tan = Math.tan(Math.PI / 6);
    let walls = 0;
    for (let i = 0; i < d.length; i++) {
      const wantZ = d[i] > 0 ? -Math.min(3, d[i] / tan) : 0;
      expect(wantZ - g.z[i]).toBeLessThan(0.005);
      if (d[i] > 0.05 && d[i] < 1.6 && g.z[i] < wantZ + 0.01) walls++;
    }
    // The corners apart, the wall is there over its whole height.
    expect(walls).toBeGreaterThan(0.5 * d.filter((v) => v > 0.05 && v < 1.6).length);
  });

  it('enters by a helix where there is room, by a ramp where there is not, straight down where asked', () => {
    const at = (entry: string, loop: Loop) => {
      const m = planOn('area', { cutters: ['flat-3'], depth: 1, stepOver: 1.2, entry }, normalise([loop])).plan
        .toolpaths[0].motion;
      let way = 0;
      let arcs = 0;
      for (let i = 1; i < m.count; i++)
        if (m.kind[i] !== RAPID && m.z[i] < m.z[i - 1] - 1e-9 && m.z[i - 1] <= 1e-9) {
          way += moveLength(m, i);
          if (m.kind[i] >= 3) arcs++;
        }
      return { way, arcs };
    };
    expect(at('helix', box(0, 0, 30, 30)).arcs).toBeGreaterThan(1);
    const narrow = at('helix', box(0, 0, 30, 3.4));
    expect(narrow.arcs).toBe(0);
    expect(narrow.way).toBeGreaterThan(10);
    expect(at('plunge', box(0, 0, 30, 30)).way).toBeCloseTo(1, 9);
  });

  it('says so when the cutter does not fit', () => {
    const { plan } = planOn('area', { cutters: ['flat-6'], depth: 1 }, normalise([box(0, 0, 40, 5)]));
    expect(plan.toolpaths).toEqual([]);
    expect(plan.remarks[0].text).toMatch(/too wide/);
    expect(plan.unreached.area).toBeGreaterThan(190);
  });

  it('never cuts outside any region, with any cutter and step', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.integer({ min: 5, max: 60 }),
            fc.integer({ min: 5, max: 40 }),
            fc.integer({ min: 3, max: 9 }),
            fc.integer({ min: 3, max: 14 }),
            real(0.2, 1),
          ),
          { minLength: 1, maxLength: 4 },
        ),
        fc.constantFrom('flat-1', 'flat-2', 'flat-3'),
        real(0.2, 1),
        fc.constantFrom('metric', 'inch', 'metric-lines'),
        (stars, cutter, share, dialect) => {
          const region = normalise(stars.map(([x, y, n, r, k]) => starLoop(n, r, r * k, x, y)));
          const diameter = Number(cutter.slice(5));
          const { g, d } = cutOn(
            'area',
            { cutters: [cutter], depth: 1, stepOver: share * diameter },
            region,
            diameter,
            500,
            1,
            dialect,
          );
          for (let i = 0; i < d.length; i++) if (d[i] < -0.0025) expect(g.z[i]).toBe(0);
        },
      ),
      // Stars that leave a contour without length, before which nothing has been cut.
      {
        numRuns: 12,
        endOnFailure: true,
        examples: [
          [
            [
              [56, 28, 6, 14, 0.518854443382859],
              [26, 33, 3, 11, 0.9999999999999981],
              [38, 18, 3, 5, 0.20000000000000048],
              [28, 35, 8, 6, 0.3156705854936154],
            ],
            'flat-2',
            0.4756289956791775,
            'metric',
          ],
        ],
      },
    );
  });
});

describe('profile, cut by a machine written for the tests', () => {
  const values = {
    cutter: 'flat-3',
    side: 'outside',
    through: true,
    beyond: 0.2,
    stepDown: 2,
    tabs: { shape: 'rectangular', by: 'count', spacing: 80, count: 0, length: 6, height: 1.5, at: [] },
  };
  it.each([
    ['a star', [starLoop(7, 12, 6, 30, 30)]],
    ['a circle', [circleLoop(600, 14, 30, 30)]],
    ['a box', [box(10, 10, 50, 40)]],
  ])('frees %s without touching it', (_name, loops) => {
    for (const dialect of ['metric', 'inch', 'metric-lines']) {
      const { g, d } = cutOn('profile', values, normalise(loops), 3, 3000, 3, dialect);
      let gouge = 0;
      let left = 0;
      for (let i = 0; i < d.length; i++) {
        if (d[i] > 0.002 && g.z[i] < -1e-9) gouge++;
        // Everything from the outline to the cutter's width is gone, but for what inside corners hold back.
        if (d[i] < -0.004 && d[i] > -1.2 && g.z[i] > -6.1) left++;
      }
      expect(gouge).toBe(0);
      if (_name !== 'a star') expect(left).toBe(0);
    }
  });

  it('leaves tabs of the wanted length, height and number', () => {
    const { plan, job } = planOn(
      'profile',
      { ...values, tabs: { shape: 'rectangular', by: 'count', spacing: 80, count: 4, length: 6, height: 1.5, at: [] } },
      normalise([box(10, 10, 50, 40)]),
      { thickness: 6 },
    );
    expect(plan.tabs.length).toBe(4);
    expect(plan.cutsFree).toBe(true);
    // A walk round the part, 0.1 mm off its edge: what stands is tabs.
    const walk: [number, number][] = [];
    for (let s = 0; s < 40; s += 0.02) walk.push([10 + s, 9.9], [10 + s, 40.1]);
    for (let s = 0; s < 30; s += 0.02) walk.push([9.9, 10 + s], [50.1, 10 + s]);
    walk.sort((p, q) => p[0] - q[0]);
    const g = {
      x: Float64Array.from(walk, (p) => p[0]),
      y: Float64Array.from(walk, (p) => p[1]),
      z: new Float64Array(walk.length),
    };
    cutOut(g, readMoves(programOf(plan, job).text), { 1: testFlat(3) });
    const standing = [...g.z].filter((z) => z > -6);
    // Seen 1.4 mm off the cutter's path, the gap between a tab's two ends is that much longer than at the path's own edge.
    const chord = 2 * (1.5 - Math.sqrt(1.5 ** 2 - 1.4 ** 2));
    expect(standing.length * 0.02).toBeGreaterThan(4 * 6 - 0.2);
    expect(standing.length * 0.02).toBeLessThan(4 * (6 + chord) + 0.2);
    for (const z of standing) expect(z).toBeCloseTo(-4.5, 3);
  });

  it('puts tabs where the maker wants them', () => {
    const { plan } = planOn(
      'profile',
      {
        ...values,
        tabs: {
          shape: 'rectangular',
          by: 'count',
          spacing: 80,
          count: 2,
          length: 6,
          height: 1.5,
          at: [
            { x: 31, y: 5 },
            { x: 60, y: 22 },
          ],
        },
      },
      normalise([box(10, 10, 50, 40)]),
      { thickness: 6 },
    );
    const at = plan.tabs.map((t) => [t.x, t.y]);
    // As near as moves may stray from the outline.
    expect(at[0][0]).toBeCloseTo(31, 2);
    expect(at[0][1]).toBeCloseTo(8.5, 2);
    expect(at[1][0]).toBeCloseTo(51.5, 2);
  });

  it('goes round a circle in two arcs a pass, wherever it is flattened, and keeps to it', () => {
    for (const r of [2, 12.5, 60])
      for (const side of ['outside', 'inside']) {
        const { plan, job } = planOn(
          'profile',
          { ...values, cutter: 'flat-1', side, ramp: 20, stepDown: 2, tabs: { ...values.tabs, count: 0 } },
          (tolerance) => normalise([flatten(circlePath(70, 70, r), tolerance)]),
          { width: 140, height: 140, thickness: 6 },
        );
        const m = plan.toolpaths[0].motion;
        // Three passes of two arcs, each with a ramp and a place where it begins.
        expect(m.count).toBeLessThan(30);
        expect([...m.kind].filter((k) => k === 1)).toHaveLength(0);
        for (const q of readMoves(programOf(plan, job).text))
          if (q.b[2] < 0)
            expect(
              Math.abs(Math.hypot(q.b[0] - 70, q.b[1] - 70) - (side === 'outside' ? r + 0.5 : r - 0.5)),
            ).toBeLessThan(0.002);
      }
  });

  it('climbs outside clockwise, inside counter-clockwise', () => {
    const turn = (side: string, direction: string) => {
      const m = planOn('profile', { ...values, side, direction }, normalise([box(10, 10, 50, 40)])).plan.toolpaths[0]
        .motion;
      let a = 0;
      for (let i = 1; i < m.count; i++)
        if (m.kind[i] !== RAPID) a += (m.x[i - 1] - 30) * (m.y[i] - 25) - (m.y[i - 1] - 25) * (m.x[i] - 30);
      return Math.sign(a);
    };
    expect([
      turn('outside', 'climb'),
      turn('outside', 'conventional'),
      turn('inside', 'climb'),
      turn('inside', 'conventional'),
    ]).toEqual([-1, 1, 1, -1]);
  });
});
