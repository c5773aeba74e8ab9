import { demoSetups } from '../job/demo';
import { RAPID, type Motion } from '../motion/motion';
import { testArt } from '../testing/fonts';
import { planCut } from './planning';

/** Programs are no longer than they need be, and cutters do not lift more often: figures that makers feel. */
const motions = (job: string, cut: string): Motion[] => {
  const j = demoSetups[job]();
  return planCut(j, j.cuts.find((c) => c.name === cut)!, testArt).toolpaths.map((t) => t.motion);
};
const lifts = (m: Motion): number => {
  let n = 0;
  for (let i = 1; i < m.count; i++) if (m.kind[i] === RAPID && m.z[i] > 0 && m.z[i - 1] <= 0) n++;
  return n;
};

describe('the size of programs', () => {
  it.each([
    ['ferry-ring', 'Cut free', 80],
    ['lock-cottage-board', 'Cut free', 220],
    ['keeper-plate', 'Cut free', 220],
    ['lock-cottage-board', 'Ornament', 20000],
  ])('%s, %s: at most %i moves', (job, cut, most) => {
    const all = motions(job, cut);
    expect(all.length).toBeGreaterThan(0);
    for (const m of all) expect(m.count).toBeLessThanOrEqual(most);
  });
  it('a V-carve with a floor lifts at most eight times a letter', () => {
    const bit = motions('lock-cottage-board', 'Lettering').pop()!;
    expect(lifts(bit)).toBeGreaterThan(0);
    expect(lifts(bit) / 'FENWATERLOCK7'.length).toBeLessThanOrEqual(8);
  });
});
