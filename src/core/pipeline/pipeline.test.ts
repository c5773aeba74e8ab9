import { fontsFromPackages } from '../../cli/fonts';
import { demoSetups } from '../job/demo';
import type { CutPlan } from '../cuts/kind';
import type { OneSetup } from '../job/job';
import { Cancelled, cutKey, planCut } from './planning';

const art = fontsFromPackages();
const plate = () => demoSetups['keeper-plate']();
const changed = (recipe: (j: OneSetup) => void): OneSetup => {
  const j = plate();
  recipe(j);
  return j;
};

describe('what depends on what', () => {
  const key = (j: OneSetup, i = 0) => cutKey(j, j.cuts[i]);
  it('a cut is stale when its artwork, values, cutter or blank change', () => {
    const base = key(plate());
    expect(key(changed((j) => void (j.items[3].values.text = 'Quay')))).not.toBe(base);
    expect(key(changed((j) => void (j.cuts[0].values.limit = 0.5)))).not.toBe(base);
    expect(key(changed((j) => void (j.cutters[0].values.tipDiameter = 0.2)))).not.toBe(base);
    expect(key(changed((j) => void (j.blank.material = 'oak')))).not.toBe(base);
  });
  it('and not when something else does', () => {
    const base = key(plate());
    expect(key(changed((j) => void (j.items[0].values.width = 90)))).toBe(base);
    expect(key(changed((j) => void (j.cuts[1].values.beyond = 0.05)))).toBe(base);
    expect(key(changed((j) => void (j.items[3].name = 'renamed')))).toBe(base);
    expect(key(changed((j) => void (j.run.dialect = 'inch')))).toBe(base);
  });
  it.each([
    ['', 'sluice-gear-plate'],
    ['(long) ', 'ferry-ring'],
  ])(
    '%snor when of the blank of %s something else does than what its plan has asked for: it would be the same',
    (_long, name) => {
      /** Each as it could be otherwise. */
      const otherwise: Record<string, (j: OneSetup) => void> = {
        width: (j) => void (j.blank.width += 7),
        height: (j) => void (j.blank.height += 7),
        thickness: (j) => void (j.blank.thickness += 1),
        material: (j) => void (j.blank.material = 'aluminium'),
        unit: (j) => void (j.unit = 'in'),
        safeHeight: (j) => void (j.blank.safeHeight += 2),
        clearance: (j) => void (j.blank.clearance += 0.5),
        approach: (j) => void (j.blank.approach += 0.1),
        clamps: (j) => void (j.clamps = [{ x0: -10, y0: 5, x1: -2, y1: 15, height: 12 }]),
      };
      const said = (p: CutPlan) => JSON.stringify(p, (_, v) => (ArrayBuffer.isView(v) ? [...(v as Float64Array)] : v));
      const base = demoSetups[name]();
      for (const [k, cut] of base.cuts.entries()) {
        const plan = planCut(base, cut, art);
        expect(plan.asked!.length).toBeGreaterThan(0);
        let left = 0;
        for (const [what, change] of Object.entries(otherwise)) {
          const j = demoSetups[name]();
          change(j);
          const asked = plan.asked!.includes(what as never);
          expect([what, cutKey(j, j.cuts[k], plan.asked) === cutKey(base, cut, plan.asked)]).toEqual([what, !asked]);
          expect(cutKey(j, j.cuts[k])).not.toBe(cutKey(base, cut));
          if (asked) continue;
          left++;
          expect([cut.name, what, said(planCut(j, j.cuts[k], art)) === said(plan)]).toEqual([cut.name, what, true]);
        }
        expect(left).toBeGreaterThan(0);
      }
    },
  );
  it('work that is not wanted any more stops', () => {
    const j = plate();
    expect(() =>
      planCut(j, j.cuts[0], art, () => {
        throw new Cancelled();
      }),
    ).toThrow(Cancelled);
  });
  it('a cut without artwork or cutter says so', () => {
    const j = changed((q) => {
      q.cuts[0].items = [];
      q.cutters = [];
    });
    expect(planCut(j, j.cuts[0], art).remarks[0].text).toMatch(/No artwork/);
    expect(planCut(j, j.cuts[1], art).remarks[0].text).toMatch(/has no cutter/);
  });
});
