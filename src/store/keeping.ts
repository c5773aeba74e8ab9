import { create } from 'zustand';
import { whenGone } from '@/compute/alive';
import { openDatabase } from './db';
import { NOTHING_LOST, putBackLost, type PutBackCount } from './second';

/** Where what is made is kept: on the device, or, where the browser keeps nothing, in this window as long as it is open. */
export type Keeping = 'asking' | 'device' | 'window';

interface State {
  readonly keeping: Keeping;
  /** Why nothing is kept on the device. */
  readonly why: string;
  /** What the browser had lost and came back from the second copy. */
  readonly putBack: PutBackCount;
}

export const useKeeping = create<State>(() => ({ keeping: 'asking', why: '', putBack: NOTHING_LOST }));

/** Another window that is at the copy keeps it for a moment: then the database is alive. All else is said. */
const notPutBack = (e: unknown): PutBackCount => {
  if ((e as Error).name === 'TimeoutError') return NOTHING_LOST;
  console.warn('The second copy was not put back:', e);
  return { ...NOTHING_LOST, failed: true };
};

let begun: Promise<void> | null = null;
/** Opens what this device keeps, once; whatever the browser answers, there is a place for jobs afterwards. */
export const openKeeping = (): Promise<void> =>
  (begun ??= openDatabase().then(async ({ lasts, why }) => {
    const putBack = lasts ? await putBackLost().catch(notPutBack) : NOTHING_LOST;
    useKeeping.setState({ keeping: lasts ? 'device' : 'window', why, putBack });
  }));

/** A worker that has died is replaced after so long, ms. */
const REPLACED = 500;

/** Keeps a second copy of all work up, aside, as long as this window is open; gives the way to stop it. */
export function followWithSecond(): () => void {
  let worker: Worker;
  let stopped = false;
  const hire = () => {
    if (stopped) return;
    const mine = (worker = new Worker(new URL('./second.worker.ts', import.meta.url), { type: 'module' }));
    const name = `mirvak-second-${crypto.randomUUID()}`;
    mine.onmessage = () => whenGone(name, () => void setTimeout(hire, REPLACED));
    mine.postMessage(name);
  };
  hire();
  return () => {
    stopped = true;
    worker.terminate();
  };
}
