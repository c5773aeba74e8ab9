import fc from 'fast-check';
import { real } from '../../testing/real';
import { normalise, type Region } from '../../geometry/region';
import { cutGrid, gridDistances, gridOver, gridReach } from '../../testing/grid';
import { readMoves, testShape } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { box, circleLoop, starLoop } from '../../testing/shapes';
import { patterns } from './clear';

const CELL = 0.2;

/** Area (mm2) that some cutter of the list can bring down to the floor and that stands more than `over` mm above it. */
function islands(
  kind: 'area' | 'vcarve',
  cutters: readonly string[],
  region: Region,
  values: Record<string, unknown>,
  over = 0.008,
): number {
  const depth = 2;
  const { plan, job } = planOn(
    kind,
    kind === 'area' ? { cutters, depth, ...values } : { endMills: cutters, limit: depth, ...values },
    region,
    { width: 90, height: 60, thickness: 8 },
  );
  if (!plan.toolpaths.length) return 0;
  const { text, tools } = programOf(plan, job);
  const g = gridOver(region, CELL, 0.5);
  cutGrid(
    g,
    readMoves(text),
    Object.fromEntries(Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)])),
  );
  // The floor of a V-carve begins where its 60 degree walls end.
  const inset = kind === 'area' ? 0 : depth * Math.tan(Math.PI / 6) + 0.01;
  const d = gridDistances(g, region, 14).map((v) => v - inset);
  let high = 0;
  const can = cutters.map((id) => {
    const v = cutterOf(id).values;
    const r = v.diameter / 2;
    return gridReach(g, d, r, 0.02, v.cornerRadius ? r - v.cornerRadius : r);
  });
  for (let i = 0; i < d.length; i++) if (can.some((c) => c[i]) && g.z[i] > -depth + over) high++;
  return high * CELL * CELL;
}

const num = (min: number, max: number) => real(min, max);
const loop = fc.oneof(
  fc
    .tuple(fc.integer({ min: 3, max: 9 }), num(4, 14), num(0.3, 0.95), num(16, 60), num(16, 40))
    .map(([n, r, f, x, y]) => starLoop(n, r, r * f, x, y)),
  fc
    .tuple(
      fc.integer({ min: 2, max: 30 }),
      fc.integer({ min: 2, max: 30 }),
      fc.integer({ min: 4, max: 30 }),
      fc.integer({ min: 4, max: 25 }),
    )
    .map(([x, y, w, h]) => box(x, y, x + w, y + h)),
  fc.tuple(num(2, 12), num(15, 60), num(15, 40)).map(([r, x, y]) => circleLoop(90, r, x, y)),
);
const regions = fc
  .array(loop, { minLength: 1, maxLength: 4 })
  .map((l) => normalise(l, 'evenodd'))
  .filter((r) => r.length > 0);
const mills = fc.uniqueArray(
  fc.constantFrom('flat-1.5', 'flat-2', 'flat-3', 'flat-5', 'flat-6', 'flat-10', 'bull-6-1'),
  { minLength: 1, maxLength: 3 },
);

describe('several end mills on one floor', () => {
  it('(long) leave no island where the widest does not enter and the smallest has more than one way to go', () => {
    const disc = [circleLoop(200, 4.5, 20, 20)];
    expect(islands('area', ['flat-10', 'flat-2'], disc, { stepOver: 0.8 })).toBe(0);
    expect(islands('area', ['flat-10', 'flat-2'], [box(5, 5, 14, 14)], { stepOver: 1.6 })).toBe(0);
    // A wide place and, beyond a neck, one that the wide mill does not come to.
    expect(
      islands(
        'area',
        ['flat-10', 'flat-1.5'],
        normalise([box(5, 5, 25, 25), box(25, 14, 32, 16), circleLoop(200, 4.8, 36, 15)]),
        { stepOver: 0.6 },
      ),
    ).toBe(0);
    expect(islands('vcarve', ['flat-10', 'flat-2'], [circleLoop(200, 6.1, 20, 20)], { stepOver: 0.8 })).toBe(0);
  });
  it('bring down all that one of them can, whatever the region, the list and the pattern', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('area' as const, 'vcarve' as const),
        mills,
        regions,
        fc.constantFrom(...patterns),
        num(0.4, 2.4),
        (kind, cutters, region, pattern, stepOver) => {
          expect(
            islands(
              kind,
              cutters,
              region,
              { stepOver, ...(kind === 'area' ? { pattern } : {}) },
              kind === 'area' ? 0.008 : 0.02 + stepOver,
            ),
          ).toBeLessThan(0.06);
        },
      ),
      { numRuns: 3 },
    );
  });
});

describe('a bull nose', () => {
  it('leaves its round along the foot of the wall and nothing else, however wide its step-over', () => {
    const region = [box(5, 5, 45, 35)];
    for (const pattern of patterns)
      expect(islands('area', ['bull-6-1'], region, { pattern, stepOver: 5.5 })).toBeLessThan(0.03);
  });
  it('leaves its round to a smaller flat end mill that follows', () => {
    const region = [box(5, 5, 45, 35)];
    expect(islands('area', ['bull-6-1', 'flat-3'], region, { stepOver: 2 })).toBeLessThan(0.03);
  });
});
