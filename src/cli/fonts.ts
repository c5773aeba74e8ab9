import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import path from 'node:path';
import { fontCatalogue } from '../core/lettering/catalogue';
import { openedFont } from '../core/lettering/openedFont';
import { FontShelf, SHAPER } from '../core/lettering/shelf';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');

/** Shipped fonts straight from the installed packages; a job's own are put on the shelf beside them. */
export const fontsFromPackages = (): FontShelf =>
  new FontShelf((id) => {
    if (id === SHAPER) return readFileSync(path.join(root, 'node_modules/harfbuzzjs/dist', SHAPER));
    const entry = fontCatalogue.find((f) => f.id === id);
    return entry ? readFileSync(path.join(root, 'node_modules', entry.source)) : null;
  }, openedFont);
