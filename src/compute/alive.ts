/**
 * How it is noticed at once that a worker is no more, whatever ended it: as long as it lives it holds a lock of a name that only
 * it and its window know.
 */

/** In the worker: holds the lock from now on. */
export const holdAlive = (name: string): Promise<void> =>
  new Promise((held) => void navigator.locks.request(name, () => (held(), new Promise<never>(() => {}))));

/** In the window, once the worker holds it: whoever gets the lock after the worker learns that the worker is gone. */
export const whenGone = (name: string, gone: () => void): void => void navigator.locks.request(name, gone);
