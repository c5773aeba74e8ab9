import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CutterForm } from '../../src/core/cutters/form';
import { compiled } from './compiled';

/** Milliseconds of processor time of stamping a ball or a cone along a path into 2000 x 2000 cells of 0.05 mm, or null. */
export function nativeStamping(form: CutterForm, path: readonly (readonly number[])[]): number | null {
  const run = compiled('stamp');
  if (!run) return null;
  const file = join(run, '..', 'path.txt');
  writeFileSync(file, path.map((p) => p.join(' ')).join('\n'));
  const what = form.ball > 0 ? ['ball', form.radius, 0, 0] : ['cone', form.radius, form.core, form.rise];
  return Number(
    execFileSync(run, [...what.map(String), String(path.length), '3', file], { encoding: 'utf8' }).split(' ')[0],
  );
}
