import { demoJobs } from '@/core/job/demo';
import { packJob, unpackJob } from '@/core/job/archive';
import { readJob } from '@/core/job/migrate';
import { newJob, type Job } from '@/core/job/job';
import { db, type JobRow } from './db';
import { fontFiles, putFont, sweepFonts } from './ownFonts';

/** Opaque ids for rows and for things in a job. */
export const freshId = (): string => crypto.randomUUID().slice(0, 13);

export async function listJobs(): Promise<JobRow[]> {
  const rows = await db().jobs.where('deleted').equals(0).toArray();
  return rows.sort((a, b) => b.updated - a.updated);
}

async function insert(job: Job, picture: string | null = null): Promise<string> {
  const id = freshId();
  await db().jobs.add({ id, name: job.name, updated: Date.now(), revision: 1, job, picture, deleted: 0 });
  return id;
}

/** Puts the demo jobs on an empty shelf once; deleting them keeps them deleted. */
export async function seedDemoJobs(): Promise<void> {
  await db().transaction('rw', db().jobs, db().settings, async () => {
    if (await db().settings.get('seeded')) return;
    for (const make of Object.values(demoJobs)) await insert(make());
    await db().settings.put({ key: 'seeded', value: true });
  });
}

export const createJob = (name = 'New job'): Promise<string> => insert(newJob(name));

export async function copyJob(id: string): Promise<void> {
  const row = await db().jobs.get(id);
  if (row) await insert({ ...row.job, name: `${row.name} copy` }, row.picture);
}

export async function renameJob(id: string, name: string): Promise<void> {
  await db().jobs.where('id').equals(id).modify((row) => {
    row.name = name;
    row.job.name = name;
    row.revision++;
    row.updated = Date.now();
  });
}

/** Deleting hides; hidden jobs go for good when the next session starts. */
export const deleteJob = async (id: string): Promise<void> => void (await db().jobs.update(id, { deleted: 1 }));
export const restoreJob = async (id: string): Promise<void> => void (await db().jobs.update(id, { deleted: 0 }));

/** Removes what was deleted more than a day ago. */
export async function sweepDeleted(): Promise<void> {
  const old = Date.now() - 24 * 3600 * 1000;
  await db().jobs.where('deleted').equals(1).and((r) => r.updated < old).delete();
  await sweepFonts();
}

/** Reads a .mirvak or job.json file onto the shelf. Throws JobError; the shelf is unchanged then. */
export async function importJob(file: File): Promise<string> {
  const { job, assets } = unpackJob(new Uint8Array(await file.arrayBuffer()));
  for (const f of job.fonts) if (assets[f.file]) await putFont(f, assets[f.file]);
  return insert(job);
}

/** The bytes of a job's .mirvak file. */
export async function exportJob(id: string, job?: Job): Promise<Uint8Array> {
  const row = await db().jobs.get(id);
  const packed = job ?? row!.job;
  const files = await fontFiles(packed);
  return packJob(packed, Object.fromEntries(packed.fonts.flatMap((f) => (files[f.id] ? [[f.file, files[f.id]]] : []))));
}

export async function openRow(id: string): Promise<JobRow | null> {
  const row = await db().jobs.get(id);
  return row && !row.deleted ? { ...row, job: readJob(row.job) } : null;
}

export type SaveResult = { ok: true; revision: number } | { ok: false; reason: 'changed' | 'gone' };

/** Saves when nobody else has saved since `revision`; else says so and changes nothing. */
export async function saveJob(id: string, job: Job, revision: number): Promise<SaveResult> {
  return db().transaction('rw', db().jobs, async () => {
    const row = await db().jobs.get(id);
    if (!row || row.deleted) return { ok: false, reason: 'gone' } as const;
    if (row.revision !== revision) return { ok: false, reason: 'changed' } as const;
    await db().jobs.update(id, { job, name: job.name, updated: Date.now(), revision: revision + 1 });
    return { ok: true, revision: revision + 1 } as const;
  });
}

export const savePicture = async (id: string, picture: string): Promise<void> => void (await db().jobs.update(id, { picture }));

/** Saves a job beside the one it came from. */
export const saveAsCopy = (job: Job): Promise<string> => insert({ ...job, name: `${job.name} (my version)` });
