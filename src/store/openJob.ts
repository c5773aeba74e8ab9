import { produce, setAutoFreeze } from 'immer';
import { create } from 'zustand';
import type { Job } from '@/core/job/job';
import { storageMessage } from './db';
import { openRow, saveAsCopy, saveJob } from './jobs';
import { forgetLeft, leaveBehind } from './journal';
import { keepSteps, openSteps, type Step } from './steps';

// Looking through a job of 50,000 nodes for things to freeze costs more than the change itself.
if (process.env.NODE_ENV === 'production') setAutoFreeze(false);

export type SaveState = 'saved' | 'pending' | 'saving' | 'failed' | 'changed' | 'gone';

export interface OpenJob {
  id: string | null;
  job: Job | null;
  revision: number;
  save: SaveState;
  saveError: string;
  past: Step[];
  future: Step[];
  load(id: string): Promise<boolean>;
  close(): Promise<void>;
  /** Changes the job under a name for undo. */
  edit(name: string, recipe: (job: Job) => void, merge?: string): void;
  undo(): void;
  redo(): void;
  flush(): Promise<void>;
  /** Leaves what is not saved for the next window, at once. False when it cannot be kept. */
  leave(): boolean;
  takeOther(): Promise<void>;
  keepMine(): Promise<string | null>;
}

const MERGE_MS = 900;
/** A change is saved when so long nothing more has come, and at the latest so long after it: steady typing does not put it off. */
const SAVE_MS = 400;
const LONGEST_MS = 1500;
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

/** The job that is open in this window, its history, and its autosave. */
export const useOpenJob = create<OpenJob>((set, get) => {
  const schedule = () => {
    set({ save: 'pending' });
    if (timer) clearTimeout(timer);
    const now = Date.now();
    waiting ||= now;
    timer = setTimeout(() => void get().flush(), Math.max(0, Math.min(SAVE_MS, waiting + LONGEST_MS - now)));
  };
  return {
    id: null,
    job: null,
    revision: 0,
    save: 'saved',
    saveError: '',
    past: [],
    future: [],
    async load(id) {
      const row = await openRow(id);
      if (!row) return false;
      kept = row.kept;
      // A history that cannot be read is none: the job is whole without it.
      const read = (revision: number, job: Job) => openSteps(id, revision, job).catch(() => null);
      let steps = row.recovered ? await read(row.revision + 1, row.job) : await read(row.revision, row.saved);
      if (row.recovered && !steps) {
        // What a window left that closed in mid-edit is a step of its own.
        const before = await read(row.revision, row.saved);
        steps = { past: [...(before?.past ?? []), { name: 'Last changes before the window closed', before: row.saved, after: row.job, merge: null, at: 0 }], future: [] };
      }
      set({ id, job: row.job, revision: row.revision, save: 'saved', saveError: '', past: steps?.past ?? [], future: steps?.future ?? [] });
      taken = row.recovered;
      if (row.recovered) schedule();
      return true;
    },
    async close() {
      await get().flush();
      set({ id: null, job: null, past: [], future: [] });
    },
    edit(name, recipe, merge) {
      const { job, past } = get();
      if (!job) return;
      const next = produce(job, (draft) => void recipe(draft as Job));
      if (next === job) return;
      const last = past[past.length - 1];
      const now = Date.now();
      const joined = merge && last?.merge === merge && now - last.at < MERGE_MS;
      const step: Step = joined ? { ...last, after: next, at: now } : { name, before: job, after: next, merge: merge ?? null, at: now };
      set({ job: next, past: [...(joined ? past.slice(0, -1) : past.slice(-MOST_STEPS + 1)), step], future: [] });
      schedule();
    },
    undo() {
      const { job, past, future } = get();
      const step = past[past.length - 1];
      if (!job || !step) return;
      set({ job: step.before, past: past.slice(0, -1), future: [step, ...future] });
      schedule();
    },
    redo() {
      const { job, past, future } = get();
      const [step] = future;
      if (!job || !step) return;
      set({ job: step.after, past: [...past, { ...step, merge: null }], future: future.slice(1) });
      schedule();
    },
    async flush() {
      if (timer) clearTimeout(timer);
      timer = null;
      if (saving) await saving;
      const { id, job, revision, save } = get();
      if (!id || !job || save === 'saved' || save === 'changed' || save === 'gone') return;
      set({ save: 'saving' });
      waiting = 0;
      sending = job;
      // The steps first: a window that closes in between leaves the job, and they go with what it left. Without room for
      // them the history is let go, not the job.
      const { past, future } = get();
      saving = keepSteps(id, revision + 1, past, future)
        .catch(() => {})
        .then(() => saveJob(id, job, revision, kept))
        .then((r) => {
          if (!r.ok) return set({ save: r.reason });
          kept = job;
          set({ revision: r.revision, save: get().job === job ? 'saved' : 'pending' });
          // What was left is given up when it is in the rows, not before.
          if (taken) forgetLeft(id, taken);
          taken = null;
          if (get().save === 'saved') forgetLeft(id);
        })
        .catch((e) => set({ save: 'failed', saveError: storageMessage(e) }))
        .finally(() => {
          saving = null;
          sending = null;
        });
      await saving;
      if (get().save === 'pending' && !timer) schedule();
    },
    leave() {
      const { id, job, revision, save } = get();
      if (!id || !job || save === 'saved' || save === 'gone') return true;
      return leaveBehind(id, job, sending ? [kept, sending] : [kept], revision);
    },
    async takeOther() {
      const { id } = get();
      if (id) forgetLeft(id);
      if (id) await get().load(id);
    },
    async keepMine() {
      const { job } = get();
      return job ? saveAsCopy(job) : null;
    },
  };
});
