import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { filesInMemory } from '@/compute/filesInMemory';
import { newItem, type Item } from '@/core/artwork/item';
import { oneSetup, withSetup } from '@/core/job/oneSetup';
import { db } from './db';
import { putFile } from './files';
import {
  createJob,
  deleteJob,
  emptyBin,
  listDeleted,
  listJobs,
  readRow,
  renameJob,
  restoreJob,
  saveJob,
  savePicture,
} from './jobs';
import { changeLibrary, loadLibrary } from './library';
import { storageOver } from './local';
import { copyAllSecond, copySecond, copySecondRest, keepSecondIn, NOTHING_LOST, putBackLost } from './second';
import { keepOnShelf, loadShelf } from './shelves';
import { benchRouter } from '@/core/machine/profile';

Object.assign(globalThis, { localStorage: storageOver(new Map()) });

let disk = filesInMemory();
const box = (id: string, x: number): Item =>
  newItem({ id, name: 'Box', kind: 'rectangle', x, values: { width: 10, height: 5, corner: 'square', radius: 1 } });
/** Values that lie in a row of their own. */
const drawn = (id: string, x: number): Item => {
  const at = Array.from({ length: 800 }, (_, i) => ({ k: 'line' as const, x: i, y: x }));
  return newItem({
    id,
    name: 'Drawn',
    kind: 'drawing',
    x,
    values: { fill: 'nonzero', paths: [{ x: 0, y: 0, segments: at, closed: false }] },
  });
};
async function put(id: string, items: Item[]): Promise<void> {
  const { job, revision } = (await readRow(id))!;
  expect(await saveJob(id, withSetup(job, { ...oneSetup(job), items }), revision, null)).toMatchObject({ ok: true });
}
/** All that a maker would miss. */
async function all() {
  const of = async (rows: { id: string; name: string; revision: number; deleted: number }[]) =>
    Promise.all(
      rows.map(async ({ id, name, revision, deleted }) => ({
        id,
        name,
        revision,
        deleted,
        items: (await db().items.where('jobId').equals(id).toArray()).sort((a, b) => (a.key < b.key ? -1 : 1)),
      })),
    );
  return {
    jobs: (await of(await listJobs())).sort((a, b) => (a.id < b.id ? -1 : 1)),
    bin: (await of(await listDeleted())).sort((a, b) => (a.id < b.id ? -1 : 1)),
    cutters: await db().cutters.orderBy('order').toArray(),
    settings: (await db().settings.toArray()).filter((r) => r.key !== 'handle'),
    assets: await db().assets.toArray(),
  };
}
/** What a browser does that finds its store broken. */
async function lose(): Promise<void> {
  await db().delete();
  await db().open();
}

beforeEach(async () => {
  disk = filesInMemory();
  keepSecondIn(disk);
  await lose();
});

