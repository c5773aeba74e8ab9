import { fitRegion } from '../geometry/fit';
import { flatten, type Path } from '../geometry/path';
import { components, intersect, normalise, offset, subtract, thicken, unite, type Region } from '../geometry/region';
import { itemRegion, placeItem, type Item } from './item';
import type { ArtworkContext } from './kind';

/** How outlines can be combined; the first picked item is the one that others are taken from. */
export const combinations = ['unite', 'subtract', 'intersect', 'exclude'] as const;
export type Combination = (typeof combinations)[number];

/** Chords while combining, and how far the curves that come back may lie from the true ones. mm. */
const FINE = 0.001;
const FIT = 0.004;

const curves = (region: Region): Path[] => fitRegion(region, { tolerance: FIT });

/** Outlines of several items combined; curves come back as lines, arcs and cubics. Empty when nothing is left. */
export function combine(items: readonly Item[], how: Combination, c: ArtworkContext): Path[] {
  const regions = items.map((i) => itemRegion(i, c, FINE));
  if (!regions.length) return [];
  const [first, ...rest] = regions;
  switch (how) {
    case 'unite':
      return curves(rest.reduce(unite, first));
    case 'subtract':
      return curves(rest.reduce(subtract, first));
    case 'intersect':
      return curves(rest.reduce(intersect, first));
    case 'exclude':
      return curves(normalise(regions.flat(), 'evenodd'));
  }
}

/** The outlines of items moved by `distance` mm (outwards when positive), `steps` times; the farthest last. */
export function offsetOutlines(
  items: readonly Item[],
  distance: number,
  steps: number,
  corners: 'round' | 'sharp' | 'square',
  c: ArtworkContext,
): Path[][] {
  const region = items.map((i) => itemRegion(i, c, FINE)).reduce(unite, []);
  return Array.from({ length: steps }, (_, k) => curves(offset(region, distance * (k + 1), FINE, corners))).filter(
    (p) => p.length,
  );
}

/** What a pen of `width` mm would ink along the lines and outlines of an item. */
export function widened(item: Item, width: number, c: ArtworkContext): Path[] {
  let region: Region = [];
  for (const p of placeItem(item, c).paths) {
    const line = flatten(p, FINE);
    const whole = p.closed ? Float64Array.from([...line, line[0], line[1]]) : line;
    region = unite(region, thicken(whole, width / 2, FINE));
  }
  return curves(region);
}

/** A drawing's separate pieces: each outer outline with its holes. */
export function apart(item: Item, c: ArtworkContext): Path[][] {
  return components(itemRegion(item, c, FINE)).map((piece) => curves(piece));
}
