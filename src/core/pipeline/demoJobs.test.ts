import { textOf } from '../program/text';
import { regionOf } from '../artwork/item';
import type { CutPlan } from '../cuts/kind';
import { demoSetups } from '../job/demo';
import { datumOf } from '../job/job';
import { RAPID, type Motion } from '../motion/motion';
import { fitOf } from '../relief/fit';
import type { Form } from '../relief/stack';
import { testArt as art } from '../testing/fonts';
import { cutOut, depths, readMoves, scatter, testCone, testFlat, type Cloud } from '../testing/independent';
import { planCut, presetOf } from './planning';
import { writePrograms } from './programs';
import { shapedWhenAsked, shapeMemory, shapeRelief } from './shaping';
import { heldAgainst, placePrograms, prove } from './proving';

const shaping = { art, mesh: () => null, picture: () => null, progress: () => {} };

/** Each of the demo set-ups, planned and written once for all that is asked of it here. */
const known: Record<string, ReturnType<typeof makeOne>> = {};
const made = (name: string) => (known[name] ??= makeOne(name));
function makeOne(name: string) {
  const job = demoSetups[name]();
  // Coarser than they are cut by makers: the same cuts over the same forms.
  const cell = Math.sqrt((job.blank.width * job.blank.height) / 5e4);
  if (job.relief.forms.length) job.relief = { ...job.relief, cell };
  for (const c of job.cuts)
    if (c.kind === 'reliefFinish')
      for (const [id, o] of Object.entries(c.overrides)) {
        // Rows that lie further apart take more at once.
        o.stepDown =
          4 *
          presetOf(
            job.cutters.find((q) => q.id === id)!,
            job,
            c,
          ).stepDown;
        if (o.stepOver) o.stepOver *= 4;
      }
  const relief = shapedWhenAsked(job, shaping);
  const plans = new Map<string, CutPlan>(job.cuts.map((c) => [c.id, planCut(job, c, art, undefined, relief)]));
  return { job, plans, programs: writePrograms(job, plans), relief };
}

const names = Object.keys(demoSetups);
const cutJobs = names.filter((name) => demoSetups[name]().cuts.length);
const shapedJobs = names.filter((name) => demoSetups[name]().relief.forms.length);
/** Of those whose relief is cut one stands for all where there is little time. */
const soon = cutJobs.filter((name) => name === 'heron-medallion' || !shapedJobs.includes(name));
const later = cutJobs.filter((name) => !soon.includes(name));

test('the demo jobs are cut or shaped', () => {
  expect([...new Set([...cutJobs, ...shapedJobs])].sort()).toEqual(Object.keys(demoSetups).sort());
});

test.each(shapedJobs)('the relief of the demo job %s is as its forms say, and fits its blank', (name) => {
  const job = demoSetups[name]();
  const cell = Math.sqrt((job.blank.width * job.blank.height) / 1.5e4);
  const memory = shapeMemory();
  const shape = (forms: Form[]) => shapeRelief({ ...job, relief: { ...job.relief, forms } }, cell, shaping, memory);
  const whole = shape(job.relief.forms);
  expect(whole.remarks).toEqual({});
  expect(fitOf(whole.facts, job.blank.thickness).trouble).toBeNull();
  // Each of its forms counts somewhere.
  for (const f of job.relief.forms) {
    const without = shape(job.relief.forms.filter((q) => q !== f)).field.z;
    const other = whole.field.z.reduce((n, h, i) => n + Number(!Object.is(h, without[i])), 0);
    expect(other).toBeGreaterThan(30);
  }
});

test('(long) the medallion without its roughing is said to bury the cutter that finishes it', () => {
  const { job, plans, programs, relief } = made('heron-medallion');
  const placed = placePrograms(job, programs).map((p) => ({
    ...p,
    sections: p.sections.filter((s) => s.cutId !== 'c-rough'),
  }));
  const proof = prove(job, placed, programs.tools, plans, Math.sqrt((job.blank.width * job.blank.height) / 5e4));
  const texts = heldAgainst(proof, art, undefined, relief).findings.filter((f) => f.check === 'buried');
  expect(texts).toHaveLength(1);
  expect(texts[0]).toMatchObject({ cutId: 'c-finish', text: expect.stringMatching(/Rough the relief before it/) });
});

