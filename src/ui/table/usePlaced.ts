import { startTransition, useEffect, useMemo, useState } from 'react';
import { placeShape, shapeWith, undrawn, type Item, type PlacedItem } from '@/core/artwork/item';
import type { ArtworkContext, Shape } from '@/core/artwork/kind';
import { loadFonts, onFonts, shelf } from '@/compute/fonts';

/** Counts what is new for placing: 0 until the fonts are there, then a step for every slice. */
let round = 0;
const waiting = new Set<() => void>();
const tellAll = () => {
  round++;
  waiting.forEach((w) => w());
};

function subscribe(tell: () => void): () => void {
  waiting.add(tell);
  if (!round)
    void loadFonts().then(() => {
      if (!round) tellAll();
    });
  return () => void waiting.delete(tell);
}

/** What artwork is drawn with in this window. */
export const art: ArtworkContext = shelf;

/** What values draw: the same wherever their item is placed. Another font may draw them otherwise. */
let shapes = new WeakMap<Item['values'], { readonly kind: string; readonly shape: Shape }>();
onFonts(() => (shapes = new WeakMap()));
function shapeOf({ kind, values }: Item): Shape {
  const before = shapes.get(values);
  if (before?.kind === kind) return before.shape;
  const shape = shapeWith(kind, values, art);
  shapes.set(values, { kind, shape });
  return shape;
}

const kept = new WeakMap<Item, PlacedItem>();
/** Milliseconds of placing in one go: what is more waits for the next, so that the window stays quick. */
const SLICE = 8;

/** The exact outlines of an item, worked out once; nothing, with the reason, where it cannot be drawn. */
export function placedOf(item: Item): PlacedItem {
  let p = kept.get(item);
  if (!p) {
    try {
      p = placeShape(item, shapeOf(item));
    } catch (e) {
      console.error(`"${item.name}" cannot be drawn:`, e);
      p = undrawn(item);
    }
    kept.set(item, p);
  }
  return p;
}

/** As many items as fit into a slice; those that are kept already cost nothing, and a font that is read first takes a slice of its own. */
function placeSome(items: readonly Item[]): Map<string, PlacedItem> {
  const out = new Map<string, PlacedItem>();
  const began = performance.now();
  let full = false;
  for (const item of items) {
    if (!kept.has(item)) {
      const { font } = item.values as { font?: unknown };
      if (!full && typeof font === 'string' && !shelf.hasRead(font)) {
        shelf.font(font);
        full = true;
      }
      full ||= performance.now() - began > SLICE;
      if (full) continue;
    }
    out.set(item.id, placedOf(item));
  }
  return out;
}

/** Exact outlines of items, by id; unchanged items are not worked out again. */
export function usePlaced(items: readonly Item[]): ReadonlyMap<string, PlacedItem> {
  const [now, setNow] = useState(round);
  useEffect(() => {
    const follow = () => startTransition(() => setNow(round));
    follow();
    return subscribe(follow);
  }, []);
  const placed = useMemo(() => (now ? placeSome(items) : new Map<string, PlacedItem>()), [items, now]);
  const left = now > 0 && placed.size < items.length;
  useEffect(() => {
    if (!left) return;
    const t = setTimeout(tellAll, 0);
    return () => clearTimeout(t);
  }, [left, placed]);
  return placed;
}
