let ask: (() => void) | null = null;
let done = 0;

/**
 * Does work that can be given up in the middle, also deep inside: `still` is asked now and then, and throws when the work is no
 * longer wanted. Throws what it or the work throws.
 */
export function whileWanted<T>(still: () => void, work: () => T): T {
  const before = ask;
  ask = still;
  try {
    return work();
  } finally {
    ask = before;
  }
}

/** So much is done between two questions: some microseconds each. */
const EACH = 64;

/** What long loops call at each step, however deep they lie, or at each that is worth `steps`: asks whether the work is still wanted, where anybody has said how. */
export function stillWanted(steps = 1): void {
  if (!ask || (done += steps) < EACH) return;
  done = 0;
  ask();
}
