import type { OneSetup } from '@/core/job/job';
import { neededBy } from '@/core/job/assets';
import { hasSource } from '@/core/job/linked';
import { lackingOf, lackingWords } from '@/store/files';
import { local } from '@/store/local';
import { useOpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';
import { copiesOf, ownedItem, pickedItems } from './artwork';
import { edit, jobNow } from './edits';
import { append } from '@/core/units/append';
import { tell } from './tell';

/** What was copied, kept on the device, so that it passes between jobs. */
const CLIP = 'mirvak-clipboard';

export function copyToClipboard(): boolean {
  const items = pickedItems();
  const job = jobNow();
  if (!items.length || !job) return false;
  const layers = job.layers.filter((l) => items.some((i) => i.layer === l.id));
  try {
    local().setItem(CLIP, JSON.stringify({ items, groups: job.groups, layers, assets: neededBy(items, job.assets) }));
  } catch {
    tell('error', 'This is too much for the clipboard. Export the job, or copy less at a time.');
    return false;
  }
  return true;
}

export function pasteFromClipboard(): void {
  const job = jobNow();
  const text = local().getItem(CLIP);
  if (!job || !text) return tell('info', 'There is nothing to paste. Copy artwork first, or drop a file on the table.');
  const clip = JSON.parse(text) as Pick<OneSetup, 'items' | 'groups' | 'layers'> & Partial<Pick<OneSetup, 'assets'>>;
  const here = new Set(job.items.map((i) => `${i.x.toFixed(3)} ${i.y.toFixed(3)}`));
  // Pasted over itself, artwork steps aside so that it is seen.
  const step = clip.items.some((i) => here.has(`${i.x.toFixed(3)} ${i.y.toFixed(3)}`)) ? 5 : 0;
  const whole = useOpenJob.getState().whole!;
  // Links follow what is in this job; those of another one come as what they show.
  const items = clip.items.map((i) => (i.kind === 'linked' && !hasSource(whole, i) ? ownedItem(i) : i));
  const c = copiesOf(items, { ...job, groups: clip.groups });
  edit('Paste', (j) => {
    const layerOf = (id: string) => {
      const l = clip.layers.find((q) => q.id === id)!;
      const same = j.layers.find((q) => q.id === id) ?? j.layers.find((q) => q.name === l.name);
      if (same) return same.id;
      j.layers.push(structuredClone(l));
      return l.id;
    };
    for (const a of clip.assets ?? []) if (!j.assets.some((q) => q.id === a.id)) j.assets.push(a);
    append(j.groups, c.groups);
    append(
      j.items,
      c.items.map((i) => ({ ...i, x: i.x + step, y: i.y - step, layer: layerOf(i.layer) })),
    );
  });
  setView({ picked: c.items.map((i) => i.id), stage: 'artwork' });
  void lackingOf(clip.assets ?? []).then(
    (lacking) =>
      lacking.length &&
      tell(
        'error',
        `What was pasted came without ${lackingWords(lacking)}, not on this device any more. Add it to this job again.`,
      ),
  );
}
