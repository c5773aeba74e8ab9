import { z } from 'zod';
import { FIRST_LAYER, itemSchema } from '../artwork/item';
import { materialIds } from '../cutters/materials';
import { cutterSchema, presetSchema } from '../cutters/cutter';
import { kindOf } from '../cuts/registry';
import { benchRouter, machineSchema } from '../machine/profile';
import { dialectOf, dialectSchema } from '../program/dialect';
import type { Unit } from '../units/length';
import { roundInches } from '../units/round';
import { valuesAreSound } from '../units/issues';

/** Version of the job format; see docs/job-format.md and ./migrate.ts. */
export const JOB_VERSION = 7;

/** So many of each thing a job holds at most: far more than one works with, few enough that none stops the application. */
export const mostOf = { clamps: 200, fonts: 200, pictures: 1000, guides: 200, layers: 2000, groups: 100_000, items: 250_000, cutters: 1000, cuts: 1000 } as const;
const called: Readonly<Record<keyof typeof mostOf, string>> = { clamps: 'clamps', fonts: 'fonts', pictures: 'pictures', guides: 'guides', layers: 'layers', groups: 'groups', items: 'things drawn', cutters: 'cutters', cuts: 'cuts' };

/** What is said of a change that makes a job hold more than it can; null where it does not. */
export function tooMany(before: Pick<OneSetup, keyof typeof mostOf>, after: Pick<OneSetup, keyof typeof mostOf>): string | null {
  for (const k of Object.keys(mostOf) as (keyof typeof mostOf)[]) if (after[k].length > mostOf[k] && after[k].length > before[k].length) return `A job holds at most ${mostOf[k]} ${called[k]}; this would make ${after[k].length}. Nothing was changed.`;
  return null;
}

/** Nine places of the datum: column l, c, r and row b, m, t. */
export const datumPlaces = ['lt', 'ct', 'rt', 'lm', 'cm', 'rm', 'lb', 'cb', 'rb'] as const;
export type DatumPlace = (typeof datumPlaces)[number];

/** A place, mm: within a kilometre of the blank. */
const mm = z.number().min(-1e6).max(1e6);
const size = z.number().positive().max(1e5);

export const blankSchema = z.object({
  width: size,
  height: size,
  thickness: z.number().positive().max(1000),
  material: z.enum(materialIds),
  datum: z.enum(datumPlaces),
  zZero: z.enum(['top', 'bed']),
  /** Heights above the top face. */
  safeHeight: z.number().positive().max(500),
  clearance: z.number().positive().max(500),
  /** So far above what is to be cut the cutter comes down by rapid; the rest of the way by the plunge feed. */
  approach: z.number().positive().max(100).default(0.5),
  /** Where the spindle waits at the end, in the blank's frame. */
  park: z.object({ x: mm, y: mm }),
  /** Whether a cutter that is changed by hand is changed at the park position. */
  parkAtChange: z.boolean().default(false),
  /** How far below the underside a cut may go (a spoil board), mm. */
  intoBed: z.number().min(0).max(50),
});
export type Blank = z.infer<typeof blankSchema>;

