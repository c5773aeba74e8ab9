import { demoJobs } from '@/core/job/demo';
import { archive } from '@/compute/archive';
import { readJob } from '@/core/job/migrate';
import type { Asset } from '@/core/job/assets';
import type { Job } from '@/core/job/job';
import { newJob } from '@/core/job/oneSetup';
import { alike } from '@/core/merge/alike';
import { mergeJobs, sharing } from '@/core/merge/job';
import { tellAll, tellOthers } from './channel';
import { db, type JobRow } from './db';
import { findLeft, forgetLeft, windowId } from './journal';
import { difference, headOf, itemsOfAll, itemsOfRows, joined, portions, rowsOf, type Difference } from './keep';
import { withoutSecond } from './second';
import { lastUnit } from './unit';
import { archiveFiles, sweepFiles, takeFilesOf } from './files';

/** Opaque ids for rows and for things in a job. */
export const freshId = (): string => crypto.randomUUID().slice(0, 13);

export async function listJobs(): Promise<JobRow[]> {
  const rows = await db().jobs.where('deleted').equals(0).toArray();
  return rows.sort((a, b) => b.updated - a.updated);
}

async function writeItems(id: string, d: Omit<Difference, 'head'>): Promise<void> {
  const { put, out } = rowsOf(id, d);
  if (out.length) await db().items.bulkDelete(out);
  // One request after the other: the page gets its turn between them, and the transaction stays open.
  for (const part of portions(put)) await db().items.bulkPut(part);
}

async function insert(job: Job, picture: string | null = null, id: string = freshId()): Promise<string> {
  await db().transaction('rw', db().jobs, db().items, async () => {
    await db().jobs.add({
      id,
      name: job.name,
      updated: Date.now(),
      revision: 1,
      job: headOf(job),
      picture,
      deleted: 0,
    });
    await writeItems(id, difference(job, []));
  });
  tellOthers({ of: 'job', id, revision: 1 });
  return id;
}

/** The job of a row as it lies there, of whichever version of the format. */
async function rawJob(row: JobRow): Promise<Job> {
  return joined(row.job, itemsOfRows(await db().items.where('jobId').equals(row.id).toArray()));
}

/** Puts the demo jobs on an empty shelf once; deleting them keeps them deleted. */
export async function seedDemoJobs(): Promise<void> {
  await db().transaction('rw', db().jobs, db().items, db().settings, async () => {
    if (await db().settings.get('seeded')) return;
    // Their pictures come with Mirvak: the shelf shows them from the start.
    for (const [id, make] of Object.entries(demoJobs)) await insert(make(), `/demo/${id}.png`);
    await db().settings.put({ key: 'seeded', value: true });
  });
}

export const createJob = (name = 'New job', unit = lastUnit()): Promise<string> => insert(newJob(name, unit));

export async function copyJob(id: string): Promise<void> {
  const row = await db().jobs.get(id);
  if (row) await insert({ ...(await rawJob(row)), name: `${row.name} copy` }, row.picture);
}

export async function renameJob(id: string, name: string): Promise<void> {
  await db()
    .jobs.where('id')
    .equals(id)
    .modify((row) => {
      row.name = name;
      row.job.name = name;
      row.revision++;
      row.updated = Date.now();
    });
  tellOthers({ of: 'job', id, revision: NaN });
}

/** How long deleted jobs lie in the bin, ms. */
const KEPT = 24 * 3600 * 1000;

/** Deleting puts a job into the bin, from which it goes a day later. `deleted` says when it came there; 0 for what is not in it. */
export const deleteJob = (id: string): Promise<void> => mark(id, Date.now());
export const restoreJob = (id: string): Promise<void> => mark(id, 0);
async function mark(id: string, deleted: number): Promise<void> {
  await db().jobs.update(id, { deleted });
  tellOthers({ of: 'job', id, revision: NaN });
}

