import { FIRST_LAYER } from '../artwork/item';
import { dialects } from '../program/dialect';
import { issueWords } from '../units/issues';
import { assetsIn, type OldLists } from './oldAssets';
import { FIRST_BLANK, FIRST_SETUP, JOB_VERSION, jobSchema, ownKeys, pieceKeys, placingKeys, type Job } from './job';

/** Raised when something is no job that can be opened; says what and where. */
export class JobError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'JobError';
  }
}

type Plain = Record<string, unknown>;

/**
 * Steps from one version of the format to the next, each changing plain data in place. Version 1 (the
 * format's first draft) had no allowance for cutting into the bed; version 2 had neither layers nor groups;
 * version 3 had neither fonts of its own nor guides; in version 4 a cut had one cutter for a floor, its steps lay among its
 * values, and machines said nothing of their spindle; in version 5 drills did not wait and diamonds had no spring;
 * version 6 kept no pictures, and a skin was a depth below zero; version 7 had one blank and one set-up, whose parts stood in
 * the job itself; in version 8 fonts and pictures had lists of their own.
 */
const steps: Record<number, (job: Plain) => void> = {
  1: (job) => {
    const blank = job.blank as Plain;
    blank.intoBed ??= 0;
  },
  2: (job) => {
    job.layers ??= [{ id: FIRST_LAYER, name: 'Layer 1', colour: '#1e2a2f', visible: true, locked: false }];
    job.groups ??= [];
    for (const i of job.items as Plain[]) {
      i.mirror ??= false;
      i.layer ??= FIRST_LAYER;
      i.group ??= null;
      if (i.kind === 'lettering') i.values = { baseline: 'straight', radius: 50, at: 90, ...(i.values as Plain) };
    }
  },
  3: (job) => {
    job.fonts ??= [];
    job.guides ??= [];
  },
  4: (job) => {
    const run = job.run as Plain;
    run.dialects ??= [];
    run.machine = {
      id: 'own',
      spindle: { min: 0, max: 60000 },
      probe: false,
      dialect: run.dialect,
      factor: 1,
      ...(run.machine as Plain),
    };
    for (const cut of job.cuts as { kind: string; values: Plain; overrides: Record<string, Plain> }[]) {
      const own = (cutter: unknown, key: string, value: unknown) => {
        if (typeof cutter === 'string' && typeof value === 'number') (cut.overrides[cutter] ??= {})[key] = value;
      };
      const { stepDown, stepOver, floorStep, endMillStep, endMill, cutter, ...v } = cut.values;
      own(cutter, 'stepDown', stepDown);
      if (cut.kind === 'vcarve') {
        own(cutter, 'stepOver', floorStep);
        own(endMill, 'stepOver', endMillStep);
        cut.values = { ...v, cutter, endMills: endMill ? [endMill] : [], overRise: 0 };
      } else if (cut.kind === 'area') {
        own(cutter, 'stepOver', stepOver);
        cut.values = {
          ...v,
          cutters: [cutter],
          pattern: 'contours',
          angle: 0,
          floorAllowance: 0,
          entry: 'ramp',
          wall: null,
        };
      } else
        cut.values = {
          ...v,
          cutter,
          finish: 0,
          lead: 'none',
          leadSize: 3,
          tabs: { shape: 'rectangular', by: 'count', spacing: 80, ...(v.tabs as Plain) },
        };
    }
  },
  5: (job) => {
    for (const cut of job.cuts as { kind: string; values: Plain }[]) {
      if (cut.kind === 'drilling') cut.values = { dwell: 0, ...cut.values };
      if (cut.kind === 'drag') cut.values = { press: 'depth', load: 5, ...cut.values };
    }
  },
  6: (job) => {
    job.pictures ??= [];
    const { thickness } = job.blank as { thickness: number };
    for (const cut of job.cuts as { kind: string; values: Plain }[]) {
      const beyond = Number(cut.values.beyond);
      // What stayed below a profile was a negative depth into the spoilboard; a drill that stops above it has a depth.
      if (cut.kind === 'profile')
        cut.values = { ...cut.values, beyond: Math.max(0, beyond), skin: Math.max(0, -beyond) };
      if (cut.kind === 'drilling' && beyond < 0)
        cut.values = {
          ...cut.values,
          beyond: 0,
          ...(cut.values.through === true && { through: false, depth: thickness + beyond }),
        };
    }
  },
  7: (job) => {
    const blank = job.blank as Plain;
    const taken = (from: Plain, keys: readonly string[]) =>
      Object.fromEntries(keys.filter((k) => k in from).map((k) => [k, from[k]]));
    job.blanks = [{ id: FIRST_BLANK, name: 'Blank 1', ...taken(blank, pieceKeys) }];
    job.setups = [
      {
        id: FIRST_SETUP,
        name: 'Set-up 1',
        blank: FIRST_BLANK,
        after: null,
        ...taken(blank, placingKeys),
        ...taken(job, ownKeys),
      },
    ];
    for (const k of ['blank', ...ownKeys]) delete job[k];
  },
  8: (job) => {
    job.assets = assetsIn(job as OldLists);
    delete job.fonts;
    delete job.pictures;
  },
};

/** A dialect of the job's own that has the id of a shipped one gets one of its own: neither takes the other's place. */
function keepApart(job: Plain): void {
  const run = job.run as { dialect?: unknown; dialects?: { id?: unknown; name?: unknown }[] } | undefined;
  if (!Array.isArray(run?.dialects)) return;
  for (const d of run.dialects) {
    const shipped = dialects.find((q) => q.id === d?.id);
    if (!shipped) continue;
    if (run.dialect === d.id) run.dialect = `own-${shipped.id}`;
    d.id = `own-${shipped.id}`;
    if (d.name === shipped.name) d.name = `${shipped.name}, of this job`;
  }
}

/** Any parsed JSON to a job of the present version. Throws JobError. */
export function readJob(data: unknown): Job {
  if (typeof data !== 'object' || data === null || (data as Plain).format !== 'mirvak-job')
    throw new JobError('This is not a Mirvak job: its "format" is not "mirvak-job".');
  // Jobs are JSON: a copy by way of text is exact, and the caller's object stays as it was.
  const job = JSON.parse(JSON.stringify(data)) as Plain;
  const version = job.version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new JobError('The job does not say its version.');
  if (version > JOB_VERSION)
    throw new JobError(
      `The job is of version ${version}; this Mirvak reads up to version ${JOB_VERSION}. Open it with a newer one.`,
    );
  for (let v = version; v < JOB_VERSION; v++) {
    try {
      steps[v]?.(job);
    } catch {
      throw new JobError(`The job of version ${v} is broken and cannot be brought up to date.`);
    }
    job.version = v + 1;
  }
  keepApart(job);
  const r = jobSchema.safeParse(job);
  if (!r.success) {
    const i = r.error.issues[0];
    // The last thing with a name on the way to it.
    let at: unknown = job;
    let thing: unknown;
    for (const k of i.path) {
      at = (at as Plain | undefined)?.[k as string];
      const { name } = (at ?? {}) as { name?: unknown };
      if (typeof name === 'string') thing = name;
    }
    const words = issueWords(i);
    throw new JobError(
      `The job has a wrong value at ${i.path.join('.') || 'its root'}${typeof thing === 'string' ? ` ("${thing.slice(0, 60)}")` : ''}: ${words}${words.endsWith('.') ? '' : '.'}`,
    );
  }
  return r.data;
}
