/**
 * The outline of every cutter, from its axis outwards: a level core, a round (of a ball or a corner) that
 * begins level and ends where it meets the side, and a straight side up to the full radius. mm.
 *
 *          |            ___/  <- side: rises `rise` mm for each mm outwards (Infinity: upright)
 *     axis |        _.-'
 *          |_____.-'          <- round of radius `ball` about the rim of the core
 *          | core
 *
 * A flat end mill is a core alone, a ball a round alone, a bull nose both, a V-bit a (tiny) core and a side,
 * a tapered ball or a diamond with a rounded tip a round and a side.
 */
export interface CutterForm {
  /** Largest cutting radius. */
  readonly radius: number;
  readonly core: number;
  readonly ball: number;
  readonly rise: number;
}

export const flatForm = (radius: number): CutterForm => ({ radius, core: radius, ball: 0, rise: Infinity });

/** The outline that a cutter has with so much all round it, mm: its lowest point lies so much lower. Its corners are round by as much. */
export const grownForm = (f: CutterForm, by: number): CutterForm =>
  by > 0 ? { ...f, radius: f.radius + by, ball: f.ball + by } : f;

/** Where the round passes into the side: distance beyond the core, and height above the lowest point. */
export function jointOf(f: CutterForm): { out: number; high: number } {
  if (f.rise === Infinity) return { out: f.ball, high: f.ball };
  const long = Math.sqrt(1 + f.rise * f.rise);
  // The side's slope is `rise`, so its normal leans by cos = 1 / long, sin = rise / long.
  return { out: (f.ball * f.rise) / long, high: f.ball * (1 - 1 / long) };
}

/** Height of the surface above the lowest point, `rho` mm from the axis; Infinity outside. */
export function heightOf(f: CutterForm, rho: number): number {
  if (rho > f.radius) return Infinity;
  const d = rho - f.core;
  if (d <= 0) return 0;
  const j = jointOf(f);
  if (d <= j.out || f.rise === Infinity) return f.ball - Math.sqrt(Math.max(0, f.ball * f.ball - d * d));
  return j.high + (d - j.out) * f.rise;
}

/** Radius of what is cleared `height` mm above the lowest point: the largest `rho` whose height is not above it. */
export function widthOf(f: CutterForm, height: number): number {
  if (!(height > 0)) return Math.min(f.core, f.radius);
  const j = jointOf(f);
  if (height < j.high) return Math.min(f.radius, f.core + Math.sqrt(height * (2 * f.ball - height)));
  return f.rise === Infinity ? f.radius : Math.min(f.radius, f.core + j.out + (height - j.high) / f.rise);
}

/** Whether the round of a tip ends inside the cutter's own width. */
export const tipFits = (f: CutterForm): boolean => jointOf(f).out < f.radius;
