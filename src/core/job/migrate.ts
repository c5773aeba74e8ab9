import type { z } from 'zod';
import { FIRST_LAYER } from '../artwork/item';
import { itemKindOf } from '../artwork/registry';
import { ownStep } from '../cuts/kind';
import { kindOf } from '../cuts/registry';
import { cutterSchema, presetSchema } from '../cutters/cutter';
import { shapeOf } from '../cutters/registry';
import { machineSchema } from '../machine/profile';
import { dialects } from '../program/dialect';
import { formKindOf } from '../relief/registry';
import { noRelief } from '../relief/stack';
import { issueWords } from '../units/issues';
import { heldWithin, type Limits } from '../units/limits';
import { assetsIn, type OldLists } from './oldAssets';
import {
  FIRST_BLANK,
  FIRST_SETUP,
  JOB_VERSION,
  jobSchema,
  ownKeys,
  pieceKeys,
  pieceSchema,
  placingKeys,
  setupSchema,
  type Job,
} from './job';

/** Raised when something is no job that can be opened; says what and where. */
export class JobError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'JobError';
  }
}

type Plain = Record<string, unknown>;
/** Something of a kind, as an earlier version has it. */
interface Old {
  kind: string;
  shape?: unknown;
  values: Plain;
  overrides: Record<string, Plain>;
}

/** A form of a relief, as an earlier version has it. */
interface OldForm {
  kind: string;
  group?: string | null;
  values: Plain;
}
const formsIn = (job: Plain): OldForm[] =>
  (job.setups as { relief: { forms: OldForm[] } }[]).flatMap((s) => s.relief.forms);
/** What forms do not say yet is as it is for a fresh one. */
function fillForms(job: Plain): void {
  for (const f of formsIn(job))
    f.values = { ...structuredClone(known(() => formKindOf(f.kind))?.defaults as Plain | undefined), ...f.values };
}

/**
 * Steps from one version of the format to the next, each changing plain data in place. Version 1 (the
 * format's first draft) had no allowance for cutting into the bed; version 2 had neither layers nor groups;
 * version 3 had neither fonts of its own nor guides; in version 4 a cut had one cutter for a floor, its steps lay among its
 * values, and machines said nothing of their spindle; in version 5 drills did not wait and diamonds had no spring;
 * version 6 kept no pictures, and a skin was a depth below zero; version 7 had one blank and one set-up, whose parts stood in
 * the job itself; in version 8 fonts and pictures had lists of their own; in version 9
 * numbers could lie beyond what their fields take; in version 10 letters never joined, and a pattern of clearing had another
 * name; version 11 had no relief, and in version 12 no form had a profile of its own; version 13 had
 * no groups of forms, and fewer values of some kinds; in version 19 meshes were not
 * tipped, and in version 20 roughing eased no feeds. What belongs to a kind of cut or of artwork stands with the kind (`upgrades`).
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
    for (const cut of job.cuts as Old[]) {
      const { stepDown, ...values } = cut.values;
      ownStep({ ...cut, thickness: 0 }, values.cutter, stepDown, 'stepDown');
      cut.values = values;
    }
  },
  6: (job) => {
    job.pictures ??= [];
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
  9: (job) => {
    for (const c of job.cutters as Old[])
      Object.assign(c, held(cutterSchema, c), { values: heldOf(() => shapeOf(String(c.shape)), c.values) });
    for (const c of job.cutters as { presets: Record<string, Plain> }[])
      for (const [k, preset] of Object.entries(c.presets)) c.presets[k] = held(presetSchema, preset);
    job.blanks = (job.blanks as Plain[]).map((b) => held(pieceSchema, b));
    job.run = { ...(job.run as Plain), machine: held(machineSchema, (job.run as Plain).machine) };
    job.setups = (job.setups as { items: Old[]; cuts: Old[] }[]).map((s) => ({
      ...held(setupSchema, s),
      items: s.items.map((i) => ({ ...i, values: heldOf(() => itemKindOf(i.kind), i.values) })),
      cuts: s.cuts.map((c) => ({
        ...c,
        values: heldOf(() => kindOf(c.kind), c.values),
        overrides: Object.fromEntries(Object.entries(c.overrides).map(([id, o]) => [id, held(presetSchema, o)])),
      })),
    }));
  },
  11: (job) => {
    for (const s of job.setups as Plain[]) s.relief ??= noRelief();
  },
  12: (job) => {
    for (const s of job.setups as { relief: { forms: Plain[] } }[])
      for (const f of s.relief.forms) f.profile ??= { items: [] };
  },
  13: (job) => {
    for (const f of formsIn(job)) f.group ??= null;
    fillForms(job);
  },
  16: (job) => {
    for (const s of job.setups as Plain[]) s.casting ??= null;
  },
  19: fillForms,
};

/** Numbers that an earlier version took: none below zero where there must be something, none out of all measure. */
const accepted = (v: number, { min = -Infinity, max = Infinity }: Limits): boolean =>
  (min <= 0 ? v >= min : v > 0) && v <= 100 * max;
const held = <V>(schema: z.ZodType, values: V): V => heldWithin(schema, values, accepted);

/** What a registry has, or null where it knows no such thing: that is said when the whole job is looked at. */
function known<K>(find: () => K): K | null {
  try {
    return find();
  } catch {
    return null;
  }
}
function heldOf(find: () => { readonly schema: z.ZodType }, values: Plain): Plain {
  const kind = known(find);
  return kind ? held(kind.schema, values) : values;
}

/** Each kind of artwork and of cut knows what has become of its own values. A job before version 7 had one blank, its own. */
function upgradeKinds(job: Plain, version: number): void {
  const { thickness } = (job.blank ?? {}) as { thickness: number };
  for (const s of (job.setups ?? [job]) as { items: Old[]; cuts: Old[] }[]) {
    for (const i of s.items) {
      const to = known(() => itemKindOf(i.kind))?.upgrades?.[version];
      if (to) i.values = to(i.values);
    }
    for (const c of s.cuts) upgradeCut(c, version, thickness);
  }
}

/** Brings a cut from one version to the next. `thickness` is that of its blank, mm. */
export function upgradeCut(c: Omit<Old, 'shape'>, version: number, thickness: number): void {
  const cut = { values: c.values, overrides: c.overrides, thickness };
  known(() => kindOf(c.kind))?.upgrades?.[version]?.(cut);
  c.values = cut.values;
}

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
      upgradeKinds(job, v);
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
