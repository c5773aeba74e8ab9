import type { Item } from '@/core/artwork/item';
import type { Asset } from '@/core/job/assets';
import { pictureFile } from '@/store/pictures';

/** Pictures are drawn from copies of at most so many pixels on the longer side. */
const LARGEST = 1400;

type Shown = ImageBitmap | 'coming' | 'missing';
const shown = new Map<string, Shown>();

/** A picture for the table; null while it is being read (`again` is called then), "missing" where its file is not on this device. */
export function bitmapOf(item: Item, files: readonly Asset[], again: () => void): ImageBitmap | 'missing' | null {
  const id = String(item.values.picture);
  const kept = shown.get(id);
  if (kept) return kept === 'coming' ? null : kept;
  const named = files.find((f) => f.id === id);
  if (!named) return 'missing';
  shown.set(id, 'coming');
  void pictureFile(named)
    .then(async (file) => {
      if (!file) return 'missing' as const;
      const whole = await createImageBitmap(file);
      const k = Math.min(1, LARGEST / Math.max(whole.width, whole.height));
      if (k === 1) return whole;
      const small = await createImageBitmap(whole, {
        resizeWidth: Math.max(1, Math.round(whole.width * k)),
        resizeHeight: Math.max(1, Math.round(whole.height * k)),
        resizeQuality: 'medium',
      });
      whole.close();
      return small;
    })
    .catch(() => 'missing' as const)
    .then((b) => {
      shown.set(id, b);
      again();
    });
  return null;
}

/** A file has come to this device: what was missing is looked for again. */
export function forgetMissing(): void {
  for (const [id, s] of shown) if (s === 'missing') shown.delete(id);
}
