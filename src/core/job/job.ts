import { z } from 'zod';
import { FIRST_LAYER, itemSchema } from '../artwork/item';
import { assetSchema } from './assets';
import { castIds } from '../cutters/castMaterials';
import { materialIds } from '../cutters/materials';
import { paintIds } from '../cutters/paints';
import { cutterSchema, presetSchema } from '../cutters/cutter';
import { kindOf } from '../cuts/registry';
import { benchRouter, machineSchema } from '../machine/profile';
import { dialectOf, dialectSchema } from '../program/dialect';
import { noRelief, reliefSchema } from '../relief/stack';
import type { Unit } from '../units/length';
import { roundInches } from '../units/round';
import { valuesAreSound } from '../units/issues';

/** Version of the job format; see docs/job-format.md and ./migrate.ts. */
export const JOB_VERSION = 21;

/** So many of each thing a job holds at most: far more than one works with, few enough that none stops the application. */
export const mostOf = {
  blanks: 50,
  setups: 50,
  clamps: 200,
  assets: 1200,
  guides: 200,
  layers: 2000,
  groups: 100_000,
  items: 250_000,
  cutters: 1000,
  cuts: 1000,
} as const;
type Counted = keyof typeof mostOf;
const called: Readonly<Record<Counted, string>> = {
  blanks: 'blanks',
  setups: 'set-ups',
  clamps: 'clamps',
  assets: 'files of its own',
  guides: 'guides',
  layers: 'layers',
  groups: 'groups',
  items: 'things drawn',
  cutters: 'cutters',
  cuts: 'cuts',
};

function tooManyOf(
  what: Counted,
  now: { readonly length: number },
  was: { readonly length: number } | undefined,
): string | null {
  if (now.length <= mostOf[what] || now.length <= (was?.length ?? 0)) return null;
  return `A job holds at most ${mostOf[what]} ${called[what]}; this would make ${now.length}. Nothing was changed.`;
}

/** What is said of a change that makes a job, or one set-up of it, hold more than it can; null where it does not. */
export function tooMany(before: Job, after: Job): string | null {
  for (const k of ['blanks', 'setups', 'assets', 'cutters'] as const) {
    const words = tooManyOf(k, after[k], before[k]);
    if (words) return words;
  }
  for (const s of after.setups) {
    const was = before.setups.find((q) => q.id === s.id);
    if (was === s) continue;
    for (const k of ['clamps', 'guides', 'layers', 'groups', 'items', 'cuts'] as const) {
      const words = tooManyOf(k, s[k], was?.[k]);
      if (words) return words;
    }
  }
  return null;
}

/** Nine places of the datum: column l, c, r and row b, m, t. */
export const datumPlaces = ['lt', 'ct', 'rt', 'lm', 'cm', 'rm', 'lb', 'cb', 'rb'] as const;
export type DatumPlace = (typeof datumPlaces)[number];

/** A place, mm: within a kilometre of the blank. */
const mm = z.number().min(-1e6).max(1e6);
const size = z.number().min(1).max(5000);

/** A piece of material, wherever it lies. */
const pieceFields = {
  width: size,
  height: size,
  thickness: z.number().min(0.1).max(300),
  material: z.enum(materialIds),
  /** What is left in the cuts when the face was painted and sanded. */
  paint: z.enum(paintIds).default('none'),
};
/** How a piece lies on the machine. */
const placingFields = {
  datum: z.enum(datumPlaces),
  zZero: z.enum(['top', 'bed']),
  /** Heights above the top face. */
  safeHeight: z.number().min(0.5).max(300),
  clearance: z.number().min(0.1).max(300),
  /** So far above what is to be cut the cutter comes down by rapid; the rest of the way by the plunge feed. */
  approach: z.number().min(0.05).max(50).default(0.5),
  /** Where the spindle waits at the end, in the blank's frame. */
  park: z.object({ x: mm, y: mm }),
  /** Whether a cutter that is changed by hand is changed at the park position. */
  parkAtChange: z.boolean().default(false),
  /** How far below the underside a cut may go (a spoil board), mm. */
  intoBed: z.number().min(0).max(50),
};
export const pieceKeys = Object.keys(pieceFields) as readonly (keyof typeof pieceFields)[];
export const placingKeys = Object.keys(placingFields) as readonly (keyof typeof placingFields)[];

