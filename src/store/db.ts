import Dexie, { type EntityTable } from 'dexie';
import type { Cutter } from '@/core/cutters/cutter';
import type { HistoryHead, StepRow } from './steps';
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

  constructor() {
    super('mirvak');
    this.version(1).stores({ jobs: 'id, updated, deleted', assets: 'key, jobId', cutters: 'id, order', settings: 'key' });
    this.version(2).stores({ items: 'key, jobId' }).upgrade(splitRows);
    this.version(3).stores({ steps: 'key, jobId', histories: 'key' });
  }
}

let instance: Database | null = null;
/** The database of this device; made on first use, in the browser only. */
export const db = (): Database => (instance ??= new Database());

/** Words for what a storage failure means and what to do. */
export function storageMessage(e: unknown): string {
  const name = (e as { name?: string; inner?: { name?: string } })?.inner?.name ?? (e as { name?: string })?.name;
  if (name === 'QuotaExceededError') return 'This device has no room left for Mirvak. Export jobs that you do not need here, delete them, and try again; the open job is still in this window.';
  if (name === 'InvalidStateError' || name === 'MissingAPIError' || name === 'OpenFailedError') return 'The browser does not let Mirvak keep anything (a private window, perhaps). Export the job to a file before you close this window.';
  return `The job could not be saved: ${(e as Error)?.message ?? String(e)}. Export it to a file before you close this window.`;
}
