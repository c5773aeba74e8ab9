import type { z } from 'zod';
import type { Cutter } from '../cutters/cutter';
import { cuttersIn } from '../cutters/library';
import { roundLengths } from '../units/round';
import type { Unit } from '../units/length';
import type { CutBlank } from './kind';
import { kindOf } from './registry';

/** The values of a new cut of a kind: with cutters of the job's unit, and lengths that are round in it. */
export function freshCut(
  kind: string,
  blank: CutBlank,
  unit: Unit,
  library: readonly Cutter[],
): Record<string, unknown> {
  const k = kindOf(kind);
  return roundLengths(
    k.defaults(blank, cuttersIn(library, unit)) as z.infer<typeof k.schema> as Record<string, unknown>,
    k.fields,
    unit,
  );
}
