import type { OneSetup } from '../job/job';

/** A job as it was written when a job was one set-up (up to version 7). */
export function oldJob(one: OneSetup, version: unknown = 7): Record<string, unknown> {
  const { at: _, assets, ...rest } = one;
  const of = (type: string) => assets.filter((a) => a.type === type).map(({ id, name, file }) => ({ id, name, file }));
  return JSON.parse(
    JSON.stringify({ format: 'mirvak-job', ...rest, fonts: of('font'), pictures: of('picture'), version }),
  ) as Record<string, unknown>;
}

/** The same job with its letters as they stood before they could join: each by itself. */
export const lettersApart = (job: OneSetup): OneSetup => ({
  ...job,
  items: job.items.map((i) => (i.kind === 'lettering' ? { ...i, values: { ...i.values, ligatures: false } } : i)),
});
