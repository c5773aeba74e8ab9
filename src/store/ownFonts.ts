import { assetsOf, type Asset } from '@/core/job/assets';
import { assetsIn } from '@/core/job/oldAssets';
import { endingOf, fontName } from '@/core/lettering/font';
import { shelf } from '@/compute/fonts';
import { db } from './db';
import { describe, filesOf } from './files';

/** What a job says of a font file that was found to be sound. */
export const describeFont = (file: string, bytes: Uint8Array): Promise<Asset> =>
  describe('font', fontName(bytes, file, shelf.shaper()), endingOf(bytes), bytes);

/** Files of a job's own fonts, by id; those that are not here are left out. */
export const fontFiles = (job: { readonly assets: readonly Asset[] }): Promise<Record<string, Uint8Array>> =>
  filesOf(assetsOf(job, 'font'));

/** The same for a job on the shelf, before it is opened. */
export async function fontFilesOf(jobId: string): Promise<Record<string, Uint8Array>> {
  const row = await db().jobs.get(jobId);
  return row ? filesOf(assetsIn(row.job).filter((a) => a.type === 'font')) : {};
}
