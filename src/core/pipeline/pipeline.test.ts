import { fontsFromPackages } from '../../cli/fonts';
import { demoSetups } from '../job/demo';
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
