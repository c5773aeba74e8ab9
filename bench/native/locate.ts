import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CutterForm } from '../../src/core/cutters/form';
import { outlineOver } from '../../src/core/kernels/outline';
import type { HeightField } from '../../src/core/relief/field';
import { compiled } from './compiled';

const bytes = (a: Float32Array) => new Uint8Array(a.buffer, a.byteOffset, a.byteLength);

/** Locations over the middle rows of a square surface, in native code and without any pruning: milliseconds of processor time, and the heights; null without g++. */
export function nativeLocations(
  surface: HeightField,
  form: CutterForm,
  step: number,
  rows: number,
): { ms: number; heights: Float32Array } | null {
  const run = compiled('locate');
  if (!run) return null;
  const { k, heights } = outlineOver(form, surface.cell);
  const [a, b, out] = ['surface', 'outline', 'out'].map((n) => join(run, '..', n));
  writeFileSync(a, bytes(surface.z));
  writeFileSync(b, bytes(heights));
  const ms = Number(
    execFileSync(run, [...[surface.cols, step, rows, k, 2].map(String), a, b, out], { encoding: 'utf8' }),
  );
  return { ms, heights: new Float32Array(new Uint8Array(readFileSync(out)).buffer) };
}
