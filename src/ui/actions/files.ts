import type { Job } from '@/core/job/job';
import { slug } from '@/core/pipeline/programs';
import { exportJob } from '@/store/jobs';
import { useOpenJob } from '@/store/openJob';

/** Hands bytes to the browser as a download. */
export function download(name: string, data: Uint8Array | string, type = 'application/octet-stream'): void {
  const url = URL.createObjectURL(new Blob([data as BlobPart], { type }));
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

export async function exportOpenJob(): Promise<void> {
  const { id, whole } = useOpenJob.getState();
  if (id && whole) await exportVersion(id, whole);
}

/** Exports a version of a job that need not lie on the device. */
export const exportVersion = async (id: string, job: Job): Promise<void> => download(`${slug(job.name)}.mirvak`, await exportJob(id, job), 'application/zip');

/** Exports a job that this window keeps because it could not be saved. */
export async function exportHeldJob(id: string): Promise<void> {
  const job = useOpenJob.getState().heldJob(id);
  if (job) await exportVersion(id, job);
}

/** Asks the maker for files of some kinds. */
export function askForFiles(accept: string, multiple: boolean, take: (files: File[]) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = accept;
  input.multiple = multiple;
  input.onchange = () => take([...(input.files ?? [])]);
  input.click();
}
