import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { newItem, type Item } from '@/core/artwork/item';
import { demoSetups } from '@/core/job/demo';
import { FIRST_SETUP, type Job } from '@/core/job/job';
import { jobOf, newJob, oneSetup, withSetup } from '@/core/job/oneSetup';
import { withNewSetup } from '@/core/job/allSetups';
import { lettersApart, oldJob } from '@/core/testing/old';
import { db } from './db';
import {
  copyJob,
  createJob,
  deleteJob,
  emptyBin,
  exportJob,
  listDeleted,
  listJobs,
  openRow,
  restoreJob,
  saveJob,
  sweepDeleted,
} from './jobs';
import { writePending } from './journal';
import { difference, headOf, itemRow, itemsOfAll, itemsOfRows, joined, portions, rowsOf, type ItemRow } from './keep';
import { unpackJob } from '@/core/job/archive';
import { useOpenJob } from './openJob';
import { storageOver } from './local';

const held = new Map<string, string>();
Object.assign(globalThis, { localStorage: storageOver(held) });

const box = (id: string, x = 0): Item =>
  newItem({ id, name: id, kind: 'rectangle', x, values: { width: 10, height: 5, corner: 'square', radius: 1 } });
const withItems = (job: Job, items: Item[]): Job => withSetup(job, { ...oneSetup(job), items });
/** Jobs whose versions share items, as the history of a window makes them; items go from one set-up to the other and back. */
const versions = fc
  .array(fc.array(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 3 })), { maxLength: 12 }), {
    minLength: 2,
    maxLength: 5,
  })
  .map((runs) => {
    const pool = new Map<string, Item>();
    const { job, id: second } = withNewSetup(newJob('Lock 7'), FIRST_SETUP, 'x', () => 'second');
    return runs.map((run) => {
      const once = new Map(run);
      const items = [...once].map(([id, x]) => {
        const key = `${id}/${x}`;
        if (!pool.has(key)) pool.set(key, box(`i${id}`, x));
        return pool.get(key)!;
      });
      const onSecond = items.filter((i) => i.x > 2);
      return withSetup(
        withItems(
          job,
          items.filter((i) => i.x <= 2),
        ),
        { ...oneSetup(job, second), items: onSecond },
      );
    });
  });

describe('a job in rows', () => {
  test('differences, applied to any of their bases, give the job', () => {
    fc.assert(
      fc.property(versions, (v) => {
        const now = v[v.length - 1];
        for (const base of v.slice(0, -1)) {
          const d = difference(now, v.slice(0, -1));
          const rows = new Map(itemsOfAll(base).map((i) => [i.id, i]));
          for (const g of d.gone) rows.delete(g);
          for (const i of d.items) rows.set(i.id, i);
          expect(joined(d.head, rows.values())).toEqual(now);
          const named = d.head.setups.flatMap((s) => s.order);
          expect(
            [...rows.keys()]
              .filter((id) => !named.includes(id))
              .every((id) => !itemsOfAll(base).some((i) => i.id === id)),
          ).toBe(true);
        }
      }),
    );
  });
  test('large values lie in rows of their own, written when they change, gone when nothing has them', () => {
    const points = (n: number, from: number) =>
      ({ points: Array.from({ length: n }, (_, i) => from + i) }) as unknown as Item['values'];
    // Two large ones, one that says the same as the first in another object, and two small ones.
    const pool = [points(900, 1), points(900, 2), points(900, 1), points(4, 1), points(4, 2)];
    const version = fc.uniqueArray(fc.record({ id: fc.constantFrom('a', 'b', 'c'), x: fc.nat(2), of: fc.nat(4) }), {
      selector: (r) => r.id,
    });
    const items = new Map<string, Item>();
    // Versions share what did not change.
    const of = ({ id, x, of }: { id: string; x: number; of: number }): Item => {
      const key = `${id} ${x} ${of}`;
      if (!items.has(key)) items.set(key, { ...box(id, x), values: pool[of] });
      return items.get(key)!;
    };
    const empty = newJob('Lock 7');
    fc.assert(
      fc.property(fc.array(version, { minLength: 2, maxLength: 6 }), (versions) => {
        const rows = new Map<string, ItemRow>();
        let last: Job | null = null;
        for (const v of versions) {
          const now = withItems(empty, v.map(of));
          const { put, out } = rowsOf('j', difference(now, last ? [last] : []));
          for (const k of out) rows.delete(k);
          for (const r of put) rows.set(r.key, structuredClone(r));
          // A thing that is only moved takes its large values nowhere.
          for (const r of put)
            if (r.own)
              expect(
                last &&
                  itemsOfAll(last).some(
                    (i) => i.values === r.own && itemsOfAll(now).some((q) => q.id === i.id && q.values === i.values),
                  ),
              ).toBeFalsy();
          const back = new Map(itemsOfRows([...rows.values()]).map((i) => [i.id, i]));
          expect(itemsOfAll(now).map((i) => back.get(i.id))).toEqual(itemsOfAll(now));
          const wanted = new Set(
            itemsOfAll(now)
              .filter((i) => (i.values as unknown as { points: number[] }).points.length > 600)
              .map((i) => JSON.stringify(i.values)),
          );
          expect([...rows.values()].filter((r) => r.own)).toHaveLength(wanted.size);
          last = now;
        }
      }),
    );
    // Without its values an item is left out, not made up.
    const [row] = rowsOf('j', difference(withItems(empty, [of({ id: 'a', x: 0, of: 0 })]), [])).put.filter(
      (r) => r.item,
    );
    expect(itemsOfRows([row])).toEqual([]);
  });
  test('only what changed is written', () => {
    const a = withItems(newJob('Lock 7'), [box('a'), box('b'), box('c')]);
    const b = withItems(a, [itemsOfAll(a)[0], box('b', 4), itemsOfAll(a)[2]]);
    expect(difference(b, [a]).items.map((i) => i.id)).toEqual(['b']);
    expect(difference(withItems(a, [itemsOfAll(a)[2]]), [a])).toMatchObject({ items: [], gone: ['a', 'b'] });
    expect(difference(a, [null]).items).toHaveLength(3);
  });
  test('portions hold everything once, in order, and none is larger than one item over the bound', () => {
    const items = Array.from({ length: 400 }, (_, i) => box(`i${i}`));
    const parts = [...portions(items, 200)];
    expect(parts.flat()).toEqual(items);
    expect(parts.length).toBeGreaterThan(5);
    expect(Math.max(...parts.map((p) => p.length))).toBeLessThan(40);
  });
});

