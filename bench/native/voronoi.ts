import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Region } from '../../src/core/geometry/region';

let program: string | null | undefined;

/** Compiles the yardstick once; null where g++ or Boost's headers are missing. */
function compiled(): string | null {
  if (program !== undefined) return program;
  const out = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), 'voronoi');
  const made = spawnSync('g++', ['-O3', '-o', out, join(import.meta.dirname, 'voronoi.cpp')], { stdio: 'ignore' });
  program = made.status === 0 ? out : null;
  return program;
}

/** Milliseconds of a native sweep-line diagram of the region's segments on a grid of 10 nm, or null. */
export function nativeVoronoi(region: Region): number | null {
  const run = compiled();
  if (!run) return null;
  const lines: string[] = [];
  for (const loop of region)
    for (let i = 0, n = loop.length; i < n; i += 2)
      lines.push(
        [loop[i], loop[i + 1], loop[(i + 2) % n], loop[(i + 3) % n]].map((v) => Math.round(v * 1e5)).join(' '),
      );
  const file = join(run, '..', 'segments.txt');
  writeFileSync(file, lines.join('\n'));
  return Number(execFileSync(run, [file], { encoding: 'utf8' }).split(' ')[0]);
}
