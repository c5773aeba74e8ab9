import { useMemo, useSyncExternalStore } from 'react';
import { placeItem, type Item, type PlacedItem } from '@/core/artwork/item';
import type { ArtworkContext } from '@/core/artwork/kind';
import { loadFont, type LoadedFont } from '@/core/lettering/font';
import { fontCatalogue } from '@/core/lettering/catalogue';
import { loadFonts } from '@/compute/pool';
import { useOpenJob } from '@/store/openJob';

/** Fonts for drawing in the window: parsed when first asked for. */
const parsed = new Map<string, LoadedFont>();
let bytes: Record<string, Uint8Array> | null = null;
const waiting = new Set<() => void>();

function subscribe(tell: () => void): () => void {
  waiting.add(tell);
  if (!bytes)
    void loadFonts().then((b) => {
      bytes = b;
      waiting.forEach((w) => w());
    });
  return () => waiting.delete(tell);
}

export const art: ArtworkContext = {
  font(id) {
    if (!bytes?.[id]) return null;
    let f = parsed.get(id);
    if (!f) {
      f = loadFont(bytes[id], fontCatalogue.find((q) => q.id === id)?.name ?? id);
      parsed.set(id, f);
    }
    return f;
  },
};

const kept = new WeakMap<Item, PlacedItem>();

/** Exact outlines of every item of the open job, by id; unchanged items are not worked out again. */
export function usePlaced(): ReadonlyMap<string, PlacedItem> {
  const items = useOpenJob((s) => s.job?.items);
  const ready = useSyncExternalStore(subscribe, () => bytes !== null, () => false);
  return useMemo(() => {
    const out = new Map<string, PlacedItem>();
    if (!ready) return out;
    for (const item of items ?? []) {
      let p = kept.get(item);
      if (!p) {
        p = placeItem(item, art);
        kept.set(item, p);
      }
      out.set(item.id, p);
    }
    return out;
  }, [items, ready]);
}
