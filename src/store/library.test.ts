import 'fake-indexeddb/auto';
import { shippedLibrary } from '@/core/cutters/library';
import { machines } from '@/core/machine/profile';
import { dialects } from '@/core/program/dialect';
import { db } from './db';
import { changeLibrary, loadLibrary } from './library';
import { partShelves } from './shelfRows';
import { keepOnShelf, loadShelf, takeOffShelf } from './shelves';

beforeEach(async () => {
  await Promise.all([db().cutters.clear(), db().settings.clear()]);
});

describe('the tool library of a device', () => {
  test('is the shipped one at first, and never comes back over what was made of it', async () => {
    expect(await loadLibrary()).toEqual(shippedLibrary());
    await changeLibrary(await loadLibrary(), []);
    expect(await loadLibrary()).toEqual([]);
  });
  test('keeps its order through saves; what is new comes last', async () => {
    const all = await loadLibrary();
    const [a, b, c] = all;
    await changeLibrary(all, [c, a]);
    await changeLibrary([c, a], [c, { ...a, name: 'Changed' }, b]);
    expect((await loadLibrary()).map((q) => q.name)).toEqual([c.name, 'Changed', b.name]);
  });
  test('of two windows holds what both did: neither wipes the other', async () => {
    const all = await loadLibrary();
    const [a, b, c] = all;
    // Both windows know the same version; each changes, adds and takes out something.
    await changeLibrary(all, [
      ...all.filter((q) => q !== b).map((q) => (q === a ? { ...a, name: 'Mine' } : q)),
      { ...c, id: 'mine' },
    ]);
    await changeLibrary(all, [...all.map((q) => (q === c ? { ...c, notes: 'Theirs' } : q)), { ...c, id: 'theirs' }]);
    const both = await loadLibrary();
    expect(both.find((q) => q.id === a.id)!.name).toBe('Mine');
    expect(both.find((q) => q.id === c.id)!.notes).toBe('Theirs');
    expect(both.some((q) => q.id === b.id)).toBe(false);
    expect(
      both
        .map((q) => q.id)
        .slice(-2)
        .sort(),
    ).toEqual(['mine', 'theirs']);
    expect(both).toHaveLength(all.length + 1);
  });
  test('of an older make gets what was added since, and rows that are no cutters do no harm', async () => {
    const [a] = await loadLibrary();
    const { supplier: _s, stockNumber: _n, ...old } = a;
    await db().cutters.clear();
    await db().cutters.bulkPut([{ ...old, order: 0 } as never, { id: 'spoon', order: 1, shape: 'spoon' } as never]);
    expect(await loadLibrary()).toEqual([a]);
  });
});

describe('what the device keeps beside', () => {
  test('machines are kept, replaced and forgotten by their ids', async () => {
    expect(await loadShelf('machines')).toEqual([]);
    const mine = { ...machines[0], id: 'own-1', name: 'Mine' };
    await keepOnShelf('machines', mine);
    await keepOnShelf('machines', { ...mine, name: 'Mine, mended' });
    expect((await loadShelf('machines')).map((m) => m.name)).toEqual(['Mine, mended']);
    expect(await takeOffShelf('machines', 'own-1')).toEqual([]);
  });
  test('dialects kept before drilling cycles were known are read', async () => {
    const { cycles: _c, ...old } = { ...dialects[0], id: 'own-2' };
    await db().settings.put({ key: 'shelf-dialects', value: [old, { nonsense: true }, 7] });
    // The one row that held them all (in databases of an older make) is parted.
    await db().transaction('rw', db().settings, (tx) => partShelves(tx));
    expect(await loadShelf('dialects')).toEqual([{ ...dialects[0], id: 'own-2', cycles: false }]);
    expect(await db().settings.get('shelf-dialects')).toBeUndefined();
  });
});
