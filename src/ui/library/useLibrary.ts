import { create } from 'zustand';
import type { Cutter } from '@/core/cutters/cutter';
import { shippedLibrary } from '@/core/cutters/library';
import { deleteCutter, loadLibrary, saveCutter } from '@/store/library';

interface Library {
  cutters: Cutter[];
  load(): Promise<void>;
  save(cutter: Cutter): Promise<void>;
  remove(id: string): Promise<void>;
}

/** The tool library as this window knows it; kept in the database. */
export const useLibrary = create<Library>((set) => ({
  cutters: shippedLibrary(),
  async load() {
    set({ cutters: await loadLibrary() });
  },
  async save(cutter) {
    await saveCutter(cutter);
    set({ cutters: await loadLibrary() });
  },
  async remove(id) {
    await deleteCutter(id);
    set({ cutters: await loadLibrary() });
  },
}));
