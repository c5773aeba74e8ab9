import { newOneSetup } from './job';
import { dialectOf, dialects } from '../program/dialect';
import { kindOf } from '../cuts/registry';
import { planCut } from '../pipeline/planning';
import { testArt } from '../testing/fonts';
import { demoSetups } from './demo';
import { jobOf, oneSetup } from './oneSetup';
import { lettersApart, oldJob } from '../testing/old';
import { JOB_VERSION, type OneSetup } from './job';
import { freshForm } from '../relief/freshForm';
import { JobError, readJob } from './migrate';
import { applied, recipeOf } from './recipe';

type Plain = Record<string, unknown>;
/** A job as version 7 had it: one set-up, whose parts stand in the job itself. */
const plain = (job: OneSetup) =>
  oldJob(job) as Plain & {
    cuts: { kind: string; values: Plain; overrides: Record<string, Plain> }[];
    run: Plain & { machine: Plain };
    items: Plain[];
    blank: Plain;
  };
/** A set-up had no name of its own then. */
const boards = Object.entries(demoSetups).filter(([, make]) => make().at.name === newOneSetup('').at.name);
const LAST_OF_ONE_SETUP = 7;

/** The same job as the version before would have written it. */
const older: Record<number, (job: ReturnType<typeof plain>) => void> = {
  6: (j) => {
    delete j.pictures;
    for (const c of j.cuts) if (c.kind === 'profile') delete c.values.skin;
  },
  5: (j) => {
    delete j.run.numbers;
    for (const c of j.cuts) for (const k of ['dwell', 'press', 'load']) delete c.values[k];
  },
  4: (j) => {
    for (const k of ['id', 'spindle', 'probe', 'dialect', 'factor']) delete j.run.machine[k];
    delete j.run.dialects;
    for (const c of j.cuts) {
      const {
        overRise: _o,
        endMills,
        cutters,
        pattern: _p,
        angle: _a,
        floorAllowance: _f,
        entry: _e,
        wall: _w,
        finish: _n,
        lead: _l,
        leadSize: _s,
        ...v
      } = c.values;
      const tool = (cutters as string[] | undefined)?.[0] ?? (v.cutter as string);
      c.values = {
        ...v,
        cutter: tool,
        ...(c.kind === 'vcarve' ? { endMill: (endMills as string[])[0] ?? null } : {}),
        ...(c.overrides[tool] ?? {}),
      };
      c.overrides = {};
    }
  },
  3: (j) => {
    delete j.fonts;
    delete j.guides;
  },
  2: (j) => {
    delete j.layers;
    delete j.groups;
    for (const i of j.items) for (const k of ['mirror', 'layer', 'group']) delete i[k];
  },
  1: (j) => void delete j.blank.intoBed,
};

