import { textOf } from '../program/text';
import { demoSetups } from '../job/demo';
import type { OneSetup } from '../job/job';
import { readMoves } from '../testing/independent';
import { testArt } from '../testing/fonts';
import { reportOf, setupOf } from './report';
import { planCut } from './planning';
import { writePrograms } from './programs';
import { runJob } from './run';

const plate = (): OneSetup => demoSetups['sluice-gear-plate']();
/** What a set-up sheet is made of needs no proof. */
const sheetOf = (job: OneSetup) => {
  const plans = new Map(job.cuts.map((c) => [c.id, planCut(job, c, testArt)]));
  const programs = writePrograms(job, plans);
  return { programs, setup: setupOf(job, programs, plans) };
};

describe('the report', () => {
  const job = plate();
  const { programs, proof } = runJob(job, testArt, 1);
  const report = reportOf(job, programs, proof);
  it('adds up: by cut and by cutter the same, and with tool changes the whole', () => {
    const sum = (list: readonly { minutes: number; moves: number }[], k: 'minutes' | 'moves') =>
      list.reduce((n, c) => n + c[k], 0);
    expect(sum(report.cuts, 'minutes')).toBeCloseTo(sum(report.cutters, 'minutes'), 2);
    expect(sum(report.cuts, 'moves')).toBe(sum(report.cutters, 'moves'));
    const m = job.run.machine;
    expect(report.minutes).toBeCloseTo(
      sum(report.cuts, 'minutes') + (report.toolChanges * (m.toolChangeSeconds + m.spindleSeconds)) / 60,
      2,
    );
    for (const c of report.cuts) expect(c.cuttingMinutes + c.plungingMinutes + c.airMinutes).toBeCloseTo(c.minutes, 2);
  });
  it('names every check with what it found', () => {
    expect(report.checks.length).toBeGreaterThan(8);
    for (const c of report.checks) expect(c.passed).toBe(c.findings.length === 0);
  });
  it('says what stays on a relief beside the checks, which pass all the same', () => {
    const stays = [{ check: 'stays', text: 'Up to 0.1 mm', cutId: 'c', x: 1, y: 2, places: [] }];
    const { checks, stays: said } = reportOf(job, programs, { ...proof, stays });
    expect(said).toEqual([{ text: 'Up to 0.1 mm', cut: 'c', x: 1, y: 2 }]);
    expect(checks).toEqual(report.checks);
    expect(report.stays).toEqual([]);
  });
});

describe('the set-up sheet', () => {
  it.each([
    ['lb', 'top'],
    ['cm', 'bed'],
    ['rt', 'top'],
    ['lm', 'bed'],
  ] as const)('has blank and clamps in the coordinates of the programs, datum %s, zero on the %s', (datum, zZero) => {
    const job = plate();
    job.blank = { ...job.blank, datum, zZero };
    job.clamps = [{ x0: -10, y0: 40, x1: -2, y1: 60, height: 12 }];
    const { setup, programs } = sheetOf(job);
    const { x0, y0, width, height, thickness } = setup.blank;
    expect([width, height, thickness]).toEqual([job.blank.width, job.blank.height, job.blank.thickness]);
    const share = { l: 0, c: 0.5, r: 1, b: 0, m: 0.5, t: 1 };
    expect(x0).toBeCloseTo(-share[datum[0] as 'l'] * width, 9);
    expect(y0).toBeCloseTo(-share[datum[1] as 'b'] * height, 9);
    expect(setup.clamps[0]).toMatchObject({ x0: x0 - 10, y0: y0 + 40, height: 12 });
    // What the program cuts lies on the blank, and just below its face: as a reader of text and sheet alone sees it.
    const face = zZero === 'top' ? 0 : thickness;
    const low = readMoves(programs.files.map((f) => textOf(f.chunks)).join('\n')).filter((m) => m.b[2] < face - 1e-6);
    expect(low.length).toBeGreaterThan(100);
    for (const m of low) {
      expect(m.b[0]).toBeGreaterThan(x0 - 2);
      expect(m.b[0]).toBeLessThan(x0 + width + 2);
      expect(m.b[1]).toBeGreaterThan(y0 - 2);
      expect(m.b[2]).toBeGreaterThanOrEqual(face - thickness - job.blank.intoBed - 1e-6);
    }
  });
  it('describes every tool that the programs call, and no other', () => {
    const { setup, programs } = sheetOf(plate());
    const called = new Set(
      programs.files.flatMap((f) => [...textOf(f.chunks).matchAll(/^T(\d+) M6/gm)].map((m) => m[1])),
    );
    expect(new Set(Object.keys(setup.tools))).toEqual(called);
    expect(setup.tools['1']).toMatchObject({ shape: 'drag', includedAngle: 120, tipRadius: 0.02 });
    expect(Object.values(setup.tools).map((t) => t.shape)).toEqual(['drag', 'drill', 'flat']);
    for (const t of Object.values(setup.tools)) expect(t.fluteLength * t.shankDiameter).toBeGreaterThan(0);
    expect(setup.files).toEqual(programs.files.map((f) => f.name));
  });
  it('says how the machine speeds up, how far programs leave the blank, and how tools are called', () => {
    const job = plate();
    job.run.machine = { ...job.run.machine, accel: { x: 400, y: 300, z: 120 } };
    job.blank.intoBed = 0.7;
    const { setup } = sheetOf(job);
    expect(setup.machine).toMatchObject({ accel: 120, axes: { x: 400, y: 300, z: 120 } });
    expect(setup).toMatchObject({ overshoot: 0.7, margin: 0, toolChange: 'M6' });
    const byHand = plate();
    byHand.run.dialect = 'metric-pause';
    const { setup: sheet } = sheetOf(byHand);
    expect(sheet.toolChange).toBe('T');
  });
  it('calls an engraving cone a V with a flat tip, by its included angle', () => {
    const { setup } = sheetOf(demoSetups['keeper-plate']());
    const cone = Object.values(setup.tools).find((t) => t.shape === 'v')!;
    expect(cone.tipDiameter).toBeGreaterThan(0);
    expect(cone.includedAngle).toBeGreaterThan(0);
  });
});
