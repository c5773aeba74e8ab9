import { newItem } from '../artwork/item';
import {
  dieCorners,
  freshEmbossing,
  smallerBy,
  whyNoEmbossing,
  withEmbossing,
  withSheet,
  type EmbossingValues,
} from '../job/embossing';
import { readJob } from '../job/migrate';
import { newOneSetup, type Job } from '../job/job';
import { jobOf, oneSetup } from '../job/oneSetup';
import { pairsOf } from '../job/pairs';
import { fitOfOne, withValues } from '../testing/fits';
import { library } from '../testing/job';

const cutter = (id: string) => library.find((c) => c.id === id);
const usual: EmbossingValues = {
  ...{ walls: 'leaning', cutter: 'v-12-60-0', endMills: ['flat-3'], depth: 0.8, sheet: 0.2, material: 'brass' },
};

/** A star on a small blank, to be embossed. */
function dies(values: Partial<EmbossingValues> = {}): { job: Job; raised: string } {
  const one = newOneSetup('Dies');
  one.blank = { ...one.blank, width: 40, height: 36, thickness: 8, material: 'brass' };
  const star = { points: 5, radius: 12, inner: 55, rounding: 0 };
  one.items = [newItem({ id: 'i', name: 'Star', kind: 'star', x: 18, y: 17, values: star })];
  one.cutters = library.filter((c) => ['v-12-60-0', 'v-12-90-0', 'flat-2', 'flat-3'].includes(c.id));
  let n = 0;
  const made = withEmbossing(jobOf(one), one.at.id, ['i'], { ...usual, ...values }, cutter, () => `n${n++}`);
  return { job: made.job, raised: made.setup };
}
const ofSheet = (job: Job, sheet: number): Job => ({
  ...job,
  setups: job.setups.map((s) => (s.fits ? { ...s, fits: { ...s.fits, sheet } } : s)),
});

