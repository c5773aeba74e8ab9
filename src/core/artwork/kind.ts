import type { z } from 'zod';
import type { Fill } from '../geometry/region';
import type { Path } from '../geometry/path';
import type { LoadedFont } from '../lettering/font';
import type { Field } from '../units/fields';
import { heldWithin, withLimits, type FieldSpec } from '../units/limits';

export interface ArtworkContext {
  /** A loaded font, or null when it is not there. */
  font(id: string): LoadedFont | null;
}

/** As much of an item as its outlines depend on. */
export interface Drawn {
  readonly kind: string;
  readonly x: number;
  readonly y: number;
  readonly angle: number;
  readonly mirror: boolean;
  readonly values: Record<string, unknown>;
}

export interface Shape {
  /** Exact outlines about the item's own origin, before its turn and place. mm. */
  readonly paths: Path[];
  readonly fill: Fill;
  readonly remarks: string[];
  /** The box that handles and alignment use, about the origin. */
  readonly box: { x0: number; y0: number; x1: number; y1: number };
  /**
   * How far off its lines a point of its box still means it, mm: between letters, on a picture. What does not say so is meant
   * by its lines, and by what they fill.
   */
  readonly meantWithin?: number;
}

/**
 * What every kind of item says of itself. A new kind is one file in kinds/ and one line in the registry.
 */
export interface ItemKind<S extends z.ZodType = z.ZodType> {
  readonly id: string;
  readonly name: string;
  /** False for what comes of other work and has no button of its own. */
  readonly offered?: boolean;
  readonly schema: S;
  readonly fields: readonly Field[];
  readonly defaults: z.infer<S>;
  /** Values that a new one on a blank has instead, mm. */
  fresh?(blank: { readonly width: number; readonly height: number }): Partial<z.infer<S>>;
  /** `drawn` gives the shape of another item, for kinds that show one. */
  shape(v: z.infer<S>, c: ArtworkContext, drawn: (item: Drawn) => Shape): Shape;
  /** Values after the item is scaled by handles, sx and sy > 0: as far as they may go. */
  scaled(v: z.infer<S>, sx: number, sy: number): z.infer<S>;
  /** Whether its measures stay within their limits when it is scaled so. */
  scales(v: z.infer<S>, sx: number, sy: number): boolean;
  /** Values after one of them was changed by hand, where others must follow. */
  changed?(v: z.infer<S>, before: z.infer<S>): z.infer<S>;
  /** By version of a job: what makes values of that version those of the next one (see `job/migrate.ts`). */
  readonly upgrades?: Readonly<Record<number, (values: Record<string, unknown>) => Record<string, unknown>>>;
  /** Ids of the files that values name: the job's own, or of what ships with Mirvak. */
  assets?(v: z.infer<S>): readonly string[];
  /** A name for a new item. */
  title(v: z.infer<S>): string;
}

/** Binds a kind's values to their schema's type, and gives its fields the limits of the schema. */
export const itemKind = <S extends z.ZodType>(
  kind: Omit<ItemKind<S>, 'fields' | 'scales'> & { readonly fields: readonly FieldSpec[] },
): ItemKind => {
  const fields = withLimits(kind.schema, kind.fields);
  return {
    ...kind,
    fields,
    // A job that holds what a file may not hold could not be opened again.
    scaled: (v: z.infer<S>, sx: number, sy: number) => heldWithin(kind.schema, kind.scaled(v, sx, sy)),
    scales: (v: z.infer<S>, sx: number, sy: number) => kind.schema.safeParse(kind.scaled(v, sx, sy)).success,
  } as unknown as ItemKind;
};
