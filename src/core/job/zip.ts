import { unzipSync, type Unzipped } from 'fflate';
import { JobError } from './migrate';

/** What an archive may hold, in bytes and files. */
export interface ZipLimits {
  /** The archive as it is, and all of it opened out. */
  readonly packed: number;
  readonly opened: number;
  readonly files: number;
  /** Which of them are opened at all; all where it is not said. */
  readonly wanted?: (name: string) => boolean;
  /** The largest file with this ending. */
  readonly each: readonly { readonly ending: string; readonly most: number }[];
}

/** Deflate packs no more than so many bytes into one (RFC 1951: 258 of them for two bits). */
const TIGHTEST = 1032;

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
        if (limits.wanted && !limits.wanted(f.name)) return false;
        // Nothing is packed tighter than that: who says so lies, and would be given the room.
        if (f.originalSize > TIGHTEST * f.size + 64) throw new JobError(`"${f.name}" in the archive is damaged.`);
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
