import { strFromU8, strToU8, zipSync } from 'fflate';
import type { Job } from './job';
import { JobError, readJob } from './migrate';
import { isZip, openZip, type ZipLimits } from './zip';

/** Files of a job beside job.json (fonts, pictures), by their path in the archive. */
export type Assets = Record<string, Uint8Array>;

const MB = 1024 * 1024;
/** A job as text may be so large, bytes: far more than any that can be worked on. */
const LARGEST_TEXT = 64 * MB;
const limits: ZipLimits = {
  packed: 256 * MB,
  opened: 512 * MB,
  files: 2000,
  each: [{ ending: 'job.json', most: LARGEST_TEXT }],
};

/** A job and its assets as the bytes of a .mirvak file (a zip). */
export function packJob(job: Job, assets: Assets = {}): Uint8Array {
  const files: Record<string, Uint8Array> = { 'job.json': strToU8(JSON.stringify(job, null, 1)) };
  for (const [path, bytes] of Object.entries(assets)) files[`assets/${path}`] = bytes;
  return zipSync(files, { level: 6 });
}

/** The bytes of a .mirvak file, or of a plain job.json, to a job. Throws JobError. */
export function unpackJob(bytes: Uint8Array): { job: Job; assets: Assets } {
  if (isZip(bytes)) {
    const files = openZip(bytes, limits);
    if (!files['job.json']) throw new JobError('The archive holds no job.json; it is not a Mirvak job.');
    const assets: Assets = {};
    for (const [path, data] of Object.entries(files))
      if (path.startsWith('assets/') && !path.includes('..') && data.length) assets[path.slice(7)] = data;
    return { job: readJob(parseJson(strFromU8(files['job.json']))), assets };
  }
  if (bytes.length > LARGEST_TEXT) throw new JobError(`The file is larger than ${LARGEST_TEXT / MB} MB.`);
  return { job: readJob(parseJson(strFromU8(bytes))), assets: {} };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new JobError('The file is neither a .mirvak archive nor a readable job.json.');
  }
}
