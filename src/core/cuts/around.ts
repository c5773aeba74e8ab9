import { z } from 'zod';
import {
  boundsOf,
  intersect,
  loopArea,
  offset,
  regionArea,
  subtract,
  type Loop,
  type Region,
} from '../geometry/region';
import { choices } from '../units/fields';
import type { FieldSpec } from '../units/limits';
import { wholeBlank, type CutBlank, type CutPlan } from './kind';

/** Whether outlines are cut, or what lies round them, so that they stay standing. */
export const sideSchema = {
  side: z.enum(['inside', 'around']),
  /** Round outlines it is cut so far, mm; null: to the edges of the blank, and past them. */
  margin: z.number().min(0.5).max(500).nullable(),
};
export type Side = { readonly [K in keyof typeof sideSchema]: z.infer<(typeof sideSchema)[K]> };
export const sideDefaults = { side: 'inside', margin: 6 } as const satisfies Side;
export const sideFields = (label: string): readonly FieldSpec[] => [
  {
    kind: 'choice',
    key: 'side',
    label,
    options: choices({ inside: 'Inside outlines', around: 'Around outlines' }),
  },
  {
    kind: 'length',
    key: 'margin',
    label: 'As far as',
    hint: 'From what stays standing',
    optional: 'The edges of the blank',
    when: (v) => v.side === 'around',
  },
];

/** Cuts that go as far as the edges go past them. */
const isPast = (v: Side): boolean => v.side === 'around' && v.margin === null;
const grownBlank = (blank: CutBlank, by: number): Region => offset(wholeBlank(blank), by, 0.01, 'sharp');

/**
 * What is cut of outlines. Round them: all within a margin of them, or of the whole blank and `past` mm past its edges, and all of
 * their holes, however wide, since nothing else must stand where the other piece goes.
 *
 *      ________________________
 *     |     cut      ______    |
 *     |   _________|      |    |      where walls lean they lean outwards from the face down; at the
 *     |  | outline  ____  |    |      start depth they pass through the outlines
 *     |  |_________|hole|_|    |
 *     |________________________|
 */
export function cutBy(v: Side, outlines: Region, tolerance: number, blank: CutBlank, past: number): Region {
  if (v.side === 'inside' || !outlines.length) return outlines;
  const filled = outlines.filter((l) => loopArea(l) > 0);
  return subtract(v.margin === null ? grownBlank(blank, past) : offset(filled, v.margin, tolerance), outlines);
}

/** Of a region past the edges what lies on the blank: there only is anything to be cleared. */
export const onBlank = (v: Side, region: Region, blank: CutBlank): Region =>
  isPast(v) && region.length ? intersect(region, wholeBlank(blank)) : region;

/** Lines (`n` numbers a point, x and y first) but for those that a cutter comes nowhere nearer to the blank on than `near` mm. */
export function nearBlank<L extends Loop>(v: Side, lines: readonly L[], n: number, blank: CutBlank, near: number): L[] {
  if (!isPast(v)) return [...lines];
  const { x0, y0, x1, y1 } = boundsOf(grownBlank(blank, near))!;
  const meets = (l: L, i: number, j: number) =>
    Math.max(l[i], l[j]) > x0 &&
    Math.min(l[i], l[j]) < x1 &&
    Math.max(l[i + 1], l[j + 1]) > y0 &&
    Math.min(l[i + 1], l[j + 1]) < y1;
  return lines.filter((l) => {
    for (let i = 0; i + n < l.length; i += n) if (meets(l, i, i + n)) return true;
    return l.length >= n && meets(l, l.length - n, 0);
  });
}

/** A plan of what goes past the edges: of what it leaves only that counts which lies on the blank. */
export function withinBlank(v: Side, plan: CutPlan, blank: CutBlank, past: number): CutPlan {
  if (!isPast(v)) return plan;
  const part = (region: Region) => {
    const on = onBlank(v, region, blank);
    return { region: on, area: regionArea(on) };
  };
  return {
    ...plan,
    unreached: part(plan.unreached.region),
    ...(plan.reach ? { reach: plan.reach.map((r) => ({ ...r, ...part(r.region) })) } : {}),
    overEdge: past,
  };
}
