import type { CutterForm } from '../cutters/form';
import { heightOf } from '../cutters/form';
import { makeInside, type Places } from '../geometry/inside';
import { makeSegmentIndex } from '../geometry/segmentIndex';
import { boundsOf, type Bounds, type Loop, type Region } from '../geometry/region';

/**
 * Why material stays above what is wanted in the end: the shapes of the cutters, how far they may go, how far the rows lie apart, what
 * a finishing is told to leave all over, or that the cut goes by levels and nothing smooths what these leave.
 */
export type Reason = 'shape' | 'boundary' | 'rows' | 'allowance' | 'levels';

/** What of that may stay and is told of all the same. */
export interface Kept {
  /** More than so much over what is wanted in the end, mm: measured across its surface where the cut smooths it. */
  readonly more: number;
  /** How far the cut's own surface lies above that, mm. */
  readonly lift: number;
  /**
   * Of a cut that smooths: what is wanted in the end, also where it does not go; NaN where there is nothing. What is left where such a
   * cut goes is told of it, and not of one that does not smooth.
   */
  readonly smooth?: (x: number, y: number) => number;
  /** Why at a place where so much stays, mm: up and down, and across the surface. */
  why(x: number, y: number, over: number, thick: number): Reason;
}

/**
 * What a cut is to make, as heights over the blank (mm, <= 0), worked out from the outlines and not from the plan.
 *
 *     0 ____                      ____
 *           \                    /       surface: what is wanted
 *            \    ..-----..     /        stays:   what the shapes of its cutters must leave of it
 *             \__/        \____/         least:   how deep it may go (ways in and out, waste)
 */
export interface Wanted {
  /** Beyond this box nothing is wanted and nothing may be cut. */
  readonly box: Bounds;
  surface(x: number, y: number): number;
  /** The same at places of a row, where that is quicker than to ask for each. */
  surfaceAlong?(y: number, places: Places, out: Float32Array): void;
  /** Highest that material may stay; `surface` where not given. Never below the surface. */
  stays?(x: number, y: number): number;
  readonly kept?: Kept;
  /** Lowest that it may be cut; `surface` where not given. Never above the surface. */
  least?(x: number, y: number): number;
}

export const EMPTY: Wanted = { box: { x0: 0, y0: 0, x1: 0, y1: 0 }, surface: () => 0 };

export const grown = (b: Bounds | null, by: number): Bounds =>
  b ? { x0: b.x0 - by, y0: b.y0 - by, x1: b.x1 + by, y1: b.y1 + by } : EMPTY.box;

/** Lowest a cutter leaves at a place when its axis may stand anywhere in a region, its tip at `z`; Infinity where it does not come. */
export function reaching(centres: Region, form: CutterForm, z: number): (x: number, y: number) => number {
  if (!centres.length) return () => Infinity;
  const inside = makeInside(centres);
  const outline = makeSegmentIndex(centres);
  return (x, y) => (inside(x, y) ? z : z + heightOf(form, outline.distance(x, y, form.radius)));
}

/** The same when its axis goes along lines (x, y interleaved), closed or open. */
export function alongLines(
  lines: readonly { readonly points: Loop; readonly closed: boolean }[],
  form: CutterForm,
  z: number,
): (x: number, y: number) => number {
  if (!lines.length) return () => Infinity;
  const outline = makeSegmentIndex(lines.map((l) => (l.closed ? l.points : thereAndBack(l.points))));
  return (x, y) => z + heightOf(form, outline.distance(x, y, form.radius));
}

/** An open line there and back: a loop whose segments are the line's. */
export function thereAndBack(p: Loop): Loop {
  const out = new Float64Array(Math.max(4, 2 * p.length - 4));
  out.set(p);
  for (let i = 1; i < p.length / 2 - 1; i++)
    out.set(p.subarray(p.length - 2 - 2 * i, p.length - 2 * i), p.length + 2 * (i - 1));
  return out;
}

export const boxOf = (loops: readonly Loop[], by: number): Bounds => grown(boundsOf(loops), by);
