import { archiveTasks, type ArchiveTasks } from './archives';
import { aside, type AsideOptions } from './aside';

const start = () => new Worker(new URL('./archive.worker.ts', import.meta.url), { type: 'module' });

/** Packs or opens an archive aside. Throws JobError (by its name), or GivenUp. */
export const archive = <K extends keyof ArchiveTasks>(
  task: K,
  args: Parameters<ArchiveTasks[K]>,
  options?: AsideOptions,
): Promise<ReturnType<ArchiveTasks[K]>> => aside(start, archiveTasks, task, args, options);
