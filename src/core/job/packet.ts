import { regionOf, type Item } from '../artwork/item';
import type { ArtworkContext } from '../artwork/kind';
import type { Cutter } from '../cutters/cutter';
import { materialIds, type MaterialId } from '../cutters/materials';
import { intersect, regionArea } from '../geometry/region';
import type { Job, OneSetup } from './job';
import type { MadePair } from './pairs';
import { withStraightInlay, type StraightInlayValues } from './straightInlay';

/**
 * One layer of a packet: straight inlays side by side in one face, of another material for each layer of the artwork.
 *
 *     ____     _________ ________     ____
 *         |   | layer 1 | layer 2|   |         each is a plug of its own; where two adjoin there is
 *         |___|_________|________|___|         no wall between their pockets
 */
export interface PacketLayer {
  readonly id: string;
  readonly name: string;
  readonly items: readonly Item[];
}

/** The layers on which picked items lie, in their order. */
export const packetLayers = (one: Pick<OneSetup, 'layers'>, items: readonly Item[]): PacketLayer[] =>
  one.layers
    .map((l) => ({ id: l.id, name: l.name, items: items.filter((i) => i.layer === l.id) }))
    .filter((l) => l.items.length > 0);

/** Another material for each layer, none of them that of the pocket. */
export function packetMaterials(layers: readonly PacketLayer[], pocket: MaterialId): Map<string, MaterialId> {
  const usual = ['maple', 'walnut', 'oak', 'cedar'] as const;
  const others = [...new Set<MaterialId>([...usual, ...materialIds])].filter((m) => m !== pocket);
  return new Map(layers.map((l, k) => [l.id, others[k % others.length]]));
}

/** Layers may lie in one another by this much before it is more than rounding, mm2. */
const SLIVER = 0.05;

/** Why layers cannot be let in side by side, and what to do; null where they can. */
export function whyNoPacket(layers: readonly PacketLayer[], art: ArtworkContext): string | null {
  const regions = layers.map((l) => regionOf(l.items, art, 0.02));
  for (const [k, l] of layers.entries())
    for (let j = 0; j < k; j++)
      if (regionArea(intersect(regions[k], regions[j])) > SLIVER)
        return `"${layers[j].name}" and "${l.name}" lie in one another: pieces of a packet lie side by side. Subtract the one from the other first, or take one plug for all.`;
  return null;
}

/** Adds an inlay for each layer; all of them are in the job, and the ids are those of the first. See withStraightInlay. */
export function withPacket(
  job: Job,
  into: string,
  layers: readonly PacketLayer[],
  v: StraightInlayValues,
  materials: ReadonlyMap<string, MaterialId>,
  cutter: (id: string) => Cutter | undefined,
  freshId: () => string,
): MadePair {
  let first: MadePair | null = null;
  let made = job;
  const pockets: string[] = [];
  // Each set-up comes right behind that of the pockets: the first layer last.
  for (const l of [...layers].reverse()) {
    const ids = l.items.map((i) => i.id);
    const own = { ...v, material: materials.get(l.id) ?? v.material };
    const pair = withStraightInlay(made, into, ids, own, cutter, freshId, l.name);
    made = pair.job;
    first = pair;
    pockets.unshift(pair.pocket);
  }
  const setups = made.setups.map((s) => {
    if (s.id !== into) return s;
    const before = s.cuts.filter((c) => !pockets.includes(c.id));
    return { ...s, cuts: [...before, ...pockets.map((id) => s.cuts.find((c) => c.id === id)!)] };
  });
  return { ...first!, job: { ...made, setups } };
}
