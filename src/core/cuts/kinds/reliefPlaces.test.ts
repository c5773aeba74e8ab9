import {
  blank,
  engaged,
  fieldOf,
  gouge,
  grounds,
  made,
  over,
  placeOf,
  type GroundId,
  finishPatterns,
} from '../../testing/reliefCuts';
import fc from 'fast-check';
import { real } from '../../testing/real';
import { planOn } from '../../testing/job';
import { circleLoop } from '../../testing/shapes';
import { box } from '../../testing/shapes';
import { contains } from '../../geometry/region';
import type { Region } from '../../geometry/region';
import type { HeightField } from '../../relief/field';

describe('a boundary', () => {
  const region: Region = [circleLoop(90, 1.6, 3, 2.5)];
  const inside = (x: number, y: number, by = 0) => Math.hypot(x - 3, y - 2.5) < 1.6 + by;
  it.each(['reliefFinish', 'reliefRough'])(
    'holds the edge, or the middle, of a cutter of %s, or lets it roll over',
    (kind) => {
      const values = {
        cutters: ['ball-1'],
        where: 'inside',
        allowance: kind === 'reliefRough' ? 0.1 : 0,
        stepOver: 0.3,
      };
      const presets = { 'ball-1': { stepDown: 0.5 } };
      const edge = made(kind, { ...values, rim: 'edge' }, grounds.cosine, { region, presets });
      edge.grid.z.forEach((z, i) => {
        if (!inside(...placeOf(edge.grid, i), 0.006)) expect(z).toBeGreaterThan(-0.003);
      });
      const middle = made(kind, { ...values, rim: 'middle' }, grounds.cosine, { region, presets });
      for (const q of middle.moves) if (!q.rapid && q.b[2] < 0) expect(inside(q.b[0], q.b[1], 0.01)).toBe(true);
      const past = made(kind, { ...values, rim: 'over' }, grounds.cosine, { region, presets });
      expect(past.moves.some((q) => !q.rapid && !inside(q.b[0], q.b[1], 0.2))).toBe(true);
      // Whatever it is that holds it: what is wanted inside is cut.
      for (const m of [edge, middle, past]) expect(over(m)).toBeLessThan(0.02);
    },
  );
  it('keeps out of outlines as well', () => {
    const m = made('reliefFinish', { cutters: ['ball-1'], where: 'outside', stepOver: 0.3 }, grounds.wedge, { region });
    for (const q of m.moves) if (!q.rapid && q.b[2] < 0) expect(inside(q.b[0], q.b[1], -0.01)).toBe(false);
    expect(m.moves.filter((q) => !q.rapid).length).toBeGreaterThan(20);
  });
});

it('never goes by rapid through material, nor leaves its boundary, and ends lifted, over any ground', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(grounds) as GroundId[])),
      fc.constantFrom(...finishPatterns),
      fc.constantFrom('reliefFinish', 'reliefRough'),
      real(1.2, 3),
      real(0, 180),
      (name, pattern, kind, width, angle) => {
        const region: Region = [box(3 - width, 2.5 - width / 2, 3 + width, 2.5 + width / 2)];
        const rough = kind === 'reliefRough';
        const values = {
          cutters: [rough ? 'flat-1' : 'ball-1'],
          where: 'inside',
          stepOver: 0.4,
          angle,
          pattern: rough ? (pattern === 'rows' ? 'hatch' : 'contours') : pattern,
        };
        const m = made(kind, values, grounds[name], { region, presets: { 'flat-1': { stepDown: 0.5 } } });
        engaged(m);
        for (const q of m.moves) {
          if (q.rapid || q.b[2] >= 0) continue;
          const near = [-0.01, 0.01].some((dx) =>
            [-0.01, 0.01].some((dy) => contains(region, q.b[0] + dx, q.b[1] + dy)),
          );
          expect(near).toBe(true);
        }
        if (m.moves.length) expect(m.moves[m.moves.length - 1].b[2]).toBeGreaterThan(1);
        expect(gouge(m)).toBeLessThan(0.005);
      },
    ),
    { numRuns: 12 },
  );
});

it('says so when there is no relief, or nothing of it within the boundary', () => {
  const plan = (values: object, field: HeightField | null, region: Region) =>
    planOn('reliefFinish', { cutters: ['ball-1'], ...values }, region, blank, {}, undefined, field).plan.remarks[0]
      .text;
  expect(plan({}, null, [])).toMatch(/no relief here/i);
  expect(
    plan(
      { where: 'inside' },
      fieldOf(() => -1),
      [box(20, 20, 30, 30)],
    ),
  ).toMatch(/within this boundary/);
  const rough = planOn(
    'reliefRough',
    { cutters: ['flat-2'], allowance: 2 },
    [],
    blank,
    {},
    undefined,
    fieldOf(() => -1),
  );
  expect(rough.plan.remarks[0].text).toMatch(/nothing to take away/);
});