export const cutSchema = z
  .object({
    id: z.string().min(1),
    name: z.string(),
    kind: z.string(),
    enabled: z.boolean(),
    /** Whether its paths are left out of the drawing; it is cut all the same. */
    hidden: z.boolean().optional(),
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
export const layerSchema = z.object({ id: z.string().min(1), name: z.string().max(200), colour: z.string().regex(/^#[0-9a-f]{6}$/i), visible: z.boolean(), locked: z.boolean() });
export type Layer = z.infer<typeof layerSchema>;

/** A group of items; `parent` is the group that holds it. */
export const groupSchema = z.object({ id: z.string().min(1), name: z.string().max(200), parent: z.string().nullable() });
export type Group = z.infer<typeof groupSchema>;

/** A font that the maker brought: its file lies beside job.json in the archive's assets. */
export const ownFontSchema = z.object({ id: z.string().regex(/^own-[a-z0-9]+$/), name: z.string().min(1).max(200), file: z.string().regex(/^fonts\/[\w.-]+$/) });
export type OwnFont = z.infer<typeof ownFontSchema>;

/** A picture that artwork was traced from: its file lies in the archive's assets. */
export const pictureFileSchema = z.object({ id: z.string().regex(/^pic-[a-z0-9]+$/), name: z.string().min(1).max(200), file: z.string().regex(/^pictures\/[\w.-]+$/) });
export type PictureFile = z.infer<typeof pictureFileSchema>;

export const oneSetupSchema = z
  .object({
    format: z.literal('mirvak-job'),
    version: z.literal(JOB_VERSION),
    name: z.string().min(1).max(200),
    notes: z.string().max(100_000),
    unit: z.enum(['mm', 'in']),
    blank: blankSchema,
    clamps: z.array(clampSchema).max(mostOf.clamps),
    fonts: z.array(ownFontSchema).max(mostOf.fonts),
    pictures: z.array(pictureFileSchema).max(mostOf.pictures),
    /** Lines across the table that artwork is brought to. */
    guides: z.array(z.object({ axis: z.enum(['x', 'y']), at: mm })).max(mostOf.guides),
    layers: z.array(layerSchema).min(1).max(mostOf.layers),
    groups: z.array(groupSchema).max(mostOf.groups),
    items: z.array(itemSchema).max(mostOf.items),
    /** The job's own copies of the cutters it uses, so that a file says everything. */
    cutters: z.array(cutterSchema).max(mostOf.cutters),
    cuts: z.array(cutSchema).max(mostOf.cuts),
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
    const double = (what: string, ids: string[], path: string) => {
      const seen = new Set<string>();
      for (const id of ids) {
        if (seen.has(id)) ctx.addIssue({ code: 'custom', path: [path], message: `Two ${what} have the id "${id}".` });
        seen.add(id);
      }
    };
    double('items', job.items.map((i) => i.id), 'items');
    double('layers', job.layers.map((i) => i.id), 'layers');
    double('groups', job.groups.map((i) => i.id), 'groups');
    const layers = new Set(job.layers.map((l) => l.id));
    const parents = new Map(job.groups.map((g) => [g.id, g.parent]));
    for (const i of job.items) {
      if (!layers.has(i.layer)) ctx.addIssue({ code: 'custom', path: ['items'], message: `"${i.name}" lies on a layer that is not there.` });
      if (i.group !== null && !parents.has(i.group)) ctx.addIssue({ code: 'custom', path: ['items'], message: `"${i.name}" belongs to a group that is not there.` });
    }
    for (const g of job.groups) {
      let up: string | null | undefined = g.parent;
      for (let n = 0; up !== null; n++, up = parents.get(up)) if (up === undefined || n > job.groups.length) return ctx.addIssue({ code: 'custom', path: ['groups'], message: `The group "${g.name}" has no proper parent.` });
    }
    try {
      dialectOf(job.run.dialect, job.run.dialects);
    } catch (e) {
      ctx.addIssue({ code: 'custom', path: ['run', 'dialect'], message: (e as Error).message });
    }
    double('cuts', job.cuts.map((i) => i.id), 'cuts');
    double('cutters', job.cutters.map((i) => i.id), 'cutters');
  });
export type OneSetup = z.infer<typeof oneSetupSchema>;

/** Lengths of a blank that a unit makes round. */
const BLANK_LENGTHS = ['width', 'height', 'thickness', 'safeHeight', 'clearance', 'approach', 'intoBed'] as const;

/** A blank as a new job in a unit begins with. */
export function newBlank(unit: Unit): Blank {
  const mm: Blank = { width: 300, height: 200, thickness: 18, material: 'oak', datum: 'lb', zZero: 'top', safeHeight: 10, clearance: 2, approach: 0.5, park: { x: 0, y: 0 }, parkAtChange: false, intoBed: 0.5 };
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
  return { ...job.blank, ...Object.fromEntries(BLANK_LENGTHS.filter((k) => Math.abs(job.blank[k] - was[k]) < 1e-9 && (bare || !sizes.includes(k))).map((k) => [k, will[k]])) };
}

/** A new, empty job. */
export function newOneSetup(name: string, unit: Unit = 'mm'): OneSetup {
  return {
    format: 'mirvak-job',
    version: JOB_VERSION,
    name,
    notes: '',
    unit,
    blank: newBlank(unit),
    clamps: [],
    fonts: [],
    pictures: [],
    guides: [],
    layers: [{ id: FIRST_LAYER, name: 'Layer 1', colour: '#1e2a2f', visible: true, locked: false }],
    groups: [],
    items: [],
    cutters: [],
    cuts: [],
    run: { dialect: unit === 'in' ? 'inch' : 'metric', dialects: [], files: 'one', numbers: 'order', machine: benchRouter },
  };
}

/** The program's zero in the blank's frame (lower left corner of the top face is 0, 0, 0). */
export function datumOf(blank: Blank): { x: number; y: number; z: number } {
  const column = { l: 0, c: 0.5, r: 1 }[blank.datum[0] as 'l' | 'c' | 'r'];
  const row = { b: 0, m: 0.5, t: 1 }[blank.datum[1] as 'b' | 'm' | 't'];
  return { x: column * blank.width, y: row * blank.height, z: blank.zZero === 'top' ? 0 : -blank.thickness };
}
