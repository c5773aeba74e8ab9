import { z } from 'zod';
import { mirrored } from '../artwork/arrange';
import { itemBounds, itemRegion, placeItem, regionOf, type Item } from '../artwork/item';
import type { ArtworkContext } from '../artwork/kind';
import { scaledItem } from '../artwork/transform';
import { coneOf, cuttingLength, type Cutter } from '../cutters/cutter';
import { castIds, castMaterials } from '../cutters/castMaterials';
import { cuttersIn, nearestCutter } from '../cutters/library';
import { kindOf } from '../cuts/registry';
import { contains, regionArea, subtract } from '../geometry/region';
import { enlarged } from '../relief/stack';
import { lengthText, type Unit } from '../units/length';
import { withLimits } from '../units/limits';
import { roundLengths } from '../units/round';
import type { Cut, OneSetup } from './job';
import { drawnFloors, enlargedFloors, floorsBelow, type LevelFloor } from './levelFloors';

/** What a picked thing becomes in a mould. */
export const partNames = {
  body: 'Outline of the casting',
  raised: 'Raised on the casting',
  words: 'Lettering on the casting',
  sculpted: 'Sculpted, by the relief',
  channel: 'Gate or vent',
  none: 'Left out',
} as const;
export type Part = keyof typeof partNames;

/**
 * A mould of picked outlines, as ordinary cuts. Depths in mm below the face as it is left.
 *
 *     blank     ______________________________
 *     face      ----------\            /------    skimmed by `skim`
 *                          \_  __  _  /           walls lean as the cone that finishes them
 *     floor                  \/  \/ \/            `depth`; lettering and what is raised go on from there
 */
export const mouldSchema = z.object({
  skim: z.number().min(0).max(20),
  depth: z.number().min(0.1).max(100),
  raised: z.number().min(0.05).max(50),
  words: z.number().min(0.05).max(20),
  channel: z.number().min(0.1).max(50),
  mills: z.array(z.string()).min(1).max(8),
  wall: z.string(),
  bit: z.string(),
  ball: z.string(),
  mirror: z.boolean(),
  larger: z.boolean(),
  material: z.enum(castIds),
});
export type MouldValues = Readonly<z.infer<typeof mouldSchema>>;

export const mouldFields = withLimits(mouldSchema, [
  {
    kind: 'choice',
    key: 'material',
    label: 'Cast in',
    options: castIds.map((id) => ({ value: id, label: castMaterials[id].name })),
  },
  { kind: 'length', key: 'skim', label: 'Face skimmed by', hint: '0 for not' },
  { kind: 'length', key: 'depth', label: 'Depth of the floor', hint: 'Below the face as it is left' },
  { kind: 'length', key: 'raised', label: 'Raised parts go on by' },
  { kind: 'length', key: 'words', label: 'Lettering goes on by', hint: 'At most' },
  { kind: 'length', key: 'channel', label: 'Gates and vents', hint: 'Depth below the face' },
  { kind: 'cutter', key: 'wall', label: 'Cone for the walls', shapes: ['cone'] },
  { kind: 'cutter', key: 'bit', label: 'For lettering', shapes: ['v', 'cone'] },
  { kind: 'cutter', key: 'ball', label: 'For gates, vents and what is sculpted', shapes: ['ball', 'taperedBall'] },
  { kind: 'cutters', key: 'mills', label: 'End mills', shapes: ['flat'] },
  { kind: 'flag', key: 'mirror', label: 'Mirror the artwork, so that the casting is as drawn' },
  { kind: 'flag', key: 'larger', label: 'Make all of it larger by what the casting shrinks' },
]);

/** Values that only some parts ask for. */
const ASKED_BY: Readonly<Record<string, readonly Part[]>> = {
  raised: ['raised'],
  words: ['words'],
  bit: ['words'],
  channel: ['channel'],
  ball: ['channel', 'sculpted'],
};
/** What a mould takes from the relief. */
export interface FromRelief {
  /** Level floors that are cleared by end mills. */
  readonly floors: readonly LevelFloor[];
  /** Whether all of the relief is the mould: no picked thing is any part of it. */
  readonly whole: boolean;
  /** Whether what is not level is roughed and finished then. */
  readonly sculpted: boolean;
}
const NOTHING: FromRelief = { floors: [], whole: false, sculpted: false };