/** A blank as it lies on the machine: the piece, and how it lies there. */
export const blankSchema = z.object({ ...pieceFields, ...placingFields });
export type Blank = z.infer<typeof blankSchema>;

export const cutSchema = z
  .object({
    id: z.string().min(1),
    name: z.string(),
    kind: z.string(),
    enabled: z.boolean(),
    /** Whether its paths are left out of the drawing; it is cut all the same. */
    hidden: z.boolean().optional(),
    /** Whether it rides on the relief: its depths count from that surface. */
    rides: z.boolean().optional(),
    items: z.array(z.string()),
    values: z.record(z.string(), z.unknown()),
    /** This cut's own speeds per cutter, on top of the preset. */
    overrides: z.record(z.string(), presetSchema.partial()),
  })
  .superRefine((cut, ctx) => {
    try {
      valuesAreSound(cut.values, kindOf(cut.kind), ctx);
    } catch (e) {
      ctx.addIssue({ code: 'custom', path: ['kind'], message: (e as Error).message });
    }
  });
export type Cut = z.infer<typeof cutSchema>;

export const clampSchema = z.object({ x0: mm, y0: mm, x1: mm, y1: mm, height: z.number().positive().max(1000) });

/** A sheet of artwork: what is on a hidden one is not drawn, what is on a locked one is not picked. */
export const layerSchema = z.object({
  id: z.string().min(1),
  name: z.string().max(200),
  colour: z.string().regex(/^#[0-9a-f]{6}$/i),
  visible: z.boolean(),
  locked: z.boolean(),
});
export type Layer = z.infer<typeof layerSchema>;

/** A group of items; `parent` is the group that holds it. */
export const groupSchema = z.object({
  id: z.string().min(1),
  name: z.string().max(200),
  parent: z.string().nullable(),
});
export type Group = z.infer<typeof groupSchema>;

/** A blank of the job: a piece of material that one set-up, or several after each other, lay on the machine. */
export const pieceSchema = z.object({ id: z.string().min(1), name: z.string().min(1).max(200), ...pieceFields });
export type BlankPiece = z.infer<typeof pieceSchema>;

/** About which axis a blank is turned over between two set-ups: about X its far edge comes to the front, about Y its right edge to the left. */
export const turns = ['none', 'x', 'y'] as const;
export type TurnedOver = (typeof turns)[number];

/** What is cast in what a set-up cuts. */
export const castingSchema = z.object({
  material: z.enum(castIds),
  /** How far below the top face the mould is filled, mm; null: up to the highest that is left of it. */
  below: z.number().min(0).max(300).nullable(),
  /** From the mould to cold, linear, percent. */
  shrinks: z.number().min(0).max(10),
  /** Walls lean so much from upright at least, degrees, or they hold on to it. */
  draft: z.number().min(0).max(45),
});
export type CastingValues = z.infer<typeof castingSchema>;

/** A blank on the machine, with what is drawn on its upper face and cut there. */
export const setupSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1).max(200),
  /** The blank's id. */
  blank: z.string().min(1),
  /** The set-up whose result this one starts from, and how the blank is turned over in between; null for an uncut blank. */
  after: z.object({ setup: z.string().min(1), turned: z.enum(turns) }).nullable(),
  /** The set-up into whose piece this one's goes, turned over about that axis: a plug. Their blanks lie corner on corner then. */
  fits: z
    .object({
      setup: z.string().min(1),
      turned: z.enum(['x', 'y']),
      /** Thickness of the sheet that both press between them, mm: dies, and no inlay. */
      sheet: z.number().min(0.01).max(10).optional(),
    })
    .optional(),
  ...placingFields,
  clamps: z.array(clampSchema).max(mostOf.clamps),
  /** Lines across the table that artwork is brought to. */
  guides: z.array(z.object({ axis: z.enum(['x', 'y']), at: mm })).max(mostOf.guides),
  layers: z.array(layerSchema).min(1).max(mostOf.layers),
  groups: z.array(groupSchema).max(mostOf.groups),
  items: z.array(itemSchema).max(mostOf.items),
  relief: reliefSchema,
  cuts: z.array(cutSchema).max(mostOf.cuts),
  /** Null where it is no mould. */
  casting: castingSchema.nullable(),
});
export type Setup = z.infer<typeof setupSchema>;