describe('the shelf', () => {
  beforeEach(async () => {
    held.clear();
    await Promise.all([db().jobs.clear(), db().items.clear()]);
  });
  const fill = async (items: Item[]) => {
    const id = await createJob('Sluice plate');
    const row = (await openRow(id))!;
    const job = withItems(row.job, items);
    expect(await saveJob(id, job, row.revision, row.kept)).toEqual({ ok: true, revision: 2, merged: null });
    return { id, job };
  };
  test('what is saved is what is opened, copied and exported', async () => {
    const made = Object.values(demoSetups)[0]();
    const { id, job } = await fill(made.items);
    expect((await openRow(id))!.job).toEqual(job);
    await copyJob(id);
    const copy = (await listJobs()).find((r) => r.id !== id)!;
    expect(itemsOfAll((await openRow(copy.id))!.job)).toEqual(made.items);
    expect(unpackJob((await exportJob(id)).bytes).job).toEqual(job);
  });
  test('a second save changes the rows of what changed alone, and takes away what is gone', async () => {
    const { id, job } = await fill([box('a'), box('b'), box('c')]);
    const next = withItems(job, [itemsOfAll(job)[2], box('a', 7)]);
    expect(await saveJob(id, next, 2, job)).toEqual({ ok: true, revision: 3, merged: null });
    expect((await openRow(id))!.job).toEqual(next);
    expect(await db().items.count()).toBe(2);
  });
  test('a save from an older revision is refused and changes nothing', async () => {
    const { id, job } = await fill([box('a')]);
    expect(await saveJob(id, withItems(job, []), 1, job)).toEqual({ ok: false, reason: 'changed' });
    expect((await openRow(id))!.job).toEqual(job);
  });
  test('what a window left when it closed is found, also when its last save came through or another window saved', async () => {
    const { id, job } = await fill([box('a'), box('b')]);
    const sent = withItems(job, [box('a', 1), itemsOfAll(job)[1]]);
    const last = withItems(job, [box('a', 2), itemsOfAll(job)[1], box('c')]);
    expect(writePending(id, last, [job, sent], 2)).toBe(true);
    expect(await openRow(id)).toMatchObject({ job: last, recovered: expect.any(String) });
    await saveJob(id, sent, 2, job);
    expect(await openRow(id)).toMatchObject({ job: last, recovered: expect.any(String), revision: 3 });
    await db().jobs.update(id, { writer: 'another window' });
    expect(await openRow(id)).toMatchObject({ job: sent, recovered: null });
    const copy = (await listJobs()).find((r) => r.name.includes('my version'))!;
    expect(itemsOfAll((await openRow(copy.id))!.job)).toEqual(itemsOfAll(last));
  });
  test('a window that closes in mid-edit: the next one goes on from there and saves it', async () => {
    const { id } = await fill([box('a')]);
    await useOpenJob.getState().load(id);
    useOpenJob.getState().edit('Add', (j) => void j.items.push(box('b', 3)));
    expect(useOpenJob.getState().leave()).toBe(true);
    useOpenJob.setState({ id: null, whole: null, shownId: null, job: null, save: 'saved' });
    await useOpenJob.getState().load(id);
    expect(useOpenJob.getState().job!.items.map((i) => i.id)).toEqual(['a', 'b']);
    expect(useOpenJob.getState().save).toBe('pending');
    await useOpenJob.getState().flush();
    expect(held.size).toBe(0);
    expect(itemsOfAll((await openRow(id))!.job)).toHaveLength(2);
    await useOpenJob.getState().close();
  });
  test('two windows that closed in mid-edit: both their works come back, one in the job, one beside it, and nothing is given up before it is saved', async () => {
    const { id, job } = await fill([box('a')]);
    const mine = withItems(job, [box('a', 1)]);
    const theirs = withItems(job, [box('a', 2), box('b')]);
    expect(writePending(id, mine, [job], 2)).toBe(true);
    // Another window's journal lies under a key of its own.
    const text = JSON.stringify({
      ...JSON.parse([...held.values()][0]),
      items: itemsOfAll(theirs),
      head: headOf(theirs),
      writer: 'another window',
    });
    held.set(`mirvak.left.${id}.another`, text);
    await useOpenJob.getState().load(id);
    const here = useOpenJob.getState().job!.items;
    const copy = (await listJobs()).find((r) => r.name.includes('my version'))!;
    const beside = itemsOfAll((await openRow(copy.id))!.job);
    expect([here, beside].map((l) => l.length).sort()).toEqual([1, 2]);
    // The one that was taken is still there until the rows hold it.
    expect(held.size).toBe(1);
    await useOpenJob.getState().flush();
    expect(held.size).toBe(0);
    expect(itemsOfAll((await openRow(id))!.job)).toEqual(here);
    await useOpenJob.getState().close();
  });
  test('broken leavings do no harm', async () => {
    const { id, job } = await fill([box('a')]);
    for (const text of [
      '{',
      '{}',
      JSON.stringify({ head: { format: 'x', order: [] }, items: [], revision: 2, writer: '' }),
    ]) {
      held.set(`mirvak.left.${id}`, text);
      expect((await openRow(id))!.job).toEqual(job);
    }
  });
  test('rows of whole jobs are split when the database comes of age', async () => {
    const made = Object.values(demoSetups)[0]();
    const { splitRows } = await import('./keep');
    await db().jobs.add({
      id: 'old',
      name: 'Old',
      updated: 1,
      revision: 4,
      job: oldJob(made) as never,
      picture: null,
      deleted: 0,
    });
    await db().transaction('rw', db().jobs, db().items, (tx) => splitRows(tx));
    expect((await openRow('old'))!.job).toEqual(jobOf(lettersApart(made)));
    expect(await db().items.count()).toBe(made.items.length);
  });
  test('deleted jobs leave with their items after a day', async () => {
    const { id } = await fill([box('a')]);
    await db().items.put(itemRow('other', box('z')));
    await deleteJob(id);
    // It is the deletion that counts, not when the job was changed last.
    await db().jobs.update(id, { updated: 1 });
    await sweepDeleted();
    expect((await listDeleted()).map((r) => r.id)).toEqual([id]);
    await restoreJob(id);
    expect(await listDeleted()).toEqual([]);
    expect(await openRow(id)).not.toBeNull();
    await deleteJob(id);
    await db().jobs.update(id, { deleted: Date.now() - 25 * 3600 * 1000 });
    await sweepDeleted();
    expect(await db().jobs.count()).toBe(0);
    expect((await db().items.toArray()).map((r) => r.jobId)).toEqual(['other']);
  });
  test('the bin is emptied of what is in it, and of nothing else', async () => {
    const { id } = await fill([box('a')]);
    const other = (await fill([box('b')])).id;
    await deleteJob(id);
    await emptyBin();
    expect((await db().jobs.toArray()).map((r) => r.id)).toEqual([other]);
    expect(new Set((await db().items.toArray()).map((r) => r.jobId))).toEqual(new Set([other]));
  });
  test('a change is saved within two seconds, however steadily others follow', async () => {
    const { id } = await fill([box('a')]);
    await useOpenJob.getState().load(id);
    const names: string[] = [];
    for (let k = 0; k < 45; k++) {
      useOpenJob.getState().edit('Type', (j) => void (j.name = `Name ${k}`), 'text');
      await new Promise((r) => setTimeout(r, 50));
      names.push((await db().jobs.get(id))!.name);
    }
    // Well before the last change the rows hold one that is at most two seconds (forty changes) old.
    expect(names.at(-1)).toMatch(/^Name (\d+)$/);
    expect(44 - Number(/\d+/.exec(names.at(-1)!)![0])).toBeLessThan(40);
    await useOpenJob.getState().close();
  });
});
