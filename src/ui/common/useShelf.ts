import { useEffect } from 'react';
import { create } from 'zustand';
import { onNews } from '@/store/channel';
import { keepOnShelf, loadShelf, takeOffShelf, type Shelves } from '@/store/shelves';

type Kept = { [K in keyof Shelves]: Shelves[K][] };
const useKept = create<Kept>(() => ({ machines: [], dialects: [], recipes: [] }));
const put = <K extends keyof Shelves>(name: K, list: Shelves[K][]) => useKept.setState({ [name]: list } as unknown as Partial<Kept>);

/** What this device keeps under a name, and how it is changed; every part of the window sees the same. */
export function useShelf<K extends keyof Shelves>(name: K) {
  const kept = useKept((s) => s[name]) as Shelves[K][];
  useEffect(() => {
    const load = () => void loadShelf(name).then((list) => put(name, list), () => {});
    load();
    return onNews('shelves', (n) => n.name === name && load());
  }, [name]);
  return {
    kept,
    keep: async (entry: Shelves[K]) => put(name, await keepOnShelf(name, entry)),
    drop: async (id: string) => put(name, await takeOffShelf(name, id)),
  };
}