/** The fields that the parts of a mould ask for. */
export const fieldsFor = (parts: ReadonlyMap<string, Part>, from: FromRelief = NOTHING) => {
  const there = new Set(parts.values());
  const ofRelief: Readonly<Record<string, boolean>> = {
    ...{ depth: false, raised: false, words: false, bit: false, channel: false, mirror: false },
    ...{ wall: from.floors.length > 0, ball: from.sculpted },
  };
  return mouldFields.filter((f) =>
    from.whole ? (ofRelief[f.key] ?? true) : (ASKED_BY[f.key]?.some((p) => there.has(p)) ?? true),
  );
};
/** From where on level floors of the relief are cleared: the face as it is left, or the floor, mm below the top face. */
export const floorsFrom = (v: MouldValues, { whole }: Pick<FromRelief, 'whole'>): number =>
  v.skim + (whole ? 0 : v.depth * largerBy(v));

/** What a mould begins with: cutters and round lengths of a unit. */
export function freshMould(items: readonly Item[], unit: Unit, library: readonly Cutter[]): MouldValues {
  const own = cuttersIn(library, unit);
  const mills = [...new Set([nearestCutter(own, 'flat', 6), nearestCutter(own, 'flat', 2)])].filter(Boolean);
  return roundLengths(
    {
      ...{ skim: 0.3, depth: 3, raised: 0.8, words: 0.5, channel: 1.5, mills },
      ...{ wall: nearestCutter(own, 'cone', 3.175, 20), bit: nearestCutter(own, 'v', 6, 60) },
      ...{ ball: nearestCutter(own, 'ball', 3), larger: false, material: 'castTin' as const },
      // What lies mirrored already was meant to.
      mirror: !items.some((i) => i.kind === 'lettering' && i.mirror),
    },
    mouldFields,
    unit,
  );
}

/** What each picked thing may be: the outermost outline is the casting's, lines are gates, what a relief is made of is sculpted. */
export function guessParts(
  one: Pick<OneSetup, 'relief'>,
  items: readonly Item[],
  art: ArtworkContext,
): Map<string, Part> {
  const sculpted = new Set(one.relief.forms.filter((f) => f.visible && f.kind === 'outline').flatMap((f) => f.items));
  const closed = items.map((i) => ({ item: i, region: itemRegion(i, art, 0.05), box: itemBounds(placeItem(i, art)) }));
  return new Map(
    closed.map(({ item, region, box }) => {
      if (!region.length) return [item.id, 'channel' as const];
      const [x, y] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
      const held = closed.some(
        (q) => q.item !== item && contains(q.region, x, y) && regionArea(q.region) > regionArea(region),
      );
      const part: Part =
        item.kind === 'lettering' ? 'words' : !held ? 'body' : sculpted.has(item.id) ? 'sculpted' : 'raised';
      return [item.id, part];
    }),
  );
}

/** So much of a part may lie beyond the casting: what rounding leaves. */
const BEYOND = 0.005;

/** Of walls that no cone leans half as much draft is looked for, degrees. */
const USUAL_LEAN = 6;

/** How many times as large a mould is made as it is drawn. */
const largerBy = (v: MouldValues) => (v.larger ? enlarged({ shrinks: castMaterials[v.material].shrinks }) : 1);