describe('dies of picked outlines', () => {
  it('are a sunk one, and a raised one on a blank of its own that follows the outlines mirrored', () => {
    const { job, raised } = dies();
    expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
    expect(job.blanks.map((b) => b.name)).toEqual(['Blank 1', 'Raised die']);
    expect(oneSetup(job, raised).items[0].x).toBe(40 - 18);
    expect(pairsOf(job).pairs[0]).toMatchObject({ sheet: 0.2, walls: 'leaning' });
  });

  it('leave the sheet as much room as it is thick, everywhere', () => {
    const { pressed, seam, troubles, joined } = fitOfOne(dies().job);
    expect(troubles).toEqual([]);
    expect(joined).toBeNull();
    // But for the tips of the star.
    expect(seam.length).toBeGreaterThan(100);
    expect(seam.every((p) => p.wide === p.wide)).toBe(true);
    for (const room of [pressed!.walls!, pressed!.face!, pressed!.raised!]) {
      expect(room.least.mm).toBeGreaterThan(0.2 - 0.012);
      expect(room.most.mm).toBeLessThan(0.2 + 0.01);
    }
  });

  it('with upright walls leave it as much', () => {
    const { job } = dies({ walls: 'upright', endMills: ['flat-3', 'flat-2'], sheet: 0.1 });
    expect(pairsOf(job).pairs[0].walls).toBe('upright');
    const { pressed, seam, troubles } = fitOfOne(job);
    expect(troubles).toEqual([]);
    expect(seam.every((p) => p.wide === p.wide)).toBe(true);
    for (const room of [pressed!.walls!, pressed!.face!, pressed!.raised!]) {
      expect(room.least.mm).toBeGreaterThan(0.1 - 0.005);
      expect(room.most.mm).toBeLessThan(0.1 + 0.005);
    }
  });

  it('that would bite into the sheet, or do not press it, are told with the place', () => {
    const { job, raised } = dies({ walls: 'upright' });
    // Round what is raised the face of its own blank would meet the other one.
    const near = fitOfOne(withValues(job, raised, { margin: 5 }));
    expect(near.troubles[0].text).toMatch(/they meet here: what stands up is 0\.6 mm too high/);
    expect(Math.hypot(near.troubles[0].at!.x - 18, near.troubles[0].at!.y - 17)).toBeGreaterThan(9);
  });

  it('(long) with too little or too much room for the sheet are told too', () => {
    const { job, raised } = dies();
    const texts = (j: Job) => fitOfOne(j).troubles.map((t) => t.text);
    const sunk = job.setups[0].id;
    // What comes out of them is as thick as it went in: sunk above, raised below, by as much as they are.
    const { sheet } = fitOfOne(job);
    const thick = (i: number) => sheet!.field.z[i] - sheet!.under.z[i] + sheet!.thickness;
    expect(sheet!.thickness).toBeCloseTo(usual.depth + usual.sheet, 2);
    const on = (at: number) => [...sheet!.field.z.keys()].filter((i) => Math.abs(sheet!.field.z[i] - at) < 1e-3);
    for (const at of [0, -usual.depth]) {
      expect(on(at).length).toBeGreaterThan(1000);
      for (const i of on(at).filter((_, k) => k % 50 === 0)) expect(thick(i)).toBeGreaterThan(usual.sheet - 0.02);
    }
    // Thicker than they were made for: everywhere.
    expect(texts(ofSheet(job, 0.3)).join()).toMatch(
      /has 0\.2\d mm of room across the walls here, and is 0\.3 mm thick: the dies bite/,
    );
    // Of less than it had been smaller by: sin of the walls' lean away from square, 0.1 cos 30.
    const wide = fitOfOne(withValues(job, raised, { grow: -smallerBy(usual, cutter) + 0.1 })).troubles[0];
    expect(wide.text).toMatch(/has 0\.11 mm of room across the walls here/);
    expect(Math.hypot(wide.at!.x - 18, wide.at!.y - 17)).toBeLessThan(12.5);
    expect(texts(withValues(job, sunk, { limit: 0.7 }))[0]).toMatch(
      /0\.(1|09) mm of room on what is raised here.*bite/,
    );
    expect(texts(withValues(job, sunk, { limit: 1 }))[0]).toMatch(
      /0\.4 mm of room on what is raised here.*not pressed/,
    );
    expect(texts(withValues(job, raised, { cutter: 'v-12-90-0' })).join()).toMatch(/do not lean alike/);
  });

  it('(long) of strokes that are too narrow to have walls are told', () => {
    const { job } = dies();
    const star = (inner: number) => ({ points: 5, radius: 12, inner, rounding: 0 });
    const of = (inner: number): Job => ({
      ...job,
      setups: job.setups.map((s) => ({
        ...s,
        items: s.items.map((i) => (i.id === 'i' ? { ...i, values: star(inner) } : i)),
      })),
    });
    // Its tips are, and no wall is missed there.
    expect(fitOfOne(of(8)).troubles).toEqual([]);
    expect(
      fitOfOne(of(2))
        .troubles.map((t) => t.text)
        .join(),
    ).toMatch(/so narrow everywhere/);
  });

  it('(long) with walls that a cone leans leave it as much, and for another sheet too', () => {
    const cone = 'v-12-60-0';
    const tan = Math.tan(Math.PI / 6);
    const star = dies({ walls: 'upright', endMills: ['flat-2'] });
    // Into tips such a cone goes as deep as its passes are close.
    const round = { kind: 'ellipse', values: { width: 24, height: 17 } };
    const setups = star.job.setups.map((s) => ({
      ...s,
      items: s.items.map((i) => (i.id === 'i' ? { ...i, ...round } : i)),
    }));
    const made = { ...star, job: { ...star.job, setups } };
    const leaning = withValues(withValues(made.job, made.job.setups[0].id, { wall: cone, corners: 0 }), made.raised, {
      ...{ wall: cone, corners: 0 },
      // The outline of what is raised is that of its top here.
      grow: -(smallerBy(usual, cutter) + usual.depth * tan),
    });
    for (const sheet of [usual.sheet, 0.35]) {
      const { pressed, troubles } = fitOfOne(withSheet(leaning, pairsOf(leaning).pairs[0], sheet));
      expect(troubles.filter((t) => !/on what is raised/.test(t.text))).toEqual([]);
      expect(pressed!.walls!.least.mm).toBeGreaterThan(sheet - 0.005);
      expect(pressed!.walls!.most.mm).toBeLessThan(sheet + 0.01);
    }
    // Of which one die has none are told.
    const one = withValues(leaning, made.raised, { wall: null });
    expect(fitOfOne(one).troubles[0].text).toMatch(/by V-bit.*with upright walls.*do not lean alike/);
  });

  it('of which one is missing, or which are no dies, are told', () => {
    const { job, raised } = dies();
    const off = (id: string): Job => ({
      ...job,
      setups: job.setups.map((s) => (s.id === id ? { ...s, cuts: s.cuts.map((c) => ({ ...c, enabled: false })) } : s)),
    });
    expect(pairsOf(off(raised)).missing[raised]).toMatch(/nothing is raised on this die/);
    expect(pairsOf(off(job.setups[0].id)).missing[raised]).toMatch(/this die follows/);
  });

  it('are not made of values that cannot be, with a way on', () => {
    const why = (v: Partial<EmbossingValues>, thickness = 8) =>
      whyNoEmbossing({ ...usual, ...v }, cutter, thickness, 'mm');
    expect(why({})).toBeNull();
    expect(why({ cutter: 'none' })).toMatch(/Choose a V-bit/);
    expect(why({ cutter: 'none', walls: 'upright' })).toBeNull();
    expect(why({ endMills: [] })).toMatch(/Choose an end mill/);
    expect(why({ depth: 8 })).toMatch(/Nothing would be left/);
    expect(why({ depth: 20 }, 80)).toMatch(/deep at most/);
    // 60 degrees: 0.2 (1 - sin 30) / cos 30.
    expect(smallerBy(usual, cutter)).toBeCloseTo(0.2 * Math.tan(Math.PI / 6), 9);
    expect(smallerBy({ ...usual, walls: 'upright' }, cutter)).toBe(0.2);
    expect(dieCorners({ ...usual, walls: 'upright', endMills: ['flat-3', 'flat-2'] }, cutter)).toBe(1);
    for (const unit of ['mm', 'in'] as const)
      expect(whyNoEmbossing(freshEmbossing('brass', unit, library), cutter, 8, unit)).toBeNull();
  });
});
