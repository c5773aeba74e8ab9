import { z } from 'zod';
import { coneOf, cuttingLength, radiusOf, type Cutter } from '../cutters/cutter';
import { cuttersIn, nearestCutter } from '../cutters/library';
import { materialIds, materials, type MaterialId } from '../cutters/materials';
import { sideDefaults } from '../cuts/around';
import { kindOf } from '../cuts/registry';
import { choices } from '../units/fields';
import { lengthText, type Unit } from '../units/length';
import { withLimits } from '../units/limits';
import { roundLengths } from '../units/round';
import type { Cut, Job } from './job';
import { withPair, type HalfCut, type MadePair, type Pair } from './pairs';

/**
 * Dies between which a sheet is pressed: outlines are cut away on the one, and stand up mirrored on the other, smaller by as much as
 * the sheet needs. Closed, they are everywhere a sheet apart.
 *
 *      _______                     _______    <- floor round what is raised
 *      _____  \___________________/  _____    <- face of the other one      | `depth`
 *           \    the sheet          /                                       v
 *            \_____________________/          <- its floor
 *
 * Where walls lean by `a` from upright, and what is raised is to stand `sheet` off them square across, it is smaller at the level
 * of its floor by
 *
 *      sheet / cos a - sheet tan a = sheet (1 - sin a) / cos a
 *
 * since that floor lies a sheet above the face: there the other wall would have opened by sheet tan a more.
 */
export const embossingSchema = z.object({
  walls: z.enum(['leaning', 'upright']),
  cutter: z.string(),
  /** End mills for the floors of both; where walls are upright the narrowest gives the corners. */
  endMills: z.array(z.string()).max(8),
  depth: z.number().min(0.05).max(20),
  sheet: z.number().min(0.01).max(10),
  material: z.enum(materialIds),
});
export type EmbossingValues = Readonly<z.infer<typeof embossingSchema>>;

export const embossingFields = withLimits(embossingSchema, [
  {
    kind: 'choice',
    key: 'walls',
    label: 'Walls',
    options: choices({ leaning: 'Leaning, by a V-bit', upright: 'Upright, by end mills' }),
  },
  {
    kind: 'cutter',
    key: 'cutter',
    label: 'V-bit or cone, for both dies',
    shapes: ['v', 'cone'],
    when: (v) => v.walls === 'leaning',
  },
  { kind: 'length', key: 'depth', label: 'Raised by' },
  { kind: 'length', key: 'sheet', label: 'Thickness of the sheet' },
  {
    kind: 'choice',
    key: 'material',
    label: 'Material of the raised die',
    options: materialIds.map((id) => ({ value: id, label: materials[id].name })),
  },
  { kind: 'cutters', key: 'endMills', label: 'End mills', shapes: ['flat'], hint: 'The floors of both dies' },
]);

export function freshEmbossing(pocket: MaterialId, unit: Unit, library: readonly Cutter[]): EmbossingValues {
  const own = cuttersIn(library, unit);
  const mills = [3, 1].map((d) => nearestCutter(own, 'flat', d)).filter(Boolean);
  return roundLengths(
    {
      ...{ walls: 'leaning', cutter: nearestCutter(own, 'v', 12, 60), endMills: [...new Set(mills)] },
      ...{ depth: 0.6, sheet: 0.2, material: pocket },
    },
    embossingFields,
    unit,
  );
}

type Cutters = (id: string) => Cutter | undefined;
const millsOf = (v: EmbossingValues, cutter: Cutters): Cutter[] => v.endMills.flatMap((id) => cutter(id) ?? []);
/** How round the corners of both are where walls are upright, mm; 0 while no end mill is known. */
export const dieCorners = (v: EmbossingValues, cutter: Cutters): number => {
  const radii = millsOf(v, cutter).map(radiusOf);
  return v.walls === 'upright' && radii.length ? Math.min(...radii) : 0;
};
/** By how much what is raised is smaller than the outlines at its foot, all round, mm; see above. */
export const smallerBy = (v: EmbossingValues, cutter: Cutters): number =>
  v.sheet * smallerPer(v.walls === 'leaning' ? cutter(v.cutter) : undefined);
