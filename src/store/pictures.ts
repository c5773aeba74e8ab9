import type { PictureFile } from '@/core/job/job';
import { filesOf, hashOf } from './files';

const TYPES: Readonly<Record<string, string>> = { png: 'image/png', jpg: 'image/jpeg', jpeg: 'image/jpeg', webp: 'image/webp', bmp: 'image/bmp', gif: 'image/gif' };
const ending = (name: string): string => /\.([a-z]+)$/i.exec(name)?.[1].toLowerCase() ?? '';

/** What a job says of a picture's file. */
export function describePicture(name: string, bytes: Uint8Array): PictureFile {
  const id = `pic-${hashOf(bytes)}`;
  return { id, name: name.slice(0, 200) || 'Picture', file: `pictures/${id}${TYPES[ending(name)] ? `.${ending(name)}` : ''}` };
}

/** A kept picture's file; null when it is not on this device. */
export async function pictureFile(of: PictureFile): Promise<File | null> {
  const bytes = (await filesOf('pictures', [of]))[of.id];
  return bytes ? new File([bytes as BlobPart], of.name, { type: TYPES[ending(of.file)] ?? '' }) : null;
}
