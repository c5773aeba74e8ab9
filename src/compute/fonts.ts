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

/** A broken font may keep its reader busy for ever: longer than this (ms) and it is given up. */
const PATIENCE = 4000;
const sound = new Set<string>();

/**
 * Brings fonts of the maker's own, each tried aside first: a worker reads it and draws its letters. Gives what is wrong
 * with those that were left out, by id.
 */
export async function bringOwnFonts(more: Record<string, Uint8Array>): Promise<Record<string, string>> {
  const wrong: Record<string, string> = {};
  for (const [id, bytes] of Object.entries(more)) {
    const why = sound.has(id) ? null : await tryAside(bytes);
    if (why) wrong[id] = why;
    else {
      sound.add(id);
      bringFonts({ [id]: bytes });
    }
  }
  return wrong;
}

function tryAside(bytes: Uint8Array): Promise<string | null> {
  const worker = new Worker(new URL('./font.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<string | null>((answer) => {
    const timer = setTimeout(() => answer('it cannot be read in reasonable time'), PATIENCE);
    worker.onmessage = (e: MessageEvent<string | null>) => {
      clearTimeout(timer);
      answer(e.data);
    };
    worker.onerror = () => answer('it cannot be read');
    worker.postMessage(bytes);
  }).finally(() => worker.terminate());
}
