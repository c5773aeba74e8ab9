import { packJob, unpackJob } from '@/core/job/archive';
import { packBackup, unpackBackup } from '@/core/job/backup';

/** Work on archives: packing and opening takes a while and much memory, so it is done aside, in a worker of its own. */
export const archiveTasks = { packJob, unpackJob, packBackup, unpackBackup };
export type ArchiveTasks = typeof archiveTasks;