/** Why a mould cannot be made, and what to do; null where it can. */
export function whyNoMould(
  one: OneSetup,
  v: MouldValues,
  parts: ReadonlyMap<string, Part>,
  cutter: (id: string) => Cutter | undefined,
  art: ArtworkContext,
  from: FromRelief = NOTHING,
): string | null {
  if (from.whole) return whyNoMouldOf(one, v, cutter, from);
  const has = (p: Part) => [...parts.values()].includes(p);
  const long = (mm: number) => lengthText(mm, one.unit);
  if (!has('body')) return 'No picked thing is the outline of the casting. Say which one is, or pick it too.';
  const of = (p: Part) => one.items.filter((i) => parts.get(i.id) === p);
  const body = regionOf(of('body'), art, 0.05);
  for (const i of [...of('raised'), ...of('words'), ...of('sculpted')]) {
    const region = itemRegion(i, art, 0.05);
    if (regionArea(subtract(region, body)) > BEYOND * regionArea(region))
      return `"${i.name}" lies beyond the outline of the casting. Move it onto that, or leave it out.`;
  }
  if (!v.mills.length) return 'Choose an end mill for the floor.';
  const cone = cutter(v.wall);
  if (!cone) return 'Choose a cone that finishes the walls.';
  if (has('words') && !cutter(v.bit)) return 'Choose a V-bit or cone for the lettering.';
  if ((has('channel') || has('sculpted')) && !cutter(v.ball))
    return 'Choose a ball for gates, vents and what is sculpted.';
  if (has('sculpted') && !one.relief.forms.length)
    return 'There is no relief to sculpt from. Shape one in the Relief stage, or let that part be raised.';
  const onFloor = Math.max(has('raised') ? v.raised : 0, has('words') ? v.words : 0);
  const deepest = Math.max(
    v.skim + Math.max(largerBy(v) * (v.depth + onFloor), has('channel') ? v.channel : 0),
    ...depthsOf(one, v, from),
  );
  if (deepest >= one.blank.thickness)
    return `Nothing would be left under the mould: the blank is ${long(one.blank.thickness)} thick, and ${long(deepest)} are cut into it.`;
  const high = Math.max(largerBy(v) * v.depth, ...depthsOf(one, v, from).map((d) => d - floorsFrom(v, from)));
  if (high > cuttingLength(cone))
    return `${cone.name} cuts ${long(cuttingLength(cone))} deep at most, and the wall is ${long(high)} high. Take a longer one, or make the floor less deep.`;
  return null;
}

/** How deep level floors of the relief are cut, mm below the top face, the highest first. */
export const depthsOf = (one: OneSetup, v: MouldValues, from: FromRelief): number[] =>
  floorLists(one, v, from).map((f) => f.depth);
/** Level floors that are cleared, as large as the relief is made, as lists of one depth each. */
const floorLists = (one: OneSetup, v: MouldValues, from: FromRelief) =>
  floorsBelow(
    enlargedFloors(from.floors, v.larger ? largerBy(v) / enlarged(one.relief) : 1, one.blank),
    floorsFrom(v, from),
  );

/** The same for a mould that is all of a relief. */
function whyNoMouldOf(
  one: OneSetup,
  v: MouldValues,
  cutter: (id: string) => Cutter | undefined,
  from: FromRelief,
): string | null {
  const long = (mm: number) => lengthText(mm, one.unit);
  if (!one.relief.forms.length) return 'There is no relief to make a mould of. Shape one in the Relief stage.';
  const depths = depthsOf(one, v, from);
  if (!depths.length && !from.sculpted)
    return 'Nothing of the relief is to be cut. Take a level floor, or what is sculpted.';
  if (!v.mills.length) return 'Choose an end mill.';
  if (from.sculpted && !cutter(v.ball)) return 'Choose a ball for what is sculpted.';
  if (!depths.length) return null;
  const cone = cutter(v.wall);
  if (!cone) return 'Choose a cone that finishes the walls of the level floors.';
  const deepest = depths.at(-1)!;
  if (deepest >= one.blank.thickness)
    return `Nothing would be left under the mould: the blank is ${long(one.blank.thickness)} thick, and a floor of the relief ${long(deepest)} deep.`;
  if (deepest - v.skim > cuttingLength(cone))
    return `${cone.name} cuts ${long(cuttingLength(cone))} deep at most, and a floor lies ${long(deepest - v.skim)} below the face. Take a longer one, or leave that floor to what is sculpted.`;
  return null;
}

/**
 * A set-up with the cuts of a mould; what is picked may be mirrored and made larger about the middle of the blank. Level floors of its
 * relief become artwork, each list of one depth a clearance whose walls lean outwards from its edges; they stay where they are, and are
 * made as much larger as the relief is.
 */
