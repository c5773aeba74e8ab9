import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fontCatalogue } from '../lettering/catalogue';
import type { Letter, LoadedFont } from '../lettering/font';
import { FontShelf, SHAPER } from '../lettering/shelf';

/** The bytes of a shipped font, straight from its package. */
export const shippedFile = (id: string): Uint8Array =>
  readFileSync(path.join('node_modules', fontCatalogue.find((f) => f.id === id)!.source));

const shaperFile = (): Uint8Array => readFileSync('node_modules/harfbuzzjs/dist/harfbuzz.wasm');

/** What artwork is drawn with in tests. */
export const testArt = new FontShelf((id) =>
  id === SHAPER ? shaperFile() : fontCatalogue.some((f) => f.id === id) ? shippedFile(id) : null,
);
export const testShaper = testArt.shaper();

export const shippedFont = (id: string): LoadedFont => testArt.font(id)!;

/** A letter by itself; null where the font has none. */
export const letterOf = (font: LoadedFont, char: string): Letter | null =>
  font.set(char, { kerning: true, ligatures: true }).letters[0] ?? null;
