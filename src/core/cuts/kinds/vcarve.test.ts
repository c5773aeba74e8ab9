import fc from 'fast-check';
import { placement, flatten, transformPath } from '../../geometry/path';
import { normalise, type Loop } from '../../geometry/region';
import { layOut } from '../../lettering/layout';
import { shippedFont } from '../../testing/fonts';
import { cutOut, depths, readMoves, scatter, testCone, testFlat } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { leftAt, lettering } from '../../testing/sections';
import { combLoop, provingShapes, starLoop, turned } from '../../testing/shapes';

const TAN = Math.tan(Math.PI / 6);

/** Gouge and uncut (mm) of a carve with a pointed 60 degree cone, at points all over the shape and thick along its outline. */
function judge(
  planned: Loop[],
  truth: Loop[],
  limit: number | null,
  count: number,
  values: Record<string, unknown> = {},
  step = 0.4,
) {
  const { plan, job } = planOn(
    'vcarve',
    { cutter: 'v-12-60-0', limit, ...values },
    normalise(planned),
    { width: 200, height: 60 },
    { stepOver: step },
  );
  const { text, tools } = programOf(plan, job);
  const g = scatter(truth, count, 0.3, 0.15);
  cutOut(
    g,
    readMoves(text),
    Object.fromEntries(
      Object.entries(tools).map(([n, id]) => [
        n,
        id.startsWith('flat') ? testFlat(cutterOf(id).values.diameter) : testCone(60, 0, 12),
      ]),
    ),
  );
  const d = depths(truth, g);
  let gouge = 0;
  let uncut = 0;
  let wallUncut = 0;
  let floorHigh = 0;
  for (let i = 0; i < d.length; i++) {
    const wall = d[i] > 0 ? d[i] / TAN : 0;
    const want = -Math.min(wall, limit ?? Infinity);
    gouge = Math.max(gouge, want - g.z[i]);
    uncut = Math.max(uncut, g.z[i] - want);
    if (limit !== null && wall < limit - 0.02) wallUncut = Math.max(wallUncut, g.z[i] - want);
    if (limit !== null && wall > limit) floorHigh = Math.max(floorHigh, g.z[i] + limit);
  }
  return {
    gouge,
    uncut,
    wallUncut,
    floorHigh,
    plan,
    lifts: readMoves(text).filter((m) => m.rapid && m.b[2] > m.a[2]).length,
  };
}

