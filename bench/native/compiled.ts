import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const programs = new Map<string, string | null>();

/** A yardstick beside this file, compiled once; null where g++ is missing. */
export function compiled(name: string): string | null {
  let program = programs.get(name);
  if (program === undefined) {
    const out = join(mkdtempSync(join(tmpdir(), 'mirvak-bench-')), name);
    const made = spawnSync('g++', ['-O3', '-march=native', '-o', out, join(import.meta.dirname, `${name}.cpp`)], {
      stdio: 'ignore',
    });
    programs.set(name, (program = made.status === 0 ? out : null));
  }
  return program;
}
