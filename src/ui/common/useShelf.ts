import { useEffect } from 'react';
import { create } from 'zustand';
import { onNews } from '@/store/channel';
import { libraryMessage } from '@/store/db';
import { tell } from '@/ui/actions/tell';
import { keepOnShelf, loadShelf, takeOffShelf, type Shelves } from '@/store/shelves';

type Kept = { [K in keyof Shelves]: Shelves[K][] };
const useKept = create<Kept>(() => ({ machines: [], dialects: [], recipes: [], reliefs: [] }));
const put = <K extends keyof Shelves>(name: K, list: Shelves[K][]) =>
  useKept.setState({ [name]: list } as unknown as Partial<Kept>);

/** What could not be kept says so. */
const told = (keeping: Promise<void>): Promise<void> =>
  keeping.catch((e) =>
    tell('error', `It could not be kept on this device; the job has it all the same. ${libraryMessage(e)}`),
  );

/** Keeps an entry; every part of the window sees it at once. Throws what the storage throws. */
export const keepEntry = <K extends keyof Shelves>(name: K, entry: Shelves[K]): Promise<void> =>
  keepOnShelf(name, entry).then((list) => put(name, list));

/** Takes an entry off; every part of the window sees it at once. Throws what the storage throws. */
export const dropEntry = <K extends keyof Shelves>(name: K, id: string): Promise<void> =>
  takeOffShelf(name, id).then((list) => put(name, list));

/** What this device keeps under a name, and how it is changed; every part of the window sees the same. */
export function useShelf<K extends keyof Shelves>(name: K) {
  const kept = useKept((s) => s[name]) as Shelves[K][];
  useEffect(() => {
    const load = () =>
      void loadShelf(name).then(
        (list) => put(name, list),
        () => {},
      );
    load();
    return onNews('shelves', (n) => n.name === name && load());
  }, [name]);
  return {
    kept,
    keep: (entry: Shelves[K]) => told(keepEntry(name, entry)),
    drop: (id: string) => told(dropEntry(name, id)),
  };
}
