import type { Cutter } from '../cutters/cutter';
import type { MaterialId } from '../cutters/materials';
import { springRateOf, tipDepth } from '../cutters/sprung';
import { contentKey, derived } from '../geometry/hash';
import type { Motion } from '../motion/motion';
import type { PlacedProgram } from './placed';

const tipped = derived<Motion, Motion>();

/**
 * Programs as the tips of the cutters go: the same objects, but for cutters in sprung holders, whose tips stay behind what
 * the program says by what the spring gives in the material.
 */
export function deflectedPrograms(
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  material: MaterialId,
): readonly PlacedProgram[] {
  if (![...tools.values()].some((c) => springRateOf(c) > 0)) return programs;
  return programs.map((p) => ({
    ...p,
    sections: p.sections.map((s) => {
      const cutter = tools.get(s.tool);
      if (!cutter || !(springRateOf(cutter) > 0)) return s;
      return {
        ...s,
        motion: tipped(s.motion, contentKey([cutter, material]), () => ({
          ...s.motion,
          z: s.motion.z.map((z) => (z < 0 ? -tipDepth(cutter, material, -z) : z)),
        })),
      };
    }),
  }));
}
