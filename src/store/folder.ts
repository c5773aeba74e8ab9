import { z } from 'zod';
import { slug } from '@/core/pipeline/programs';
import { onAllNews } from './channel';
import { db } from './db';
import { exportJob, listJobs } from './jobs';

/**
 * A folder on the disk that jobs are written to as well, as .mirvak files, where the browser lets a page do so (File System
 * Access). What the maker puts there himself is left alone; a job that is deleted here stays there.
 */
const HANDLE = 'folder';
const NAMES = 'folder-files';
const namesSchema = z.record(z.string(), z.object({ file: z.string(), revision: z.number() }));

type Handle = FileSystemDirectoryHandle & {
  queryPermission?(d: { mode: 'readwrite' }): Promise<PermissionState>;
  requestPermission?(d: { mode: 'readwrite' }): Promise<PermissionState>;
};
type Picker = { showDirectoryPicker?: (o: { mode: 'readwrite'; id: string }) => Promise<Handle> };

export const foldersWork = (): boolean =>
  typeof window !== 'undefined' && !!(window as unknown as Picker).showDirectoryPicker;

/** `waiting`: the browser wants to be asked again whether Mirvak may write there. */
export interface Folder {
  readonly name: string;
  readonly waiting: boolean;
}

const handle = async (): Promise<Handle | null> =>
  ((await db().settings.get(HANDLE))?.value as Handle | undefined) ?? null;

export async function folderHere(): Promise<Folder | null> {
  const h = await handle();
  return h && { name: h.name, waiting: (await h.queryPermission?.({ mode: 'readwrite' })) === 'prompt' };
}

/** Asks for a folder and writes all jobs to it. False when the maker would rather not. */
export async function chooseFolder(): Promise<boolean> {
  const h = await (window as unknown as Picker).showDirectoryPicker!({ mode: 'readwrite', id: 'mirvak' }).catch(
    (e: Error) => {
      if (e.name === 'AbortError') return null;
      throw e;
    },
  );
  if (!h) return false;
  await db().settings.bulkPut([
    { key: HANDLE, value: h },
    { key: NAMES, value: {} },
  ]);
  await writeToFolder();
  return true;
}

export async function allowFolder(): Promise<void> {
  await (await handle())?.requestPermission?.({ mode: 'readwrite' });
  await writeToFolder();
}

export const leaveFolder = (): Promise<void> => db().settings.bulkDelete([HANDLE, NAMES]);

/** Writes jobs that have changed since they were written there. One window does so at a time. */
export async function writeToFolder(): Promise<void> {
  const h = await handle();
  if (!h || (await h.queryPermission?.({ mode: 'readwrite' })) === 'prompt') return;
  const write = async () => {
    const names = namesSchema.safeParse((await db().settings.get(NAMES))?.value).data ?? {};
    const taken = new Set(Object.values(names).map((n) => n.file));
    for (const row of await listJobs()) {
      const was = names[row.id];
      if (was?.revision === row.revision) continue;
      const { bytes } = await exportJob(row.id);
      if (was) taken.delete(was.file);
      let file = `${slug(row.name)}.mirvak`;
      for (let n = 2; taken.has(file); n++) file = `${slug(row.name)}-${n}.mirvak`;
      taken.add(file);
      // The stream takes the old file's place only when it is whole.
      const out = await (await h.getFileHandle(file, { create: true })).createWritable();
      await out.write(bytes as FileSystemWriteChunkType);
      await out.close();
      if (was && was.file !== file) await h.removeEntry(was.file).catch(() => {});
      names[row.id] = { file, revision: row.revision };
      await db().settings.put({ key: NAMES, value: names });
    }
  };
  if (!navigator.locks) return write();
  await navigator.locks.request('mirvak-folder', write);
}

/** Milliseconds without another save after which the folder follows. */
const REST = 4000;
let timer: ReturnType<typeof setTimeout> | null = null;

/** The folder follows what is saved in this window and others; `failed` is told when it cannot be written. Gives the way to stop it. */
export function followWithFolder(failed: (why: string) => void): () => void {
  const soon = () => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void writeToFolder().catch((e) => failed(folderMessage(e))), REST);
  };
  soon();
  const deaf = onAllNews('job', soon);
  return () => {
    if (timer) clearTimeout(timer);
    deaf();
  };
}

export const folderMessage = (e: unknown): string => {
  const { name } = e as { name?: string };
  if (name === 'NotFoundError')
    return 'The folder that jobs are copied to is not there any more. Choose it anew under Safekeeping.';
  if (name === 'NotAllowedError' || name === 'SecurityError')
    return 'The browser does not let Mirvak write to the folder that jobs are copied to. Choose it anew under Safekeeping.';
  if (name === 'QuotaExceededError') return 'There is no room for jobs in the folder that they are copied to.';
  return 'Jobs could not be copied to their folder. They are on this device all the same; choose the folder anew under Safekeeping.';
};
