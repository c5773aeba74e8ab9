import type { OneSetup } from '../job/job';

/** A job as it was written when a job was one set-up (up to version 7). */
export function oldJob(one: OneSetup, version: unknown = 7): Record<string, unknown> {
  const { at: _, ...rest } = one;
  return JSON.parse(JSON.stringify({ format: 'mirvak-job', ...rest, version })) as Record<string, unknown>;
}
