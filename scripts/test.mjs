// `npm test`: installs what is missing, then lint, types, unit tests, build, and interface tests in headless Chromium; all of
// these with `--long` (`npm run test:long`), which takes half as long again.
import { build, everything, run, together } from './setup.mjs';

const timed = async (name, work) => {
  const t = Date.now();
  console.log(`\n== ${name}`);
  await work();
  console.log(`== ${name}: ${((Date.now() - t) / 1000).toFixed(0)} s`);
};

await timed('set-up', everything);
await timed('lint and types', () =>
  together(
    [
      ['npx', 'eslint', '.', '--max-warnings', '0'],
      ['node', 'scripts/messages.mjs', '--check'],
      ['node', 'scripts/kernels.mjs', '--check'],
    ],
    [
      ['npx', 'prettier', '--check', '--log-level', 'warn', '.'],
      ['npx', 'tsc', '--noEmit'],
      ['npx', 'tsc', '--noEmit', '-p', 'tsconfig.core.json'],
    ],
  ),
);
// Tests whose names begin with "(long)" take long, and most of their ground is walked by others too.
const short = process.argv.includes('--long') ? [] : ['-t', '^(?!.*\\(long\\))'];
await timed('unit tests', () => run('npm', ['run', '-s', 'unit', '--', ...short]));
await timed('build', () => build({ MIRVAK_TYPES_LOOKED_AT: '1' }));
await timed('interface tests', () =>
  run('npx', ['jest', '--config', 'jest.e2e.config.mjs', '--maxWorkers=2', ...short]),
);
