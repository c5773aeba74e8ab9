import { newItem } from '../artwork/item';
import { pairsOf } from '../job/pairs';
import { freshInlay, inlayDefaults, whyNoInlay, withInlay, type InlayValues } from '../job/inlay';
import { newOneSetup, type Job } from '../job/job';
import { jobOf, oneSetup } from '../job/oneSetup';
import { readJob } from '../job/migrate';
import { withoutSetup, startingAt } from '../job/allSetups';
import { demoJobs } from '../job/demo';
import { shippedLibrary } from '../cutters/library';
import { testArt as art } from '../testing/fonts';
import { fitOfOne, proven, withValues } from '../testing/fits';
import { heldAgainst } from './proving';

const library = shippedLibrary();
const VBIT = 'v-12-60-0';
const usual: InlayValues = { ...inlayDefaults(VBIT, [], 'maple'), margin: 5 };

/** A star on a small blank, inlaid. */
function inlaid(values: Partial<InlayValues> = {}): { job: Job; pocket: string; plug: string; second: string } {
  const one = newOneSetup('Inlay');
  one.blank = { ...one.blank, width: 60, height: 50, thickness: 12, material: 'walnut' };
  one.items = [
    newItem({
      id: 'i',
      name: 'Star',
      kind: 'star',
      x: 26,
      y: 24,
      values: { points: 5, radius: 14, inner: 45, rounding: 0 },
    }),
  ];
  one.cutters = library.filter((c) => [VBIT, 'v-12-90-0', 'cone-3.175-30-0.2', 'flat-3'].includes(c.id));
  let n = 0;
  const { setup: second, ...made } = withInlay(jobOf(one), one.at.id, ['i'], { ...usual, ...values }, () => `n${n++}`);
  return { ...made, second };
}

