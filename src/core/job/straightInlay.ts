import { z } from 'zod';
import { cuttingLength, radiusOf, type Cutter } from '../cutters/cutter';
import { cuttersIn, nearestCutter } from '../cutters/library';
import { materialIds, materials, type MaterialId } from '../cutters/materials';
import { kindOf } from '../cuts/registry';
import { choices } from '../units/fields';
import { lengthText, type Unit } from '../units/length';
import { withLimits } from '../units/limits';
import { roundLengths } from '../units/round';
import type { Job } from './job';
import { withPair, type MadePair } from './pairs';

/**
 * A straight inlay: a pocket with upright walls, and a plug that is cut free from a plate as thick as it is to be, face down; the
 * plug is smaller all round. The corners of both are as round as the larger of the cutters that make them; or each is relieved by
 * its own cutter, so that the sharp one of the other goes in.
 *
 *      ______     _______________     ______
 *            |   |   the plug    |   |   ^       ^ `proud`
 *     _______|   |               |   |___|___    v
 *            |   |               |   |           <- face of the pocket
 *            |   |_______________|   |
 *            |_______________________|           <- `depth`
 *            `clearance`, on each side
 */
export const straightInlaySchema = z.object({
  /** End mills for the pocket: the narrowest gives its corners. */
  cutters: z.array(z.string()).min(1).max(8),
  plugCutter: z.string(),
  depth: z.number().min(0.1).max(100),
  proud: z.number().min(0).max(50),
  clearance: z.number().min(0).max(2),
  corners: z.enum(['round', 'relieved']),
  /** What is left of the plate under the plug, so that it stays where it is, mm. */
  skin: z.number().min(0).max(5),
  material: z.enum(materialIds),
});
export type StraightInlayValues = Readonly<z.infer<typeof straightInlaySchema>>;

export const straightInlayFields = withLimits(straightInlaySchema, [
  { kind: 'length', key: 'depth', label: 'Depth of the pocket' },
  { kind: 'length', key: 'proud', label: 'The plug stands proud by', hint: '0 for flush' },
  { kind: 'length', key: 'clearance', label: 'Clearance', hint: 'On each side' },
  {
    kind: 'choice',
    key: 'corners',
    label: 'Corners',
    options: choices({ round: 'Rounded alike', relieved: 'Corner relief' }),
  },
  { kind: 'length', key: 'skin', label: 'Skin under the plug', hint: 'Of its plate, sanded off' },
  { kind: 'cutter', key: 'plugCutter', label: 'End mill for the plug', shapes: ['flat'] },
  {
    kind: 'choice',
    key: 'material',
    label: 'Material of the plug',
    options: materialIds.map((id) => ({ value: id, label: materials[id].name })),
  },
  { kind: 'cutters', key: 'cutters', label: 'End mills for the pocket', shapes: ['flat'] },
]);

export function freshStraightInlay(pocket: MaterialId, unit: Unit, library: readonly Cutter[]): StraightInlayValues {
  const own = cuttersIn(library, unit);
  const mill = nearestCutter(own, 'flat', 2);
  return roundLengths(
    {
      ...{ cutters: [mill], plugCutter: mill, depth: 2, proud: 0.2, clearance: 0.05, skin: 0.2 },
      corners: 'round' as const,
      material: pocket === 'maple' ? 'walnut' : 'maple',
    },
    straightInlayFields,
    unit,
  );
}

/** How round the corners of both halves are, mm; 0 where they are relieved, and while a cutter is not known. */
export function cornersOf(v: StraightInlayValues, cutter: (id: string) => Cutter | undefined): number {
  const known = (ids: readonly string[]) => ids.flatMap((id) => cutter(id) ?? []);
  const pocket = known(v.cutters).map(radiusOf);
  const plug = known([v.plugCutter]).map(radiusOf);
  return v.corners === 'round' && pocket.length && plug.length ? Math.max(Math.min(...pocket), plug[0]) : 0;
}

/** Why a straight inlay cannot be made of values, and what to do; null where it can. `thickness`: of the pocket's blank, mm. */
export function whyNoStraightInlay(
  v: StraightInlayValues,
  cutter: (id: string) => Cutter | undefined,
  thickness: number,
  unit: Unit,
): string | null {
  const long = (mm: number) => lengthText(mm, unit);
  const plug = cutter(v.plugCutter);
  if (!plug) return 'Choose an end mill for the plug.';
  if (!v.cutters.length) return 'Choose an end mill for the pocket.';
  if (v.depth >= thickness)
    return `Nothing would be left under the inlay: the blank is ${long(thickness)} thick, and the pocket ${long(v.depth)} deep.`;
  const high = v.depth + v.proud;
  if (v.skin >= high) return `The skin of ${long(v.skin)} is as thick as the plug: nothing would be cut.`;
  for (const [c, deep] of [[plug, high] as const, ...v.cutters.map((id) => [cutter(id), v.depth] as const)])
    if (c && deep > cuttingLength(c))
      return `${c.name} cuts ${long(cuttingLength(c))} deep at most, and ${long(deep)} are asked for. Take a longer one, or make the inlay shallower.`;
  return null;
}

/** Adds a straight inlay of items of a set-up; see withPair. `of`: what it is called after, where it is one of several. */
export function withStraightInlay(
  job: Job,
  into: string,
  itemIds: readonly string[],
  v: StraightInlayValues,
  cutter: (id: string) => Cutter | undefined,
  freshId: () => string,
  of = '',
): MadePair {
  const named = (name: string) => (of ? `${name}, ${of}` : name);
  const corners = { corners: cornersOf(v, cutter), relieved: v.corners === 'relieved' };
  const setup = job.setups.find((s) => s.id === into)!;
  const piece = job.blanks.find((b) => b.id === setup.blank)!;
  const values = (kind: string, blank: typeof piece, more: object) => ({
    ...(kindOf(kind).defaults({ ...setup, ...blank }, job.cutters) as object),
    ...more,
  });
  const thickness = v.depth + v.proud;
  const plate = { ...piece, material: v.material, thickness };
  return withPair(
    job,
    into,
    itemIds,
    {
      second: { name: named('Plug'), blank: { material: v.material, thickness } },
      pocket: {
        ...{ name: named('Inlay pocket'), kind: 'area' },
        values: values('area', piece, { cutters: [...v.cutters], startDepth: 0, depth: v.depth, ...corners, grow: 0 }),
      },
      plug: {
        ...{ name: named('Inlay plug'), kind: 'profile' },
        values: values('profile', plate, {
          ...{ cutter: v.plugCutter, side: 'outside', through: true, beyond: 0, skin: v.skin, ...corners },
          ...{ grow: -v.clearance, tabs: { ...noTabs(plate) } },
        }),
      },
    },
    freshId,
  );
}

/** A plug is held by its skin: no tab is left on its wall. */
const noTabs = (plate: { readonly thickness: number }) => ({
  ...{ shape: 'rectangular', by: 'count', count: 0, spacing: 80, length: 8 },
  ...{ height: Math.min(3, plate.thickness / 3), at: [] },
});
