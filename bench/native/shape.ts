import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { compiled } from './compiled';

/** What of shaping has a yardstick (`./shape.cpp`), and what it is given: numbers, and more words. */
export interface Straight {
  readonly of: 'mesh' | 'outline' | 'stone' | 'denoise' | 'blend';
  readonly numbers?: Float32Array;
  readonly more?: readonly number[];
}

/** The same work in straight native code by one thread: milliseconds of processor time, and the mean height; null without g++. */
export function nativeShape(
  { of, numbers, more = [] }: Straight,
  nodes: number,
  cell: number,
): { readonly ms: number; readonly mean: number } | null {
  const run = compiled('shape');
  if (!run) return null;
  const file = join(run, '..', of);
  if (numbers) writeFileSync(file, new Uint8Array(numbers.buffer, numbers.byteOffset, numbers.byteLength));
  const args = [of, nodes, cell, of === 'outline' ? 1 : 3].map(String);
  const said = execFileSync(run, [...args, ...(numbers ? [file] : []), ...more.map(String)], { encoding: 'utf8' });
  const [ms, mean] = said.trim().split(' ').map(Number);
  return { ms, mean };
}