describe('the second copy of all work', () => {
  it('brings everything back: jobs, the bin, large drawings, files, library, shelves; and nothing twice', async () => {
    expect(await putBackLost()).toEqual(NOTHING_LOST);
    const [a, b, c] = [await createJob('A'), await createJob('B'), await createJob('C')];
    await put(a, [box('1', 2), drawn('2', 3), drawn('3', 3)]);
    await put(b, [drawn('4', 5)]);
    await put(b, [drawn('4', 6)]);
    await deleteJob(c);
    await putFile({ id: 'p', type: 'picture', name: 'P', file: 'pictures/p.png' }, Uint8Array.of(1, 2, 3));
    const cutters = await loadLibrary();
    await changeLibrary(cutters, cutters.slice(2));
    await keepOnShelf('machines', { ...benchRouter, id: 'own-2', name: 'In the shed' });
    // A handle of the browser's, which is worth nothing in another database.
    await db().settings.put({ key: 'handle', value: new Map([['a', 1]]) });
    await copyAllSecond();
    const was = await all();
    const files = await disk.names();
    await copyAllSecond();
    expect(await disk.names()).toEqual(files);
    // One row of large values for each content that there is now.
    expect(files.filter((n) => n.startsWith('own.'))).toHaveLength(2);

    await lose();
    expect(await putBackLost()).toEqual({ jobs: 2, broken: 0, rest: true });
    expect(await all()).toEqual(was);
    expect(was.jobs).toHaveLength(2);
    expect(was.bin).toHaveLength(1);
    expect(was.assets).toHaveLength(1);
    expect((await loadShelf('machines')).map((m) => m.name)).toEqual(['In the shed']);
    expect(await putBackLost()).toEqual(NOTHING_LOST);
    expect(await all()).toEqual(was);
  });

  it('(long) is what was copied last, whatever was done before and after', async () => {
    const step = fc.oneof(
      fc.record({ do: fc.constant('put' as const), job: fc.nat(2), x: fc.nat(3), large: fc.boolean() }),
      fc.record({
        do: fc.constantFrom('rename' as const, 'delete' as const, 'restore' as const, 'copy' as const),
        job: fc.nat(2),
      }),
      fc.record({ do: fc.constantFrom('empty' as const, 'lose' as const), job: fc.nat(0) }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
        disk = filesInMemory();
        keepSecondIn(disk);
        await lose();
        await putBackLost();
        const ids = [await createJob('0'), await createJob('1'), await createJob('2')];
        await copyAllSecond();
        const copied = new Map((await all()).jobs.map((j) => [j.id, j]));
        for (const s of steps) {
          const id = ids[s.job];
          const there = await readRow(id);
          if (s.do === 'put' && there) await put(id, [s.large ? drawn('d', s.x) : box('d', s.x)]);
          if (s.do === 'rename' && there) await renameJob(id, `n${steps.indexOf(s)}`);
          if (s.do === 'delete') await deleteJob(id);
          if (s.do === 'restore') await restoreJob(id);
          if (s.do === 'copy') {
            await copySecond(id);
            const now = await all();
            const mine = [...now.jobs, ...now.bin].find((j) => j.id === id);
            if (mine) copied.set(id, mine);
          }
          if (s.do === 'empty') {
            for (const r of await listDeleted()) copied.delete(r.id);
            await emptyBin();
          }
          if (s.do === 'lose') {
            await lose();
            await putBackLost();
            const now = await all();
            expect(new Map([...now.jobs, ...now.bin].map((j) => [j.id, j]))).toEqual(copied);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('is not overwritten from a database that was lost while a window was open, nor from an empty one', async () => {
    await putBackLost();
    const cutters = await loadLibrary();
    await changeLibrary(cutters, cutters.slice(0, 1));
    await createJob('A');
    await copyAllSecond();
    await lose();
    // The window that is open lays the shipped library there again.
    expect((await loadLibrary()).length).toBeGreaterThan(1);
    await copyAllSecond();
    await lose();
    expect(await putBackLost()).toEqual({ jobs: 1, broken: 0, rest: true });
    expect(await loadLibrary()).toHaveLength(1);
  });

  it('says what it cannot read; an older copy takes the place of one that was being written', async () => {
    await putBackLost();
    const [a, b] = [await createJob('A'), await createJob('B')];
    await copyAllSecond();
    const [first] = (await disk.names()).filter((n) => n.startsWith('job.'));
    const later = first.replace(/\.1\.0$/, '.2.0');
    await disk.write(later, new Uint8Array(0));
    await lose();
    expect(await putBackLost()).toEqual({ jobs: 2, broken: 0, rest: true });
    expect((await listJobs()).map((r) => r.id).sort()).toEqual([a, b].sort());
    await disk.remove(later);
    await disk.write(first, Uint8Array.of(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17));
    await lose();
    expect(await putBackLost()).toEqual({ jobs: 1, broken: 1, rest: true });
  });

  it('brings back the rest of a drawing whose values are gone there, and says that it is not whole', async () => {
    await putBackLost();
    const a = await createJob('A');
    await put(a, [box('1', 2), drawn('2', 3)]);
    await copyAllSecond();
    await disk.remove((await disk.names()).find((n) => n.startsWith('own.'))!);
    await lose();
    expect(await putBackLost()).toEqual({ jobs: 1, broken: 1, rest: true });
    expect(oneSetup((await readRow(a))!.job).items.map((i) => i.id)).toEqual(['1']);
  });

  it('at a full disk stays what it was, and follows when there is room again', async () => {
    await putBackLost();
    const a = await createJob('A');
    await put(a, [box('1', 2)]);
    await savePicture(a, 'data:image/png;base64,');
    await copyAllSecond();
    await put(a, [box('1', 7)]);
    disk.full = true;
    await expect(copySecond(a)).rejects.toThrow();
    await copySecondRest();
    disk.full = false;
    await lose();
    await putBackLost();
    expect(oneSetup((await readRow(a))!.job).items[0].x).toBe(2);
    await put(a, [box('1', 9)]);
    await copySecond(a);
    await lose();
    await putBackLost();
    expect(oneSetup((await readRow(a))!.job).items[0].x).toBe(9);
  });
});
