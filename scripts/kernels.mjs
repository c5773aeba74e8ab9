// Makes `src/core/kernels/sweepModule.ts` of the AssemblyScript beside it: `npm run kernels`. The module is kept, so that nobody needs
// the compiler to build or to run; with --check it is only seen whether it is that of the sources.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const source = path.join(root, 'src/core/kernels/wasm/sweep.as.ts');
const made = path.join(root, 'src/core/kernels/sweepModule.ts');
const flags = ['-O3', '--converge', '--noAssert', '--enable', 'simd', '--importMemory', '--runtime', 'stub'];
const { assemblyscript: version } = JSON.parse(readFileSync(path.join(root, 'package.json'), 'utf8')).devDependencies;

const sha = (...parts) => parts.reduce((h, p) => h.update(p), createHash('sha256')).digest('hex');
const of = sha(readFileSync(source), JSON.stringify([flags, version]));

const text = (wasm) => `// Made by \`npm run kernels\` of wasm/sweep.as.ts: not to be changed by hand.

/** What it was made of: the source, the compiler's version and its flags. */
export const MADE_OF = '${of}';
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
  const kept = readFileSync(made, 'utf8');
  const bytes = Buffer.from([...kept.matchAll(/^ {2}'([A-Za-z0-9+/=]+)'/gm)].map((m) => m[1]).join(''), 'base64');
  if (kept !== text(bytes)) {
    console.error('src/core/kernels/sweepModule.ts is not made of its sources: `npm run kernels` makes it anew.');
    process.exit(1);
  }
} else {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'mirvak-kernels-'));
  const out = path.join(dir, 'sweep.wasm');
  const asc = createRequire(import.meta.url).resolve('assemblyscript/bin/asc.js');
  const { status } = spawnSync(process.execPath, [asc, source, ...flags, '-o', out], { stdio: 'inherit', cwd: root });
  if (status) process.exit(status);
  writeFileSync(made, text(readFileSync(out)));
  rmSync(dir, { recursive: true });
}