/** The same for each mm of the sheet; upright walls where there is no cone. */
function smallerPer(cone: Cutter | undefined): number {
  const a = cone ? Math.atan(coneOf(cone).tan) : 0;
  return (1 - Math.sin(a)) / Math.cos(a);
}

/** Why dies cannot be made of values, and what to do; null where they can. `thickness`: of the thinner blank, mm. */
export function whyNoEmbossing(v: EmbossingValues, cutter: Cutters, thickness: number, unit: Unit): string | null {
  const long = (mm: number) => lengthText(mm, unit);
  const mills = millsOf(v, cutter);
  const cone = v.walls === 'leaning' ? cutter(v.cutter) : undefined;
  if (v.walls === 'leaning' && !cone) return 'Choose a V-bit or cone for both dies.';
  if (!mills.length) return 'Choose an end mill: all that is not raised is cleared by it.';
  if (v.depth >= thickness)
    return `Nothing would be left under the dies: the blank is ${long(thickness)} thick, and ${long(v.depth)} are cut into it.`;
  for (const c of [...(cone ? [cone] : []), ...mills])
    if (v.depth > cuttingLength(c))
      return `${c.name} cuts ${long(cuttingLength(c))} deep at most, and ${long(v.depth)} are asked for. Take a longer one, or raise less.`;
  return null;
}

/** A V-carve round outlines begins at its start depth: what is carved below that is no more than this, mm. */
const FOOT = 0.001;

/** Ridges that the tip of a V-bit may leave where it clears a floor, mm: they are pressed into the sheet. */
const RIDGE = 0.008;

/** Adds dies of items of a set-up; see withPair. */
export function withEmbossing(
  job: Job,
  into: string,
  itemIds: readonly string[],
  v: EmbossingValues,
  cutter: Cutters,
  freshId: () => string,
): MadePair {
  const setup = job.setups.find((s) => s.id === into)!;
  const blank = job.blanks.find((b) => b.id === setup.blank)!;
  const cut = (name: string, kind: 'vcarve' | 'area', more: object): HalfCut => ({
    ...{ name, kind },
    values: { ...(kindOf(kind).defaults({ ...setup, ...blank }, job.cutters) as object), startDepth: 0, ...more },
  });
  const cone = cutter(v.cutter);
  const carve = (name: string, more: object): HalfCut => ({
    ...cut(name, 'vcarve', { cutter: v.cutter, endMills: [...v.endMills], ...more }),
    overrides: cone ? { [v.cutter]: { stepOver: 2 * RIDGE * coneOf(cone).tan + 2 * coneOf(cone).tip } } : {},
  });
  const clear = (name: string, more: object) =>
    cut(name, 'area', { cutters: [...v.endMills], depth: v.depth, corners: dieCorners(v, cutter), ...more });
  const around = { side: 'around', margin: null, grow: -smallerBy(v, cutter) };
  const names = ['Die, sunk', 'Die, raised'];
  return withPair(
    job,
    into,
    itemIds,
    {
      second: { name: 'Raised die', blank: { material: v.material }, sheet: v.sheet },
      pocket:
        v.walls === 'leaning'
          ? carve(names[0], { limit: v.depth, ...sideDefaults })
          : clear(names[0], { ...sideDefaults }),
      plug:
        v.walls === 'leaning'
          ? carve(names[1], { startDepth: v.depth - FOOT, limit: FOOT, ...around })
          : clear(names[1], around),
    },
    freshId,
  );
}

/** Dies for a sheet of another thickness: what is raised becomes as much smaller or larger. */
export function withSheet(job: Job, pair: Pair, sheet: number): Job {
  const regrown = (cut: Cut, was: number): Cut => {
    const cone = job.cutters.find((c) => c.id === (cut.kind === 'vcarve' ? cut.values.cutter : cut.values.wall));
    const grow = Number(cut.values.grow ?? 0) - (sheet - was) * smallerPer(cone);
    return { ...cut, values: { ...cut.values, grow } };
  };
  const setups = job.setups.map((s) =>
    s.id === pair.plug && s.fits?.sheet !== undefined
      ? {
          ...s,
          fits: { ...s.fits, sheet },
          cuts: s.cuts.map((c) => (c.id === pair.plugCut ? regrown(c, s.fits!.sheet!) : c)),
        }
      : s,
  );
  return { ...job, setups };
}
