import type { Job, OwnFont } from '@/core/job/job';
import { hashFloats } from '@/core/geometry/hash';
import { fontName } from '@/core/lettering/font';
import { db } from './db';

/**
 * Fonts that makers bring. A font's id comes from its bytes: the same file brought twice is kept once, and copies of a
 * job share it.
 */
const SHELF = '*fonts';

export const fontIdOf = (bytes: Uint8Array): string => {
  const padded = new Float64Array(Math.ceil(bytes.length / 8));
  new Uint8Array(padded.buffer).set(bytes);
  return `own-${hashFloats([padded])}${bytes.length.toString(36)}`;
};

/** What a job says of a font file that was found to be sound. */
export function describeFont(file: string, bytes: Uint8Array): OwnFont {
  const id = fontIdOf(bytes);
  return { id, name: fontName(bytes, file), file: `fonts/${id}${/\.(ttf|otf|woff)$/i.exec(file)?.[0].toLowerCase() ?? ''}` };
}

/** Keeps the file of a font that is known by a job. */
export async function putFont(own: OwnFont, bytes: Uint8Array): Promise<void> {
  await db().assets.put({ key: `${SHELF}/${own.id}`, jobId: SHELF, path: own.file, bytes });
}

/** Files of a job's own fonts, by id; those that are not here are left out. */
export async function fontFiles(job: Pick<Job, 'fonts'>): Promise<Record<string, Uint8Array>> {
  const rows = await db().assets.bulkGet(job.fonts.map((f) => `${SHELF}/${f.id}`));
  return Object.fromEntries(rows.flatMap((r, i) => (r ? [[job.fonts[i].id, r.bytes]] : [])));
}

/** The same for a job on the shelf, before it is opened. */
export async function fontFilesOf(jobId: string): Promise<Record<string, Uint8Array>> {
  const row = await db().jobs.get(jobId);
  return row?.job.fonts?.length ? fontFiles(row.job) : {};
}

/** Removes fonts that no job on the shelf uses. */
export async function sweepFonts(): Promise<void> {
  const used = new Set<string>();
  await db().jobs.each((row) => (row.job.fonts ?? []).forEach((f) => used.add(`${SHELF}/${f.id}`)));
  await db().assets.where('jobId').equals(SHELF).and((a) => !used.has(a.key)).delete();
}
