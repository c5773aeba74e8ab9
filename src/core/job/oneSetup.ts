import {
  FIRST_BLANK,
  JOB_VERSION,
  newOneSetup,
  ownKeys,
  pieceKeys,
  placingKeys,
  sharedKeys,
  type Blank,
  type Job,
  type OneSetup,
  type BlankPiece,
  type Setup,
} from './job';
import { keptItems, seenItems, withoutSources } from './linked';
import type { Unit } from '../units/length';

/**
 * A job seen from one of its set-ups, and back. Planners, checks, sheets and the table know one set-up: its blank as it lies,
 * its artwork and cuts, and what the job has for all (cutters, machine, fonts). What is changed there is put back into the job;
 * everything that did not change stays the same object.
 *
 *     job ── blanks ───┐
 *      ├─── setups ──┐ │        oneSetup          withSetup
 *      └─ cutters… ┐ │ │   job ────────> OneSetup ─────────> job
 *                  v v v
 *                OneSetup
 */
export const pick = <T extends object, K extends keyof T>(from: T, keys: readonly K[]): Pick<T, K> =>
  Object.fromEntries(keys.map((k) => [k, from[k]])) as Pick<T, K>;
const alikeIn = <T extends object>(a: T, b: T, keys: readonly (keyof T)[]): boolean => keys.every((k) => a[k] === b[k]);

/** Blanks as they lie, by piece and set-up: the same object as long as neither changes. */
const lying = new WeakMap<Setup, { readonly piece: BlankPiece; readonly blank: Blank }>();
function blankOf(piece: BlankPiece, setup: Setup): Blank {
  const known = lying.get(setup);
  if (known?.piece === piece) return known.blank;
  const blank: Blank = { ...pick(piece, pieceKeys), ...pick(setup, placingKeys) };
  lying.set(setup, { piece, blank });
  return blank;
}

/** The set-up with an id, or the first where there is none. */
export const setupWith = (job: Job, id: string | null): Setup => job.setups.find((s) => s.id === id) ?? job.setups[0];

const seen = new WeakMap<Job, Map<string, OneSetup>>();
/** A job as seen from one of its set-ups; from the first where none has the id. The same object for the same job and set-up. */
export function oneSetup(job: Job, id: string | null = null): OneSetup {
  const s = setupWith(job, id);
  let of = seen.get(job);
  if (!of) seen.set(job, (of = new Map()));
  let one = of.get(s.id);
  if (!one) {
    const piece = job.blanks.find((b) => b.id === s.blank)!;
    one = {
      ...pick(job, sharedKeys),
      ...pick(s, ownKeys),
      items: seenItems(s, job),
      blank: blankOf(piece, s),
      at: { id: s.id, name: s.name, number: job.setups.indexOf(s) + 1, after: s.after, only: job.setups.length === 1 },
    };
    of.set(s.id, one);
  }
  return one;
}

/** All set-ups of a job, in the order in which they are run. */
export const eachSetup = (job: Job): OneSetup[] => job.setups.map((s) => oneSetup(job, s.id));

/** A job with what was changed as seen from one of its set-ups. Other set-ups on the same blank get its new size and material. */
export function withSetup(job: Job, one: OneSetup): Job {
  const s = setupWith(job, one.at.id);
  const piece = job.blanks.find((b) => b.id === s.blank)!;
  const { blank } = one;
  const newPiece = alikeIn<Pick<BlankPiece, (typeof pieceKeys)[number]>>(piece, blank, pieceKeys)
    ? piece
    : { ...piece, ...pick(blank, pieceKeys) };
  const placed = { ...pick(blank, placingKeys), ...pick(one, ownKeys), items: keptItems(s, job, one.items) };
  const newSetup = alikeIn<typeof placed>(s, placed, [...placingKeys, ...ownKeys]) ? s : { ...s, ...placed };
  const shared = pick(one, sharedKeys);
  if (newPiece === piece && newSetup === s && alikeIn<typeof shared>(job, shared, sharedKeys)) return job;
  return {
    ...job,
    ...shared,
    blanks: newPiece === piece ? job.blanks : job.blanks.map((b) => (b === piece ? newPiece : b)),
    setups: newSetup === s ? job.setups : job.setups.map((q) => (q === s ? newSetup : q)),
  };
}

/** A job of one set-up. */
export function jobOf(one: OneSetup): Job {
  const { at, blank } = one;
  return {
    format: 'mirvak-job',
    version: JOB_VERSION,
    ...pick(one, sharedKeys),
    blanks: [{ id: FIRST_BLANK, name: 'Blank 1', ...pick(blank, pieceKeys) }],
    setups: [
      {
        id: at.id,
        name: at.name,
        blank: FIRST_BLANK,
        after: null,
        ...pick(blank, placingKeys),
        ...pick(one, ownKeys),
        items: withoutSources(one.items),
      },
    ],
  };
}

/** A new, empty job. */
export const newJob = (name: string, unit?: Unit): Job => jobOf(newOneSetup(name, unit));
