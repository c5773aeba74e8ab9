// Makes docs/screenshots from the demo jobs: `npm run screenshots`.
import { spawnSync } from 'node:child_process';
import { build, everything, root } from './setup.mjs';

await everything();
build();
process.exit(spawnSync('npx', ['tsx', 'e2e/screenshots.ts'], { cwd: root, stdio: 'inherit' }).status ?? 1);
