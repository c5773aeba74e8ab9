import type { z } from 'zod';
import type { Fill } from '../geometry/region';
import type { Path } from '../geometry/path';
import type { LoadedFont } from '../lettering/font';
import type { Field } from '../units/fields';

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
  /** Values after the item is scaled by handles, sx and sy > 0. */
  scaled(v: z.infer<S>, sx: number, sy: number): z.infer<S>;
  /** Values after one of them was changed by hand, where others must follow. */
  changed?(v: z.infer<S>, before: z.infer<S>): z.infer<S>;
  /** Ids of the files that values name: the job's own, or of what ships with Mirvak. */
  assets?(v: z.infer<S>): readonly string[];
  /** A name for a new item. */
  title(v: z.infer<S>): string;
}

export const itemKind = <S extends z.ZodType>(kind: ItemKind<S>): ItemKind => kind as unknown as ItemKind;
