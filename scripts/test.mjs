// `npm test`: installs what is missing, then lint, types, unit tests, build, and interface tests in headless Chromium; all of
// these with `--long` (`npm run test:long`), which takes half as long again.
import { build, installing, run, together } from './setup.mjs';

const timed = async (name, work) => {
  const t = Date.now();
  console.log(`\n== ${name}`);
  await work();
  console.log(`== ${name}: ${((Date.now() - t) / 1000).toFixed(0)} s`);
};

const bin = (name) => `node_modules/.bin/${name}`;
// Looks at types in a tenth of the time; what lints needs the older one.
const tsc = 'node_modules/typescript-native/bin/tsc';

const { packages, browser } = installing();
await timed('packages', () => packages);
await timed('lint and types', () =>
  together(
    [[bin('eslint'), '.', '--max-warnings', '0']],
    [
      [bin('prettier'), '--check', '--log-level', 'warn', '.'],
      ['node', tsc, '--noEmit'],
      ['node', tsc, '--noEmit', '-p', 'tsconfig.core.json'],
      ['node', 'scripts/messages.mjs', '--check'],
      ['node', 'scripts/kernels.mjs', '--check'],
    ],
  ),
);
// Tests whose names begin with "(long)" take long, and most of their ground is walked by others too.
const short = process.argv.includes('--long') ? [] : ['-t', '^(?!.*\\(long\\))'];
await timed('unit tests', () => run('npm', ['run', '-s', 'unit', '--', ...short]));
await timed('build', () => build({ MIRVAK_TYPES_LOOKED_AT: '1' }));
await timed('browser', () => browser);
await timed('interface tests', () => run(bin('jest'), ['--config', 'jest.e2e.config.mjs', '--maxWorkers=2', ...short]));
