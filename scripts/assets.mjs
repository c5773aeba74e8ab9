// Copies the shipped lettering fonts, and the shaper that sets them, from their packages to where the app serves them.
import { copyFileSync, mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const source = readFileSync(path.join(root, 'src/core/lettering/catalogue.ts'), 'utf8');
mkdirSync(path.join(root, 'public/fonts'), { recursive: true });
let copied = 0;
for (const m of source.matchAll(/entry\('([^']+)', '[^']+', '[^']+', '([^']+)'(?:, (\d+))?\)/g)) {
  const [, id, pack, weight = '400'] = m;
  copyFileSync(
    path.join(root, `node_modules/@fontsource/${pack}/files/${pack}-latin-${weight}-normal.woff`),
    path.join(root, `public/fonts/${id}.woff`),
  );
  copied++;
}
copyFileSync(
  path.join(root, 'node_modules/harfbuzzjs/dist/harfbuzz.wasm'),
  path.join(root, 'public/fonts/harfbuzz.wasm'),
);
if (copied < 12) throw new Error(`Only ${copied} fonts were found in the catalogue.`);
