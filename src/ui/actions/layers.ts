import { dropUses } from '@/core/job/uses';
import { dropEmptyGroups } from '@/core/job/regroup';
import type { OneSetup } from '@/core/job/job';
import { freshId } from '@/store/jobs';
import type { Merge } from '@/store/steps';
import { setView, useView } from '@/ui/view';
import { addCopies, copiesOf, pickedItems } from './artwork';
import { edit, freeName, jobNow } from './edits';
import { tell } from './tell';

export function addLayer(): void {
  edit(
    'Add layer',
    (j) =>
      void j.layers.push({
        id: freshId(),
        name: freeName(`Layer ${j.layers.length + 1}`, j.layers),
        colour: '#1e2a2f',
        visible: true,
        locked: false,
      }),
  );
}
export const changeLayer = (
  id: string,
  name: string,
  recipe: (l: OneSetup['layers'][number]) => void,
  merge?: Merge,
): void =>
  edit(
    name,
    (j) => {
      const l = j.layers.find((q) => q.id === id);
      if (l) recipe(l);
    },
    merge,
  );
export function deleteLayer(id: string): void {
  const job = jobNow();
  if (!job || job.layers.length < 2) return tell('info', 'A job keeps at least one layer.');
  edit('Delete layer', (j) => {
    const gone = new Set(j.items.filter((i) => i.layer === id).map((i) => i.id));
    j.items = j.items.filter((i) => !gone.has(i.id));
    dropUses(j, (q) => gone.has(q));
    j.layers = j.layers.filter((l) => l.id !== id);
    dropEmptyGroups(j);
  });
  setView({ picked: [] });
}
export const moveLayer = (id: string, to: number): void =>
  edit('Reorder layers', (j) => {
    const from = j.layers.findIndex((l) => l.id === id);
    const [l] = j.layers.splice(from, 1);
    j.layers.splice(Math.max(0, Math.min(j.layers.length, to)), 0, l);
  });
/** Copies of what is picked, in place, on another layer. */
export function copiesToLayer(layer: string): void {
  const job = jobNow();
  if (!job) return;
  const set = copiesOf(pickedItems(), job);
  const items = set.items.map((i) => ({ ...i, layer }));
  addCopies('Copy to layer', [{ ...set, items }]);
  setView({ picked: items.map((i) => i.id) });
}
export function pickedToLayer(layer: string): void {
  const { picked } = useView.getState();
  edit('Move to layer', (j) => {
    for (const i of j.items) if (picked.includes(i.id)) i.layer = layer;
  });
}
