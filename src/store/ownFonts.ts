import type { OneSetup, OwnFont } from '@/core/job/job';
import { fontName } from '@/core/lettering/font';
import { db } from './db';
import { filesOf, hashOf } from './files';

/** Fonts that makers bring. */
export const fontIdOf = (bytes: Uint8Array): string => `own-${hashOf(bytes)}`;

/** What a job says of a font file that was found to be sound. */
export function describeFont(file: string, bytes: Uint8Array): OwnFont {
  const id = fontIdOf(bytes);
  return { id, name: fontName(bytes, file), file: `fonts/${id}${/\.(ttf|otf|woff)$/i.exec(file)?.[0].toLowerCase() ?? ''}` };
}

/** Files of a job's own fonts, by id; those that are not here are left out. */
export const fontFiles = (job: Pick<OneSetup, 'fonts'>): Promise<Record<string, Uint8Array>> => filesOf('fonts', job.fonts);

/** The same for a job on the shelf, before it is opened. */
export async function fontFilesOf(jobId: string): Promise<Record<string, Uint8Array>> {
  const row = await db().jobs.get(jobId);
  return row?.job.fonts?.length ? fontFiles(row.job) : {};
}
