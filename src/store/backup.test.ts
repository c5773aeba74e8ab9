import { oneSetup, withSetup } from '@/core/job/oneSetup';
import 'fake-indexeddb/auto';
import { strToU8, zipSync } from 'fflate';
import { newItem } from '@/core/artwork/item';
import { shippedLibrary } from '@/core/cutters/library';
import { packBackup, unpackBackup } from '@/core/job/backup';
import { benchRouter } from '@/core/machine/profile';
import { backupDue, lastBackup, makeBackup, restoreBackup } from './backup';
import { db } from './db';
import { createJob, deleteJob, listDeleted, listJobs, readRow, saveJob } from './jobs';
import { changeLibrary, loadLibrary } from './library';
import { storageOver } from './local';
import { gridOf } from '@/core/relief/field';
import { keptOf } from '@/core/exchange/picture/kept';
import { keepOnShelf, loadShelf } from './shelves';

Object.assign(globalThis, { localStorage: storageOver(new Map()) });

const DAY = 24 * 3600 * 1000;
const box = (x: number) =>
  newItem({
    id: 'box',
    name: 'Box',
    kind: 'rectangle',
    x,
    values: { width: 10, height: 5, corner: 'square', radius: 1 },
  });
const file = (bytes: Uint8Array) => ({ arrayBuffer: async () => bytes.slice().buffer }) as unknown as File;
async function put(id: string, x: number): Promise<void> {
  const { job, revision } = (await readRow(id))!;
  expect(await saveJob(id, withSetup(job, { ...oneSetup(job), items: [box(x)] }), revision, null)).toMatchObject({
    ok: true,
  });
}
const names = async () => (await listJobs()).map((r) => r.name).sort();

describe('a backup of everything', () => {
  beforeEach(async () => {
    await db().delete();
    await db().open();
  });
  it('brings back what is missing, leaves what is the same, and lays what differs beside it; twice does nothing more', async () => {
    const [kept, changed, lost] = [await createJob('Kept'), await createJob('Changed'), await createJob('Lost')];
    for (const id of [kept, changed, lost]) await put(id, 3);
    const cutters = await loadLibrary();
    const mine = { ...shippedLibrary()[0], id: 'own-1', name: 'Ground by hand' };
    await changeLibrary(cutters, [...cutters, mine]);
    const own = keptOf(
      { ...gridOf(4, 3, 1), z: Float32Array.from({ length: 20 }, (_, i) => i / 10) },
      'relief-1',
      'Own heron',
    )!;
    await keepOnShelf('reliefs', own);
    await keepOnShelf('machines', { ...benchRouter, id: 'own-2', name: 'In the shed' });
    const { bytes } = await makeBackup();
    expect(await lastBackup()).toBeGreaterThan(Date.now() - 5000);

    await put(changed, 8);
    await db().jobs.delete(lost);
    await changeLibrary(
      await loadLibrary(),
      (await loadLibrary()).filter((c) => c.id !== 'own-1').map((c, i) => (i === 1 ? { ...c, teeth: 7 } : c)),
    );
    await db().settings.clear();
    await db().settings.put({ key: 'library', value: 1 });
    const r = await restoreBackup(file(bytes));
    // Beside: the cutter that was changed since. Back: the one taken out, the machine and the relief.
    expect(r).toEqual({ back: 1, there: 1, beside: 1, others: 4, broken: [], lacking: [] });
    const day = new Date().toISOString().slice(0, 10);
    expect(await names()).toEqual(['Changed', `Changed (backup of ${day})`, 'Kept', 'Lost']);
    expect(oneSetup((await readRow(changed))!.job).items[0].x).toBe(8);
    expect(oneSetup((await readRow(lost))!.job).items[0].x).toBe(3);
    expect((await loadLibrary()).map((c) => c.name)).toEqual(
      expect.arrayContaining(['Ground by hand', `${cutters[1].name} (backup of ${day})`]),
    );
    expect((await loadLibrary())[1].teeth).toBe(7);
    expect((await loadShelf('machines')).map((m) => m.name)).toEqual(['In the shed']);
    expect(await loadShelf('reliefs')).toEqual([own]);

    const before = [await names(), (await loadLibrary()).length];
    expect(await restoreBackup(file(bytes))).toEqual({
      back: 0,
      there: 3,
      beside: 0,
      others: 0,
      broken: [],
      lacking: [],
    });
    expect(await names()).toEqual(before[0]);
    expect((await loadLibrary()).length).toBe(before[1]);
  });
  it('takes a deleted job out of the bin again', async () => {
    const id = await createJob('Kept');
    const { bytes } = await makeBackup();
    await deleteJob(id);
    expect(await restoreBackup(file(bytes))).toMatchObject({ back: 1, there: 0, beside: 0 });
    expect([await names(), (await listDeleted()).length]).toEqual([['Kept'], 0]);
  });
  it('names a job in it that is broken, and brings back the others', async () => {
    await createJob('Kept');
    await createJob('Broken');
    const b = unpackBackup((await makeBackup()).bytes);
    await db().jobs.clear();
    const bytes = packBackup({
      ...b,
      jobs: b.jobs.map((j) => (j.name === 'Broken' ? { ...j, bytes: strToU8('PK nothing') } : j)),
    });
    expect(await restoreBackup(file(bytes))).toMatchObject({
      back: 1,
      broken: [{ name: 'Broken', why: expect.stringMatching(/damaged/) }],
    });
    expect(await names()).toEqual(['Kept']);
  });
  it.each([
    ['no zip', strToU8('hello'), /not a backup/],
    ['a job', zipSync({ 'job.json': strToU8('{}') }), /no readable backup\.json/],
    [
      'without what is kept',
      zipSync({ 'backup.json': strToU8('{"format":"mirvak-backup","version":1,"made":"","jobs":[]}') }),
      /kept\.json/,
    ],
  ])('is refused whole where it is %s', async (_name, bytes, why) => {
    await expect(restoreBackup(file(bytes))).rejects.toThrow(why);
  });
  it('is due two weeks after the last one, or after the first work, and only where there is work', async () => {
    const id = await createJob('Kept');
    const at = Date.now();
    expect(await backupDue(at + 30 * DAY)).toBe(false);
    await put(id, 3);
    expect([await backupDue(at + 13 * DAY), await backupDue(at + 15 * DAY)]).toEqual([false, true]);
    await makeBackup();
    expect(await backupDue(at + 15 * DAY)).toBe(false);
    await db().jobs.update(id, { updated: at + 2 * DAY });
    expect([await backupDue(at + 13 * DAY), await backupDue(at + 16 * DAY)]).toEqual([false, true]);
  });
});
