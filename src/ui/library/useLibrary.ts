import { create } from 'zustand';
import type { Cutter } from '@/core/cutters/cutter';
import { shippedLibrary } from '@/core/cutters/library';
import { emptyAfter } from '@/core/cutters/groups';
import { withChange } from '@/core/merge/list';
import { onNews } from '@/store/channel';
import { libraryMessage } from '@/store/db';
import { tell } from '@/ui/actions/tell';
import { changeLibrary, loadEmptyGroups, loadLibrary } from '@/store/library';

interface Version {
  cutters: Cutter[];
  /** Names of groups that hold no cutter. */
  empty: string[];
}

/** A change: what the library was before it and after it, and what was done. */
interface Done {
  name: string;
  before: Version;
  after: Version;
}

interface Library extends Version {
  /** The last changes of this window: undone one by one, without what other windows have done meanwhile. */
  past: Done[];
  load(): Promise<void>;
  save(cutter: Cutter): Promise<void>;
  /** Puts the library anew under a name for undo. `empty`: the groups without cutters, where they are not those that are left so. */
  put(name: string, cutters: Cutter[], empty?: string[]): Promise<void>;
  undo(): Promise<void>;
}

const MOST = 50;

/** The tool library as this window knows it; kept in the database, and followed when another window changes it. */
export const useLibrary = create<Library>((set, get) => {
  const now = (): Version => ({ cutters: get().cutters, empty: get().empty });
  // Changes are written one after the other; those that come while one is being written go together, as one.
  let changes = 0;
  let written: Promise<void> = Promise.resolve();
  let waiting: { readonly from: Version; to: Version; readonly done: Promise<void> } | null = null;
  const change = (from: Version, to: Version): Promise<void> => {
    changes++;
    const before = now();
    const after: Version = {
      cutters: withChange(before.cutters, from.cutters, to.cutters),
      empty: emptyAfter(to.empty, [], to.cutters),
    };
    set(after);
    if (waiting && waiting.to.cutters === before.cutters) {
      waiting.to = after;
      return waiting.done;
    }
    const mine: NonNullable<typeof waiting> = {
      from: before,
      to: after,
      done: written.then(() => {
        if (waiting === mine) waiting = null;
        return changeLibrary(
          mine.from.cutters,
          mine.to.cutters,
          mine.from.empty.join('\n') === mine.to.empty.join('\n') ? undefined : mine.to.empty,
        );
      }),
    };
    waiting = mine;
    written = mine.done.catch(() => {});
    return mine.done;
  };
  /** A library that could not be saved says so; what was done stands in this window. */
  const told = (saving: Promise<void>): Promise<void> =>
    saving.catch((e) =>
      tell('error', `The tool library was not saved; the change is in this window only. ${libraryMessage(e)}`),
    );
  const done = async (name: string, after: Version): Promise<void> => {
    const before = now();
    set({ past: [...get().past.slice(-MOST), { name, before, after }] });
    await told(change(before, after));
  };
  return {
    cutters: shippedLibrary(),
    empty: [],
    past: [],
    async load() {
      for (;;) {
        const at = changes;
        await written;
        // What stands here and is not written yet is newer than what lies there.
        if (at !== changes) continue;
        const [cutters, empty] = await Promise.all([loadLibrary(), loadEmptyGroups()]);
        if (at === changes) return set({ cutters, empty: emptyAfter(empty, [], cutters) });
      }
    },
    async save(cutter) {
      const { cutters, empty } = get();
      const had = cutters.find((c) => c.id === cutter.id);
      // A group's name that is being typed letter by letter leaves no groups behind.
      await done(had ? `change of ${cutter.name}` : `new ${cutter.name}`, {
        cutters: had ? cutters.map((c) => (c === had ? cutter : c)) : [...cutters, cutter],
        empty,
      });
    },
    async put(name, cutters, empty) {
      await done(name, { cutters, empty: emptyAfter(empty ?? get().empty, empty ? [] : get().cutters, cutters) });
    },
    async undo() {
      const { past } = get();
      const last = past[past.length - 1];
      if (!last) return;
      set({ past: past.slice(0, -1) });
      await told(change(last.after, last.before));
    },
  };
});

onNews(
  'library',
  () =>
    void useLibrary
      .getState()
      .load()
      .catch(() => {}),
);