test('(long) the mould is the token turned over: what is raised there is sunk here', () => {
  const job = demoSetups['ferry-token-mould']();
  const of = (forms: Form[]) =>
    shapeRelief({ ...job, relief: { ...job.relief, forms, baseDepth: 0 } }, 0.5, shaping).field;
  const token = of(job.relief.forms.filter((f) => f.kind !== 'turned'));
  const mould = of(job.relief.forms);
  let [worst, there] = [0, 0];
  for (let r = 0; r < token.rows; r++)
    for (let c = 0; c < token.cols; c++) {
      const raised = token.z[r * token.cols + c];
      const sunk = mould.z[r * token.cols + c];
      // The token's back is the mould's face, 5 mm above the base of the stack.
      if (raised === raised && sunk === sunk) {
        there++;
        worst = Math.max(worst, Math.abs(sunk - (5 - raised)));
      } else if (raised === raised || sunk === sunk) worst = Infinity;
    }
  expect(worst).toBeLessThan(1e-5);
  expect(there * 0.5 * 0.5).toBeGreaterThan(0.98 * Math.PI * 22 * 22);
});

function passes(name: string) {
  const { job, plans, programs, relief } = made(name);
  const proof = prove(
    job,
    placePrograms(job, programs),
    programs.tools,
    plans,
    Math.sqrt((job.blank.width * job.blank.height) / 1e5),
  );
  expect(proof.findings).toEqual([]);
  expect(heldAgainst(proof, art, undefined, relief).findings).toEqual([]);
  // Something was cut, nothing stands above the face, nothing is below the bed.
  const { z } = proof.field;
  let low = 0;
  let cut = 0;
  let high = 0;
  for (const v of z) {
    high = Math.max(high, v);
    if (v < -0.01) cut++;
    low = Math.min(low, v);
  }
  expect(high).toBe(0);
  expect(cut / z.length).toBeGreaterThan(0.02);
  expect(low).toBeGreaterThanOrEqual(-job.blank.thickness - job.blank.intoBed - 1e-3);
  expect(proof.minutes).toBeGreaterThan(1);
  // Clocks add up: stretches and tool changes are all there is.
  const seconds = proof.times.reduce((s, t) => s + t.time.cutting + t.time.plunging + t.time.air, 0);
  expect(proof.minutes * 60).toBeCloseTo(
    seconds + proof.toolChanges * (job.run.machine.toolChangeSeconds + job.run.machine.spindleSeconds),
    3,
  );
}
test.each(soon)('the demo job %s passes every check, and its proof is what its programs leave', passes);
test.each(later)('(long) the demo job %s passes every check, and its proof is what its programs leave', passes);

