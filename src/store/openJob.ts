import { produce, setAutoFreeze } from 'immer';
import { create } from 'zustand';
import { tooMany, type Job, type OneSetup } from '@/core/job/job';
import { oneSetup, setupWith, withSetup } from '@/core/job/oneSetup';
import { mergeJobs, placeOf, sharing, type Conflict, type Side } from '@/core/merge/job';
import { onNews } from './channel';
import { noRoom, storageMessage } from './db';
import { openRow, readRow, restoreJob, saveAsCopy, saveJob } from './jobs';
import { forgetLeft, writePending } from './journal';
import { lastShown, rememberShown } from './lastShown';
import { keepSteps, letHistoriesGo, openSteps, type Merge, type Step } from './steps';

// Looking through a job of 50,000 nodes for things to freeze costs more than the change itself.
if (process.env.NODE_ENV === 'production') setAutoFreeze(false);

export type SaveState = 'saved' | 'pending' | 'saving' | 'failed' | 'changed' | 'gone';

/** A newer version that another window has saved, and what it has changed that this window has changed too. */
export interface Other {
  readonly job: Job;
  readonly revision: number;
  readonly conflicts: readonly Conflict[];
}

/** What became of a job whose window part was left: in its rows, a copy beside it, or kept in this window until it can be saved. */
export type LeftAs = 'saved' | 'copy' | 'held';

export interface OpenJob {
  id: string | null;
  /** The whole job, and the set-up that this window shows. */
  whole: Job | null;
  shownId: string | null;
  /** The job as seen from that set-up: what sheets and the table show and change. */
  job: OneSetup | null;
  revision: number;
  save: SaveState;
  /** Whether what is being saved takes longer than work may lie off the disk, or could not be saved the last time: until a save is done. */
  slow: boolean;
  saveError: string;
  /** Why a change was not made, a new object each time; null before there was one. */
  refused: { readonly words: string } | null;
  past: Step[];
  future: Step[];
  /** What another window has saved that does not go together with this version; null when nothing stands between. */
  other: Other | null;
  /** Names of jobs that were left while they could not be saved, by id: they are kept in this window. */
  held: Readonly<Record<string, string>>;
  load(id: string): Promise<boolean>;
  close(): Promise<LeftAs>;
  /** Changes the job, as seen from the set-up that is shown, under a name for undo. */
  /** Changes a set-up; the one that is shown where none is named. */
  edit(name: string, recipe: (job: OneSetup) => void, merge?: Merge, setupId?: string): void;
  /** Changes the whole job: set-ups, blanks. */
  editWhole(name: string, recipe: (job: Job) => void, merge?: Merge): void;
  /** Shows another set-up. */
  show(shownId: string): void;
  undo(): void;
  redo(): void;
  flush(): Promise<void>;
  /** Leaves what is not saved for the next window, at once. False when it cannot be kept. */
  leave(): boolean;
  /** Takes what another window has saved in, as far as it goes together with what was done here. */
  catchUp(): Promise<void>;
  /** Brings both versions together; `sides` says whose counts at the places (`placeOf`) that both have changed. */
  bringTogether(sides: ReadonlyMap<string, Side>): void;
  takeOther(): Promise<void>;
  keepMine(): Promise<string | null>;
  /** Takes a deleted job out of the bin again and saves this version of it. */
  putBack(): Promise<void>;
  /** The version that is kept in this window of a job that was left unsaved. */
  heldJob(id: string): Job | null;
}

const MERGE_MS = 900;
/** A change is saved when so long nothing more has come, and at the latest so long after it: steady typing does not put it off. */
const SAVE_MS = 250;
const LONGEST_MS = 600;
/** A save that is not done after so long is said: with the wait before it that is less than two seconds after the change. */
const SLOW_MS = 1200;
const MOST_STEPS = 500;

