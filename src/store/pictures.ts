import type { Asset } from '@/core/job/assets';
import { describe, filesOf } from './files';

const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  bmp: 'image/bmp',
  gif: 'image/gif',
};
const ending = (name: string): string => /\.([a-z]+)$/i.exec(name)?.[1].toLowerCase() ?? '';

/** What a job says of a picture's file. */
export const describePicture = (name: string, bytes: Uint8Array): Promise<Asset> =>
  describe('picture', name || 'Picture', TYPES[ending(name)] ? `.${ending(name)}` : '', bytes);

/** A kept picture's file; null when it is not on this device. */
export async function pictureFile(of: Asset): Promise<File | null> {
  const bytes = (await filesOf([of]))[of.id];
  return bytes ? new File([bytes as BlobPart], of.name, { type: TYPES[ending(of.file)] ?? '' }) : null;
}