/** Programs are no longer than they need be, and cutters do not lift more often: figures that makers feel. */
const motions = (name: string, cut: string): Motion[] => {
  const { job, plans } = made(name);
  return plans.get(job.cuts.find((c) => c.name === cut)!.id)!.toolpaths.map((t) => t.motion);
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

/**
 * The Lock cottage board as its exported program leaves it, cut by the tests' own machine, against outlines
 * flattened far finer than the job does it.
 */
describe('the Lock cottage board', () => {
  const { job, programs } = made('lock-cottage-board');
  const datum = datumOf(job.blank);
  const moves = programs.files
    .flatMap((f) => readMoves(textOf(f.chunks)))
    .map((m) => ({ ...m, a: place(m.a), b: place(m.b) }));
  function place(p: [number, number, number]): [number, number, number] {
    return [p[0] + datum.x, p[1] + datum.y, p[2] + datum.z];
  }
  const cutters = Object.fromEntries(
    [...programs.tools].map(([n, c]) => [
      n,
      c.shape === 'v' ? testCone(60, 0, c.values.diameter) : testFlat(c.values.diameter),
    ]),
  );
  const region = (...ids: string[]) =>
    regionOf(
      job.items.filter((i) => ids.includes(i.id)),
      art,
      0.0004,
    );
  const cut = (g: Cloud) => {
    cutOut(g, moves, cutters);
    return g;
  };

  it('has walls as the letters want them, and a floor at the limit', () => {
    const letters = region('i-name', 'i-lock');
    const g = cut(scatter(letters, 600, 0.3, 0.4));
    const d = depths(letters, g);
    const ornament = depths(region('i-leaf', 'i-heron'), g);
    const tan = Math.tan(Math.PI / 6);
    let walls = 0;
    let floors = 0;
    for (let i = 0; i < d.length; i++) {
      // What lies in the ornament is another cut's.
      if (ornament[i] > -0.002) continue;
      const want = -Math.min(Math.max(0, d[i]) / tan, 3);
      expect(want - g.z[i]).toBeLessThan(0.005);
      if (want > -2.98) {
        expect(g.z[i] - want).toBeLessThan(0.005);
        walls++;
      } else {
        // A pointed bit leaves ridges of step / (2 tan a) between lines, up to 1.45 times that where lines turn.
        expect(g.z[i] + 3).toBeLessThan((0.12 / tan) * 1.45);
        floors++;
      }
    }
    expect(walls).toBeGreaterThan(400);
    expect(floors).toBeGreaterThan(30);
  });

  it('has a channel as deep and wide as drawn', () => {
    const channel = region('i-border', 'i-border-in');
    const g = cut(scatter(channel, 1000, 0.3, 0.5));
    const d = depths(channel, g);
    let inside = 0;
    for (let i = 0; i < d.length; i++) {
      // The letters stand more than 3 mm away from the channel.
      if (d[i] <= -3) continue;
      if (d[i] < -0.002) expect(g.z[i]).toBe(0);
      expect(g.z[i]).toBeGreaterThan(-2.5 - 1e-4);
      // The corners of the inner border are rounder than the cutter, those of the outer are not sharp: all is in reach.
      if (d[i] > 0.002) {
        expect(g.z[i]).toBeLessThan(-2.5 + 1e-4);
        inside++;
      }
    }
    expect(inside).toBeGreaterThan(500);
  });

  it('is cut free outside its edge but for six tabs, and nothing inside is touched but by the ornament', () => {
    const edge = region('i-edge');
    const inside = cut(scatter(edge, 800, 0.1, 0.2));
    const d = depths(edge, inside);
    const ornament = depths(region('i-leaf', 'i-heron'), inside);
    for (let i = 0; i < d.length; i++)
      if (d[i] > 0.002 && d[i] < 10 && ornament[i] < -0.002) expect(inside.z[i]).toBe(0);

    // Along the middle of the slot, a point every 0.2 mm of the edge.
    const APART = 0.2;
    const [loop] = edge;
    const points: [number, number][] = [];
    let length = 0;
    for (let i = 0; i < loop.length; i += 2) {
      const j = (i + 2) % loop.length;
      const ex = loop[j] - loop[i];
      const ey = loop[j + 1] - loop[i + 1];
      const l = Math.hypot(ex, ey);
      for (let s = Math.ceil(length / APART) * APART; s < length + l; s += APART)
        points.push([
          loop[i] + (ex * (s - length)) / l + (3 * ey) / l,
          loop[i + 1] + (ey * (s - length)) / l - (3 * ex) / l,
        ]);
      length += l;
    }
    points.sort((a, b) => a[0] - b[0]);
    const slot = cut({
      x: Float64Array.from(points, (p) => p[0]),
      y: Float64Array.from(points, (p) => p[1]),
      z: new Float64Array(points.length),
    });
    let held = 0;
    for (const z of slot.z) {
      if (z > -18) held++;
      expect(z).toBeLessThan(-18 + 4 + 1e-3);
    }
    // On the cutter's own line a tab of 10 mm is bounded by the cutter's roundness: six tabs, each 10 mm there.
    expect(held * APART).toBeGreaterThan(6 * 10 * 0.97);
    expect(held * APART).toBeLessThan(6 * 10 * 1.12);
  });

  it('never goes below its bed, and ends high with the spindle off', () => {
    for (const m of moves) expect(m.b[2]).toBeGreaterThan(-18 - job.blank.intoBed - 1e-6);
    for (const f of programs.files) {
      const lines = textOf(f.chunks).trim().split('\n');
      expect(lines.slice(-3).join(' ')).toMatch(/M5.*M30/);
    }
    expect(moves[moves.length - 1].b[2]).toBeGreaterThanOrEqual(job.blank.safeHeight - 1e-6);
  });
});
