import type { Cutter } from './cutter';
import { formOf } from './cutter';
import { heightOf, widthOf } from './form';
import { materials, type MaterialId } from './materials';

/**
 * A diamond in a sprung holder. Its groove is as wide as the load makes it: ASTM G171 has the scratch hardness as
 * 8 F / (pi w^2), F the load and w the width, so w follows from the load and the hardness of the material. The holder goes
 * down further than the tip by what its spring gives. Depths in mm below the face, loads in N, spring rates in N/mm.
 */
export const springRateOf = (c: Cutter): number => c.values.springRate ?? 0;

/** The outline of the point alone, carried on without end. */
const pointOf = (c: Cutter) => ({ ...formOf(c), radius: Infinity });

/** Load under which the tip stands so deep in the material. */
export const loadAt = (c: Cutter, material: MaterialId, depth: number): number =>
  (Math.PI * materials[material].scratchHardness * (2 * widthOf(pointOf(c), depth)) ** 2) / 8;

/** Depth of the groove under a load. */
export const depthUnder = (c: Cutter, material: MaterialId, load: number): number =>
  heightOf(pointOf(c), Math.sqrt((8 * load) / (Math.PI * materials[material].scratchHardness)) / 2);

/** How far below the face the program goes for the tip to stand at a depth: deeper by what the spring gives. */
export const programmedDepth = (c: Cutter, material: MaterialId, depth: number): number =>
  depth + (springRateOf(c) > 0 ? loadAt(c, material, depth) / springRateOf(c) : 0);

/** Where the tip stands when the program has gone so far below the face: `programmedDepth` undone, by halving (it grows with the depth). */
export function tipDepth(c: Cutter, material: MaterialId, programmed: number): number {
  if (!(springRateOf(c) > 0) || programmed <= 0) return programmed;
  let low = 0;
  let high = programmed;
  for (let i = 0; i < 60 && high - low > 1e-10; i++) {
    const mid = (low + high) / 2;
    if (programmedDepth(c, material, mid) > programmed) high = mid;
    else low = mid;
  }
  return (low + high) / 2;
}
