import { create } from 'zustand';
import { openDatabase } from './db';

/** Where what is made is kept: on the device, or, where the browser keeps nothing, in this window as long as it is open. */
export type Keeping = 'asking' | 'device' | 'window';

interface State {
  readonly keeping: Keeping;
  /** Why nothing is kept on the device. */
  readonly why: string;
}

export const useKeeping = create<State>(() => ({ keeping: 'asking', why: '' }));

let begun: Promise<void> | null = null;
/** Opens what this device keeps, once; whatever the browser answers, there is a place for jobs afterwards. */
export const openKeeping = (): Promise<void> =>
  (begun ??= openDatabase().then((r) => useKeeping.setState({ keeping: r.lasts ? 'device' : 'window', why: r.why })));
