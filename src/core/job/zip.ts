import { unzipSync, type Unzipped } from 'fflate';
import { JobError } from './migrate';

/** What an archive may hold, in bytes and files. */
export interface ZipLimits {
  /** The archive as it is, and all of it opened out. */
  readonly packed: number;
  readonly opened: number;
  readonly files: number;
  /** The largest file with this ending. */
  readonly each: readonly { readonly ending: string; readonly most: number }[];
}

const MB = 1024 * 1024;
const megabytes = (bytes: number): string => `${Math.round(bytes / MB)} MB`;

export const isZip = (bytes: Uint8Array): boolean => bytes.length >= 2 && bytes[0] === 0x50 && bytes[1] === 0x4b;

/** The files of a zip, its sizes checked before anything is opened out. Throws JobError. */
export function openZip(bytes: Uint8Array, limits: ZipLimits): Unzipped {
  if (bytes.length > limits.packed) throw new JobError(`The file is larger than ${megabytes(limits.packed)}.`);
  try {
    let total = 0;
    let files = 0;
    return unzipSync(bytes, {
      // What a file is opened out to is as large as it says here, and no larger, whatever its data would give.
      filter: (f) => {
        total += f.originalSize;
        if (total > limits.opened) throw new JobError(`The archive unpacks to more than ${megabytes(limits.opened)}.`);
        if (++files > limits.files) throw new JobError(`The archive holds more than ${limits.files} files.`);
        const rule = limits.each.find((e) => f.name.endsWith(e.ending));
        if (rule && f.originalSize > rule.most)
          throw new JobError(`"${f.name}" in the archive is larger than ${megabytes(rule.most)}.`);
        return true;
      },
    });
  } catch (e) {
    if (e instanceof JobError) throw e;
    throw new JobError('The file is a damaged archive. Export it again, or take an older copy.');
  }
}
