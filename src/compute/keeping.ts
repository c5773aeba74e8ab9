import { emptyDerived, keptAs } from './derived';
import { computePool } from './pool';
import type { SetupWork } from './work';

/** What is to be kept when it has stood for so long, ms, by set-up. */
const REST = 5000;
const toKeep = new Map<string, { readonly timer: ReturnType<typeof setTimeout>; readonly keep: () => void }>();
/** Keeps what was worked out for a set-up, if it stands for a while; `key` is that of its proof. */
export function keepLater(setupId: string, key: string, { cuts, proof }: SetupWork): void {
  const as = keptAs(key);
  clearTimeout(toKeep.get(setupId)?.timer);
  toKeep.delete(setupId);
  if (!as || !proof?.compared) return;
  const plans = Object.entries(cuts).map(([cut, c]) => ({ cut, ...c }));
  const keep = () => {
    toKeep.delete(setupId);
    // What cannot be kept is worked out again.
    const done = computePool()
      .planner.ask((api, pack) => api.keep(as, pack({ plans, proof })))
      .catch(() => {})
      .finally(() => keeping.delete(done));
    keeping.add(done);
  };
  toKeep.set(setupId, { timer: setTimeout(keep, REST), keep });
}
const keeping = new Set<Promise<void>>();
/** Gives up all kept results, those that are just being kept too. Throws what the database throws. */
export async function emptyKept(): Promise<void> {
  for (const { timer } of toKeep.values()) clearTimeout(timer);
  toKeep.clear();
  await Promise.all(keeping);
  await emptyDerived();
}
/** Keeps at once what waits for it. */
export function keepNow(): void {
  for (const { timer, keep } of [...toKeep.values()]) {
    clearTimeout(timer);
    keep();
  }
}
