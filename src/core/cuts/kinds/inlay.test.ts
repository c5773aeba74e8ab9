import { normalise, type Region } from '../../geometry/region';
import { cutOut, depths, readMoves, scatter, testShape, type Cloud } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { icon, lettering, mirroredAt } from '../../testing/sections';
import { circleLoop, hole, starLoop } from '../../testing/shapes';

const BLANK = { width: 90, height: 60, thickness: 12 };
const mirrored = (r: Region): Region => mirroredAt(BLANK.width, r);

/** Heights that a cut leaves at places, by the tests' own machine. */
function leaves(values: Record<string, unknown>, region: Region, at: Cloud, stepDown = 50): Cloud {
  const { plan, job } = planOn('vcarve', values, region, BLANK, { stepDown, stepOver: 0.1 });
  expect(plan.remarks.filter((r) => r.level === 'problem')).toEqual([]);
  const { text, tools } = programOf(plan, job);
  const shapes = Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)]);
  cutOut(at, readMoves(text), Object.fromEntries(shapes));
  return at;
}

const [POCKET, IN, CLEAR, MARGIN] = [2.4, 2, 1.2, 5];
/**
 * Pocket and plug put together at places near and on the outlines: how far the gap between them is from what is wanted, across the wall,
 * and how far they lie in one another. mm.
 */
function together(truth: Region, region: Region, cutter: string, values: object = {}, stepDown = 50) {
  const { includedAngle, halfAngle } = cutterOf(cutter).values;
  const tan = Math.tan(((halfAngle ?? includedAngle / 2) * Math.PI) / 180);
  const sine = tan / Math.hypot(1, tan);
  const places = scatter(truth, 1200, 1.5, 0.15);
  const from: Cloud = { ...places, z: new Float64Array(places.x.length) };
  // Places are in order of x.
  const turned: Cloud = {
    x: places.x.map((x) => BLANK.width - x).reverse(),
    y: places.y.slice().reverse(),
    z: new Float64Array(places.x.length),
  };
  const pocket = leaves({ cutter, limit: POCKET, ...values }, region, from, stepDown);
  const plug = leaves(
    { cutter, side: 'around', startDepth: IN, limit: CLEAR, margin: MARGIN, ...values },
    mirrored(region),
    turned,
    stepDown,
  );
  const d = depths(truth, places);
  let [off, overlap, rims] = [0, 0, 0];
  for (let i = 0; i < d.length; i++) {
    // What lies beyond the boundary of the plug is sawn off.
    if (-d[i] > MARGIN - 0.1) continue;
    const gap = -plug.z[d.length - 1 - i] - IN - pocket.z[i];
    const deep = d[i] / tan;
    const meant = d[i] >= 0 ? Math.max(0, Math.min(deep, POCKET) - IN) : Math.min(-deep, CLEAR);
    overlap = Math.max(overlap, -gap * sine);
    // On floors a tip leaves ridges: they are looked at where the walls meet.
    if (d[i] < 0 ? -deep > CLEAR - 0.05 : deep > IN - 0.05) continue;
    rims++;
    off = Math.max(off, Math.abs(gap - meant) * sine);
  }
  expect(rims).toBeGreaterThan(500);
  return { off, overlap };
}

describe('the halves of a V-inlay', () => {
  const star = normalise([starLoop(7, 16, 7, 45, 30)]);
  const ring = normalise([circleLoop(400, 17, 45, 30), hole(circleLoop(300, 9, 45, 30)), starLoop(5, 6, 2.5, 45, 30)]);
  it.each([
    ['a star', star, 'v-12-60-0', 50],
    ['(long) a star, in passes', star, 'v-12-60-0', 0.7],
    ['(long) a ring with a star in it', ring, 'v-12-90-0', 50],
  ] as const)(
    '%s: they go together all along the outline, and nowhere into one another',
    (_name, region, cutter, down) => {
      const r = together(region, region, cutter, {}, down);
      expect(r.overlap).toBeLessThan(0.005);
      expect(r.off).toBeLessThan(0.01);
    },
  );

  it.each([
    ['lettering', lettering('cinzel', 'Quay', 16, 45, 24)],
    ['a script', lettering('allura', 'Lily', 16, 45, 24)],
    ['an icon', icon(45, 30)],
  ])('(long) of %s go together', (_name, at) => {
    const r = together(at(0.00005), at(0.001), 'v-12-60-0');
    expect(r.overlap).toBeLessThan(0.005);
    expect(r.off).toBeLessThan(0.01);
  });

  it('(long) go together where end mills clear the floors', () => {
    const r = together(star, star, 'v-12-60-0', { endMills: ['flat-3'] }, 1);
    expect(r.overlap).toBeLessThan(0.005);
    expect(r.off).toBeLessThan(0.01);
  });
});