describe('an inlay of picked outlines', () => {
  it('is a pocket, and a plug on a blank of its own that follows the outlines mirrored', () => {
    const { job, second } = inlaid();
    expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
    expect(job.blanks.map((b) => b.material)).toEqual(['walnut', 'maple']);
    const [link] = oneSetup(job, second).items;
    expect([link.x, link.y]).toEqual([60 - 26, 24]);
    // The source moves and turns: the plug's follows, mirrored.
    const moved: Job = {
      ...job,
      setups: job.setups.map((s, k) => (k ? s : { ...s, items: s.items.map((i) => ({ ...i, x: 30, angle: 20 })) })),
    };
    expect(oneSetup(moved, second).items[0].x).toBe(30);
    expect(fitOfOne(moved).troubles).toEqual([]);
  });

  it('goes together: all the way in, with no seam, and the gaps that were asked for', () => {
    const { job } = inlaid();
    const { fit, troubles } = fitOfOne(job);
    expect(troubles).toEqual([]);
    expect(fit!.short.mm).toBe(0);
    expect(fit!.seam!.mm).toBeLessThan(0.01);
    expect(fit!.wide).toBe(0);
    expect(fit!.saw).toBeCloseTo(usual.clear, 1);
    expect(fit!.glue!.least).toBeGreaterThan(usual.depth - usual.goesIn - 0.05);
    expect(fit!.glue!.most).toBeLessThan(usual.depth - usual.goesIn + 0.01);
  });

  it('that does not go together is said, by how much and where', () => {
    const { job } = inlaid();
    const pocket = job.setups[0].id;
    // A pocket that is less deep than the plug goes in: it stands on its floor.
    const shallow = fitOfOne(withValues(job, pocket, { limit: 1.5 }));
    // On the floor stand the ridges that the tip of the bit leaves.
    expect(shallow.fit!.short.mm).toBeGreaterThan(0.49);
    expect(shallow.fit!.short.mm).toBeLessThan(0.57);
    expect(shallow.troubles[0].text).toMatch(/stops 0\.5\d? mm short/);
    // Standing off as far it leaves a seam: across walls of 30 degrees half of that.
    expect(shallow.fit!.seam!.mm).toBeCloseTo(shallow.fit!.short.mm / 2, 2);
  });

  it('(long) that meets in its corners, lies beyond its blank or leans otherwise is said too', () => {
    const { job, second } = inlaid();
    const pocket = job.setups[0].id;
    // A flat tip leaves the corners of the pocket round, those of the plug stay sharp.
    const blunt = fitOfOne(
      withValues(withValues(job, pocket, { cutter: 'cone-3.175-30-0.2' }), second, { cutter: 'cone-3.175-30-0.2' }),
    );
    expect(blunt.fit!.short.mm).toBeGreaterThan(0.05);
    expect(blunt.troubles[0].text).toMatch(/short of where it is to go/);
    const { x, y } = blunt.fit!.short;
    // It meets along the edge that runs from one of the five points down to the middle.
    const off = Math.atan2(x - 26, y - 24) / ((2 * Math.PI) / 5);
    expect(Math.abs(off - Math.round(off))).toBeLessThan(0.03);
    // A blank of the plug that was made smaller: what is not there is no fit.
    const small = { ...job, blanks: job.blanks.map((b, k) => (k ? { ...b, width: 30 } : b)) };
    expect(
      fitOfOne(small)
        .troubles.map((t) => t.text)
        .join(),
    ).toMatch(/beyond its blank/);
    // Other angles.
    const other = fitOfOne(withValues(job, second, { cutter: 'v-12-90-0' }));
    expect(other.troubles.map((t) => t.text).join()).toMatch(/walls that do not lean alike/);
  });

  it('is not made of values that cannot be, with a way on', () => {
    const cutter = library.find((c) => c.id === VBIT);
    expect(whyNoInlay(usual, cutter, 12, 'mm')).toBeNull();
    const why = (v: Partial<InlayValues>, thickness = 12) => whyNoInlay({ ...usual, ...v }, cutter, thickness, 'mm');
    expect(why({ goesIn: 3 })).toMatch(/would stand on the floor of the pocket/);
    expect(why({ depth: 11 }, 40)).toMatch(/cuts 10\.39 mm deep at most, and 11 mm are asked for/);
    expect(why({}, 2.9)).toMatch(/Nothing would be left under the inlay/);
    expect(why({ margin: 1 })).toMatch(/Carve further round/);
    expect(whyNoInlay(usual, undefined, 12, 'mm')).toMatch(/Choose a V-bit/);
  });

  it.each(['mm', 'in'] as const)('begins with values in %s that can be, round in that unit', (unit) => {
    const values = freshInlay('maple', unit, library);
    const cutter = library.find((c) => c.id === values.cutter)!;
    expect([cutter.shape, cutter.unit, values.material]).toEqual(['v', unit, 'walnut']);
    expect(whyNoInlay(values, cutter, 12, unit)).toBeNull();
    for (const mm of [values.depth, values.goesIn, values.clear, values.margin]) {
      const shown = unit === 'mm' ? mm : mm / 25.4;
      expect(Math.abs(shown * 200 - Math.round(shown * 200))).toBeLessThan(1e-6);
    }
  });

  it('that has lost a half says which, and its set-ups stand alone', () => {
    const { job, second, plug, pocket } = inlaid();
    const without = (id: string): Job => ({
      ...job,
      setups: job.setups.map((s) => ({ ...s, cuts: s.cuts.filter((c) => c.id !== id) })),
    });
    expect(pairsOf(without(plug)).missing[second]).toMatch(/no plug/);
    expect(pairsOf(without(pocket)).missing[second]).toMatch(/no pocket/);
    const alone = withoutSetup(job, job.setups[0].id);
    expect(pairsOf(readJob(alone))).toEqual({ pairs: [], missing: {} });
    const after = startingAt(job, second, { setup: job.setups[0].id, turned: 'y' });
    expect(pairsOf(readJob(after)).pairs).toEqual([]);
  });
});

test('(long) both halves of the waterlily lid pass every check, and go together with no seam', () => {
  const job = demoJobs['waterlily-lid']();
  for (const { id } of job.setups) expect(heldAgainst(proven(job, id), art).findings).toEqual([]);
  const { fit, troubles } = fitOfOne(job);
  expect(troubles).toEqual([]);
  // The groove by which the lid is cut free is no floor of the pocket.
  expect(fit!.glue!.least).toBeGreaterThan(0.3);
  expect(fit!.glue!.most).toBeLessThan(0.41);
  expect(fit!.saw).toBeGreaterThan(0.95);
  expect(fit!.short.mm).toBe(0);
  expect(fit!.seam!.mm).toBeLessThan(0.01);
});