let timer: ReturnType<typeof setTimeout> | null = null;
/** When the oldest change was made that is not on its way to the rows; 0 for none. */
let waiting = 0;
/** Where lies what an earlier window left, until it is saved. */
let taken: string | null = null;
let saving: Promise<void> | null = null;
/** The version that the rows hold, and the one on its way there. */
let kept: Job | null = null;
let sending: Job | null = null;
/** The version that was read or saved last: what this window and others have started from. */
let base: Job | null = null;
/** Jobs that were left while they could not be saved: as they stand, and what they started from. */
const heldJobs = new Map<
  string,
  Pick<OpenJob, 'whole' | 'shownId' | 'revision' | 'past' | 'future'> & {
    readonly kept: Job | null;
    readonly base: Job | null;
    readonly taken: string | null;
  }
>();

/** Steps of this window, over what others have done meanwhile: undone one by one, without theirs. */
function over(steps: readonly Step[], from: Job, to: Job, start: Job, mended: Job): Step[] {
  const known = new Map<Job, Job>([[start, mended]]);
  const with_ = (j: Job): Job => {
    let now = known.get(j);
    if (!now) known.set(j, (now = mergeJobs(from, j, to)?.job ?? j));
    return now;
  };
  return steps.map((s) => ({ ...s, before: with_(s.before), after: with_(s.after) }));
}

/** A job as it is shown from a set-up, or from its first where it has none of the id. */
export const shown = (whole: Job, shownId: string | null = null): Pick<OpenJob, 'whole' | 'shownId' | 'job'> => {
  const { id } = setupWith(whole, shownId);
  return { whole, shownId: id, job: oneSetup(whole, id) };
};

/** Where a change is seen: in the set-up that is shown, if it has changed or is new, else in the first that has. */
function seenIn(from: Job, to: Job, shownId: string | null): string | null {
  const changed = to.setups.filter((s) => s !== from.setups.find((q) => q.id === s.id));
  return !changed.length || changed.some((s) => s.id === shownId) ? shownId : changed[0].id;
}

