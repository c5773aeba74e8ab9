import { fontCatalogue } from '@/core/lettering/catalogue';
import { FontError, isTight } from '@/core/lettering/font';
import { FontShelf, SHAPER } from '@/core/lettering/shelf';
import { Brought } from './brought';

/** The fonts of this window. Workers have shelves of their own, filled with the same files. */
export const shelf = new FontShelf();

const files = new Brought<Uint8Array>();
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
  ])
    .then(() => undefined)
    .catch((e) => {
      // Whoever asks again has it tried again.
      shipped = null;
      throw e;
    }));
}

/** Raised when a part of the app itself does not come. */
export class MissingPart extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'MissingPart';
  }
}

/** Between two tries to fetch a file, ms: a server that is busy refuses now and then. */
const PAUSE = 400;

async function bring(id: string, name: string, file: string): Promise<void> {
  if (files.has(id)) return;
  const get = () => fetch(`/fonts/${file}`);
  const r = await get().catch(async () => {
    await new Promise((again) => setTimeout(again, PAUSE));
    return get().catch((e) => {
      console.error(e);
      throw new MissingPart(`The ${name} did not come from the app's server. Start it again, if it was stopped.`);
    });
  });
  if (!r.ok) throw new MissingPart(`The ${name} is missing from the app (${r.status}). Run the set-up again.`);
  bringFonts({ [id]: new Uint8Array(await r.arrayBuffer()) });
}

/** Puts font files on every shelf, of workers that are begun later too. */
export function bringFonts(more: Record<string, Uint8Array>): void {
  files.bring(more, (fresh) => {
    for (const [id, bytes] of Object.entries(fresh)) shelf.put(id, bytes);
    if (SHIPPED.every((id) => files.has(id))) allCome();
  });
}

/** Tells of all font files that are here, and of every later one. */
export const onFonts = (tell: (files: Readonly<Record<string, Uint8Array>>) => void): void => files.on(tell);

/** Brings fonts of the maker's own. Gives what is wrong with those that were left out, by id. */
export async function bringOwnFonts(more: Record<string, Uint8Array>): Promise<Record<string, string>> {
  await loadFonts();
  const wrong: Record<string, string> = {};
  for (const [id, file] of Object.entries(more)) {
    // Brought before, for a card of the shelf perhaps: opening it once more would take a worker.
    if (files.has(id)) continue;
    // As they were kept before such files were opened once and for all, or by hand in the file of a job.
    const bytes = await opened(id, file).catch((e: FontError) => e);
    if (bytes instanceof Error) {
      wrong[id] = bytes.why;
      continue;
    }
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
