import { emptyPlan, type CutPlan } from '../cuts/kind';
import { datumOf, newOneSetup, type OneSetup } from '../job/job';
import { planCut } from '../pipeline/planning';
import { toolNumbers, writePrograms } from '../pipeline/programs';
import { placePrograms, prove } from '../pipeline/proving';
import { testArt } from '../testing/fonts';
import { MotionBuilder } from '../motion/motion';
import { cutterOf } from '../testing/job';
import { checks } from './checks';
import { placeProgram } from './placed';

/** A job with one profile cut, whose program is written out by hand. */
function jobWith(change: (j: OneSetup) => void = () => {}): OneSetup {
  const job = newOneSetup('checks');
  job.blank = { ...job.blank, width: 60, height: 40, thickness: 10, intoBed: 0.5 };
  job.cutters = [cutterOf('flat-3')];
  const cut = (id: string, name: string) => ({
    id,
    name,
    kind: 'area',
    enabled: true,
    items: [],
    values: {
      cutters: ['flat-3'],
      startDepth: 0,
      depth: 2,
      pattern: 'contours',
      angle: 0,
      allowance: 0,
      floorAllowance: 0,
      entry: 'ramp',
      ramp: 3,
      direction: 'climb',
      wall: null,
    },
    overrides: {},
  });
  job.cuts = [cut('a', 'Pocket'), cut('b', 'Name')];
  change(job);
  return job;
}

/** Findings of a program on a job, by check. */
function findings(
  lines: string[],
  job = jobWith(),
  plans: Record<string, Partial<CutPlan>> = {},
  tools = new Map([[1, cutterOf('flat-3')]]),
) {
  const text = [
    'G17 G90 G94',
    'G21',
    '(Cut 1: Pocket)',
    'T1 M6',
    'S12000 M3',
    'G0 Z10',
    ...lines,
    'G0 Z10',
    'M5',
    'G0 X0 Y0',
    'M30',
  ].join('\n');
  const placed = [
    placeProgram(
      'hand.nc',
      text,
      datumOf(job.blank),
      job.cuts.map((c) => c.id),
    ),
  ];
  const planned = new MotionBuilder();
  planned.rapid(20, 20, 10);
  const whole = new Map(
    job.cuts.map((c) => [
      c.id,
      {
        ...emptyPlan(),
        toolpaths: [{ cutterId: 'flat-3', rpm: 12000, motion: planned.build() }],
        ...plans[c.id],
      } as CutPlan,
    ]),
  );
  return prove(job, placed, tools, whole, 0.25).findings;
}
const names = (f: readonly { check: string }[]) => [...new Set(f.map((q) => q.check))];
const GOOD = ['G0 X20 Y20', 'Z1', 'G1 Z-2 F300', 'X40 F900'];