/** The job that is open in this window, its history, and its autosave. */
export const useOpenJob = create<OpenJob>((set, get) => {
  const schedule = () => {
    set({ save: 'pending' });
    if (timer) clearTimeout(timer);
    const now = Date.now();
    waiting ||= now;
    timer = setTimeout(() => void get().flush(), Math.max(0, Math.min(SAVE_MS, waiting + LONGEST_MS - now)));
  };
  /** The job becomes another one, by a step that is undone under its name. */
  const become = (name: string, next: Job, merge?: Merge) => {
    const { whole: job, shownId, past } = get();
    if (!job || next === job) return;
    const refused = tooMany(job, next);
    if (refused) return set({ refused: { words: refused } });
    const last = past[past.length - 1];
    const now = Date.now();
    const joined = merge && last?.merge === merge && (typeof merge === 'symbol' || now - last.at < MERGE_MS);
    const step: Step = joined
      ? { ...last, after: next, at: now }
      : { name, before: job, after: next, merge: merge ?? null, at: now };
    set({
      ...shown(next, shownId),
      past: [...(joined ? past.slice(0, -1) : past.slice(-MOST_STEPS + 1)), step],
      future: [],
    });
    schedule();
  };
  /**
   * Takes in what another window has made of `from`: `theirs`, which lies in the rows as `revision`. What was done here since
   * `from` stays on top of it, as far as it goes together.
   */
  const takeIn = (from: Job, theirs: Job, revision: number) => {
    const { whole: job, past, future } = get();
    if (!job) return;
    const merged = mergeJobs(from, job, theirs);
    if (!merged || merged.conflicts.length) {
      base = from;
      return set({ save: 'changed', other: { job: theirs, revision, conflicts: merged?.conflicts ?? [] } });
    }
    kept = base = theirs;
    const unsaved = job !== from;
    set({
      ...shown(merged.job, get().shownId),
      revision,
      past: over(past, from, theirs, job, merged.job),
      future: over(future, from, theirs, job, merged.job),
      other: null,
      save: unsaved ? 'pending' : 'saved',
    });
    if (unsaved) schedule();
  };
  return {
    id: null,
    whole: null,
    shownId: null,
    job: null,
    revision: 0,
    save: 'saved',
    slow: false,
    saveError: '',
    refused: null,
    past: [],
    future: [],
    other: null,
    held: {},
    async load(id) {
      const here = heldJobs.get(id);
      if (here) {
        heldJobs.delete(id);
        ({ kept, base, taken } = here);
        const { [id]: _, ...held } = get().held;
        set({
          id,
          ...shown(here.whole!, here.shownId),
          revision: here.revision,
          saveError: '',
          past: here.past,
          future: here.future,
          other: null,
          held,
        });
        schedule();
        return true;
      }
      const row = await openRow(id);
      if (!row) return false;
      kept = row.kept;
      base = row.saved;
      // A history that cannot be read is none: the job is whole without it.
      const read = (revision: number, job: Job) => openSteps(id, revision, job).catch(() => null);
      let steps = row.recovered ? await read(row.revision + 1, row.job) : await read(row.revision, row.saved);
      if (row.recovered && !steps) {
        // What a window left that closed in mid-edit is a step of its own.
        const before = await read(row.revision, row.saved);
        steps = {
          past: [
            ...(before?.past ?? []),
            { name: 'Last changes before the window closed', before: row.saved, after: row.job, merge: null, at: 0 },
          ],
          future: [],
        };
      }
      set({
        id,
        ...shown(row.job, get().id === id ? get().shownId : lastShown(id)),
        revision: row.revision,
        save: 'saved',
        slow: false,
        saveError: '',
        past: steps?.past ?? [],
        future: steps?.future ?? [],
        other: null,
      });
      taken = row.recovered;
      if (row.recovered) schedule();
      return true;
    },
    async close() {
      const closing = get().id;
      await get().flush();
      const { id, whole: job, shownId, save, revision, past, future, held, leave } = get();
      let as: LeftAs = 'saved';
      // Another job was opened while this one was being saved: it stays.
      if (id !== closing) return as;
      if (id && job && save !== 'saved') {
        // Another version lies there, or none: this one is laid beside it. What has no room anywhere stays in this window.
        as =
          save === 'changed' || save === 'gone'
            ? await saveAsCopy(job).then(
                () => 'copy' as const,
                () => 'held' as const,
              )
            : 'held';
        if (as === 'held') {
          leave();
          heldJobs.set(id, { whole: job, shownId, revision, past, future, kept, base, taken });
          set({ held: { ...held, [id]: job.name } });
        }
      }
      if (get().id === closing)
        set({ id: null, whole: null, shownId: null, job: null, past: [], future: [], other: null });
      return as;
    },
    heldJob: (id) => heldJobs.get(id)?.whole ?? null,
    edit(name, recipe, merge, setupId) {
      const { whole, job } = get();
      if (whole && job)
        become(
          name,
          withSetup(
            whole,
            produce(setupId ? oneSetup(whole, setupId) : job, (draft) => void recipe(draft as OneSetup)),
          ),
          merge,
        );
    },
    editWhole(name, recipe, merge) {
      const { whole } = get();
      if (whole)
        become(
          name,
          produce(whole, (draft) => void recipe(draft as Job)),
          merge,
        );
    },
    show(shownId) {
      const { id, whole } = get();
      if (!whole || !id) return;
      set(shown(whole, shownId));
      rememberShown(id, shownId);
    },
    undo() {
      const { whole: job, shownId, past, future } = get();
      const step = past[past.length - 1];
      if (!job || !step) return;
      set({
        ...shown(step.before, seenIn(job, step.before, shownId)),
        past: past.slice(0, -1),
        future: [step, ...future],
      });
      schedule();
    },
    redo() {
      const { whole: job, shownId, past, future } = get();
      const [step] = future;
      if (!job || !step) return;
      set({
        ...shown(step.after, seenIn(job, step.after, shownId)),
        past: [...past, { ...step, merge: null }],
        future: future.slice(1),
      });
      schedule();
    },
    async flush() {
      if (timer) clearTimeout(timer);
      timer = null;
      if (saving) await saving;
      const { id, whole: job, revision, save: state, other } = get();
      // The save that was waited for has met another version: this call too ends when that is here.
      if (state === 'changed' && !other) return get().catchUp();
      if (!id || !job || state === 'saved' || state === 'changed' || state === 'gone') return;
      set({ save: 'saving' });
      waiting = 0;
      sending = job;
      // Job and steps in one transaction: what goes to the disk once is there sooner than what goes twice.
      const { past, future } = get();
      const save = () => saveJob(id, job, revision, kept, base, () => keepSteps(id, revision + 1, past, future));
      const watch = setTimeout(() => {
        set({ slow: true });
        get().leave();
      }, SLOW_MS);
      // Work comes before the way back: where it fails it is tried once more without; where there is no room, histories are let go.
      saving = save()
        .catch((e) =>
          (noRoom(e) ? letHistoriesGo() : Promise.resolve()).then(() => saveJob(id, job, revision, kept, base)),
        )
        .then((r) => {
          set({ slow: false, saveError: '' });
          if (!r.ok) return set({ save: r.reason });
          if (r.merged) takeIn(job, r.merged, r.revision);
          else {
            kept = base = job;
            set({ revision: r.revision, save: get().whole === job ? 'saved' : 'pending' });
          }
          // What was left is given up when it is in the rows, not before.
          if (taken) forgetLeft(id, taken);
          taken = null;
          if (get().save === 'saved') forgetLeft(id);
        })
        .catch((e) => {
          set({ save: 'failed', slow: true, saveError: storageMessage(e) });
          // What cannot be saved is left for the next window at once: nobody knows how this one ends.
          get().leave();
        })
        .finally(() => {
          clearTimeout(watch);
          saving = null;
          sending = null;
        });
      await saving;
      if (get().save === 'changed' && get().id === id) await get().catchUp();
      if (get().save === 'pending' && !timer) schedule();
    },
    async catchUp() {
      if (saving) await saving;
      const { id } = get();
      if (!id) return;
      const there = await readRow(id).catch(() => undefined);
      const { whole: job, revision, save } = get();
      // Left meanwhile, or being saved: then the save finds what is there.
      if (get().id !== id || !job || saving || there === undefined) return;
      if (there === null) return set({ save: 'gone' });
      if (there.revision === revision) return void (save === 'gone' && schedule());
      takeIn(base ?? job, sharing(base ?? job, there.job), there.revision);
    },
    bringTogether(sides) {
      const { whole: job, shownId, other, past } = get();
      const merged =
        job && other && mergeJobs(base ?? job, job, other.job, (path) => sides.get(placeOf(path)) ?? 'mine');
      if (!merged) return;
      kept = base = other.job;
      set({
        ...shown(merged.job, shownId),
        revision: other.revision,
        other: null,
        past: [...past, { name: 'Bring both versions together', before: job, after: merged.job, merge: null, at: 0 }],
        future: [],
      });
      schedule();
    },
    async putBack() {
      const { id } = get();
      if (!id) return;
      await restoreJob(id);
      set({ save: 'pending' });
      await get().flush();
    },
    leave() {
      const { id, whole: job, revision, save } = get();
      if (!id || !job || save === 'saved' || save === 'gone') return true;
      return writePending(id, job, sending ? [kept, sending] : [kept], revision);
    },
    async takeOther() {
      const { id } = get();
      if (!id) return;
      forgetLeft(id);
      await get().load(id);
    },
    async keepMine() {
      const { whole } = get();
      return whole ? saveAsCopy(whole) : null;
    },
  };
});

onNews('job', ({ id, revision }) => {
  const open = useOpenJob.getState();
  if (open.id === id && revision !== open.revision) void open.catchUp();
});
