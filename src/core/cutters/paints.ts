import type { HeightField } from '../relief/field';

/** Paint or wax that stays in what is cut when all of a face was painted and then sanded clean. sRGB; null: nothing is painted. */
export const paintIds = ['none', 'black', 'white', 'green', 'blue', 'red', 'gold'] as const;
export type PaintId = (typeof paintIds)[number];

export const paints: Record<PaintId, { readonly name: string; readonly colour: string | null }> = {
  none: { name: 'None', colour: null },
  black: { name: 'Black', colour: '#17181a' },
  white: { name: 'White', colour: '#f2f0ea' },
  green: { name: 'Reed green', colour: '#24513c' },
  blue: { name: 'Lock blue', colour: '#1f3f6e' },
  red: { name: 'Barn red', colour: '#8e2a22' },
  gold: { name: 'Gold', colour: '#c9a13b' },
};

/** Less than so far below the face nothing is left of it when that is sanded, mm. */
const SANDED = 0.02;

/** Which share of the nodes of a rectangle lies so deep that paint is left in it. */
export function paintedShare(f: HeightField, c0: number, c1: number, r0: number, r1: number): number {
  let painted = 0;
  for (let r = r0; r <= r1; r++) for (let c = c0; c <= c1; c++) if (f.z[r * f.cols + c] < -SANDED) painted++;
  return painted / ((c1 - c0 + 1) * (r1 - r0 + 1));
}