/** What lies in the bin, what came last first. */
export async function listDeleted(): Promise<JobRow[]> {
  const rows = await db().jobs.where('deleted').above(0).toArray();
  return rows.sort((a, b) => b.deleted - a.deleted);
}

/** Takes jobs from the device for good, with all that belongs to them. */
async function removeJobs(ids: readonly string[]): Promise<void> {
  const remove = () =>
    db().transaction('rw', db().jobs, db().items, db().steps, db().histories, async () => {
      await db().jobs.bulkDelete([...ids]);
      await db().items.where('jobId').anyOf(ids).delete();
      await db().steps.where('jobId').anyOf(ids).delete();
      await db().histories.bulkDelete([...ids]);
    });
  if (ids.length) await withoutSecond({ jobs: ids }, remove);
  await sweepFiles();
}

export const emptyBin = async (): Promise<void> => removeJobs((await listDeleted()).map((r) => r.id));

/** Removes what was deleted more than a day ago. */
export async function sweepDeleted(): Promise<void> {
  await removeJobs(
    await db()
      .jobs.where('deleted')
      .between(1, Date.now() - KEPT)
      .primaryKeys(),
  );
}

/** Reads a .mirvak or job.json file onto the shelf. Throws JobError; the shelf is unchanged then. */
export async function importJob(
  file: File,
  signal?: AbortSignal,
): Promise<{ readonly id: string; readonly name: string; readonly lacking: readonly Asset[] }> {
  const { job, assets } = await archive('unpackJob', [new Uint8Array(await file.arrayBuffer())], { signal });
  const lacking = await takeFilesOf(job, assets);
  return { id: await insert(job), name: job.name, lacking };
}

/** The bytes of a job's .mirvak file, and the files that it needs and that are not on this device. */
export async function exportJob(
  id: string,
  job?: Job,
): Promise<{ readonly bytes: Uint8Array; readonly lacking: readonly Asset[] }> {
  const row = await db().jobs.get(id);
  const packed = job ?? (await rawJob(row!));
  const { files, lacking } = await archiveFiles(packed);
  return { bytes: await archive('packJob', [packed, files]), lacking };
}

/** A job of the shelf to look at, not to change, and its revision. Throws JobError. */
export async function readRow(id: string): Promise<{ readonly job: Job; readonly revision: number } | null> {
  return db().transaction('r', db().jobs, db().items, async () => {
    const row = await db().jobs.get(id);
    return row && !row.deleted ? { job: readJob(await rawJob(row)), revision: row.revision } : null;
  });
}

export interface OpenedJob {
  job: Job;
  /** The version that the rows hold, read. */
  saved: Job;
  revision: number;
  /** The version that the rows hold, when it is known to the object; else everything is written anew. */
  kept: Job | null;
  /** Where what an earlier window had not saved any more was found, which was taken; it may be forgotten once it is saved. */
  recovered: string | null;
}

/** A job off the shelf, with what an earlier window of it could not save before it closed. Throws JobError. */
export async function openRow(id: string): Promise<OpenedJob | null> {
  const row = await db().jobs.get(id);
  if (!row || row.deleted) return null;
  const raw = await rawJob(row);
  let taken: { readonly job: Job; readonly key: string } | null = null;
  for (const left of await findLeft(id)) {
    let later: Job;
    try {
      later = readJob(joined(left.head, [...itemsOfAll(raw), ...left.items]));
    } catch {
      // What was left cannot be read: the rows are whole without it.
      continue;
    }
    if (!taken && (left.revision === row.revision || left.writer === row.writer)) {
      taken = { job: later, key: left.key };
      continue;
    }
    // Another window has saved since, or has left work too: no version may take the other's place.
    await saveAsCopy(later);
    forgetLeft(id, left.key);
  }
  const job = readJob(raw);
  if (taken) return { job: taken.job, saved: job, revision: row.revision, kept: null, recovered: taken.key };
  return { job, saved: job, revision: row.revision, kept: raw.version === job.version ? job : null, recovered: null };
}

