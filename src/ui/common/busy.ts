import { create } from 'zustand';

/** Work that a maker waits for. */
export interface Busy {
  readonly id: number;
  readonly words: string;
  readonly stop: () => void;
}

/** What takes longer than a moment now. */
export const useBusy = create<{ readonly list: readonly Busy[] }>(() => ({ list: [] }));

/** Milliseconds that nobody minds. */
const MOMENT = 500;
let ids = 0;

/** Runs work; when it takes longer than a moment a bar says what it is at, and offers to stop it. */
export async function busyWith<T>(words: string, stop: () => void, work: () => Promise<T>): Promise<T> {
  const id = ++ids;
  const timer = setTimeout(() => useBusy.setState((b) => ({ list: [...b.list, { id, words, stop }] })), MOMENT);
  try {
    return await work();
  } finally {
    clearTimeout(timer);
    useBusy.setState((b) => ({ list: b.list.filter((q) => q.id !== id) }));
  }
}
