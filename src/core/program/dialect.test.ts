import { flatField } from '../relief/field';
import fc from 'fast-check';
import { newOneSetup } from '../job/job';
import { jobOf } from '../job/oneSetup';
import { placePrograms, timePrograms } from '../pipeline/proving';
import { writePrograms } from '../pipeline/programs';
import { readJob } from '../job/migrate';
import { calibrated, machines } from '../machine/profile';
import { limits } from '../proof/checks/limits';
import { planOn, library } from '../testing/job';
import { box } from '../testing/shapes';
import { dialectIn, dialectOf, dialects, dialectSchema, type Dialect } from './dialect';
import { parseProgram } from './parser';
import { trialParts, troubleWith } from './verify';
import { writeProgram } from './writer';

const info = { title: 'Trial', datum: { x: 10, y: 5, z: 0 }, safeHeight: 10, park: { x: 0, y: 0 }, remarks: [] };
const textOf = (d: Dialect) => writeProgram(trialParts(), info, d);

describe('dialects', () => {
  it.each(dialects.map((d) => [d.name, d] as const))('%s says what was planned', (_name, d) => {
    expect(dialectSchema.safeParse(d).success).toBe(true);
    expect(troubleWith(d, trialParts(), info)).toBeNull();
  });
  it('of any making say what was planned, or it is said why not', () => {
    const any = fc.record({
      unit: fc.constantFrom('mm' as const, 'in' as const),
      arcs: fc.boolean(),
      decimals: fc.integer({ min: 2, max: 6 }),
      files: fc.constant('any' as const),
      change: fc.constantFrom('command' as const, 'pause' as const),
      toolLength: fc.boolean(),
      spindleWait: fc.constantFrom(0, 2.5),
      comments: fc.constantFrom('brackets' as const, 'semicolon' as const),
      numbers: fc.boolean(),
      end: fc.constantFrom('M30' as const, 'M2' as const),
    });
    fc.assert(
      fc.property(any, (v) => {
        const said = troubleWith({ ...dialects[0], ...v }, trialParts(), info);
        const coarse = v.unit === 'in' ? v.decimals < 5 : v.decimals < 3;
        if (coarse) expect(said).not.toBeNull();
        else expect(said).toBeNull();
      }),
    );
  });
  it.each([
    ['M3 S500', null],
    ['G91', /./],
    ['G20', /how numbers are read/],
    ['G73 X0', /moves the machine/],
    ['G77', /not known/],
    ['M30', /ends the program/],
    ['T9 M6', null],
    ['(open', /not closed/],
    ['G54', null],
  ] as const)('a line "%s" of the maker\u2019s own is tried before it is trusted', (line, said) => {
    const trouble = troubleWith({ ...dialects[0], header: [line] }, trialParts(), info);
    if (said) expect(trouble).toMatch(said);
    else expect(trouble).toBeNull();
  });
  it('write what they are named for', () => {
    expect(textOf(dialectOf('metric-lines'))).not.toMatch(/G[23]\b/);
    expect(textOf(dialectOf('metric-pause'))).toMatch(/T2\nM0\n/);
    expect(textOf(dialectOf('metric-pause'))).not.toMatch(/M6/);
    expect(textOf(dialectOf('metric-length'))).toMatch(/^N\d+ G43 H1$/m);
    expect(textOf(dialectOf('inch'))).toMatch(/G20/);
    expect(textOf(dialectOf('metric-cycles'))).toMatch(/^G99 G83 X0\.0* Y30\.0* Z-3\.0* R0\.30* Q2\.0* F180\nG80$/m);
    expect(textOf(dialectOf('metric-cycles'))).toMatch(/^G99 G82 X20\.0* Y30\.0* Z-2\.50* R2\.0* P0\.4 F180\nG80$/m);
    expect(textOf(dialectOf('metric'))).not.toMatch(/G8[123]/);
    expect(parseProgram(textOf(dialectOf('metric-pause'))).dwell).toBe(6);
    expect(parseProgram(textOf(dialectOf('metric-pause'))).toolChanges).toBe(3);
  });
  it('of the maker\u2019s own are found in the job, and a job with one that is not there is refused', () => {
    const own = { ...dialects[0], id: 'own-1', name: 'Mine' };
    const job = newOneSetup('x');
    job.run = { ...job.run, dialect: 'own-1', dialects: [own] };
    expect(readJob(jobOf(job)).run.dialects[0].name).toBe('Mine');
    expect(() => readJob(jobOf({ ...job, run: { ...job.run, dialects: [] } }))).toThrow(/no dialect called "own-1"/);
  });
});

