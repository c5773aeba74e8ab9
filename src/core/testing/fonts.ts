import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { ArtworkContext } from '../artwork/kind';
import { fontCatalogue } from '../lettering/catalogue';
import { loadFont, type LoadedFont } from '../lettering/font';

const loaded = new Map<string, LoadedFont>();

/** A shipped font, straight from its package. */
export function shippedFont(id: string): LoadedFont {
  const entry = fontCatalogue.find((f) => f.id === id)!;
  if (!loaded.has(id)) loaded.set(id, loadFont(readFileSync(path.join('node_modules', entry.source)), entry.name));
  return loaded.get(id)!;
}

/** What artwork is drawn with in tests. */
export const testArt: ArtworkContext = { font: (id) => (fontCatalogue.some((f) => f.id === id) ? shippedFont(id) : null) };
