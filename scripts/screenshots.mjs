// Makes docs/screenshots from the demo jobs: `npm run screenshots`, or some of them: `npm run screenshots -- relief dark`.
import { spawnSync } from 'node:child_process';
import { build, everything, root } from './setup.mjs';

await everything();
build();
process.exit(
  spawnSync('npx', ['tsx', 'e2e/screenshots.ts', ...process.argv.slice(2)], { cwd: root, stdio: 'inherit' }).status ??
    1,
);