export type SaveResult =
  | {
      readonly ok: true;
      readonly revision: number;
      /** What lies there now, where what another window had saved was brought together with it. */
      readonly merged: Job | null;
    }
  | { readonly ok: false; readonly reason: 'changed' | 'gone' };

/**
 * Saves a job that has started from `revision`. `kept`: the version that the rows hold, if known; `base`: the version that was
 * read or saved last. Where another window has saved since, both are brought together and saved, in the same transaction; where
 * they do not go together nothing is changed. `along`: what of its history is written with it, in the same transaction.
 */
export async function saveJob(
  id: string,
  job: Job,
  revision: number,
  kept: Job | null,
  base: Job | null = null,
  along: () => Promise<void> = async () => {},
): Promise<SaveResult> {
  const result = await db().transaction(
    'rw',
    db().jobs,
    db().items,
    db().steps,
    db().histories,
    async (): Promise<SaveResult> => {
      const row = await db().jobs.get(id);
      if (!row || row.deleted) return { ok: false, reason: 'gone' };
      let merged: Job | null = null;
      let there = kept;
      if (row.revision !== revision) {
        if (!base) return { ok: false, reason: 'changed' };
        there = sharing(base, readJob(await rawJob(row)));
        const both = mergeJobs(base, job, there);
        if (!both || both.conflicts.length) return { ok: false, reason: 'changed' };
        merged = both.job;
      }
      const to = merged ?? job;
      const d = difference(to, [there]);
      // What lies there is not known: all that is not of this version goes.
      if (!there) {
        const wanted = new Set(rowsOf(id, d).put.map((r) => r.key));
        const keys = await db().items.where('jobId').equals(id).primaryKeys();
        await db().items.bulkDelete(keys.filter((k) => !wanted.has(k)));
      }
      const next = {
        ...row,
        job: d.head,
        name: to.name,
        updated: Date.now(),
        revision: row.revision + 1,
        writer: windowId,
      };
      // All at once: each answer that is waited for keeps the other windows from the rows, for as long as this one is busy.
      await Promise.all([along(), writeItems(id, d), db().jobs.put(next)]);
      return { ok: true, revision: next.revision, merged };
    },
  );
  if (result.ok) tellAll({ of: 'job', id, revision: result.revision });
  return result;
}

export const savePicture = async (id: string, picture: string): Promise<void> =>
  void (await db().jobs.update(id, { picture }));

/** Saves a job beside the one it came from. */
export const saveAsCopy = (job: Job): Promise<string> => insert({ ...job, name: `${job.name} (my version)` });

/** How a job of a backup came back: as it was, as it lies there already, or beside another version of it. */
export type PutBack = 'back' | 'there' | 'beside';
export interface PutBackAs {
  readonly as: PutBack;
  readonly lacking: readonly Asset[];
}

/** Puts a job of a backup on the shelf; nothing that lies there is overwritten. Throws JobError. */
export async function putBackJob(id: string, bytes: Uint8Array, beside: (name: string) => string): Promise<PutBackAs> {
  const { job, assets } = await archive('unpackJob', [bytes]);
  const lacking = await takeFilesOf(job, assets);
  return { as: await layBack(id, job, beside), lacking };
}

async function layBack(id: string, job: Job, beside: (name: string) => string): Promise<PutBack> {
  const row = await db().jobs.get(id);
  if (!row) return insert(job, null, id).then(() => 'back');
  const there = await rawJob(row).then(readJob, () => null);
  if (there && !row.deleted && alike(there, job)) return 'there';
  // What lies in the bin comes out of it where it is the same.
  if (there && alike(there, job)) return restoreJob(id).then(() => 'back');
  const copy = { ...job, name: beside(job.name).slice(0, 200) };
  // The same backup brought back twice lays no second copy there.
  for (const r of await listJobs())
    if (r.name === copy.name && alike(await rawJob(r).then(readJob, () => null), copy)) return 'there';
  return insert(copy).then(() => 'beside');
}
