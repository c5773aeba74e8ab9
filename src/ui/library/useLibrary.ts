import { create } from 'zustand';
import type { Cutter } from '@/core/cutters/cutter';
import { shippedLibrary } from '@/core/cutters/library';
import { loadLibrary, replaceLibrary, saveCutters } from '@/store/library';

interface Library {
  cutters: Cutter[];
  /** Versions before the last changes, with what was done: undone one by one. */
  past: { name: string; cutters: Cutter[] }[];
  load(): Promise<void>;
  save(cutter: Cutter): Promise<void>;
  /** Puts the whole library anew under a name for undo. */
  put(name: string, cutters: Cutter[]): Promise<void>;
  undo(): Promise<void>;
}

const MOST = 50;

/** The tool library as this window knows it; kept in the database. */
export const useLibrary = create<Library>((set, get) => ({
  cutters: shippedLibrary(),
  past: [],
  async load() {
    set({ cutters: await loadLibrary() });
  },
  async save(cutter) {
    const { cutters, past } = get();
    const had = cutters.some((c) => c.id === cutter.id);
    set({ cutters: had ? cutters.map((c) => (c.id === cutter.id ? cutter : c)) : [...cutters, cutter], past: [...past.slice(-MOST), { name: had ? `change of ${cutter.name}` : `new ${cutter.name}`, cutters }] });
    await saveCutters([cutter]);
  },
  async put(name, cutters) {
    const { cutters: before, past } = get();
    set({ cutters, past: [...past.slice(-MOST), { name, cutters: before }] });
    await replaceLibrary(cutters);
  },
  async undo() {
    const { past } = get();
    const last = past[past.length - 1];
    if (!last) return;
    set({ cutters: last.cutters, past: past.slice(0, -1) });
    await replaceLibrary(last.cutters);
  },
}));
