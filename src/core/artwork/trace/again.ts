import { boundsOfPaths, compose, identity, transformPath, type Affine } from '../../geometry/path';
import { drawnItem } from '../drawn';
import { placementOf, type Item } from '../item';
import type { TracedFrom } from '../kinds/drawing';
import { colourName } from './colours';
import type { TracedLayer } from './trace';

export const tracedFrom = (i: Item): TracedFrom | undefined =>
  i.kind === 'drawing' ? (i.values.traced as TracedFrom | undefined) : undefined;

/** The same with its map going to the blank, by way of a further one where the item is moved by it. */
export function tracedOnBlank(i: Item, then: Affine = identity): TracedFrom | undefined {
  const from = tracedFrom(i);
  return from && { ...from, map: compose(then, compose(placementOf(i), from.map)) };
}

/** From a picture's pixels (Y up, lower left 0, 0) to the blank. */
export function pixelsOnBlank(picture: Pick<Item, 'x' | 'y' | 'angle' | 'mirror' | 'values'>): Affine {
  const { pixels, width, height } = picture.values as {
    pixels: { width: number; height: number };
    width: number;
    height: number;
  };
  return compose(placementOf(picture), {
    a: width / pixels.width,
    b: 0,
    c: 0,
    d: height / pixels.height,
    e: -width / 2,
    f: -height / 2,
  });
}

/** A picture's place, turn and size under outlines that were traced from it and have been moved since. */
export function laidUnder(picture: Item, outlines: Item): Item {
  const from = tracedOnBlank(outlines);
  if (from?.item !== picture.id) return picture;
  const m = from.map;
  const { width: w, height: h } = picture.values.pixels as { width: number; height: number };
  const mirror = m.a * m.d - m.b * m.c < 0;
  const s = mirror ? -1 : 1;
  return {
    ...picture,
    x: (m.a * w + m.c * h) / 2 + m.e,
    y: (m.b * w + m.d * h) / 2 + m.f,
    angle: (Math.atan2(s * m.b, s * m.a) * 180) / Math.PI,
    mirror,
    values: { ...picture.values, width: w * Math.hypot(m.a, m.b), height: h * Math.hypot(m.c, m.d) },
  };
}

/** What a colour's outlines are called: by the colour, where there are several. */
export const layerTitle = (base: string, layer: TracedLayer, several: boolean): string =>
  several ? `${base}, ${colourName(layer.colour)}` : base;

/** One colour's outlines as an item, laid by `map` from pixels to the blank. */
export const tracedItem = (
  like: Pick<Item, 'id' | 'name' | 'layer' | 'group'>,
  layer: TracedLayer,
  picture: string,
  map: Affine,
): Item =>
  drawnItem(
    like,
    layer.paths.map((p) => transformPath(p, map)),
    'nonzero',
    { item: picture, colour: layer.colour, map },
  );

export interface Retraced {
  /** Items with new outlines, under their old ids: cuts keep them, and they stay where they were moved, turned and scaled to. */
  readonly changed: Item[];
  /** Colours that no item stands for yet, with the map that lays them beside the others. */
  readonly fresh: { readonly layer: TracedLayer; readonly map: Affine }[];
  /** Items whose colour is not traced any more. */
  readonly gone: Item[];
}

/**
 * What tracing a picture again makes of the artwork that was traced from it. Each colour takes the items of the nearest
 * colour that came before, the nearest pairs first; copies of an item are all renewed.
 */
export function retraced(layers: readonly TracedLayer[], picture: Item, items: readonly Item[]): Retraced {
  const of = items.filter((i) => tracedFrom(i)?.item === picture.id);
  const colours = [...new Set(of.map((i) => tracedFrom(i)!.colour))];
  const pairs = layers
    .flatMap((layer) => colours.map((colour) => ({ layer, colour, away: apart(layer.colour, colour) })))
    .sort((a, b) => a.away - b.away);
  const taken = new Map<string, TracedLayer>();
  for (const p of pairs)
    if (!taken.has(p.colour) && ![...taken.values()].includes(p.layer)) taken.set(p.colour, p.layer);
  const changed: Item[] = [];
  const gone: Item[] = [];
  for (const i of of) {
    const layer = taken.get(tracedFrom(i)!.colour);
    if (layer) changed.push(renewed(i, layer));
    else gone.push(i);
  }
  const beside = of[0] ? tracedOnBlank(of[0])!.map : pixelsOnBlank(picture);
  return {
    changed,
    fresh: layers.filter((l) => ![...taken.values()].includes(l)).map((layer) => ({ layer, map: beside })),
    gone,
  };
}

/** An item with other outlines in its own frame, about their middle again. */
function renewed(item: Item, layer: TracedLayer): Item {
  const from = tracedFrom(item)!;
  const paths = layer.paths.map((p) => transformPath(p, from.map));
  const b = boundsOfPaths(paths);
  if (!b) return item;
  const [cx, cy] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  const home: Affine = { a: 1, b: 0, c: 0, d: 1, e: -cx, f: -cy };
  const m = placementOf(item);
  return {
    ...item,
    x: m.a * cx + m.c * cy + m.e,
    y: m.b * cx + m.d * cy + m.f,
    values: {
      ...item.values,
      paths: paths.map((p) => transformPath(p, home)),
      traced: { ...from, colour: layer.colour, map: compose(home, from.map) },
    },
  };
}

const apart = (a: string, b: string): number =>
  Math.hypot(...[1, 3, 5].map((k) => parseInt(a.slice(k, k + 2), 16) - parseInt(b.slice(k, k + 2), 16)));
