import { artworkHelper } from '@/compute/artworkHelper';
import { shapedAside } from '@/compute/engineHandle';
import { useWork } from '@/compute/useWork';
import { isCancelled } from '@/compute/workerHandle';
import type { HeightField } from '@/core/relief/field';
import { membersOf } from '@/core/relief/groups';
import { ornaments } from '@/core/relief/ornaments/ornaments';
import type { Form } from '@/core/relief/stack';
import { fromBase64 } from '@/core/units/base64';
import { lengthText } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { libraryMessage } from '@/store/db';
import { freshId } from '@/store/jobs';
import { loadShelf } from '@/store/shelves';
import { busyWith } from '@/ui/common/busy';
import { keepEntry } from '@/ui/common/useShelf';
import { jobNow } from './edits';
import { addForm, bringFile } from './relief';
import { tell } from './tell';

/** What a piece of the library is dragged as. */
export const PIECE = 'application/x-mirvak-relief';

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Adds a piece of the library to the relief: an ornament, or a relief of the maker's own; at a place, or in the middle; mm. */
export async function addPiece(id: string, at?: Place): Promise<void> {
  if (Object.hasOwn(ornaments, id)) return addForm('ornament', { ornament: id, ...at });
  const kept = (await loadShelf('reliefs').catch(() => [])).find((k) => k.id === id);
  if (!kept) return tell('error', 'That relief is no longer in the library of this device.');
  const { name, width, height, rise, png } = kept;
  await bringFile('picture', { name: `${name}.png`, bytes: () => Promise.resolve(fromBase64(png)) }, async (_, job) => {
    const size = (v: number) => lengthText(v, job.unit);
    return {
      values: { width, height, rise, smooth: false, ...at },
      rise,
      says: `${size(width)} \u00d7 ${size(height)}, ${size(rise)} high, as it was kept.`,
    };
  });
}

/** Keeps a form (a group with what it holds) or, where none is named, the whole relief in the library of this device. */
export async function keepRelief(form: Form | null): Promise<void> {
  const job = jobNow();
  const relief = useWork.getState().relief;
  if (!job) return;
  // A form is shaped by itself; all of it is taken as it is shown.
  if (!form && !relief?.fine) return tell('info', 'The relief is still being shaped. Keep it when it is done.');
  const name = form?.name ?? job.name;
  const helper = artworkHelper();
  try {
    const kept = await busyWith(
      `Keeping ${name}\u2026`,
      () => helper.dismiss(),
      async () => {
        const field = form ? await alone(form) : relief!.shaped.field;
        return helper.ask((api) => api.keptRelief(field, `own-${freshId()}`, name));
      },
    );
    if (!kept) return tell('info', `"${name}" is empty: there is nothing to keep.`);
    await keepEntry('reliefs', kept);
    tell('success', `"${name}" is in the library of reliefs, with the heights that it has now.`);
  } catch (e) {
    if (isCancelled(e))
      return tell('info', `"${name}" was not kept: it was stopped, or the relief was changed meanwhile.`);
    tell('error', saysOf(e, `"${name}" could not be kept on this device. ${libraryMessage(e)}`));
  }
}

/** Heights of one form by itself. */
async function alone(form: Form): Promise<HeightField> {
  const job = jobNow()!;
  const forms = [
    ...membersOf(job.relief.forms, form.id),
    { ...form, group: null, visible: true, meets: 'replace' as const, base: 0 },
  ];
  const shaped = await shapedAside({ ...job, relief: { ...job.relief, forms, baseDepth: 0 } });
  return shaped.field;
}
