// `npm test`: installs what is missing, then lint, types, unit tests, build, and interface tests in headless Chromium.
import { build, chromium, packages, run } from './setup.mjs';

const timed = (name, work) => {
  const t = Date.now();
  console.log(`\n== ${name}`);
  work();
  console.log(`== ${name}: ${((Date.now() - t) / 1000).toFixed(0)} s`);
};

timed('set-up', () => {
  packages();
  chromium();
});
timed('lint', () => {
  run('npx', ['eslint', '.', '--max-warnings', '0']);
  run('node', ['scripts/messages.mjs', '--check']);
});
timed('types', () => {
  run('npx', ['tsc', '--noEmit']);
  run('npx', ['tsc', '--noEmit', '-p', 'tsconfig.core.json']);
});
timed('unit tests', () => run('npx', ['jest']));
timed('build', () => build({ MIRVAK_TYPES_LOOKED_AT: '1' }));
timed('interface tests', () => run('npx', ['jest', '--config', 'jest.e2e.config.mjs', '--maxWorkers=2']));
