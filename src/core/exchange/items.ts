import { drawnItem } from '../artwork/drawn';
import { newItem, type Item } from '../artwork/item';
import { boundsOfPaths, transformPath } from '../geometry/path';
import { fontCatalogue } from '../lettering/catalogue';
import type { Drawn } from './drawn';

export interface ImportedArtwork {
  readonly items: Item[];
  readonly layers: { id: string; name: string; colour: string; visible: boolean; locked: boolean }[];
  readonly groups: { id: string; name: string; parent: string | null }[];
  readonly remarks: string[];
}

interface Here {
  readonly blank: { readonly width: number; readonly height: number };
  readonly layers: readonly { readonly id: string; readonly name: string }[];
  /** Names of cuts or items in use are not looked at: names need not be unique. */
  freshId(): string;
  /** Millimetres that one unit of a file stands for which does not say so. */
  readonly unit?: number;
}

/**
 * What was read from a file as items of a job: kept in size, moved so that its middle is the middle of the blank,
 * in one group called after the file. Layers are found by name, new ones are made. Text becomes lettering
 * in the nearest shipped font, which is said.
 */
export function itemsOf(source: Drawn, name: string, here: Here): ImportedArtwork {
  const drawn = here.unit ? scaled(source, here.unit) : source;
  const remarks = [...drawn.remarks];
  const layers: ImportedArtwork['layers'] = [];
  const layerIds = new Map(here.layers.map((l) => [l.name, l.id]));
  const layerOf = (n: string) => {
    let id = layerIds.get(n);
    if (!id) {
      id = here.freshId();
      layerIds.set(n, id);
      layers.push({
        id,
        name: n.slice(0, 200),
        colour: drawn.layers.find((l) => l.name === n)?.colour ?? '#1e2a2f',
        visible: true,
        locked: false,
      });
    }
    return id;
  };
  const group = { id: here.freshId(), name: name.slice(0, 200), parent: null };
  const all = boundsOfPaths(drawn.things.flatMap((t) => t.paths));
  const dx = all ? here.blank.width / 2 - (all.x0 + all.x1) / 2 : 0;
  const dy = all ? here.blank.height / 2 - (all.y0 + all.y1) / 2 : 0;
  const items: Item[] = [];
  for (const t of drawn.things) {
    if (!boundsOfPaths(t.paths)) continue;
    const i = drawnItem(
      { id: here.freshId(), name: t.name.slice(0, 200), layer: layerOf(t.layer), group: group.id },
      t.paths,
      t.fill,
    );
    items.push({ ...i, x: i.x + dx, y: i.y + dy });
  }
  const fonts = new Set<string>();
  for (const t of drawn.texts) {
    const wanted = t.family.toLowerCase();
    const exact = fontCatalogue.find((f) => wanted.split(',').some((w) => w.trim() === f.name.toLowerCase()));
    const near =
      exact ??
      fontCatalogue.find(
        (f) =>
          f.id === (/serif|roman|times|book/.test(wanted) && !/sans/.test(wanted) ? 'libre-baskerville' : 'archivo'),
      )!;
    if (!exact) fonts.add(`${t.family || 'Its text'} \u2192 ${near.name}`);
    const cap = t.size * 0.7;
    const rad = (t.angle * Math.PI) / 180;
    const across = t.anchor === 'centre' ? 0 : (t.anchor === 'left' ? 1 : -1) * 0.28 * t.size * t.text.length;
    items.push(
      newItem({
        id: here.freshId(),
        name: t.text.split('\n')[0].slice(0, 30),
        kind: 'lettering',
        x: t.x + dx + Math.cos(rad) * across - (Math.sin(rad) * cap) / 2,
        y: t.y + dy + Math.sin(rad) * across + (Math.cos(rad) * cap) / 2,
        angle: t.angle,
        layer: layerOf(t.layer),
        group: group.id,
        values: {
          text: t.text,
          font: near.id,
          capHeight: Math.max(0.1, cap),
          tracking: 0,
          kerning: true,
          leading: 1.6,
          align: t.anchor,
          stretch: 100,
          baseline: 'straight',
          radius: 50,
          at: 90,
        },
      }),
    );
  }
  if (fonts.size) remarks.push(`Text was set in the nearest font here: ${[...fonts].join('; ')}.`);
  if (!drawn.unitKnown && !here.unit && items.length)
    remarks.push('The file does not say its unit: look at the size, and scale it if it is not right.');
  return { items, layers, groups: items.length > 1 ? [group] : [], remarks };
}

/** A drawing in units of another size. */
function scaled(d: Drawn, unit: number): Drawn {
  const m = { a: unit, b: 0, c: 0, d: unit, e: 0, f: 0 };
  return {
    ...d,
    things: d.things.map((t) => ({ ...t, paths: t.paths.map((p) => transformPath(p, m)) })),
    texts: d.texts.map((t) => ({ ...t, x: t.x * unit, y: t.y * unit, size: t.size * unit })),
  };
}
