import type { z } from 'zod';
import type { Cutter, Preset } from '../cutters/cutter';
import type { MaterialId } from '../cutters/materials';
import type { Region } from '../geometry/region';
import type { Motion } from '../motion/motion';
import type { HeightFacts } from '../relief/facts';
import type { HeightField } from '../relief/field';
import type { Field } from '../units/fields';
import { withLimits, type FieldSpec } from '../units/limits';
import type { Unit } from '../units/length';
import type { Budget } from './budget';
import type { ClearingHands } from './clearing/meanwhile';
import type { FollowHands } from './relief/following';
import type { Wanted } from './wanted';

/** The piece of material, as cuts see it. mm, frame: lower left corner of the top face is 0, 0, 0. */
export interface CutBlank {
  readonly width: number;
  readonly height: number;
  readonly thickness: number;
  readonly material: MaterialId;
  /** In which remarks say lengths; mm when not said. */
  readonly unit?: Unit;
  /** Heights above the top face: between far places, and between near ones. */
  readonly safeHeight: number;
  readonly clearance: number;
  /** So far above what is to be cut the cutter comes down by rapid, mm. */
  readonly approach: number;
  /** What stands on the table and may not be run into. */
  readonly clamps?: readonly { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number }[];
}

/** A line of the artwork: points x, y interleaved; a closed one has no repeated last point. */
export interface Line {
  readonly points: Float64Array;
  readonly closed: boolean;
}

/** What a planner is given. It asks for nothing else and changes nothing. */
export interface CutContext {
  readonly blank: CutBlank;
  /** The picked items as one region, flattened to `tolerance` mm, normalised. */
  region(tolerance: number): Region;
  /** The picked items' lines and outlines one by one, flattened to `tolerance` mm. */
  lines(tolerance: number): Line[];
  /** Heights of the relief from the top face, mm, NaN where it is empty; null where there is none. For kinds that are `onRelief`. */
  relief(): HeightField | null;
  cutter(id: string): Cutter;
  /** Speeds of a cutter in the blank's material with this cut's own values on top. */
  preset(id: string): Preset;
  /** What each step of the plan may add to its error. */
  readonly budget: Budget;
  /** Those who follow a surface together; alone where there are none. */
  readonly hands?: FollowHands;
  /** Those who clear a floor while its walls are worked out; whoever plans does it where there are none. */
  readonly meanwhile?: ClearingHands;
  /** Called when it is known how much more will be cut, before the moves are. */
  expect?(more: Expected): void;
  /** Called now and then with 0..1; throws Cancelled when the result is no longer wanted. */
  progress(done: number): void;
}

/** About what a plan will hold. */
export interface Expected {
  readonly minutes: number;
  /** 0 where it is not known. */
  readonly moves: number;
}

/** The work of one cutter. */
export interface Toolpath {
  readonly cutterId: string;
  readonly rpm: number;
  readonly motion: Motion;
}

/** Something the maker should know before cutting; `x`, `y` say where. */
export interface Remark {
  readonly level: 'note' | 'problem';
  readonly text: string;
  readonly x?: number;
  readonly y?: number;
  /** Name of what can be done about it at once (`../proof/mends.ts`). */
  readonly mend?: string;
}

/** Area that no cutter of the plan reaches, mm2 and where. */
export interface Unreached {
  readonly area: number;
  readonly region: Region;
}

/** A holding tab as planned: where it stands and its size, for drawing and dragging. */
export interface PlacedTab {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly length: number;
}

/** A cut as a file of an earlier version has it, `thickness` being that of its blank: plain data, changed in place. */
export interface OldCut {
  values: Record<string, unknown>;
  /** Its own speeds by cutter. */
  readonly overrides: Record<string, Record<string, unknown>>;
  readonly thickness: number;
}

/** A step that stood among the values of a cut becomes one of its own speeds. */
export function ownStep(cut: OldCut, cutter: unknown, value: unknown, key: 'stepOver' | 'stepDown' = 'stepOver'): void {
  if (typeof cutter === 'string' && typeof value === 'number') (cut.overrides[cutter] ??= {})[key] = value;
}

/** What one cutter of a list reaches of the floor, beyond what wider ones reach. */
export interface Reached {
  readonly cutterId: string;
  readonly region: Region;
  /** mm2. */
  readonly area: number;
}

export interface CutPlan {
  readonly toolpaths: readonly Toolpath[];
  readonly remarks: readonly Remark[];
  readonly unreached: Unreached;
  /** Where several cutters share a floor: each one's part, widest first. */
  readonly reach?: readonly Reached[];
  readonly tabs: readonly PlacedTab[];
  /** How far the cutter's axis may leave the blank on purpose, mm; 0 when not said. */
  readonly overEdge?: number;
  /** Whether this cut parts the piece from the blank. */
  readonly cutsFree: boolean;
  /** What it was worked out from of the blank, noted when it was asked for; all of it where it does not say. */
  readonly asked?: readonly (keyof CutBlank)[];
}

/** The wanted surface of a job: height (mm, <= 0) at a point. */
export type Target = (x: number, y: number) => number;

