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
/** The fields that the parts of a mould ask for. */
export const fieldsFor = (parts: ReadonlyMap<string, Part>) => {
  const there = new Set(parts.values());
  return mouldFields.filter((f) => ASKED_BY[f.key]?.some((p) => there.has(p)) ?? true);
};

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

/** How many times as large a mould is made as it is drawn. */
const largerBy = (v: MouldValues) => (v.larger ? enlarged({ shrinks: castMaterials[v.material].shrinks }) : 1);

/** Why a mould cannot be made, and what to do; null where it can. */
export function whyNoMould(
  one: OneSetup,
  v: MouldValues,
  parts: ReadonlyMap<string, Part>,
  cutter: (id: string) => Cutter | undefined,
  art: ArtworkContext,
): string | null {
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
  const deepest = v.skim + Math.max(largerBy(v) * (v.depth + onFloor), has('channel') ? v.channel : 0);
  if (deepest >= one.blank.thickness)
    return `Nothing would be left under the mould: the blank is ${long(one.blank.thickness)} thick, and ${long(deepest)} are cut into it.`;
  const high = largerBy(v) * v.depth;
  if (high > cuttingLength(cone))
    return `${cone.name} cuts ${long(cuttingLength(cone))} deep at most, and the wall is ${long(high)} high. Take a longer one, or make the floor less deep.`;
  return null;
}

/** A set-up with the cuts of a mould; what is picked may be mirrored and made larger about the middle of the blank. */
export function withMould(
  one: OneSetup,
  v: MouldValues,
  parts: ReadonlyMap<string, Part>,
  library: readonly Cutter[],
  freshId: () => string,
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
  if (words.length)
    add('Lettering', 'vcarve', words, { cutter: v.bit, endMills: [], startDepth: floor, limit: v.words * times });
  if (sculpted.length) {
    const there = { where: 'inside', rim: 'middle', startDepth: floor };
    add('Sculpted, roughed', 'reliefRough', sculpted, { ...there, cutters: [v.mills.at(-1)!], allowance: 0.1 });
    add('Sculpted, finished', 'reliefFinish', sculpted, { ...there, cutters: [v.ball], pattern: 'crossed', angle: 45 });
  }
  if (channels.length) add('Gates and vents', 'line', channels, { cutter: v.ball, depth: v.skim + v.channel });
  const cone = library.find((c) => c.id === v.wall)!;
  const lean = (Math.atan(coneOf(cone).tan) * 180) / Math.PI;
  return {
    one: {
      ...one,
      items: one.items.map((i) => (used(i) ? placed(i) : i)),
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
