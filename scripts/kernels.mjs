// Makes compiled modules of the AssemblyScript in folders named `wasm`: `npm run kernels`. They are kept beside those, so that nobody
// needs the compiler to build or to run; with --check it is only seen whether they are those of the sources.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
/** Their sources, and what their flags are beside those of all. */
const kernels = {
  'kernels/sweep': [],
  'kernels/location': [],
  'relief/noise': [],
  'relief/fields': [],
  // Several threads work over one memory.
  'cuts/relief/locator': ['--enable', 'threads', '--sharedMemory', '--maximumMemory', '65536'],
};
const flags = ['-O3', '--converge', '--noAssert', '--enable', 'simd', '--importMemory', '--runtime', 'stub'];
const { assemblyscript: version } = JSON.parse(readFileSync(path.join(root, 'package.json'), 'utf8')).devDependencies;

const sha = (...parts) => parts.reduce((h, p) => h.update(p), createHash('sha256')).digest('hex');
const core = path.join(root, 'src/core');
const sourceOf = (name) => path.join(core, path.dirname(name), 'wasm', `${path.basename(name)}.as.ts`);
const madeOf = (name) => path.join(core, `${name}Module.ts`);

const flagsOf = (name) => [...flags, ...kernels[name]];

const text = (
  name,
  wasm,
) => `// Made by \`npm run kernels\` of wasm/${path.basename(name)}.as.ts: not to be changed by hand.

/** What it was made of: the source, the compiler's version and its flags. */
export const MADE_OF = '${sha(readFileSync(sourceOf(name)), JSON.stringify([flagsOf(name), version]))}';
/** The bytes below. */
export const SHA256 = '${sha(wasm)}';

export const MODULE =
${Buffer.from(wasm)
  .toString('base64')
  .match(/.{1,110}/g)
  .map((l) => `  '${l}'`)
  .join(' +\n')};
`;

if (process.argv.includes('--check')) {
  for (const name of Object.keys(kernels)) {
    const kept = readFileSync(madeOf(name), 'utf8');
    const bytes = Buffer.from([...kept.matchAll(/^ {2}'([A-Za-z0-9+/=]+)'/gm)].map((m) => m[1]).join(''), 'base64');
    if (kept === text(name, bytes)) continue;
    console.error(`src/core/${name}Module.ts is not made of its sources: \`npm run kernels\` makes it anew.`);
    process.exitCode = 1;
  }
} else {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'mirvak-kernels-'));
  const asc = createRequire(import.meta.url).resolve('assemblyscript/bin/asc.js');
  for (const name of Object.keys(kernels)) {
    const out = path.join(dir, `${path.basename(name)}.wasm`);
    const { status } = spawnSync(process.execPath, [asc, sourceOf(name), ...flagsOf(name), '-o', out], {
      stdio: 'inherit',
      cwd: root,
    });
    if (status) process.exit(status);
    writeFileSync(madeOf(name), text(name, readFileSync(out)));
  }
  rmSync(dir, { recursive: true });
}
