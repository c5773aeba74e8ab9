import type { Job } from '../job/job';

/** Something that can be done about a finding with one press. */
export interface Mend {
  readonly words: string;
  apply(job: Job, cutId: string | null): void;
}

/** Mends by the name that a finding gives. A new one is one entry. */
export const mends: Readonly<Record<string, Mend>> = {
  last: {
    words: 'Move it to the end',
    apply(job, cutId) {
      const i = job.cuts.findIndex((c) => c.id === cutId);
      if (i >= 0) job.cuts.push(...job.cuts.splice(i, 1));
    },
  },
};
