import { z } from 'zod';
import { cuttingLength, formOf, type Cutter } from '../cutters/cutter';
import { widthOf } from '../cutters/form';
import { cuttersIn, nearestCutter } from '../cutters/library';
import { materialIds, materials, type MaterialId } from '../cutters/materials';
import { sideDefaults, sideSchema } from '../cuts/around';
import { lengthText, type Unit } from '../units/length';
import { withLimits } from '../units/limits';
import { roundLengths } from '../units/round';
import type { Job } from './job';
import { withPair, type HalfCut, type MadePair } from './pairs';

/**
 * A V-inlay: outlines are carved as a pocket with leaning walls, and once more, mirrored, as a plug that stays standing between walls
 * that lean as much. Put together, the outlines of both meet at the face of the pocket.
 *
 *             sawn off here
 *      _______________________________
 *     |   the plug's blank            |
 *     |______                   ______|   <- its floor
 *            \                 /          ^ `clear`: room for the saw, above the face
 *     ________\               /________   <- face of the pocket
 *              \             /            ^
 *               \___________/             v `goesIn`
 *                \_________/              <- `depth`: glue below the plug
 *
 * All of it are values of ordinary cuts; the pair is known by the set-up of the plug, which `fits` that of the pocket.
 */
export const inlaySchema = z.object({
  cutter: z.string(),
  /** End mills for the floors of both. */
  endMills: z.array(z.string()).max(8),
  /** Of the pocket, how far the plug goes into it, and how far its floor stands off the pocket's face, mm. */
  depth: z.number().min(0.1).max(100),
  goesIn: z.number().min(0.1).max(100),
  clear: z.number().min(0.05).max(50),
  /** How far round the outlines the plug is carved, mm. */
  margin: sideSchema.margin.unwrap(),
  material: z.enum(materialIds),
});
export type InlayValues = Readonly<z.infer<typeof inlaySchema>>;

export const inlayFields = withLimits(inlaySchema, [
  { kind: 'cutter', key: 'cutter', label: 'V-bit or cone, for both halves', shapes: ['v', 'cone'] },
  { kind: 'length', key: 'depth', label: 'Depth of the pocket' },
  { kind: 'length', key: 'goesIn', label: 'The plug goes in' },
  { kind: 'length', key: 'clear', label: 'Room for the saw', hint: 'From the face to the floor of the plug' },
  { kind: 'length', key: 'margin', label: 'Plug carved as far as', hint: 'From the outlines' },
  {
    kind: 'choice',
    key: 'material',
    label: 'Material of the plug',
    options: materialIds.map((id) => ({ value: id, label: materials[id].name })),
  },
  {
    kind: 'cutters',
    key: 'endMills',
    label: 'End mills for the floors',
    shapes: ['flat', 'bull'],
    optional: 'None, the V-bit clears them',
  },
]);

export const inlayDefaults = (cutter: string, endMills: string[], material: MaterialId): InlayValues => ({
  ...{ cutter, endMills, material },
  ...{ depth: 2.4, goesIn: 2, clear: 1, margin: sideDefaults.margin },
});

/** What an inlay begins with: cutters and round lengths of a unit, and another material than that of the pocket. */
export function freshInlay(pocket: MaterialId, unit: Unit, library: readonly Cutter[]): InlayValues {
  const own = cuttersIn(library, unit);
  const mills = [nearestCutter(own, 'flat', 3)].filter(Boolean);
  const values = inlayDefaults(nearestCutter(own, 'v', 12, 60), mills, pocket === 'maple' ? 'walnut' : 'maple');
  return roundLengths(values, inlayFields, unit);
}

/** Why an inlay cannot be made of values, and what to do; null where it can. `thickness`: of the thinner blank, mm. */
export function whyNoInlay(v: InlayValues, cutter: Cutter | undefined, thickness: number, unit: Unit): string | null {
  const long = (mm: number) => lengthText(mm, unit);
  if (!cutter) return 'Choose a V-bit or cone for both halves.';
  if (v.goesIn > v.depth)
    return `The plug would stand on the floor of the pocket: it goes in ${long(v.goesIn)}, and the pocket is ${long(v.depth)} deep. Let it go in less, or make the pocket deeper.`;
  const most = Math.max(v.depth, v.goesIn + v.clear);
  if (most > cuttingLength(cutter))
    return `${cutter.name} cuts ${long(cuttingLength(cutter))} deep at most, and ${long(most)} are asked for. Take a longer one, or make the inlay shallower.`;
  if (most >= thickness)
    return `Nothing would be left under the inlay: the blank is ${long(thickness)} thick, and ${long(most)} are cut into it.`;
  const wide = 2 * widthOf(formOf(cutter), v.goesIn + v.clear);
  if (v.margin < wide)
    return `The plug is carved ${long(v.margin)} round the outlines, and ${cutter.name} is ${long(wide)} wide at that depth. Carve further round.`;
  return null;
}

/** Adds an inlay of items of a set-up: a pocket among its cuts, and a set-up behind it, on a blank of its own, for the plug. */
export function withInlay(
  job: Job,
  into: string,
  itemIds: readonly string[],
  v: InlayValues,
  freshId: () => string,
): MadePair {
  const carve = (name: string, values: object): HalfCut => ({
    ...{ name, kind: 'vcarve' },
    values: { cutter: v.cutter, endMills: [...v.endMills], overRise: 0, ...values },
  });
  return withPair(
    job,
    into,
    itemIds,
    {
      second: { name: 'Plug', blank: { material: v.material } },
      pocket: carve('Inlay pocket', { startDepth: 0, limit: v.depth, ...sideDefaults }),
      plug: carve('Inlay plug', { startDepth: v.goesIn, limit: v.clear, side: 'around', margin: v.margin }),
    },
    freshId,
  );
}
