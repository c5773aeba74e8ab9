import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import path from 'node:path';
import type { ArtworkContext } from '../core/artwork/kind';
import { fontCatalogue } from '../core/lettering/catalogue';
import { loadFont, type LoadedFont } from '../core/lettering/font';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');

/** Fonts straight from the installed packages, loaded when first asked for. */
export function fontsFromPackages(): ArtworkContext {
  const loaded = new Map<string, LoadedFont | null>();
  return {
    font(id) {
      if (!loaded.has(id)) {
        const entry = fontCatalogue.find((f) => f.id === id);
        loaded.set(id, entry ? loadFont(readFileSync(path.join(root, 'node_modules', entry.source)), entry.name) : null);
      }
      return loaded.get(id)!;
    },
  };
}
