import { artworkHelper } from '@/compute/artworkHelper';
import { shapedAside } from '@/compute/engineHandle';
import { isCancelled } from '@/compute/workerHandle';
import type { OneSetup } from '@/core/job/job';
import { membersOf } from '@/core/relief/groups';
import type { KeptRelief } from '@/core/relief/keptRelief';
import { ornaments } from '@/core/relief/ornaments/ornaments';
import type { Form } from '@/core/relief/stack';
import { fromBase64 } from '@/core/units/base64';
import { lengthText } from '@/core/units/length';
import { saysOf } from '@/core/units/says';
import { libraryMessage } from '@/store/db';
import { freshId } from '@/store/jobs';
import { loadShelf } from '@/store/shelves';
import { busyWith } from '@/ui/common/busy';
import { dropEntry, keepEntry } from '@/ui/common/useShelf';
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
  if (!job) return;
  const name = form?.name ?? job.name;
  const helper = artworkHelper();
  try {
    const kept = await busyWith(
      `Keeping ${name}\u2026`,
      () => helper.dismiss(),
      async () => {
        // As the job is now: what is shown may still be of the state before.
        const { field } = await shapedAside(form ? alone(job, form) : job);
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

/** Takes a relief of the maker's own out of the library, with a way back. */
export async function dropPiece(piece: KeptRelief): Promise<void> {
  try {
    await dropEntry('reliefs', piece.id);
    tell('info', `"${piece.name}" is no longer in the library.`, {
      words: 'Put it back',
      run: () =>
        void keepEntry('reliefs', piece).catch((e) =>
          tell('error', `"${piece.name}" could not be put back. ${libraryMessage(e)}`),
        ),
    });
  } catch (e) {
    tell('error', `"${piece.name}" could not be deleted. ${libraryMessage(e)}`);
  }
}

/** A set-up whose relief is one form by itself, a group with what it holds. */
function alone(job: OneSetup, form: Form): OneSetup {
  const forms = [
    ...membersOf(job.relief.forms, form.id),
    { ...form, group: null, visible: true, meets: 'replace' as const, base: 0 },
  ];
  return { ...job, relief: { ...job.relief, forms } };
}
