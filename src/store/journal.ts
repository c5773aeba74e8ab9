import { difference, type Difference } from './keep';
import type { Job } from '@/core/job/job';

/**
 * What a window that closes has no time to save: databases answer later, and a closing page has no later. The difference to
 * what is saved goes into the browser's synchronous storage, and the next window that opens the job takes it from there.
 */
export interface Left extends Pick<Difference, 'head' | 'items'> {
  /** The revision that the window knew, and the window. */
  revision: number;
  writer: string;
}

/** This window, as rows and journals name it. */
export const windowId = crypto.randomUUID();

const keyOf = (id: string) => `mirvak.left.${id}`;

/** Leaves `job` for the next window; `bases` are the versions that the rows may hold. False when there is no room for it. */
export function leaveBehind(id: string, job: Job, bases: (Job | null)[], revision: number): boolean {
  const { head, items } = difference(job, bases);
  try {
    localStorage.setItem(keyOf(id), JSON.stringify({ head, items, revision, writer: windowId } satisfies Left));
    return true;
  } catch {
    return false;
  }
}

export const forgetLeft = (id: string): void => localStorage.removeItem(keyOf(id));

/** What was left of a job, if anything; it stays until it is forgotten. */
export function takeLeft(id: string): Left | null {
  try {
    const text = localStorage.getItem(keyOf(id));
    return text ? (JSON.parse(text) as Left) : null;
  } catch {
    return null;
  }
}