export function withMould(
  one: OneSetup,
  v: MouldValues,
  parts: ReadonlyMap<string, Part>,
  library: readonly Cutter[],
  freshId: () => string,
  from: FromRelief = NOTHING,
): { one: OneSetup; cut: string } {
  const of = (p: Part) => one.items.filter((i) => parts.get(i.id) === p).map((i) => i.id);
  const [width, height] = [one.blank.width, one.blank.height];
  const times = largerBy(v);
  const used = (i: Item) => (parts.get(i.id) ?? 'none') !== 'none';
  const placed = (i: Item): Item => {
    const turned = v.mirror ? mirrored(i, 'upright', width / 2, height / 2) : i;
    return times === 1 ? turned : (scaledItem(turned, times, times, width / 2, height / 2) ?? turned);
  };
  const [face, floor] = [v.skim, v.skim + v.depth * times];
  const cuts: Cut[] = [];
  const add = (name: string, kind: string, items: string[], values: object) =>
    cuts.push({
      ...{ id: freshId(), name, kind, enabled: true, items, overrides: {} },
      values: { ...(kindOf(kind).defaults(one.blank, library) as object), ...values },
    });
  const cleared = (name: string, items: string[], startDepth: number, depth: number) => {
    if (items.length) add(name, 'area', items, { cutters: [...v.mills], startDepth, depth, wall: v.wall });
  };
  if (v.skim > 0) add('Skim', 'skim', [], { cutter: v.mills[0], where: 'blank', depth: v.skim });
  cleared('Floor', of('body'), face, floor);
  cleared('Raised', of('raised'), floor, floor + v.raised * times);
  const [words, sculpted, channels] = [of('words'), of('sculpted'), of('channel')];
  const top = floorsFrom(v, from);
  const levels = floorLists(one, v, from);
  const drawn = drawnFloors(one, levels, freshId);
  const cone = library.find((c) => c.id === v.wall);
  // Walls lean outwards from the edges of the floor.
  levels.forEach(({ depth }, k) =>
    add(
      `Level floor, ${lengthText(depth, one.unit)}`,
      'area',
      drawn.cleared[k].map((i) => i.id),
      { cutters: [...v.mills], startDepth: top, depth, wall: v.wall, grow: (depth - top) * coneOf(cone!).tan },
    ),
  );
  const done = drawn.level.map((i) => i.id);
  if (words.length)
    add('Lettering', 'vcarve', words, { cutter: v.bit, endMills: [], startDepth: floor, limit: v.words * times });
  if (from.whole ? from.sculpted : sculpted.length) {
    // Of the whole relief all but the floors, which are done.
    const [where, on] = !from.whole ? ['inside', sculpted] : done.length ? ['outside', done] : ['relief', []];
    const there = { where, rim: 'middle', startDepth: top };
    const roughed = from.whole ? { cutters: [...v.mills] } : { cutters: [v.mills.at(-1)!] };
    add('Sculpted, roughed', 'reliefRough', on, { ...there, ...roughed, allowance: 0.1 });
    add('Sculpted, finished', 'reliefFinish', on, { ...there, cutters: [v.ball], pattern: 'crossed', angle: 45 });
  }
  if (channels.length) add('Gates and vents', 'line', channels, { cutter: v.ball, depth: v.skim + v.channel });
  const lean = cone ? (Math.atan(coneOf(cone).tan) * 180) / Math.PI : USUAL_LEAN;
  return {
    one: {
      ...one,
      items: [...one.items.map((i) => (used(i) ? placed(i) : i)), ...drawn.items],
      layers: drawn.layers,
      relief: v.larger ? { ...one.relief, shrinks: castMaterials[v.material].shrinks } : one.relief,
      cuts: [...one.cuts, ...cuts],
      casting: {
        ...{ material: v.material, below: null, shrinks: castMaterials[v.material].shrinks },
        draft: Math.max(1, Math.floor(lean / 2)),
      },
    },
    cut: cuts[0].id,
  };
}
