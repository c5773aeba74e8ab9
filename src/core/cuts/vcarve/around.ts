import { z } from 'zod';
import { loopArea, offset, subtract, type Region } from '../../geometry/region';
import { choices } from '../../units/fields';
import type { FieldSpec } from '../../units/limits';

/** Whether a V-bit carves outlines or what lies round them, so that they stay standing. */
export const sideSchema = {
  side: z.enum(['inside', 'around']),
  /** Round outlines it carves so far, mm. */
  margin: z.number().min(0.5).max(500),
};
export type Side = { readonly [K in keyof typeof sideSchema]: z.infer<(typeof sideSchema)[K]> };
export const sideDefaults: Side = { side: 'inside', margin: 6 };
export const sideFields: readonly FieldSpec[] = [
  {
    kind: 'choice',
    key: 'side',
    label: 'Carves',
    options: choices({ inside: 'Inside outlines', around: 'Around outlines' }),
  },
  {
    kind: 'length',
    key: 'margin',
    label: 'As far as',
    hint: 'From what stays as a plug',
    when: (v) => v.side === 'around',
  },
];

/**
 * What is carved of outlines. Round them: all within a margin of them, and all of their holes, however wide, since nothing else must
 * stand where the plug goes in.
 *
 *      ________________________
 *     |   carved    ______     |
 *     |   _________|      |    |      the walls of what stays lean outwards from the face down; at the
 *     |  | outline  ____  |    |      start depth they pass through the outlines
 *     |  |_________|hole|_|    |
 *     |________________________|
 */
export function carvedBy(v: Side, outlines: Region, tolerance: number): Region {
  if (v.side === 'inside' || !outlines.length) return outlines;
  const filled = outlines.filter((l) => loopArea(l) > 0);
  return subtract(offset(filled, v.margin, tolerance), outlines);
}