describe('jobs of older versions', () => {
  it.each(boards.flatMap(([name, make]) => [7, 6].map((v) => [name, v, make] as const)))(
    '%s of version %i is read as it was meant',
    (_name, version, make) => {
      const job = make();
      const old = plain(job);
      for (let v = LAST_OF_ONE_SETUP - 1; v >= version; v--) older[v](old);
      old.version = version;
      expect(readJob(old)).toEqual(jobOf(lettersApart(job)));
    },
  );
  it.each([4, 3, 2, 1])('a board of version %i is read, and its cuts can be planned', (version) => {
    const old = plain(demoSetups['lock-cottage-board']());
    // What the kinds of that time did not know is left out.
    old.cuts = old.cuts.filter((c) => ['vcarve', 'area', 'profile'].includes(c.kind)).slice(0, 3);
    old.items = old.items.filter((i) => version > 2 || ['rectangle', 'ellipse', 'lettering'].includes(String(i.kind)));
    // Few letters are as good as many.
    for (const i of old.items) if (i.kind === 'lettering') i.values = { ...(i.values as Plain), text: 'L7' };
    for (let v = LAST_OF_ONE_SETUP - 1; v >= version; v--) older[v](old);
    old.version = version;
    const before = JSON.stringify(old);
    const whole = readJob(old);
    const job = oneSetup(whole);
    // The caller's own object is not touched.
    expect(JSON.stringify(old)).toBe(before);
    expect(whole.version).toBe(JOB_VERSION);
    const cut = job.cuts.find((c) => c.kind === 'profile') ?? job.cuts[0];
    const plan = planCut(job, cut, testArt);
    expect(plan.toolpaths.length).toBeGreaterThan(0);
    expect(plan.remarks.filter((r) => r.level === 'problem')).toEqual([]);
  });
  it('reads the forms of version 13, which had neither groups nor some of the values', () => {
    const job = jobOf(demoSetups['heron-medallion']());
    const { forms } = job.setups[0].relief;
    forms.push(
      freshForm('a', 'Edge', 'outline', { edge: 'flat', height: 1 }),
      freshForm('b', 'Level', 'ground', { height: 2 }),
      freshForm('c', 'Heron', 'picture', { picture: 'p', fade: 3 }),
      freshForm('d', 'Water', 'texture', { seed: 4 }),
    );
    const old = JSON.parse(JSON.stringify(job)) as typeof job & { version: number };
    for (const f of old.setups[0].relief.forms) {
      delete (f as Partial<typeof f>).group;
      for (const k of ['draft', 'dome', 'curve', 'crop', 'laid', 'follows']) delete f.values[k];
    }
    expect(old).not.toEqual(job);
    expect(readJob({ ...old, version: 13 })).toEqual(job);
    expect(() => readJob(old)).toThrow(JobError);
  });
  it('lets the relief cuts of version 15 begin at the top face, as they did', () => {
    const job = jobOf(demoSetups['heron-medallion']());
    const old = JSON.parse(JSON.stringify(job)) as typeof job;
    for (const c of old.setups[0].cuts) if (c.kind.startsWith('relief')) delete c.values.startDepth;
    expect(old).not.toEqual(job);
    expect(readJob({ ...old, version: 15 })).toEqual(job);
    expect(() => readJob(old)).toThrow(JobError);
  });
  it('eases no feeds of roughings of before version 21', () => {
    const job = jobOf(demoSetups['heron-medallion']());
    const old = JSON.parse(JSON.stringify(job)) as typeof job;
    const rough = (of: typeof job) => of.setups[0].cuts.find((c) => c.kind === 'reliefRough')!.values;
    delete rough(old).ease;
    expect(rough(job).ease).toBe('gentle');
    rough(job).ease = 'off';
    expect(readJob({ ...old, version: 20 })).toEqual(job);
    expect(() => readJob(old)).toThrow(JobError);
  });
  it('knows of no casting before version 17, and of corners and outlines as they are drawn, with no relief', () => {
    const job = jobOf(demoSetups['sluice-gear-plate']());
    const old = JSON.parse(JSON.stringify(job)) as typeof job;
    for (const s of old.setups) {
      delete (s as Partial<typeof s>).casting;
      for (const c of s.cuts) for (const k of ['corners', 'grow', 'relieved']) delete c.values[k];
    }
    const [now] = readJob({ ...old, version: 16 } as never).setups;
    expect(now.casting).toBeNull();
    for (const c of now.cuts) for (const k of ['corners', 'grow', 'relieved']) expect(Number(c.values[k] ?? 0)).toBe(0);
    expect(() => readJob(old)).toThrow(JobError);
  });
  it('leaves meshes of before version 20 as they stood', () => {
    const job = jobOf(demoSetups['heron-medallion']());
    const form = {
      ...structuredClone(job.setups[0].relief.forms[0]),
      id: 'm',
      kind: 'mesh',
      items: [],
      mask: null,
      group: null,
    };
    form.values = { mesh: 'a', up: 'y-', turn: 30, x: 1, y: 2, width: 3, height: 4, rise: 5, linked: true };
    const old = JSON.parse(JSON.stringify(job)) as typeof job;
    old.setups[0].relief.forms = [form];
    const [now] = readJob({ ...old, version: 19 } as never).setups;
    expect(now.relief.forms[0].values).toEqual({ ...form.values, tipX: 0, tipY: 0 });
    expect(() => readJob(old)).toThrow(JobError);
  });
  it('relieves no corners of cuts of before version 19', () => {
    const job = jobOf(demoSetups['lock-cottage-board']());
    for (const c of job.setups[0].cuts) delete c.values.relieved;
    const read = readJob({ ...JSON.parse(JSON.stringify(job)), version: 18 });
    expect(read).toEqual(job);
    const area = read.setups[0].cuts.find((c) => c.kind === 'area')!;
    expect(kindOf('area').schema.parse(area.values)).toMatchObject({ relieved: false });
  });
  it('clears inside of outlines as area clearances of before version 18 did', () => {
    const job = jobOf(demoSetups['lock-cottage-board']());
    const old = JSON.parse(JSON.stringify(job)) as typeof job;
    for (const c of old.setups[0].cuts) if (c.kind === 'area') for (const k of ['side', 'margin']) delete c.values[k];
    expect(old).not.toEqual(job);
    expect(readJob({ ...old, version: 17 } as never)).toEqual(job);
    expect(() => readJob(old)).toThrow(JobError);
  });
  it('keeps the floor of cuts that stopped above the underside, as a skin or a depth', () => {
    const old = plain(demoSetups['sluice-gear-plate']());
    const { thickness } = old.blank as { thickness: number };
    for (const c of old.cuts) if (c.kind === 'profile' || c.kind === 'drilling') c.values.beyond = -0.4;
    older[6](old);
    old.version = 6;
    const job = oneSetup(readJob(old));
    const floors = job.cuts
      .filter((c) => c.kind === 'profile' || c.kind === 'drilling')
      .map((c) => kindOf(c.kind).side(c.values, job.blank, () => null).floor);
    expect(floors).toHaveLength(2);
    for (const f of floors) expect(f).toBeCloseTo(thickness - 0.4, 9);
    expect(job.cuts.find((c) => c.kind === 'profile')!.values).toMatchObject({ through: true, beyond: 0, skin: 0.4 });
  });
  it('brings numbers that a maker could not have entered to where they could be', () => {
    const old = JSON.parse(JSON.stringify(jobOf(demoSetups['keeper-plate']()))) as unknown as {
      version: number;
      blanks: { width: number }[];
      setups: { items: { values: object }[]; cuts: { values: object; overrides: object }[]; safeHeight: number }[];
      run: { machine: { rapid: number; travel: { x: number } } };
    };
    const same = readJob({ ...old, version: 9 });
    expect(same).toEqual(jobOf(lettersApart(demoSetups['keeper-plate']())));
    old.version = 9;
    // Scaled by its handles to less than a rectangle may be: such a job was refused when it was opened again.
    const tiny = { kind: 'rectangle', values: { width: 0.0004, height: 5, corner: 'square', radius: 1 } };
    old.setups[0].items[0] = { ...old.setups[0].items[0], ...tiny };
    old.setups[0].cuts[0].overrides = { [Object.keys(old.setups[0].cuts[0].overrides)[0] ?? 'flat-3']: { feed: 2e6 } };
    old.setups[0].safeHeight = 400;
    old.blanks[0].width = 90_000;
    old.run.machine.rapid = 1e7;
    old.run.machine.travel.x = 0.2;
    const job = readJob(old);
    expect(job.setups[0].items[0].values).toEqual({ width: 0.01, height: 5, corner: 'square', radius: 1 });
    expect(Object.values(job.setups[0].cuts[0].overrides)).toEqual([{ feed: 100_000 }]);
    expect([job.setups[0].safeHeight, job.blanks[0].width, job.run.machine.rapid, job.run.machine.travel.x]).toEqual([
      300, 5000, 100_000, 1,
    ]);
    // What no version took is refused, as before; and so is what this one does not take.
    expect(() => readJob({ ...old, blanks: [{ ...old.blanks[0], width: -4 }] })).toThrow(/blanks\.0\.width/);
    expect(() => readJob({ ...old, version: JOB_VERSION })).toThrow(/wrong value at/);
  });
  it('knows a pattern of clearing by the name that it had, in a job and in a recipe', () => {
    const job = demoSetups['lock-cottage-board']();
    const cut = job.cuts.find((c) => c.kind === 'area')!;
    const before = { ...cut, values: { ...cut.values, pattern: 'even' } };
    const old = jobOf({ ...job, cuts: [before] });
    expect(readJob({ ...old, version: 10 }).setups[0].cuts[0].values.pattern).toBe('trochoidal');
    const { version: _, ...recipe } = recipeOf({ ...job, cuts: [before] }, [cut.id], 'r', 'Floor');
    const [back] = applied(recipe, job, ['i'], () => 'new').cuts;
    expect(back.values).toEqual({ corners: 0, grow: 0, relieved: false, ...before.values, pattern: 'trochoidal' });
    // What was kept is not changed by being used.
    expect(recipe.cuts[0].values.pattern).toBe('even');
  });
  it('says a kind that it does not know by name, of any version', () => {
    for (const version of [9, JOB_VERSION]) {
      const old = JSON.parse(JSON.stringify(jobOf(demoSetups['keeper-plate']()))) as unknown as {
        setups: { cuts: { kind: string }[] }[];
      };
      old.setups[0].cuts[0].kind = 'sawing';
      expect(() => readJob({ ...old, version })).toThrow(/sawing/);
    }
  });
  it.each([
    [null, /not a Mirvak job/],
    ['text', /not a Mirvak job/],
    [{ format: 'other' }, /not a Mirvak job/],
    [{ format: 'mirvak-job' }, /does not say its version/],
    [{ format: 'mirvak-job', version: 1.5 }, /does not say its version/],
    [{ format: 'mirvak-job', version: JOB_VERSION + 1 }, /newer one/],
    [{ format: 'mirvak-job', version: 1 }, /broken and cannot/],
    [{ format: 'mirvak-job', version: 4, cuts: 7, run: {} }, /broken|wrong value/],
  ])('what is none is refused in words: %#', (data, why) => {
    expect(() => readJob(data)).toThrow(JobError);
    expect(() => readJob(data)).toThrow(why);
  });
  it('says where a value is wrong', () => {
    const bad = plain(demoSetups['ferry-ring']());
    bad.blank.width = -5;
    expect(() => readJob(bad)).toThrow(/blanks\.0\.width/);
    const cut = plain(demoSetups['ferry-ring']());
    cut.cuts[0].values.startDepth = 'deep';
    expect(() => readJob(cut)).toThrow(/cuts\.0\.values\.startDepth/);
  });
});

describe('a dialect of a job that calls itself as a shipped one', () => {
  it('gets a name and id of its own, and the job goes on using it', () => {
    const job = newOneSetup('Lock 7');
    const own = { ...dialects[0], decimals: 3, footer: ['M9'] };
    const read = readJob(jobOf({ ...job, run: { ...job.run, dialects: [own] } }));
    expect(read.run.dialect).toBe('own-metric');
    expect(read.run.dialects).toEqual([{ ...own, id: 'own-metric', name: `${own.name}, of this job` }]);
    expect(dialectOf(read.run.dialect, read.run.dialects).decimals).toBe(3);
    expect(dialectOf('metric', [own]).decimals).toBe(4);
  });
});
