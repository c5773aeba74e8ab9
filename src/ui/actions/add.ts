import { newItem, type Item } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import { roundLengths } from '@/core/units/round';
import { freshId } from '@/store/jobs';
import { setView, typeInto, useView } from '@/ui/view';
import { edit, freeName, jobNow, openLayer } from './edits';
import { letteredRound, ovalOf } from './lettering';

/** Adds an item in the middle of the blank. Lettering goes round a circle or ellipse that alone is picked. */
export function addItem(kind: string): void {
  const job = jobNow();
  if (!job) return;
  const k = itemKindOf(kind);
  let item = newItem({
    id: freshId(),
    name: freeName(k.title(k.defaults), job.items),
    kind,
    x: job.blank.width / 2,
    y: job.blank.height / 2,
    layer: openLayer(job),
    values: roundLengths(
      { ...(structuredClone(k.defaults) as Item['values']), ...(k.fresh?.(job.blank) as Item['values'] | undefined) },
      k.fields,
      job.unit,
    ),
  });
  const { picked } = useView.getState();
  const alone = picked.length === 1 ? job.items.find((i) => i.id === picked[0]) : undefined;
  const oval = kind === 'lettering' && alone ? ovalOf(alone) : null;
  if (oval) item = letteredRound(item, oval, job.blank, job.items);
  edit(`Add ${k.name.toLowerCase()}`, (j) => void j.items.push(item));
  setView({ picked: [item.id], stage: 'artwork' });
  typeInto(item.id);
}
