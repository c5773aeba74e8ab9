import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * A large open package of SVG icons that nobody here drew, and a rasteriser to hold readings against. Both are fetched from
 * the package registry into a temporary folder when they are first asked for; nothing of them is kept in the project.
 */
const dir = join(tmpdir(), 'mirvak-icons');
function fetched(): string {
  if (!existsSync(join(dir, 'node_modules/@mdi/svg'))) {
    mkdirSync(dir, { recursive: true });
    execFileSync(
      'npm',
      ['install', '--prefix', dir, '--no-save', '--no-audit', '--no-fund', '@mdi/svg', '@resvg/resvg-js'],
      { stdio: 'inherit' },
    );
  }
  return dir;
}

export const iconNames = (): string[] =>
  readdirSync(join(fetched(), 'node_modules/@mdi/svg/svg')).filter((f) => f.endsWith('.svg'));
export const iconText = (file: string): string =>
  readFileSync(join(fetched(), 'node_modules/@mdi/svg/svg', file), 'utf8');

type Rasteriser = new (svg: string, o: object) => { render(): { pixels: Uint8Array } };
export const rasteriser = (): Rasteriser =>
  (createRequire(join(fetched(), 'node_modules/'))('@resvg/resvg-js') as { Resvg: Rasteriser }).Resvg;
