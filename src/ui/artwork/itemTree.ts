import type { Item } from '@/core/artwork/item';
import type { Group, OneSetup, Layer } from '@/core/job/job';

/** A row of the list of artwork. A group that reaches over several layers has a row in each of them. */
export type Entry =
  | { readonly of: 'layer'; readonly layer: Layer; readonly count: number }
  | { readonly of: 'group'; readonly group: Group; readonly layer: string; readonly items: readonly string[] }
  | { readonly of: 'item'; readonly item: Item };

export const ROOT = 'all';

export interface ItemTree {
  readonly entries: ReadonlyMap<string, Entry>;
  /** Ids of what lies in each entry that can be opened, and in the root. */
  readonly children: ReadonlyMap<string, string[]>;
}

/** Layers (when there are several), the groups on each, and items in the order of drawing. */
export function itemTree(job: Pick<OneSetup, 'layers' | 'groups' | 'items'>): ItemTree {
  const entries = new Map<string, Entry>();
  const children = new Map<string, string[]>([[ROOT, []]]);
  const groups = new Map(job.groups.map((g) => [g.id, g]));
  const chain = (id: string | null): Group[] => {
    const out: Group[] = [];
    for (let g = id ? groups.get(id) : undefined; g && out.length < 50; g = g.parent ? groups.get(g.parent) : undefined)
      out.unshift(g);
    return out;
  };
  const several = job.layers.length > 1;
  const byLayer = new Map<string, Item[]>(job.layers.map((l) => [l.id, []]));
  for (const i of job.items) byLayer.get(i.layer)?.push(i);
  for (const layer of job.layers) {
    const items = byLayer.get(layer.id)!;
    const home = several ? layer.id : ROOT;
    if (several) {
      entries.set(layer.id, { of: 'layer', layer, count: items.length });
      children.get(ROOT)!.push(layer.id);
      children.set(layer.id, []);
    }
    const members = new Map<string, string[]>();
    const chains = items.map((i) => chain(i.group));
    items.forEach((i, k) => {
      for (const g of chains[k]) {
        const list = members.get(g.id);
        if (list) list.push(i.id);
        else members.set(g.id, [i.id]);
      }
    });
    items.forEach((item, k) => {
      let at = home;
      for (const group of chains[k]) {
        const list = members.get(group.id)!;
        // A group of which only one thing lies on this layer says nothing here.
        if (several && list.length < 2) continue;
        const key = `${layer.id} ${group.id}`;
        if (!entries.has(key)) {
          entries.set(key, { of: 'group', group, layer: layer.id, items: list });
          children.get(at)!.push(key);
          children.set(key, []);
        }
        at = key;
      }
      entries.set(item.id, { of: 'item', item });
      children.get(at)!.push(item.id);
    });
  }
  return { entries, children };
}
