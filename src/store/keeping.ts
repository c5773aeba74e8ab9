import { create } from 'zustand';
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

let begun: Promise<void> | null = null;
/** Opens what this device keeps, once; whatever the browser answers, there is a place for jobs afterwards. */
export const openKeeping = (): Promise<void> =>
  (begun ??= openDatabase().then(async ({ lasts, why }) => {
    const putBack = lasts ? await putBackLost().catch(() => NOTHING_LOST) : NOTHING_LOST;
    useKeeping.setState({ keeping: lasts ? 'device' : 'window', why, putBack });
  }));

/** Keeps a second copy of all work up, aside, as long as this window is open; gives the way to stop it. */
export function followWithSecond(): () => void {
  const worker = new Worker(new URL('./second.worker.ts', import.meta.url), { type: 'module' });
  return () => worker.terminate();
}
