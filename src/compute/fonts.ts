import { fontCatalogue } from '@/core/lettering/catalogue';
import { FontError, isTight } from '@/core/lettering/font';
import { FontShelf, SHAPER } from '@/core/lettering/shelf';

/** The fonts of this window. Workers have shelves of their own, filled with the same files. */
export const shelf = new FontShelf();

const files: Record<string, Uint8Array> = {};
const listeners = new Set<(files: Record<string, Uint8Array>) => void>();
let shipped: Promise<void> | null = null;

let allCome: () => void;
/** Says that fonts cannot be brought here: whoever waits for them is told why. */
export let lackFonts: (why: Error) => void;
/** Resolves when all that Mirvak ships is on the shelf, whoever brings it: the window fetches it, the engine is given it. */
export const shippedFonts = new Promise<void>((come, lack) => {
  allCome = come;
  lackFonts = lack;
});
shippedFonts.catch(() => {});
const SHIPPED = [SHAPER, ...fontCatalogue.map((f) => f.id)];

/** Fetches the shipped fonts' files and what sets them, once, from this app's own server. */
export function loadFonts(): Promise<void> {
  return (shipped ??= Promise.all([
    bring(SHAPER, 'shaper of letters', SHAPER),
    ...fontCatalogue.map((f) => bring(f.id, `font ${f.name}`, `${f.id}.woff`)),
  ]).then(() => undefined));
}

async function bring(id: string, name: string, file: string): Promise<void> {
  const r = await fetch(`/fonts/${file}`);
  if (!r.ok) throw new Error(`The ${name} is missing from the app (${r.status}). Run the set-up again.`);
  bringFonts({ [id]: new Uint8Array(await r.arrayBuffer()) });
}

/** Puts font files on every shelf, of workers that are begun later too. */
export function bringFonts(more: Record<string, Uint8Array>): void {
  const fresh = Object.fromEntries(Object.entries(more).filter(([id]) => !files[id]));
  if (!Object.keys(fresh).length) return;
  Object.assign(files, fresh);
  for (const [id, bytes] of Object.entries(fresh)) shelf.put(id, bytes);
  if (SHIPPED.every((id) => files[id])) allCome();
  listeners.forEach((tell) => tell(fresh));
}

/** Tells of all font files that are here, and of every later one. */
export function onFonts(tell: (files: Record<string, Uint8Array>) => void): void {
  listeners.add(tell);
  if (Object.keys(files).length) tell({ ...files });
}

/** Brings fonts of the maker's own. Gives what is wrong with those that were left out, by id. */
export async function bringOwnFonts(more: Record<string, Uint8Array>): Promise<Record<string, string>> {
  await loadFonts();
  const wrong: Record<string, string> = {};
  for (const [id, bytes] of Object.entries(more)) {
    shelf.put(id, bytes);
    const why = shelf.wrongWith(id);
    if (why) wrong[id] = why;
    else bringFonts({ [id]: bytes });
  }
  return wrong;
}

/** A font file as it is kept: one that is packed tightly is opened once and for all, in a worker. Throws FontError. */
export async function opened(file: string, bytes: Uint8Array): Promise<Uint8Array> {
  if (!isTight(bytes)) return bytes;
  const worker = new Worker(new URL('./font.worker.ts', import.meta.url), { type: 'module' });
  const got = await new Promise<Uint8Array | string>((answer) => {
    worker.onmessage = (e: MessageEvent<Uint8Array | string>) => answer(e.data);
    worker.onerror = () => answer('it cannot be read');
    worker.postMessage(bytes);
  }).finally(() => worker.terminate());
  if (typeof got === 'string') throw new FontError(file, got);
  return got;
}
