import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import config from './jest.config.mjs';

/**
 * The unit tests as a whole: files of the core are taken together, some at a time, under one that names each. What they
 * test is then loaded once for all of them and stays warm, which saves a quarter of the run. The core keeps nothing between
 * calls but what it has worked out, so that tests are not in each other's way; those that put something in place of a part of
 * it stay by themselves, as all of the other houses do. One file alone: `npx jest FILE`.
 */
const TOGETHER = 28;
const HEAVY = /^src\/core\/(relief|cuts|pipeline)\//;

const all = readdirSync('src/core', { recursive: true })
  .map((file) => `src/core/${file.replaceAll('\\', '/')}`)
  .filter((file) => file.endsWith('.test.ts'))
  .sort();
const alone = all.filter((file) => /\bjest\.\w/.test(readFileSync(file, 'utf8')));
const shared = all.filter((file) => !alone.includes(file));

/** Heavy ones are named, and begun, first: no worker is left with one at the end. */
const groups = new Map();
for (const [name, files] of [
  ['heavy', shared.filter((file) => HEAVY.test(file))],
  ['light', shared.filter((file) => !HEAVY.test(file))],
]) {
  const count = Math.ceil(files.length / TOGETHER);
  const from = (k) => Math.round((k * files.length) / count);
  for (let k = 0; k < count; k++)
    groups.set(
      `${name}-${k + 1}.test.ts`,
      files
        .slice(from(k), from(k + 1))
        .map((file) => `describe('${file}', () => void require('../${file}'));\n`)
        .join(''),
    );
}
mkdirSync('.unit', { recursive: true });
for (const old of readdirSync('.unit')) if (!groups.has(old)) rmSync(`.unit/${old}`);
for (const [name, text] of groups) writeFileSync(`.unit/${name}`, text);

export default {
  ...config,
  roots: ['<rootDir>/src', '<rootDir>/.unit'],
  testMatch: [
    '<rootDir>/.unit/*.test.ts',
    '<rootDir>/src/!(core)/**/*.test.ts',
    ...alone.map((file) => `<rootDir>/${file}`),
  ],
  testSequencer: '<rootDir>/jest.order.mjs',
};
