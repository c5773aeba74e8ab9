import type { z } from 'zod';
import type { Field } from '../units/fields';
import { withLimits, type FieldSpec } from '../units/limits';
import { heightOf, widthOf, type CutterForm } from './form';

/**
 * What every kind of cutter says of itself. A new kind is one file in shapes/ and one line in the
 * registry (`./registry.ts`).
 */
export interface CutterShape<S extends z.ZodType = z.ZodType> {
  readonly id: string;
  readonly name: string;
  /** The values of this shape, in mm and degrees. */
  readonly schema: S;
  readonly defaults: z.infer<S>;
  readonly fields: readonly Field[];
  /** Height of the cutter's surface above its lowest point at distance `rho` from the axis, mm; Infinity outside. */
  profile(s: z.infer<S>, rho: number): number;
  /** Radius of what the cutter clears at height `h` above its lowest point. */
  radiusAt(s: z.infer<S>, h: number): number;
  /** Its outline: profile, width at a height and what it sweeps follow from it. */
  form(s: z.infer<S>): CutterForm;
  /** Largest cutting radius, mm. */
  radius(s: z.infer<S>): number;
  /** Whether the end cuts while it goes straight down. */
  readonly plunges: boolean;
  /** Whether the spindle turns. */
  readonly turns: boolean;
  /** A short description of the size, e.g. `60° 12 mm`. */
  label(s: z.infer<S>, length: (mm: number) => string): string;
  /** How the machine-readable set-up sheet names this shape and its values. */
  setup(s: z.infer<S>): Record<string, string | number>;
  /** Words when the values cannot be made of steel, else null. */
  problem(s: z.infer<S>): string | null;
}

/** Binds a shape's values to their schema's type, gives its fields the limits of the schema, and works out what follows from its form. */
export const cutterShape = <S extends z.ZodType>(
  shape: Omit<CutterShape<S>, 'profile' | 'radiusAt' | 'radius' | 'fields'> & { readonly fields: readonly FieldSpec[] },
): CutterShape =>
  ({
    ...shape,
    fields: withLimits(shape.schema, shape.fields),
    profile: (s: z.infer<S>, rho: number) => heightOf(shape.form(s), rho),
    radiusAt: (s: z.infer<S>, h: number) => widthOf(shape.form(s), h),
    radius: (s: z.infer<S>) => shape.form(s).radius,
  }) as unknown as CutterShape;
