import { fontCatalogue } from '@/core/lettering/catalogue';
import { FontShelf } from '@/core/lettering/shelf';

/** The fonts of this window. Workers have shelves of their own, filled with the same files. */
export const shelf = new FontShelf();

const files: Record<string, Uint8Array> = {};
const listeners = new Set<(files: Record<string, Uint8Array>) => void>();
let shipped: Promise<void> | null = null;

/** Fetches the shipped fonts' files, once, from this app's own server. */
export function loadFonts(): Promise<void> {
  return (shipped ??= Promise.all(
    fontCatalogue.map(async (f) => {
      const r = await fetch(`/fonts/${f.id}.woff`);
      if (!r.ok) throw new Error(`The font ${f.name} is missing from the app (${r.status}). Run the set-up again.`);
      bringFonts({ [f.id]: new Uint8Array(await r.arrayBuffer()) });
    }),
  ).then(() => undefined));
}

/** Puts font files on every shelf, of workers that are begun later too. */
export function bringFonts(more: Record<string, Uint8Array>): void {
  const fresh = Object.fromEntries(Object.entries(more).filter(([id]) => !files[id]));
  if (!Object.keys(fresh).length) return;
  Object.assign(files, fresh);
  for (const [id, bytes] of Object.entries(fresh)) shelf.put(id, bytes);
  listeners.forEach((tell) => tell(fresh));
}

/** Tells of all font files that are here, and of every later one. */
export function onFonts(tell: (files: Record<string, Uint8Array>) => void): void {
  listeners.add(tell);
  if (Object.keys(files).length) tell({ ...files });
}