type Refuse = (path: (string | number)[], message: string) => void;

/** What must hold between the things of one set-up. */
function checkSetup(s: Setup, refuse: Refuse): void {
  twice('layers', s.layers, (m) => refuse(['layers'], m));
  twice('groups', s.groups, (m) => refuse(['groups'], m));
  twice('forms', s.relief.forms, (m) => refuse(['relief', 'forms'], m));
  const layers = new Set(s.layers.map((l) => l.id));
  const parents = new Map(s.groups.map((g) => [g.id, g.parent]));
  for (const i of s.items) {
    if (!layers.has(i.layer)) refuse(['items'], `"${i.name}" lies on a layer that is not there.`);
    if (i.group !== null && !parents.has(i.group))
      refuse(['items'], `"${i.name}" belongs to a group that is not there.`);
  }
  for (const g of s.groups) {
    let up: string | null | undefined = g.parent;
    for (let n = 0; up !== null; n++, up = parents.get(up))
      if (up === undefined || n > s.groups.length)
        return refuse(['groups'], `The group "${g.name}" has no proper parent.`);
  }
}

function twice(what: string, list: readonly { readonly id: string }[], say: (message: string) => void): void {
  const seen = new Set<string>();
  for (const { id } of list) {
    if (seen.has(id)) say(`Two ${what} have the id "${id}".`);
    seen.add(id);
  }
}

export const jobSchema = z
  .object({
    format: z.literal('mirvak-job'),
    version: z.literal(JOB_VERSION),
    name: z.string().min(1).max(200),
    notes: z.string().max(100_000),
    unit: z.enum(['mm', 'in']),
    assets: z.array(assetSchema).max(mostOf.assets),
    blanks: z.array(pieceSchema).min(1).max(mostOf.blanks),
    /** In the order in which they are run. */
    setups: z.array(setupSchema).min(1).max(mostOf.setups),
    /** The job's own copies of the cutters it uses, so that a file says everything. */
    cutters: z.array(cutterSchema).max(mostOf.cutters),
    run: z.object({
      dialect: z.string(),
      /** Dialects of the maker's own that the job may be written in. */
      dialects: z.array(dialectSchema).max(50),
      files: z.enum(['one', 'cutter', 'cut']),
      /** Tool numbers: in the order of use, or the cutters' slots in the machine. */
      numbers: z.enum(['order', 'slots']).default('order'),
      machine: machineSchema,
    }),
  })
  .superRefine((job, ctx) => {
    const refuse: Refuse = (path, message) => ctx.addIssue({ code: 'custom', path, message });
    const all = <K extends 'items' | 'cuts'>(k: K) =>
      job.setups.flatMap((s) => s[k] as readonly { readonly id: string }[]);
    twice('assets', job.assets, (m) => refuse(['assets'], m));
    twice('blanks', job.blanks, (m) => refuse(['blanks'], m));
    twice('set-ups', job.setups, (m) => refuse(['setups'], m));
    // Ids of items and cuts are the job's: a database keeps items by them.
    twice('items', all('items'), (m) => refuse(['setups'], m));
    twice('cuts', all('cuts'), (m) => refuse(['setups'], m));
    twice('cutters', job.cutters, (m) => refuse(['cutters'], m));
    job.setups.forEach((s, n) => {
      const refuseHere: Refuse = (path, message) => refuse(['setups', n, ...path], message);
      checkSetup(s, refuseHere);
      if (!job.blanks.some((b) => b.id === s.blank))
        refuseHere(['blank'], `"${s.name}" lies on a blank that is not there.`);
      const source = s.after && job.setups.slice(0, n).find((q) => q.id === s.after!.setup);
      if (s.after && !source) refuseHere(['after'], `"${s.name}" starts from a set-up that does not come before it.`);
      if (source && source.blank !== s.blank)
        refuseHere(['after'], `"${s.name}" starts from a set-up of another blank.`);
      if (s.fits && !job.setups.some((q) => q.id === s.fits!.setup && q.blank !== s.blank))
        refuseHere(['fits'], `"${s.name}" goes into a set-up that is not there, or lies on its own blank.`);
    });
    try {
      dialectOf(job.run.dialect, job.run.dialects);
    } catch (e) {
      refuse(['run', 'dialect'], (e as Error).message);
    }
  });
