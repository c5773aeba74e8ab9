import { z } from 'zod';
import type { Field } from '../units/fields';

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
  /** What the swept surface is worked out by: closed forms for the common ones, a search for the rest. */
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

/** Flat: a disc. Cone: flat tip of radius `tip`, then rising 1 / tan. Ball: radius is the ball's. */
export type CutterForm = { form: 'flat' | 'ball' | 'general'; radius: number } | { form: 'cone'; radius: number; tip: number; tan: number };

/** Binds a shape's values to their schema's type. */
export const cutterShape = <S extends z.ZodType>(shape: CutterShape<S>): CutterShape => shape as unknown as CutterShape;

export const mm = z.number().finite();
export const positive = z.number().finite().positive();
