import * as Comlink from 'comlink';
import { bringOwnFonts } from '@/compute/fonts';
import { portrayed } from '@/compute/engineHandle';
import { pictured } from '@/core/job/allSetups';
import { oneSetup } from '@/core/job/oneSetup';
import type { JobRow } from '@/store/db';
import { anythingToSee } from '@/store/keep';
import { readRow, savePicture } from '@/store/jobs';
import { bringFilesOf } from '@/store/reliefFiles';
import { fontFiles } from '@/store/ownFonts';
import { addressOf, PORTRAIT } from '../table/solid/portrait';
import type { SolidApi } from '../table/solid/solid.worker';

/**
 * Pictures for the cards of jobs that have never been open here: each job is planned and proven (or its relief is shaped) and drawn in the background, one
 * after the other, and `painted` is told of each. Called off by the signal. A job that cannot be drawn keeps its blank.
 */
export async function paintPortraits(rows: readonly JobRow[], signal: AbortSignal, painted: () => void): Promise<void> {
  const missing = rows.filter((r) => !r.picture && anythingToSee(r.job));
  if (!missing.length || typeof OffscreenCanvas === 'undefined') return;
  const { width, height } = PORTRAIT;
  const worker = new Worker(new URL('../table/solid/solid.worker.ts', import.meta.url), { type: 'module' });
  try {
    const solid = Comlink.wrap<SolidApi>(worker);
    const canvas = new OffscreenCanvas(width, height);
    if (
      !(await solid.start(
        Comlink.transfer(canvas, [canvas]),
        Comlink.proxy(() => {}),
      ))
    )
      return;
    await solid.resize(width, height, 1);
    for (const row of missing) {
      if (signal.aborted) return;
      try {
        const whole = (await readRow(row.id))?.job;
        if (!whole) continue;
        // What is cut last is what one sees of a finished piece.
        const setups = pictured(whole).map((s) => oneSetup(whole, s.id));
        const job =
          setups.findLast((s) => s.cuts.some((c) => c.enabled)) ??
          setups.findLast((s) => s.relief.forms.some((f) => f.visible))!;
        await bringFilesOf(job.assets, job.relief.forms);
        await bringOwnFonts(await fontFiles(job));
        const field = await portrayed(job, signal);
        if (!field || signal.aborted) continue;
        const { blank } = job;
        await solid.look('corner', blank.width, blank.height, blank.thickness);
        await solid.body(
          field,
          null,
          blank.width,
          blank.height,
          blank.thickness,
          blank.material,
          blank.paint,
          'material',
          null,
        );
        await savePicture(row.id, await addressOf(await solid.picture(width, height)));
        painted();
      } catch (e) {
        console.warn(`No picture of "${row.name}":`, e);
      }
    }
  } finally {
    worker.terminate();
  }
}
