import type { Job } from '@/core/job/job';
import { slug } from '@/core/pipeline/programs';
import { exportJob } from '@/store/jobs';
import { lackingWords } from '@/store/files';
import { useOpenJob } from '@/store/openJob';
import { tell } from './tell';

/** Hands bytes to the browser as a download. */
export const download = (name: string, data: Uint8Array | string, type = 'application/octet-stream'): void =>
  downloadBlob(name, new Blob([data as BlobPart], { type }));

export function downloadBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
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

/** Exports a job of the shelf, or a version of it that need not lie on the device; says what it lacks. */
export async function exportVersion(id: string, job?: Job, name = job?.name ?? ''): Promise<void> {
  const { bytes, lacking } = await exportJob(id, job);
  download(`${slug(name)}.mirvak`, bytes, 'application/zip');
  if (lacking.length)
    tell(
      'error',
      `The file of "${name}" is saved without ${lackingWords(lacking)}, not on this device. Add them to the job again, then export it anew.`,
    );
}

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
