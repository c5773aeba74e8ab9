import { newItem } from '../artwork/item';
import { readJob } from '../job/migrate';
import { newOneSetup, type Job } from '../job/job';
import { jobOf, oneSetup } from '../job/oneSetup';
import {
  cornersOf,
  freshStraightInlay,
  whyNoStraightInlay,
  withStraightInlay,
  type StraightInlayValues,
} from '../job/straightInlay';
import { fitOfOne, withValues } from '../testing/fits';
import { library } from '../testing/job';

const cutter = (id: string) => library.find((c) => c.id === id);
const usual: StraightInlayValues = {
  ...{ cutters: ['flat-3', 'flat-2'], plugCutter: 'flat-2', depth: 2, proud: 0.3, clearance: 0.05, skin: 0.2 },
  corners: 'round',
  material: 'maple',
};

/** A star on a small blank, inlaid with upright walls. */
function inlaid(values: Partial<StraightInlayValues> = {}, kind = 'star', more: object = {}, angle = 0) {
  const one = newOneSetup('Inlay');
  one.blank = { ...one.blank, width: 60, height: 50, thickness: 12, material: 'walnut' };
  const star = { points: 5, radius: 14, inner: 55, rounding: 0 };
  one.items = [
    newItem({ id: 'i', name: 'Star', kind, x: 26, y: 24, angle, values: kind === 'star' ? star : { ...more } }),
  ];
  one.cutters = library.filter((c) => ['flat-2', 'flat-3', 'flat-6'].includes(c.id));
  let n = 0;
  return withStraightInlay(jobOf(one), one.at.id, ['i'], { ...usual, ...values }, cutter, () => `n${n++}`);
}

