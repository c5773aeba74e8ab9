import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Job } from './job';
import { JobError, readJob } from './migrate';

/** Files of a job beside job.json (fonts, pictures), by their path in the archive. */
export type Assets = Record<string, Uint8Array>;

/** Larger archives than this are refused before they are unpacked, bytes. */
const LARGEST = 512 * 1024 * 1024;

/** A job and its assets as the bytes of a .mirvak file (a zip). */
export function packJob(job: Job, assets: Assets = {}): Uint8Array {
  const files: Record<string, Uint8Array> = { 'job.json': strToU8(JSON.stringify(job, null, 1)) };
  for (const [path, bytes] of Object.entries(assets)) files[`assets/${path}`] = bytes;
  return zipSync(files, { level: 6 });
}

/** The bytes of a .mirvak file, or of a plain job.json, to a job. Throws JobError. */
export function unpackJob(bytes: Uint8Array): { job: Job; assets: Assets } {
  if (bytes.length > LARGEST) throw new JobError('The file is larger than 512 MB.');
  if (bytes.length >= 2 && bytes[0] === 0x50 && bytes[1] === 0x4b) {
    let files: Record<string, Uint8Array>;
    try {
      let total = 0;
      files = unzipSync(bytes, {
        filter: (f) => {
          total += f.originalSize;
          if (total > LARGEST) throw new JobError('The archive unpacks to more than 512 MB.');
          return true;
        },
      });
    } catch (e) {
      if (e instanceof JobError) throw e;
      throw new JobError('The file is a damaged archive. Export the job again, or take an older copy.');
    }
    if (!files['job.json']) throw new JobError('The archive holds no job.json; it is not a Mirvak job.');
    const assets: Assets = {};
    for (const [path, data] of Object.entries(files)) if (path.startsWith('assets/') && !path.includes('..') && data.length) assets[path.slice(7)] = data;
    return { job: readJob(parseJson(strFromU8(files['job.json']))), assets };
  }
  return { job: readJob(parseJson(strFromU8(bytes))), assets: {} };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new JobError('The file is neither a .mirvak archive nor a readable job.json.');
  }
}