describe('checks of a program', () => {
  it('find a cut whose program is empty, unless its planner has said why', () => {
    expect(findings(GOOD, jobWith(), { b: { toolpaths: [] } })[0]).toMatchObject({
      check: 'wanted',
      cutId: 'b',
      text: expect.stringMatching(/"Name" has nothing to cut/),
    });
    const said = findings(GOOD, jobWith(), {
      b: { toolpaths: [], remarks: [{ level: 'problem', text: 'Nothing is picked.' }] },
    });
    expect(names(said)).toEqual(['planned']);
  });
  it('find nothing in a good one', () => {
    expect(findings(GOOD)).toEqual([]);
  });

  it('find a cut below what the bed allows, and how far', () => {
    const f = findings([...GOOD, 'G1 Z-10.8 F300']);
    expect(names(f)).toEqual(['bed']);
    expect(f[0].text).toMatch(/"Pocket" goes 0\.3 mm deeper/);
    expect(f[0]).toMatchObject({ cutId: 'a', x: 40, y: 20 });
    expect(findings([...GOOD, 'G1 Z-10.4 F300'])).toEqual([]);
  });

  it('find cutting off the blank, but not travel above it', () => {
    const f = findings([...GOOD, 'X63']);
    expect(names(f)).toEqual(['edges']);
    expect(f[0].text).toMatch(/3 mm outside/);
    expect(findings([...GOOD, 'G0 Z5', 'X90 Y-20', 'X20 Y20'])).toEqual([]);
  });

  it('find a cutter that meets a clamp, also on the way, and by half its width', () => {
    const clamp = (x0: number, y0: number, height: number) =>
      jobWith((j) => void (j.clamps = [{ x0, y0, x1: x0 + 8, y1: y0 + 8, height }]));
    const beside = ['G0 X20 Y10', 'Z5', 'X50', 'Z10'];
    expect(names(findings([...GOOD, 'G0 Z10', ...beside], clamp(30, 4, 8)))).toEqual(['clamps']);
    expect(findings([...GOOD, 'G0 Z10', ...beside], clamp(30, 4, 8))[0].text).toMatch(
      /runs into clamp 1, which is 8 mm high/,
    );
    // Higher than the clamp, or further away than the cutter's half.
    expect(findings([...GOOD, 'G0 Z10', ...beside], clamp(30, 4, 4))).toEqual([]);
    expect(findings([...GOOD, 'G0 Z10', ...beside], clamp(30, 0, 8))).toEqual([]);
  });

  it('find nothing in a skim that goes over the edge on purpose, and a clamp that it meets', () => {
    const skim = (clamps: { x0: number; y0: number; x1: number; y1: number; height: number }[]) => {
      const job = jobWith((j) => {
        j.clamps = clamps;
        j.cutters = [cutterOf('flat-12')];
        j.cuts = [
          {
            id: 's',
            name: 'Skim',
            kind: 'skim',
            enabled: true,
            items: [],
            values: { cutter: 'flat-12', where: 'blank', depth: 0.3, angle: 0, overlap: 1 },
            overrides: {},
          },
        ];
      });
      const plans = new Map([['s', planCut(job, job.cuts[0], testArt)]]);
      const programs = writePrograms(job, plans);
      return prove(job, placePrograms(job, programs), programs.tools, plans, 0.5);
    };
    const proof = skim([]);
    expect(proof.findings).toEqual([]);
    for (const z of proof.field.z) expect(z).toBeCloseTo(-0.3, 4);
    expect(names([...skim([{ x0: 0, y0: 0, x1: 12, y1: 12, height: 8 }]).findings])).toEqual(['clamps']);
  });

  it('find a rapid through what stands at that moment, not through what is cut already', () => {
    const f = findings([...GOOD, 'G0 Z-1', 'Y30', 'Z5']);
    expect(names(f)).toEqual(['rapids']);
    expect(f[0].text).toMatch(/1 mm deep in material/);
    // Back along its own slot the same rapid runs free.
    expect(findings([...GOOD, 'G0 Z-1', 'X20', 'Z5'])).toEqual([]);
  });

  it('find the shank in the material when the edges are too short', () => {
    const short = { ...cutterOf('flat-3'), fluteLength: 4, shankDiameter: 6 };
    const f = findings(
      ['G0 X20 Y20', 'Z1', 'G1 Z-6 F300', 'X40 F900'],
      jobWith((j) => void (j.cutters = [short])),
      {},
      new Map([[1, short]]),
    );
    expect(names(f)).toEqual(['shank']);
    expect(f[0].text).toMatch(/meets 2 mm/);
    const slim = { ...short, shankDiameter: 3 };
    const deep = (c: typeof slim) =>
      findings(
        ['G0 X20 Y20', 'Z1', 'G1 Z-6 F300', 'X40 F900'],
        jobWith((j) => void (j.cutters = [c])),
        {},
        new Map([[1, c]]),
      );
    // As thick as the cutter it rubs in its own slot, over all that is above the edges; thinner it runs free.
    expect(deep(slim)).toMatchObject([{ check: 'shank', text: expect.stringMatching(/rubs on 2 mm of wall/) }]);
    expect(deep({ ...slim, shankDiameter: 2.8 })).toEqual([]);
  });

  it('find a part cut free before its lettering', () => {
    const f = findings([...GOOD, 'G0 Z10', '(Cut 2: Name)', 'X25 Y20', 'Z1', 'G1 Z-1 F300', 'X30 F900'], jobWith(), {
      a: { cutsFree: true },
    });
    expect(names(f)).toEqual(['order']);
    expect(f[0].text).toMatch(/"Pocket" cuts the part free before "Name"/);
  });

  it('find a spindle that stands, a tool that no one knows, and a program without an end', () => {
    const still = findings(['M5', ...GOOD]);
    expect(names(still)).toEqual(['spindle']);
    expect(still[0].text).toMatch(/spindle standing \(hand\.nc, line \d+\)/);
    const unknown = findings([...GOOD, 'G0 Z10', 'M5', 'T7 M6', 'S9000 M3', 'G0 X10 Y10', 'Z1', 'G1 Z-1 F200']);
    expect(unknown.some((f) => /calls tool 7/.test(f.text))).toBe(true);
    const job = jobWith();
    const placed = [placeProgram('cut-off.nc', 'G21 G90\nT1 M6\nS100 M3\nG0 X1 Y1 Z5', datumOf(job.blank), ['a', 'b'])];
    const f = prove(
      job,
      placed,
      new Map([[1, cutterOf('flat-3')]]),
      new Map(job.cuts.map((c) => [c.id, emptyPlan()])),
      1,
    ).findings;
    expect(f.some((q) => /cut-off\.nc does not end/.test(q.text))).toBe(true);
  });

  it('find places out of reach, but not what a fine tip rounds off in corners', () => {
    const square = (side: number, x: number) => Float64Array.of(x, 0, x + side, 0, x + side, side, x, side);
    const leaves = (sides: number[]) => ({
      a: { unreached: { area: sides.reduce((s, a) => s + a * a, 0), region: sides.map((a, i) => square(a, 2 * i)) } },
    });
    expect(findings(GOOD, jobWith(), leaves(Array(89).fill(0.03)))).toEqual([]);
    const one = findings(GOOD, jobWith(), leaves([0.03, 0.2]));
    expect(names(one)).toEqual(['unreached']);
    expect(one[0]).toMatchObject({ cutId: 'a', x: 2, y: 0 });
    // So many of them that a word is due.
    expect(names(findings(GOOD, jobWith(), leaves(Array(600).fill(0.03))))).toEqual(['unreached']);
  });

  it('find cutters without a slot, or with the same one, where programs go by slots', () => {
    const two = (a: number, b: number) =>
      jobWith((j) => {
        j.run.numbers = 'slots';
        j.cutters = [
          { ...cutterOf('flat-3'), slot: a },
          { ...cutterOf('flat-6'), slot: b },
        ];
      });
    const tools = (j: OneSetup) => {
      const numberOf = toolNumbers(j);
      return new Map(j.cutters.map((c) => [numberOf(c), c]));
    };
    const at = (a: number, b: number) => {
      const job = two(a, b);
      const map = tools(job);
      const placed = [placeProgram('x.nc', 'G21 G90\nM30', datumOf(job.blank), ['a', 'b'])];
      return {
        numbers: [...map.keys()],
        said: prove(job, placed, map, new Map(), 1)
          .findings.filter((f) => f.check === 'slots')
          .map((f) => f.text),
      };
    };
    expect(at(4, 9)).toEqual({ numbers: [4, 9], said: [] });
    expect(at(4, 4).numbers).toEqual([4, 5]);
    expect(at(4, 4).said[0]).toMatch(
      /End mill 6 mm" has slot 4, and so has "End mill 3 mm": the program calls it as tool 5/,
    );
    expect(at(0, 2)).toMatchObject({ numbers: [3, 2] });
    expect(at(0, 2).said[0]).toMatch(/has no slot/);
    const byUse = two(7, 7);
    byUse.run.numbers = 'order';
    expect([...tools(byUse).keys()]).toEqual([1, 2]);
  });

  it('each has a name of its own', () => {
    expect(new Set(checks.map((c) => c.name)).size).toBe(checks.length);
  });
});
