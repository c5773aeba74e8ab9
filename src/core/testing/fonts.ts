import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fontCatalogue } from '../lettering/catalogue';
import type { LoadedFont } from '../lettering/font';
import { FontShelf } from '../lettering/shelf';

/** The bytes of a shipped font, straight from its package. */
export const shippedFile = (id: string): Uint8Array =>
  readFileSync(path.join('node_modules', fontCatalogue.find((f) => f.id === id)!.source));

/** What artwork is drawn with in tests. */
export const testArt = new FontShelf((id) => (fontCatalogue.some((f) => f.id === id) ? shippedFile(id) : null));

export const shippedFont = (id: string): LoadedFont => testArt.font(id)!;