describe('a straight inlay of picked outlines', () => {
  it('is a pocket, and a plug of a plate as thick as it is to be; they go together with the clearance that was asked for', () => {
    const { setup: second, job } = inlaid();
    expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
    expect(job.blanks[1]).toMatchObject({ material: 'maple', thickness: 2.3 });
    expect(oneSetup(job, second).items[0].x).toBe(60 - 26);
    const { straight, seam, troubles, joined } = fitOfOne(job);
    expect(troubles).toEqual([]);
    expect(straight!.clearance).toBeCloseTo(0.05, 9);
    expect(straight!.least!).toBeGreaterThan(0.042);
    expect(straight!.most!).toBeLessThan(0.058);
    expect(straight!.proud).toBeCloseTo(0.3, 2);
    expect(seam.every((p) => p.wide === p.wide)).toBe(true);
    // Of the face as much is plug as the star holds, but for its clearance.
    const part = joined!.share.reduce((s, v) => s + v, 0) / 255 / joined!.share.length;
    const star = 5 * 14 * (14 * 0.55) * Math.sin(Math.PI / 5);
    expect(part * 60 * 50).toBeGreaterThan(0.94 * star);
    expect(part * 60 * 50).toBeLessThan(star);
  });

  it('without clearance closes, turned and of round sizes', () => {
    const square = { width: 20, height: 12, radius: 0, corner: 'square' };
    const { seam, troubles } = fitOfOne(inlaid({ clearance: 0 }, 'rectangle', square, 17).job);
    expect(troubles).toEqual([]);
    expect(seam.length).toBeGreaterThan(100);
    expect(Math.max(...seam.map((p) => Math.abs(p.wide)))).toBeLessThan(0.002);
  });

  it('with corner relief goes together sharp, and wider only at its corners', () => {
    const { setup: second, job } = inlaid({ corners: 'relieved', cutters: ['flat-2'] });
    const { straight, seam, troubles } = fitOfOne(job);
    expect(troubles).toEqual([]);
    expect(straight!.least!).toBeGreaterThan(0.042);
    expect(straight!.most!).toBeLessThan(0.058);
    const wider = seam.filter((p) => p.wide > 0.1);
    expect(wider.length).toBeGreaterThan(20);
    expect(wider.every((p) => p.relieved)).toBe(true);
    // Tips of the plug by the pocket's reliefs, the corners between them by the plug's own.
    for (const { x, y } of wider) {
      const turn = Math.atan2(x - 26, y - 24) / (Math.PI / 5);
      expect(Math.abs(turn - Math.round(turn))).toBeLessThan(0.35);
    }
    // Reliefs of one half alone leave the other's corners round.
    const close = inlaid({ corners: 'relieved', cutters: ['flat-2'], clearance: 0 }).job;
    expect(fitOfOne(withValues(close, second, { relieved: false })).troubles[0].text).toMatch(/do not meet|too large/);
  });

  it('that does not go together is said, with the place', () => {
    const { job } = inlaid();
    const pocket = job.setups[0].id;
    const first = (j: Job) => fitOfOne(j).troubles[0];
    // A larger cutter leaves the corners of the pocket rounder than those of the plug.
    const tight = first(withValues(job, pocket, { cutters: ['flat-3'] }));
    expect(tight.text).toMatch(/do not meet at \d+ of \d+ places|too large for its pocket here/);
    const off = Math.atan2(tight.at!.x - 26, tight.at!.y - 24) / ((2 * Math.PI) / 5);
    expect(Math.abs(off - Math.round(off))).toBeLessThan(0.1);
  });

  it('(long) whose outlines, floors or plates do not go together is said too', () => {
    const { setup: second, job } = inlaid();
    const pocket = job.setups[0].id;
    const first = (j: Job) => fitOfOne(j).troubles[0];
    expect(first(withValues(job, second, { grow: -0.2, corners: 0 })).text).toMatch(/do not meet|too large/);
    expect(first(withValues(job, second, { grow: 0.1 })).text).toMatch(/0\.1\d? mm too large/);
    expect(
      first(withValues(withValues(job, second, { grow: -0.2 }), pocket, { grow: 0.2, floorAllowance: 0.5 })).text,
    ).toMatch(/stands 0\.5 mm too high/);
    const deep = fitOfOne(withValues(job, pocket, { depth: 3 }));
    expect(deep.troubles.map((t) => t.text).join()).toMatch(/ends 0\.7 mm below the face/);
    // Its face is seen where it is.
    const inside = deep.joined!.share.findIndex((s) => s === 255);
    expect(deep.joined!.field.z[inside]).toBeCloseTo(-0.7, 2);
  });

  it('with parts that would break is said, with the place', () => {
    const { job } = inlaid({ clearance: 0 }, 'rectangle', { width: 20, height: 0.7, radius: 0, corner: 'square' });
    const thin = fitOfOne(withValues(job, job.setups[0].id, { corners: 0 })).troubles.find((t) =>
      /may break/.test(t.text),
    )!;
    expect(thin.text).toMatch(/The plug is thinner than 0\.8 mm here: in maple/);
    expect(Math.abs(thin.at!.y - 24)).toBeLessThan(0.4);
  });

  it('is not made of values that cannot be, with a way on', () => {
    const why = (v: Partial<StraightInlayValues>, thickness = 12) =>
      whyNoStraightInlay({ ...usual, ...v }, cutter, thickness, 'mm');
    expect(why({})).toBeNull();
    expect(why({ plugCutter: 'none' })).toMatch(/Choose an end mill for the plug/);
    expect(why({ cutters: [] })).toMatch(/Choose an end mill for the pocket/);
    expect(why({ depth: 12 })).toMatch(/Nothing would be left under the inlay/);
    expect(why({ skin: 3 })).toMatch(/nothing would be cut/);
    expect(why({ depth: 40 }, 80)).toMatch(/deep at most/);
    expect(cornersOf(usual, cutter)).toBe(1);
    expect(cornersOf({ ...usual, plugCutter: 'flat-6' }, cutter)).toBe(3);
  });

  it.each(['mm', 'in'] as const)('begins with values in %s that can be', (unit) => {
    const v = freshStraightInlay('maple', unit, library);
    expect(cutter(v.plugCutter)!.unit).toBe(unit);
    expect(v.material).toBe('walnut');
    expect(whyNoStraightInlay(v, cutter, 12, unit)).toBeNull();
  });
});
