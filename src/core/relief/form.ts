import type { z } from 'zod';
import type { Region } from '../geometry/region';
import type { Field } from '../units/fields';
import { withLimits, type FieldSpec } from '../units/limits';
import type { Grid } from './field';
import type { Mesh } from './mesh';
import type { GreyPicture } from './picture';

/** How a form meets what lies under it. */
export const meetings = {
  add: 'Builds up',
  sink: 'Sinks',
  higher: 'Keeps the higher',
  lower: 'Keeps the lower',
  replace: 'Replaces',
} as const;
export type Meeting = keyof typeof meetings;

/** A line or an outline, flattened: x, y interleaved in the blank's frame, mm. */
export interface Line {
  readonly points: Float64Array;
  readonly closed: boolean;
}

/** What a form is worked out from. It asks for nothing else. */
export interface FormContext {
  readonly grid: Grid;
  /** The outlines picked for it, as one region; empty where none are. */
  readonly region: Region;
  /** Lines and outlines picked for it, in the order in which they were picked, and those that it takes its profile from. */
  readonly lines: readonly Line[];
  readonly profile: readonly Line[];
  /** A mesh or a picture of the job; null when its file is not here. */
  mesh(id: string): Mesh | null;
  picture(id: string): GreyPicture | null;
  /** Heights of all that lies under it, mm above the base of the stack; NaN where there is nothing. Not to be changed. */
  readonly under: Float32Array;
  /** Of a group: its forms laid on each other, as `under`; null where none of them counts. */
  readonly members: Float32Array | null;
  /** How wide the pixels of the coarsest picture under it are, mm; 0 where there is none. */
  readonly pixel: number;
}

/** Heights of a form at the nodes of a grid, mm above its own base (of the stack's, where it adjusts); NaN where it is empty. */
export interface FormHeights {
  readonly z: Float32Array;
  /** What the maker should know of it; empty for nothing. */
  readonly remark: string;
  /** What is no fault, but good to know. */
  readonly note?: string;
  /** How wide the pixels are that it is made of, mm, if it is. */
  readonly pixel?: number;
}

/**
 * What has to be known of the whole of a form before its rows can be made apart from each other: plain data, which threads can
 * share; null where it is nowhere.
 */
export interface Prepared<D = unknown> extends Omit<FormHeights, 'z'> {
  readonly data: D | null;
  /** How many rows to either side are looked at for one; 0 where it is not said. */
  readonly reach?: number;
  /** Whether its rows can only be made together. */
  readonly whole?: boolean;
}

/**
 * What every kind of form says of itself. A new kind is one file in kinds/ and one line in the registry (`./registry.ts`):
 * forms, cards, the command line find the rest from here.
 */
export interface FormKind<S extends z.ZodType = z.ZodType> {
  readonly id: string;
  readonly name: string;
  /** One plain sentence for the list from which a form is added. */
  readonly summary: string;
  readonly schema: S;
  readonly fields: readonly Field[];
  readonly defaults: z.infer<S>;
  /** Whether it is made of picked outlines. */
  readonly ofOutlines?: true;
  /** Whether it lies along picked lines, and nowhere else. */
  readonly alongLines?: true;
  /** Of one that may be made of lines: what is to be picked with these values, in words; null where nothing is. */
  lines?(v: z.infer<S>): { readonly words: string; readonly none: string } | null;
  /** Whether, with these values, it takes its profile from a drawn line. */
  drawn?(v: z.infer<S>): boolean;
  /** What file it is added by bringing, if any. */
  readonly ofFile?: 'mesh' | 'picture';
  /** Whether it is added by choosing a piece of the library. */
  readonly ofLibrary?: true;
  /**
   * Whether it works on what lies under it: what it makes, in heights above the base of the stack, is put in the place of that, as
   * far as its strength (0 to 1) and its mask say.
   */
  readonly adjusts?: true;
  /** Values of a fresh one on a blank, mm, where its defaults would not suit it. */
  fresh?(
    v: z.infer<S>,
    blank: { readonly width: number; readonly height: number; readonly thickness: number },
  ): z.infer<S>;
  /** Whether it is made by a brush on the table: its values are `strokes` (`./sculpt.ts`). */
  readonly brushed?: true;
  /** Whether it holds other forms (`./groups.ts`). */
  readonly holds?: true;
  /** Of one that adjusts: its values for a stack that is so many times as high. */
  higher?(v: z.infer<S>, by: number): z.infer<S>;
  /** Ids of the files of the job's own that values name. */
  assets?(v: z.infer<S>): readonly string[];
  /** Values after one of them was changed by hand, where others must follow. */
  changed?(v: z.infer<S>, before: z.infer<S>): z.infer<S>;
  /** What a form with these values is called, where its kind says too little. */
  called?(v: z.infer<S>): string;
  /** Of one that lies in a frame: its middle and size, mm, and its turn, degrees; null where it cannot be turned as it is. */
  frame?(v: z.infer<S>): {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
    readonly turn: number | null;
  };
  /** Whether, with these values, it goes on and on beyond its frame. */
  repeats?(v: z.infer<S>): boolean;
  /** Its values with the frame so many times as wide and as high; what keeps its ratio does. */
  pulled?(v: z.infer<S>, sx: number, sy: number): z.infer<S>;
  evaluate(v: z.infer<S>, c: FormContext): FormHeights;
  /** Of one whose rows can be made apart: what is known of the whole, and then heights of some of its rows over what lies under those. */
  prepare?(v: z.infer<S>, c: FormContext): Prepared;
  rows?(data: unknown, grid: Grid, under: Float32Array): Float32Array;
}

type Made = 'fields' | 'evaluate' | 'prepare' | 'rows';
type Spec<S extends z.ZodType> = Omit<FormKind<S>, Made> & { readonly fields: readonly FieldSpec[] };

/** Binds a kind's values to their schema's type, and gives its fields the limits of the schema. */
export const formKind = <S extends z.ZodType>(kind: Spec<S> & Pick<FormKind<S>, 'evaluate'>): FormKind =>
  ({ ...kind, fields: withLimits(kind.schema, kind.fields) }) as unknown as FormKind;

/** The same for a kind whose rows can be made apart from each other. */
export const formKindByRows = <S extends z.ZodType, D>(
  kind: Spec<S> & {
    prepare(v: z.infer<S>, c: FormContext): Prepared<D>;
    rows(data: D, grid: Grid, under: Float32Array): Float32Array;
  },
): FormKind =>
  formKind({
    ...kind,
    evaluate(v, c) {
      const { data, remark, note, pixel } = kind.prepare(v, c);
      const z = data === null ? nowhere(c.grid, '').z : kind.rows(data, c.grid, c.under);
      return { z, remark, note, pixel };
    },
  } as Spec<S> & Pick<FormKind<S>, 'evaluate'>);

/** A form that is nowhere, and why. */
export const nowhere = (g: Grid, remark: string): FormHeights => ({
  z: new Float32Array(g.cols * g.rows).fill(NaN),
  remark,
});
