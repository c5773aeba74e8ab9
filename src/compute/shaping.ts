import type { OneSetup } from '@/core/job/job';
import { reliefCell, reliefKey } from '@/core/pipeline/shaping';
import { counting } from '@/core/relief/groups';
import { assetsOfForms } from '@/core/relief/stack';
import { saysOf } from '@/core/units/says';
import { computePool } from './pool';
import { isReliefFileHere } from './reliefFiles';
import type { ReliefState } from './work';
import { isCancelled } from './workerHandle';

/** With more nodes than so many, a relief is shown coarsely first. */
const AT_ONCE = 2e5;
/** Nodes of the first look lie so many times as far apart. */
const COARSER = 4;

const keys = new WeakMap<OneSetup, { readonly key: string; readonly files: readonly string[] }>();
/**
 * Content key of the relief that a set-up is to have, and of which of its files are here by now; nothing where it has no forms.
 */
export function wantedRelief(job: OneSetup): string {
  let known = keys.get(job);
  if (!known) {
    const forms = counting(job.relief.forms);
    keys.set(job, (known = { key: forms.length ? reliefKey(job) : '', files: assetsOfForms(forms) }));
  }
  const { key, files } = known;
  return files.length ? `${key} ${files.map((id) => Number(isReliefFileHere(id))).join('')}` : key;
}

/** What shapes reliefs is given, and what it tells. */
export interface Shaping {
  /** The set-up that is shown; null where there is none, or nothing is to be worked on. */
  shown(): OneSetup | null;
  held(setupId: string): ReliefState | null;
  put(setupId: string, relief: ReliefState | null): void;
  /** How far it is; null when it is done. */
  tell(done: number | null): void;
  fail(words: string): void;
}

/** Shapes the relief of whatever set-up is shown, coarsely and then finely, as long as what is held is not what is wanted. */
export function shaper(s: Shaping): { follow: () => void } {
  let at: { readonly setup: string; readonly key: string } | null = null;
  /** What could not be shaped is not tried again until it is another. */
  let failed = '';

  async function work(): Promise<void> {
    for (;;) {
      const job = s.shown();
      if (!job) return;
      const { id } = job.at;
      const key = wantedRelief(job);
      const held = s.held(id);
      if (!key && held) s.put(id, null);
      if (!key || key === failed || (held?.key === key && held.fine)) return;
      const cell = reliefCell(job);
      const nodes = (job.blank.width * job.blank.height) / (cell * cell);
      const fine = held?.key === key || nodes <= AT_ONCE;
      at = { setup: id, key };
      s.tell(0);
      const seat = computePool().shaper;
      try {
        const shaped = await seat.ask((api, pack) =>
          api.shape(
            seat.next(),
            pack({ ...job, cuts: [] }),
            fine ? cell : COARSER * cell,
            seat.hearing((done) => s.tell(done)),
          ),
        );
        s.put(id, { key, fine, shaped });
      } catch (e) {
        if (!isCancelled(e)) {
          console.error(e);
          failed = key;
          s.fail(
            saysOf(
              e,
              'The relief could not be shaped: a fault of Mirvak, not of your job. Hide the form that was changed last, or undo the change.',
            ),
          );
        }
      } finally {
        at = null;
        s.tell(null);
      }
    }
  }

  let running: Promise<void> | null = null;
  return {
    follow() {
      const job = s.shown();
      if (at && (!job || job.at.id !== at.setup || wantedRelief(job) !== at.key)) computePool().shaper.cancel();
      running ??= work().finally(() => (running = null));
    },
  };
}
