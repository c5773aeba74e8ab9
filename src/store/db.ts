import Dexie, { type DexieOptions, type EntityTable } from 'dexie';
import type { Cutter } from '@/core/cutters/cutter';
import type { HistoryHead, StepRow } from './steps';
import { partShelves } from './shelfRows';
import { splitRows, type ItemRow, type JobHead } from './keep';

/** One job as kept on this device. `revision` grows with every save: it tells two tabs apart. */
export interface JobRow {
  id: string;
  name: string;
  updated: number;
  revision: number;
  /** The window that saved last. */
  writer?: string;
  job: JobHead;
  /** PNG of the proof as a data address. */
  picture: string | null;
  deleted: number;
}

export interface AssetRow {
  key: string;
  jobId: string;
  path: string;
  bytes: Uint8Array;
}

export interface SettingRow {
  key: string;
  value: unknown;
}

export type CutterRow = Cutter & { order: number };

class Database extends Dexie {
  jobs!: EntityTable<JobRow, 'id'>;
  items!: EntityTable<ItemRow, 'key'>;
  assets!: EntityTable<AssetRow, 'key'>;
  cutters!: EntityTable<CutterRow, 'id'>;
  settings!: EntityTable<SettingRow, 'key'>;
  steps!: EntityTable<StepRow, 'key'>;
  histories!: EntityTable<HistoryHead, 'key'>;

  constructor(options?: DexieOptions) {
    // A save is done when it lies on the disk, not when it is on its way there.
    super('mirvak', { chromeTransactionDurability: 'strict', ...options });
    this.version(1).stores({
      jobs: 'id, updated, deleted',
      assets: 'key, jobId',
      cutters: 'id, order',
      settings: 'key',
    });
    this.version(2).stores({ items: 'key, jobId' }).upgrade(splitRows);
    this.version(3).stores({ steps: 'key, jobId', histories: 'key' });
    this.version(4).upgrade(partShelves);
  }
}

let instance: Database | null = null;
/** The database of this device; made on first use, in the browser only. */
export const db = (): Database => (instance ??= new Database());

/** How long a database may take to answer before it is taken for one that never will, ms. */
const PATIENCE = 6000;

/**
 * Opens the database. Where the browser has none, forbids it, or never answers, one in this window's memory takes its place:
 * jobs can be made, imported and exported all the same, and `why` says that nothing outlives the window.
 */
export async function openDatabase(patience = PATIENCE): Promise<{ readonly lasts: boolean; readonly why: string }> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    const late = new Promise<never>((_, fail) => (timer = setTimeout(() => fail(new Error('late')), patience)));
    await Promise.race([db().open(), late]);
    return { lasts: true, why: '' };
  } catch (e) {
    const { indexedDB, IDBKeyRange } = await import('fake-indexeddb');
    instance = new Database({ indexedDB, IDBKeyRange });
    await instance.open();
    return { lasts: false, why: whyNot(e) };
  } finally {
    clearTimeout(timer);
  }
}

function whyNot(e: unknown): string {
  const { name, message } = e as { name?: string; message?: string };
  if (message === 'late') return 'The browser\u2019s storage does not answer.';
  if (name === 'VersionError') return 'What lies on this device was kept by a newer Mirvak.';
  if (name === 'QuotaExceededError') return 'This device has no room left.';
  return 'The browser keeps nothing for Mirvak here: a private window, perhaps, or its storage is switched off.';
}

const kindOf = (e: unknown): string | undefined =>
  (e as { inner?: { name?: string } })?.inner?.name ?? (e as { name?: string })?.name;

/** Whether a write failed because the device has no room. */
export const noRoom = (e: unknown): boolean => kindOf(e) === 'QuotaExceededError';

/** The same for what is kept beside jobs. */
export const libraryMessage = (e: unknown): string =>
  noRoom(e)
    ? 'This device has no room left: export jobs that you do not need here, and delete them.'
    : 'Export it to a file, and open Mirvak anew.';

/** Words for what a storage failure means and what to do. */
export function storageMessage(e: unknown): string {
  const name = kindOf(e);
  if (name === 'QuotaExceededError')
    return 'This device has no room left for Mirvak. Export jobs that you do not need here, delete them, and try again; the open job is still in this window.';
  if (name === 'InvalidStateError' || name === 'MissingAPIError' || name === 'OpenFailedError')
    return 'The browser does not let Mirvak keep anything (a private window, perhaps). Export the job to a file before you close this window.';
  return 'The browser could not save on this device. Export the job to a file before you close this window, then open Mirvak anew.';
}
