import { coneOf } from '../cutters/cutter';
import type { Region } from '../geometry/region';
import type { Cut } from '../job/job';
import type { FitPlace, Half } from '../proof/fit';
import type { Proof } from './proving';
import type { Trouble } from './trouble';

/** So much short of where it should be is no matter, mm. */
export const SHORT = 0.02;
/** Walls that lie so far in one another have to be forced, mm. */
export const TIGHT = 0.005;
/** Leaning walls are met so far below the face, mm: narrow strokes go no deeper. */
export const NEAR_FACE = 0.3;
/** So far outside of an outline walls are still looked for, and so far inside of where they should stand, mm. */
export const OUTSIDE = 1;
export type Says = (mm: number) => string;
export const at = ({ x, y }: { readonly x: number; readonly y: number }): FitPlace => ({ mm: 0, x, y });

/** Two pieces as they are put together: what was proven of both, the cuts that make them, and the outlines that they share. */
export interface Halves {
  readonly pocket: Proof;
  readonly plug: Proof;
  readonly pocketCut: Cut;
  readonly plugCut: Cut;
  readonly outlines: Region;
  /** Of other pockets of the same set-up: along these another plug is beside this one, and no wall. */
  readonly beside: Region;
  readonly long: Says;
  readonly put: { readonly pocket: Half; readonly plug: Half; readonly turned: 'x' | 'y' };
  readonly tell: (done: number) => void;
}

/** The cone that leans the walls of a cut; null where they are upright. */
function coneIn({ input }: Proof, { kind, values }: Cut) {
  const id = kind === 'vcarve' ? values.cutter : values.wall;
  return input.job.cutters.find((c) => c.id === id) ?? null;
}

/** How far the walls of both lean from upright, radians, 0 where they are; a trouble where that is not the same. */
export function leanOf({ pocket, plug, pocketCut, plugCut }: Halves): { lean: number; troubles: Trouble[] } {
  const [a, b] = [coneIn(pocket, pocketCut), coneIn(plug, plugCut)];
  const [into, goes] = [a, b].map((c) => (c ? Math.atan(coneOf(c).tan) : 0));
  const by = (c: typeof a) => (c ? `by ${c.name}` : 'with upright walls');
  const troubles: Trouble[] = [];
  if (Math.abs(into - goes) > 1e-6)
    troubles.push({
      text: `The pocket is cut ${by(a)}, what goes into it ${by(b)}: walls that do not lean alike meet along one line only. Take the same angle for both.`,
      at: null,
    });
  return { lean: into, troubles };
}
