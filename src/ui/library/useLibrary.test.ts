import 'fake-indexeddb/auto';
import { db } from '@/store/db';
import { loadLibrary } from '@/store/library';
import { useLibrary } from './useLibrary';

beforeEach(async () => {
  await Promise.all([db().cutters.clear(), db().settings.clear()]);
  await useLibrary.getState().load();
});

describe('the library of a window', () => {
  it('keeps every letter that is typed, though it is read again meanwhile, as when another window has changed it', async () => {
    const [first] = useLibrary.getState().cutters;
    const words = 'Fenwater chandlery';
    const work: Promise<unknown>[] = [];
    for (let k = 1; k <= words.length; k++) {
      const now = useLibrary.getState().cutters.find((c) => c.id === first.id)!;
      expect(now.supplier).toBe(words.slice(0, k - 1));
      work.push(useLibrary.getState().save({ ...now, supplier: words.slice(0, k) }));
      if (k % 3 === 0) work.push(useLibrary.getState().load());
      if (k % 4 === 0) await new Promise((r) => setTimeout(r, 5));
    }
    await Promise.all(work);
    expect(useLibrary.getState().cutters.find((c) => c.id === first.id)!.supplier).toBe(words);
    expect((await loadLibrary()).find((c) => c.id === first.id)!.supplier).toBe(words);
  });
  it('goes back step by step, and what was done elsewhere meanwhile stays', async () => {
    const { save, undo, put } = useLibrary.getState();
    const [a, b] = useLibrary.getState().cutters;
    await save({ ...a, name: 'Mine' });
    // Another window's change, as it comes from the database.
    await db().cutters.update(b.id, { notes: 'Theirs' });
    await useLibrary.getState().load();
    await put(
      'loss of one',
      useLibrary.getState().cutters.filter((c) => c.id !== a.id),
    );
    await undo();
    await undo();
    const now = useLibrary.getState().cutters;
    expect(now.find((c) => c.id === a.id)!.name).toBe(a.name);
    expect(now.find((c) => c.id === b.id)!.notes).toBe('Theirs');
    expect(now.map((c) => c.id)[0]).toBe(a.id);
    expect(await loadLibrary()).toEqual(now);
  });
});