describe('machines', () => {
  const proven = (
    values: Record<string, unknown>,
    change: (j: ReturnType<typeof newOneSetup>) => void,
    rpm = 12000,
  ) => {
    const { plan, job } = planOn('area', { cutters: ['flat-3'], depth: 2, ...values }, [box(10, 10, 60, 40)], {
      width: 100,
      height: 60,
    });
    job.cutters = [library.find((c) => c.id === 'flat-3')!];
    job.cuts = [{ id: 'c', name: 'Channel', kind: 'area', enabled: true, items: [], values: {}, overrides: {} }];
    change(job);
    const plans = new Map([['c', { ...plan, toolpaths: plan.toolpaths.map((t) => ({ ...t, rpm })) }]]);
    const programs = placePrograms(job, writePrograms(job, plans));
    return {
      job,
      programs,
      findings: limits
        .run({ job, programs, tools: new Map(), plans, collisions: [], field: flatField(1, 1, 1) })
        .map((f) => f.text),
    };
  };
  it('are held to their travel, their feeds and their spindle', () => {
    expect(proven({}, () => {}).findings).toEqual([]);
    const small = proven(
      {},
      (j) =>
        void (j.run.machine = { ...machines[1], travel: { x: 45, y: 200, z: 8 }, maxFeed: { x: 600, y: 700, z: 500 } }),
      30000,
    ).findings;
    expect(small).toHaveLength(4);
    expect(small.join(' ')).toMatch(/30000 rpm.*20000 at most.*in X.*travels 45.*in Z/s);
    expect(proven({}, () => {}, 1000).findings[0]).toMatch(/no slower than 6000/);
  });
  it('learn from the minutes that are reported', () => {
    expect(calibrated([10, 20], [12, 24])).toBeCloseTo(1.2, 12);
    expect(calibrated([], [])).toBe(1);
    const { job, programs } = proven({}, () => {});
    const before = timePrograms(job, programs);
    job.run.machine = { ...job.run.machine, factor: 1.25 };
    const after = timePrograms(job, programs);
    const still = (before.toolChanges * (job.run.machine.toolChangeSeconds + job.run.machine.spindleSeconds)) / 60;
    expect(after.minutes - still).toBeCloseTo(1.25 * (before.minutes - still), 9);
    expect(after.standing).toBeCloseTo(still, 12);
  });
  it('wait for a spindle once: as long as it takes, or as the program says, whichever is longer', () => {
    const minutes = (spindleWait: number) => {
      const { job, programs } = proven({}, (j) => {
        j.run.dialects = [{ ...dialectOf('metric'), id: 'own-wait', spindleWait }];
        j.run.dialect = 'own-wait';
      });
      return timePrograms(job, programs);
    };
    const [none, short, long] = [0, 2, 10].map(minutes);
    expect(short.minutes).toBeCloseTo(none.minutes, 9);
    expect(60 * (long.minutes - none.minutes)).toBeCloseTo(long.toolChanges * 7, 6);
  });
});

describe('a dialect in the other unit', () => {
  it('is one that is there, or a copy that differs in nothing else', () => {
    expect(dialectIn(dialectOf('metric'), 'in', [], 'own-1')).toEqual({ dialect: dialectOf('inch'), fresh: false });
    expect(dialectIn(dialectOf('inch'), 'mm', [], 'own-1')).toEqual({ dialect: dialectOf('metric'), fresh: false });
    const made = dialectIn(dialectOf('metric-pause'), 'in', [], 'own-1');
    expect(made).toMatchObject({
      fresh: true,
      dialect: {
        ...dialectOf('metric-pause'),
        id: 'own-1',
        unit: 'in',
        decimals: 5,
        name: 'Inch, arcs, pause for the tool change',
      },
    });
    // Once it is kept, it is found again, and so is the way back.
    expect(dialectIn(dialectOf('metric-pause'), 'in', [made.dialect], 'own-2').dialect).toBe(made.dialect);
    expect(dialectIn(made.dialect, 'mm', [made.dialect], 'own-2').dialect.id).toBe('metric-pause');
  });
});
