import { archive } from '@/compute/archive';
import type { Asset } from '@/core/job/assets';
import type { BackedUpJob } from '@/core/job/backup';
import { alike } from '@/core/merge/alike';
import { db } from './db';
import { exportJob, freshId, listJobs, putBackJob } from './jobs';
import { changeLibrary, loadEmptyGroups, loadLibrary } from './library';
import { shelfNames } from './shelfRows';
import { keepOnShelf, loadShelf } from './shelves';
import { keepUnit, lastUnit } from './unit';

const LAST = 'backed-up';

/** When everything was backed up last, ms since 1970; 0 for never. */
export const lastBackup = async (): Promise<number> => Number((await db().settings.get(LAST))?.value) || 0;

/** Days of work after which a backup is due. */
const DUE = 14 * 24 * 3600 * 1000;

/** Whether work of the maker's own has waited long enough: changed since the last backup, which (or the work, where there was none) is two weeks old. */
export async function backupDue(now = Date.now()): Promise<boolean> {
  const since = await lastBackup();
  // A job as it came onto the shelf is no work yet.
  const changed = (await listJobs()).filter((r) => r.revision > 1 && r.updated > since);
  return changed.length > 0 && now - (since || Math.min(...changed.map((r) => r.updated))) > DUE;
}

/** Everything that this device keeps, as the bytes of one file: jobs with their fonts and pictures, the tool library, machines, dialects, recipes, the unit. The bin is left out. `lacking`: files that jobs need and that are not on this device. */
export async function makeBackup(
  progress: (done: number) => void = () => {},
): Promise<{ readonly bytes: Uint8Array; readonly lacking: readonly Asset[] }> {
  const rows = await listJobs();
  const jobs: BackedUpJob[] = [];
  const lacking = new Map<string, Asset>();
  for (const [i, row] of rows.entries()) {
    progress(i / rows.length);
    const { bytes, lacking: of } = await exportJob(row.id);
    jobs.push({ id: row.id, name: row.name, updated: row.updated, bytes });
    for (const a of of) lacking.set(a.id, a);
  }
  const [cutters, groups, machines, dialects, recipes, reliefs] = await Promise.all([
    loadLibrary(),
    loadEmptyGroups(),
    loadShelf('machines'),
    loadShelf('dialects'),
    loadShelf('recipes'),
    loadShelf('reliefs'),
  ]);
  const bytes = await archive('packBackup', [
    {
      made: new Date().toISOString(),
      jobs,
      kept: { cutters, groups, machines, dialects, recipes, reliefs, unit: lastUnit() },
    },
  ]);
  await db().settings.put({ key: LAST, value: Date.now() });
  return { bytes, lacking: [...lacking.values()] };
}

/** What a restore did, and what could not be read, by name. */
export interface Restored {
  readonly back: number;
  readonly there: number;
  readonly beside: number;
  /** Cutters, machines, dialects, recipes and reliefs that came back, beside the jobs. */
  readonly others: number;
  /** Files that jobs need and that neither came nor were here. */
  readonly lacking: readonly Asset[];
  readonly broken: readonly { readonly name: string; readonly why: string }[];
}

/** Brings a backup back. Nothing on this device is overwritten: what differs comes beside it, under a name that says so. Throws JobError. */
export async function restoreBackup(file: File, progress: (done: number) => void = () => {}): Promise<Restored> {
  const b = await archive('unpackBackup', [new Uint8Array(await file.arrayBuffer())]);
  const day = b.made.slice(0, 10);
  const named = (name: string) => `${name} (backup of ${day})`;
  const count = { back: 0, there: 0, beside: 0 };
  const broken: { name: string; why: string }[] = [];
  const lacking = new Map<string, Asset>();
  for (const [i, j] of b.jobs.entries()) {
    progress(i / b.jobs.length);
    try {
      const { as, lacking: of } = await putBackJob(j.id, j.bytes, named);
      count[as]++;
      for (const a of of) lacking.set(a.id, a);
    } catch (e) {
      if ((e as Error).name !== 'JobError') throw e;
      broken.push({ name: j.name, why: (e as Error).message });
    }
  }
  /** Entries that are not here, and those that are here in another version, beside it. */
  const missing = <T extends { readonly id: string; readonly name: string }>(
    here: readonly T[],
    kept: readonly T[],
  ): T[] =>
    kept.flatMap((k) => {
      const mine = here.find((h) => h.id === k.id);
      if (!mine) return [k];
      return alike(mine, k) || here.some((h) => h.name === named(k.name))
        ? []
        : [{ ...k, id: `own-${freshId()}`, name: named(k.name) }];
    });
  const cutters = await loadLibrary();
  const more = missing(cutters, b.kept.cutters);
  const groups = [...new Set([...(await loadEmptyGroups()), ...b.kept.groups])];
  await changeLibrary(cutters, [...cutters, ...more], groups);
  let others = more.length;
  for (const name of shelfNames) {
    for (const entry of missing<{ id: string; name: string }>(await loadShelf(name), b.kept[name])) {
      await keepOnShelf(name, entry as never);
      others++;
    }
  }
  keepUnit(b.kept.unit);
  return { ...count, others, broken, lacking: [...lacking.values()] };
}
