import type { Item } from '@/core/artwork/item';
import type { LinkedSource } from '@/core/artwork/kinds/linked';
import type { Setup, Job } from '@/core/job/job';
import { canBeLinked, lostLinks, withLinks } from '@/core/job/linked';
import { freshId } from '@/store/jobs';
import { useOpenJob, type OpenJob } from '@/store/openJob';
import { setView } from '@/ui/view';
import { ownedItem, pickedItems, replaceEach } from './artwork';
import { tell } from './tell';

/** The set-ups of the open job other than the one that is shown. */
export const otherSetups = ({ whole, shownId }: Pick<OpenJob, 'whole' | 'shownId'>): Setup[] =>
  whole?.setups.filter((s) => s.id !== shownId) ?? [];

export const sourceOf = (i: Item): LinkedSource | undefined =>
  i.kind === 'linked' ? (i.values.source as LinkedSource | undefined) : undefined;

function link(whole: Job, into: string, items: readonly Item[]): string[] {
  const { job, ids } = withLinks(whole, into, items, freshId);
  if (ids.length) useOpenJob.getState().editWhole('Link artwork', (draft) => void Object.assign(draft, job));
  return ids;
}

/** Links what is picked into another set-up, where it lies at the same place of the blank. */
export function linkPickedInto(setupId: string): void {
  const { whole, show } = useOpenJob.getState();
  const to = whole?.setups.find((s) => s.id === setupId);
  if (!whole || !to) return;
  const picked = pickedItems();
  const ids = link(whole, setupId, picked);
  const left = picked.filter((i) => !canBeLinked(i)).map((i) => `"${i.name}"`);
  const leftOut = left.length
    ? ` Left out: ${left.join(', ')}. Link the original of a link; a picture is not cut.`
    : '';
  if (!ids.length) return tell('info', `Nothing was linked.${leftOut}`);
  const what = ids.length === 1 ? `"${picked.find(canBeLinked)!.name}" is` : `${ids.length} items are`;
  tell('success', `${what} linked into "${to.name}".${leftOut}`, {
    words: 'Show it there',
    run: () => (show(setupId), setView({ picked: ids, stage: 'artwork' })),
  });
}

/** Links items of other set-ups, by their ids, into the one that is shown, and picks them. */
export function linkHere(ids: ReadonlySet<string>): void {
  const { whole, shownId } = useOpenJob.getState();
  if (!whole || !shownId) return;
  const items = whole.setups.flatMap((s) => s.items.filter((i) => ids.has(i.id)));
  setView({ picked: link(whole, shownId, items), stage: 'artwork' });
}

/** Shows what a link follows, in its own set-up. */
export function showOriginal(source: LinkedSource): void {
  useOpenJob.getState().show(source.setup.id);
  setView({ picked: [source.item.id], stage: 'artwork' });
}

/** Makes the picked links items of their own. */
export function ownPicked(): void {
  const links = pickedItems().filter(sourceOf);
  if (links.length) replaceEach('Make it its own', links.map(ownedItem));
}

/** Says when what links follow goes away, whichever way: deleted, combined, or with its set-up. Returns how to stop. */
export function watchLinks(): () => void {
  let lost = new Set<string>();
  let of: string | null = null;
  return useOpenJob.subscribe((s, before) => {
    if (!s.whole || s.whole === before.whole) return;
    const now = lostLinks(s.whole);
    const fresh = of === s.id ? now.filter((l) => !lost.has(l.item.id)) : [];
    of = s.id;
    lost = new Set(now.map((l) => l.item.id));
    if (!fresh.length) return;
    const names = [...new Set(fresh.map((l) => `"${l.item.name}" in "${l.setup.name}"`))];
    const shown = names.slice(0, 3).join(', ') + (names.length > 3 ? ` and ${names.length - 3} more` : '');
    tell('error', `${shown} followed what has gone, and ${names.length > 1 ? 'draw' : 'draws'} nothing now.`, {
      words: 'Undo',
      run: () => useOpenJob.getState().undo(),
    });
  });
}