describe('V-carve, cut by a machine written for the tests', () => {
  it.each(Object.entries(provingShapes))('is true to 0.005 mm on %s', (_name, { loops, fill }) => {
    const r = judge(normalise(loops, fill), normalise(loops, fill), null, 2000);
    expect(r.plan.remarks.filter((q) => q.level === 'problem')).toEqual([]);
    expect(r.gouge).toBeLessThan(0.005);
    expect(r.uncut).toBeLessThan(0.005);
  });

  it('is true on a comb of 200 slots', () => {
    const comb = normalise([combLoop(200, 0.8, 3)]);
    const r = judge(comb, comb, null, 2000);
    expect(r.gouge).toBeLessThan(0.005);
    expect(r.uncut).toBeLessThan(0.005);
  });

  it.each(['cinzel', 'libre-baskerville', 'unifrakturmaguntia'])('is true on "Quay & Sluice 1794" in %s', (id) => {
    const { paths } = layOut(
      {
        text: 'Quay & Sluice 1794',
        capHeight: 5,
        tracking: 30,
        kerning: true,
        leading: 1.6,
        align: 'centre',
        stretch: 100,
      },
      shippedFont(id),
    );
    const placed = paths.map((p) => transformPath(p, placement(40, 20, 3)));
    const flat = (tolerance: number) => normalise(placed.map((p) => flatten(p, tolerance)));
    // Planned from the outline as the job flattens it, judged by the curve itself (chords of 0.00005 mm).
    const r = judge(flat(0.0018 * TAN), flat(0.00005), null, 1500);
    expect(r.gouge).toBeLessThan(0.005);
    expect(r.uncut).toBeLessThan(0.005);
    expect(r.lifts / 15).toBeLessThan(12);
  });

  it('keeps walls and floor where the depth is limited', () => {
    const { loops, fill } = provingShapes['a square ring'];
    const region = normalise(loops, fill);
    const r = judge(region, region, 1.5, 2000, {}, 0.05);
    expect(r.gouge).toBeLessThan(0.001 + 0.004);
    expect(r.wallUncut).toBeLessThan(0.005);
    // Between lines a step apart a pointed tip leaves ridges of step / (2 tan a); where rings meet in corners, up to sqrt 2 of that twice over.
    expect(r.floorHigh).toBeLessThan((0.05 / TAN) * 1.45);
  });

  it('cuts every wall down to its limit, wherever the limit lies among the clearances and whichever way branches run', () => {
    const { paths } = layOut(
      { text: 'Sg&', capHeight: 6, tracking: 30, kerning: true, leading: 1.6, align: 'centre', stretch: 100 },
      shippedFont('libre-baskerville'),
    );
    const letters = paths.map((p) => flatten(transformPath(p, placement(20, 20, 3)), 0.0018 * TAN));
    fc.assert(
      fc.property(
        fc.constantFrom(...Array.from({ length: 12 }, (_, i) => 0.2 + 0.1 * i)),
        fc.constantFrom(0, 90, 151),
        fc.boolean(),
        (limit, turn, star) => {
          const region = normalise(turned(star ? [starLoop(7, 9, 4)] : letters, turn).map((l) => l.map((v) => v + 40)));
          const r = judge(region, region, limit, 700, {}, 0.2);
          expect(r.gouge).toBeLessThan(0.005);
          expect(r.wallUncut).toBeLessThan(0.005);
        },
      ),
      { numRuns: 6 },
    );
  });

  it('leaves the wall to the V-bit where an end mill clears the floor', () => {
    const { loops, fill } = provingShapes['a square ring'];
    const region = normalise(loops, fill);
    const r = judge(region, region, 1.5, 2000, { endMills: ['flat-1.5'] }, 0.05);
    expect(r.plan.toolpaths.map((t) => t.cutterId)).toEqual(['flat-1.5', 'v-12-60-0']);
    expect(r.gouge).toBeLessThan(0.005);
    expect(r.wallUncut).toBeLessThan(0.005);
    expect(r.floorHigh).toBeLessThan((0.05 / TAN) * 1.45);
  });

  it('leaves no ridge where a stroke gets too narrow for the end mill, however slowly', () => {
    const region = lettering('allura', 'Lily', 16, 30, 18)(0.0005);
    // Where the tail of the last letter leaves its bow.
    const at = { x: [] as number[], y: [] as number[] };
    for (let i = 0; i < 900; i++) {
      at.x.push(24.8 + (i % 30) / 50);
      at.y.push(6.5 + Math.floor(i / 30) / 50);
    }
    const cut = { kind: 'vcarve', values: { cutter: 'v-12-60-0', endMills: ['flat-1'], limit: 0.4 } };
    const presets = (id: string) => ({ stepDown: 0.5, stepOver: id === 'v-12-60-0' ? 0.05 : 0.3 });
    const z = leftAt(cut, region, { width: 60, height: 50 }, presets, at.x, at.y);
    const cloud = { x: Float64Array.from(at.x), y: Float64Array.from(at.y), z };
    const floor = [...depths(region, cloud)].flatMap((d, i) => (d > 0.4 * TAN + 0.005 ? [z[i]] : []));
    expect(floor.length).toBeGreaterThan(40);
    expect(Math.max(...floor)).toBeLessThan(-0.4 + (0.05 / TAN) * 1.45);
  });

  it('comes to the same in several passes', () => {
    const { loops, fill } = provingShapes['a 7-point star'];
    const region = normalise(loops, fill);
    const r = judge(region, region, null, 2000, { stepDown: 1.3 });
    expect(r.gouge).toBeLessThan(0.005);
    expect(r.uncut).toBeLessThan(0.005);
  });

  it('goes no deeper than the cone is high, and says so', () => {
    const region = normalise([Float64Array.of(0, 0, 60, 0, 60, 60, 0, 60)]);
    const { plan } = planOn('vcarve', { cutter: 'v-12-60-0', stepOver: 2 }, region, { width: 60, height: 60 });
    expect(Math.min(...plan.toolpaths[0].motion.z)).toBeGreaterThanOrEqual(-6 / TAN - 1e-2);
    expect(plan.remarks[0].text).toMatch(/wider than/);
  });
});
