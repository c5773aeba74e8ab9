import { local, localLasts } from './local';
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

/** While a window lives it holds a lock of its name: what it has left is then its own affair. */
const lockOf = (window: string): string => `mirvak-window-${window}`;
const locks = typeof navigator === 'undefined' ? undefined : navigator.locks;
void locks?.request(lockOf(windowId), () => new Promise<never>(() => {}));

/** The windows that are open now. */
async function openWindows(): Promise<ReadonlySet<string>> {
  const held = (await locks?.query().catch(() => null))?.held ?? [];
  return new Set(held.map((l) => l.name ?? ''));
}

const PREFIX = 'mirvak.left.';
const keyOf = (id: string) => `${PREFIX}${id}.${windowId}`;

/** Leaves `job` for the next window; `bases` are the versions that the rows may hold. Each window leaves its own. False when there is no room for it. */
export function writePending(id: string, job: Job, bases: (Job | null)[], revision: number): boolean {
  const { head, items } = difference(job, bases);
  try {
    if (!localLasts()) return false;
    local().setItem(keyOf(id), JSON.stringify({ head, items, revision, writer: windowId } satisfies Left));
    return true;
  } catch {
    return false;
  }
}

/** Gives up what this window has left of a job, or what lies under a key that `findLeft` gave. */
export const forgetLeft = (id: string, key = keyOf(id)): void => local().removeItem(key);

/** What windows that are no more have left of a job, and under which keys; it stays until it is forgotten. */
export async function findLeft(id: string): Promise<(Left & { readonly key: string })[]> {
  const found: (Left & { readonly key: string })[] = [];
  try {
    const open = await openWindows();
    // Keys without a window are of an older make.
    const keys = Array.from({ length: local().length }, (_, i) => local().key(i)!).filter(
      (k) => k === PREFIX + id || k.startsWith(`${PREFIX}${id}.`),
    );
    for (const key of keys) {
      try {
        const left = JSON.parse(local().getItem(key)!) as Left;
        if (left.writer === windowId || !open.has(lockOf(left.writer))) found.push({ ...left, key });
      } catch {
        // What cannot be read is no work that could be saved.
      }
    }
  } catch {
    // Without such a storage nothing was left.
  }
  return found;
}