/**
 * What every kind of cut says of itself. A new kind is one file in kinds/ and one line in the
 * registry (`./registry.ts`): forms, cards, checks and the command line find the rest from here.
 */
export interface CutKind<S extends z.ZodType = z.ZodType> {
  readonly id: string;
  readonly name: string;
  /** One plain sentence for the list from which a cut is added. */
  readonly summary: string;
  readonly schema: S;
  readonly fields: readonly Field[];
  /** Values for a new cut on a blank, given what cutters there are. */
  defaults(blank: CutBlank, cutters: readonly Cutter[]): z.infer<S>;
  /** Whether it can be planned without artwork, with these values. */
  bare?(v: z.infer<S>): boolean;
  /** Whether, with these values, it is worked out from the relief. */
  onRelief?(v: z.infer<S>): boolean;
  /** Whether it can ride on the relief: see `./relief/ride.ts`. */
  readonly canRide?: true;
  /** Whether it takes away what lies inside of its outlines: a press inside picks them then. */
  readonly fills?: true;
  /** Whether it can do something with lines, or with closed outlines alone; lines as well when not said. */
  outlinesOnly?(v: z.infer<S>): boolean;
  /** Whether holding tabs can be put on its outlines, with these values; `values.tabs` holds them. */
  takesTabs?(v: z.infer<S>): boolean;
  /** Whether its cutters take in one go all that they find standing, however much, with these values. */
  atOnce?(v: z.infer<S>): boolean;
  /**
   * Of kinds that cut the relief itself: whether it is to be as it is wanted after it, or only nearer to that. What stays is told
   * (`kept` of what it wants).
   */
  smooths?: boolean;
  /** Ids of the cutters, in the order in which they are used. */
  cutters(v: z.infer<S>): string[];
  /**
   * Which values of a cutter's preset it goes by, with these values of its own; all of them where it does not say. The form
   * shows no others.
   */
  presets?(v: z.infer<S>, cutterId: string): readonly (keyof Preset)[];
  /** By version of a job: what makes values of that version those of the next one (see `job/migrate.ts`). */
  readonly upgrades?: Readonly<Record<number, (cut: OldCut) => void>>;
  plan(v: z.infer<S>, c: CutContext): CutPlan;
  /** What it is to make, from the exact distance to the outline; `plan` is what was planned, for places that were chosen there (tabs). */
  wanted(v: z.infer<S>, c: CutContext, plan?: CutPlan): Wanted;
  /** Depths for the side-on drawing: start, floor, and the wall's lean from the vertical in degrees. */
  side(
    v: z.infer<S>,
    blank: CutBlank,
    cutter: (id: string) => Cutter | null,
    /** The relief, where there is one. */
    relief?: Pick<HeightFacts, 'lowest' | 'highest'> | null,
  ): { start: number; floor: number; draftAngle: number };
}

/** Binds a kind's values to their schema's type, and gives its fields the limits of the schema. */
export const cutKind = <S extends z.ZodType>(
  kind: Omit<CutKind<S>, 'fields'> & { readonly fields: readonly FieldSpec[] },
): CutKind => ({ ...kind, fields: withLimits(kind.schema, kind.fields) }) as unknown as CutKind;

export const emptyPlan = (remarks: Remark[] = []): CutPlan => ({
  toolpaths: [],
  remarks,
  unreached: { area: 0, region: [] },
  tabs: [],
  cutsFree: false,
});

/** Heights of successive passes from `start` down to `floor` (both <= 0), none deeper than `step`, evenly spread. */
export function passes(start: number, floor: number, step: number): number[] {
  const depth = start - floor;
  if (!(depth > 0)) return [];
  const n = Math.max(1, Math.ceil(depth / step - 1e-6));
  return Array.from({ length: n }, (_, i) => start - (depth * (i + 1)) / n);
}

/** Height for hops between near places: over the face alone, or over everything where clamps stand on the table. */
export const linkHeightOf = (b: CutBlank): number => (b.clamps?.length ? b.safeHeight : b.clearance);

/** At which heights a cutter goes from place to place, and from which it comes down: see `CutBlank`. mm. */
export const travelHeights = (b: CutBlank) => ({
  safe: b.safeHeight,
  clearance: b.clearance,
  approach: b.approach,
  linkHeight: linkHeightOf(b),
});

/** Open lines among what is picked for a cut: those along which, or beside which, it is to go. */
export const openLines = (c: CutContext): Float64Array[] =>
  c
    .lines(c.budget.flatten)
    .filter((l) => !l.closed && l.points.length >= 4)
    .map((l) => l.points);

/** All of the blank, seen from above. */
export const wholeBlank = ({ width, height }: CutBlank): Region => [
  Float64Array.of(0, 0, width, 0, width, height, 0, height),
];

/** Height of the floor of a cut that goes through the blank (and `beyond` it, or but for a `skin`) or to a depth. */
export const floorOf = (
  v: { readonly through: boolean; readonly beyond: number; readonly skin?: number; readonly depth: number },
  b: { readonly thickness: number },
): number => -(!v.through ? v.depth : v.skin ? Math.max(0, b.thickness - v.skin) : b.thickness + v.beyond);
