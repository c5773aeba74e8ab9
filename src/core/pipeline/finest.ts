import { cellFor, furrowWidth } from '../cutters/detail';
import type { Cutter } from '../cutters/cutter';
import { kindOf } from '../cuts/registry';
import type { OneSetup } from '../job/job';
import { FINEST_CELL } from './shaping';

/** The cutter that shows the finest detail of a relief, of those that cuts over it use; null where none does. */
export function finestInUse({ cuts, cutters }: Pick<OneSetup, 'cuts' | 'cutters'>): Cutter | null {
  const used = new Set(
    cuts
      .filter((c) => c.enabled && kindOf(c.kind).onRelief?.(c.values))
      .flatMap((c) => kindOf(c.kind).cutters(c.values)),
  );
  const own = cutters.filter((c) => used.has(c.id));
  return own.reduce<Cutter | null>((a, b) => (a && furrowWidth(a) <= furrowWidth(b) ? a : b), null);
}

/**
 * How far apart nodes should lie, mm, that show what a cutter can; no nearer than two across a pixel where the relief is made of
 * pictures alone (`pixel`: of the finest of them, 0 where something else is in it).
 */
export const cellOf = (c: Cutter, pixel: number): number => Math.max(cellFor(c, FINEST_CELL), pixel / 2);
