import type { Picture } from '@/core/artwork/trace/colours';
import { isPng } from '@/core/exchange/picture/chunks';

/** Larger pictures are made smaller before they are traced, pixels on the longer side. */
const LARGEST = 4000;

/** Raised when a picture cannot be had; says why. */
export class PictureError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'PictureError';
  }
}

const bitmapOf = (file: File): Promise<ImageBitmap> =>
  createImageBitmap(file).catch(() => {
    throw new PictureError(`"${file.name}" is no picture that can be read. Save it as PNG or JPEG.`);
  });

/** The bytes of a picture as PNG: those of its file where it is one, which may have sixteen bits. Throws PictureError. */
export async function asPng(file: File): Promise<Uint8Array> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (isPng(bytes)) return bytes;
  const bitmap = await bitmapOf(file);
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
  bitmap.close();
  const blob = await canvas.convertToBlob({ type: 'image/png' }).catch(() => {
    throw new PictureError(`"${file.name}" is too large for this browser. Make it smaller.`);
  });
  return new Uint8Array(await blob.arrayBuffer());
}

/** The pixels of a picture's file. Throws PictureError. */
export async function decodePicture(file: File): Promise<Picture> {
  const bitmap = await bitmapOf(file);
  const scale = Math.min(1, LARGEST / Math.max(bitmap.width, bitmap.height));
  const width = Math.max(1, Math.round(bitmap.width * scale));
  const height = Math.max(1, Math.round(bitmap.height * scale));
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext('2d', { willReadFrequently: true })!;
  ctx.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { width, height, rgba: ctx.getImageData(0, 0, width, height).data };
}
