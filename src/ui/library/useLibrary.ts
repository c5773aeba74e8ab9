import { create } from 'zustand';
import type { Cutter } from '@/core/cutters/cutter';
import { shippedLibrary } from '@/core/cutters/library';
import { emptyAfter } from '@/core/cutters/groups';
import { keepEmptyGroups, loadEmptyGroups, loadLibrary, replaceLibrary, saveCutters } from '@/store/library';

interface Version {
  cutters: Cutter[];
  /** Names of groups that hold no cutter. */
  empty: string[];
}

interface Library extends Version {
  /** Versions before the last changes, with what was done: undone one by one. */
  past: ({ name: string } & Version)[];
  load(): Promise<void>;
  save(cutter: Cutter): Promise<void>;
  /** Puts the whole library anew under a name for undo. `empty`: the groups without cutters, where they are not those that are left so. */
  put(name: string, cutters: Cutter[], empty?: string[]): Promise<void>;
  undo(): Promise<void>;
}

const MOST = 50;

/** The tool library as this window knows it; kept in the database. */
export const useLibrary = create<Library>((set, get) => {
  const now = (): Version => ({ cutters: get().cutters, empty: get().empty });
  const keep = async (v: Version): Promise<void> => {
    await replaceLibrary(v.cutters);
    await keepEmptyGroups(v.empty);
  };
  return {
    cutters: shippedLibrary(),
    empty: [],
    past: [],
    async load() {
      const [cutters, empty] = await Promise.all([loadLibrary(), loadEmptyGroups()]);
      set({ cutters, empty: emptyAfter(empty, [], cutters) });
    },
    async save(cutter) {
      const { cutters, past } = get();
      const had = cutters.find((c) => c.id === cutter.id);
      const next = had ? cutters.map((c) => (c === had ? cutter : c)) : [...cutters, cutter];
      // A group's name that is being typed letter by letter leaves no groups behind.
      set({ cutters: next, empty: emptyAfter(get().empty, [], next), past: [...past.slice(-MOST), { name: had ? `change of ${cutter.name}` : `new ${cutter.name}`, ...now() }] });
      await saveCutters([cutter]);
      await keepEmptyGroups(get().empty);
    },
    async put(name, cutters, empty) {
      const before = now();
      set({ cutters, empty: emptyAfter(empty ?? before.empty, empty ? [] : before.cutters, cutters), past: [...get().past.slice(-MOST), { name, ...before }] });
      await keep(now());
    },
    async undo() {
      const { past } = get();
      const last = past[past.length - 1];
      if (!last) return;
      set({ cutters: last.cutters, empty: last.empty, past: past.slice(0, -1) });
      await keep(last);
    },
  };
});