export type Job = z.infer<typeof jobSchema>;

/** What of a job bears on all its set-ups. */
export const sharedKeys = ['name', 'notes', 'unit', 'assets', 'cutters', 'run'] as const;
/** What of a set-up stands in it as it is. */
export const ownKeys = ['clamps', 'guides', 'layers', 'groups', 'items', 'relief', 'cuts', 'casting'] as const;

/** One set-up with all of its job that bears on it: what planners, sheets and the table work on. See ./oneSetup.ts. */
export type OneSetup = Pick<Job, (typeof sharedKeys)[number]> &
  Pick<Setup, (typeof ownKeys)[number]> & {
    /** The blank as it lies in this set-up. */
    blank: Blank;
    readonly at: {
      readonly id: string;
      readonly name: string;
      /** Its place in the order of running, from 1. */
      readonly number: number;
      readonly after: Setup['after'];
      /** Whether the job has no other. */
      readonly only: boolean;
    };
  };

/** Lengths of a blank that a unit makes round. */
const BLANK_LENGTHS = ['width', 'height', 'thickness', 'safeHeight', 'clearance', 'approach', 'intoBed'] as const;

/** A blank as a new job in a unit begins with. */
export function newBlank(unit: Unit): Blank {
  const mm: Blank = {
    width: 300,
    height: 200,
    thickness: 18,
    material: 'oak',
    paint: 'none',
    datum: 'lb',
    zZero: 'top',
    safeHeight: 10,
    clearance: 2,
    approach: 0.5,
    park: { x: 0, y: 0 },
    parkAtChange: false,
    intoBed: 0.5,
  };
  return unit === 'mm' ? mm : { ...mm, ...Object.fromEntries(BLANK_LENGTHS.map((k) => [k, roundInches(mm[k])])) };
}

/**
 * The blank of a job whose unit changes: lengths that are still those of a new job become the round ones of the new unit; its
 * sizes only while nothing lies on it.
 */
export function blankInUnit(job: Pick<OneSetup, 'blank' | 'items' | 'cuts' | 'unit'>, unit: Unit): Blank {
  const [was, will] = [newBlank(job.unit), newBlank(unit)];
  const bare = !job.items.length && !job.cuts.length;
  const sizes: readonly string[] = ['width', 'height', 'thickness'];
  return {
    ...job.blank,
    ...Object.fromEntries(
      BLANK_LENGTHS.filter((k) => Math.abs(job.blank[k] - was[k]) < 1e-9 && (bare || !sizes.includes(k))).map((k) => [
        k,
        will[k],
      ]),
    ),
  };
}

/** A layer as a new set-up begins with. */
export const firstLayer = (): Layer => ({
  id: FIRST_LAYER,
  name: 'Layer 1',
  colour: '#1e2a2f',
  visible: true,
  locked: false,
});

/** Names of what a new job begins with. */
export const FIRST_SETUP = 'setup-1';
export const FIRST_BLANK = 'blank-1';

/** The one set-up of a new, empty job. */
export function newOneSetup(name: string, unit: Unit = 'mm'): OneSetup {
  return {
    at: { id: FIRST_SETUP, name: 'Set-up 1', number: 1, after: null, only: true },
    name,
    notes: '',
    unit,
    blank: newBlank(unit),
    clamps: [],
    assets: [],
    guides: [],
    layers: [firstLayer()],
    groups: [],
    items: [],
    relief: noRelief(),
    cutters: [],
    cuts: [],
    casting: null,
    run: {
      dialect: unit === 'in' ? 'inch' : 'metric',
      dialects: [],
      files: 'one',
      numbers: 'order',
      machine: benchRouter,
    },
  };
}

/** The program's zero in the blank's frame (lower left corner of the top face is 0, 0, 0). */
export function datumOf(blank: Blank): { x: number; y: number; z: number } {
  const column = { l: 0, c: 0.5, r: 1 }[blank.datum[0] as 'l' | 'c' | 'r'];
  const row = { b: 0, m: 0.5, t: 1 }[blank.datum[1] as 'b' | 'm' | 't'];
  return { x: column * blank.width, y: row * blank.height, z: blank.zZero === 'top' ? 0 : -blank.thickness };
}
