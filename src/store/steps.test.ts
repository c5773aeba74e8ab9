import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { newItem } from '@/core/artwork/item';
import { kindOf } from '@/core/cuts/registry';
import type { Cut, Job, OneSetup } from '@/core/job/job';
import { newJob, oneSetup, withSetup } from '@/core/job/oneSetup';
import { withCopy, withNewSetup, withoutSetup, withPlace } from '@/core/job/allSetups';
import { db } from './db';
import { createJob } from './jobs';
import { itemsOfAll } from './keep';
import { useOpenJob } from './openJob';
import { applied, deltaOf } from './steps';
import { storageOver } from './local';

beforeAll(() => {
  globalThis.localStorage = storageOver(new Map());
});

const box = (id: string, x = 0) =>
  newItem({ id, name: id, kind: 'rectangle', x, values: { width: 5, height: 5, corner: 'square', radius: 0 } });
type Change = (j: OneSetup) => void;
const change: fc.Arbitrary<Change> = fc.oneof(
  fc.tuple(fc.constantFrom('a', 'b', 'c', 'd'), fc.integer({ min: 0, max: 9 })).map(
    ([id, x]): Change =>
      (j) =>
        void (j.items.some((i) => i.id === id) ? (j.items.find((i) => i.id === id)!.x = x) : j.items.push(box(id, x))),
  ),
  fc.constantFrom('a', 'b', 'c', 'd').map(
    (id): Change =>
      (j) =>
        void (j.items = j.items.filter((i) => i.id !== id)),
  ),
  fc.constant<Change>((j) => void j.items.reverse()),
  fc.integer({ min: 50, max: 60 }).map(
    (w): Change =>
      (j) =>
        void (j.blank.width = w),
  ),
  fc.string({ maxLength: 5 }).map(
    (n): Change =>
      (j) =>
        void (j.name = n || 'x'),
  ),
  fc.constant<Change>((j) => void j.clamps.push({ x0: 0, y0: 0, x1: 5, y1: 5, height: 3 } as never)),
);

/** A change of what is seen as one of the whole job; ids of items are their own in all of it. */
const seen =
  (c: Change) =>
  (job: Job): Job => {
    const next = structuredClone(oneSetup(job));
    c(next);
    const changed = withSetup(job, next);
    const ids = itemsOfAll(changed).map((i) => i.id);
    return new Set(ids).size === ids.length ? changed : job;
  };
let made = 0;
const freshId = () => `f${++made}`;
/** Set-ups put in, copied, moved, taken out; an item laid from the first to the last. */
const ofSetups = fc.constantFrom<(job: Job) => Job>(
  (job) => withNewSetup(job, job.setups[0].id, 'y', freshId).job,
  (job) => withCopy(job, job.setups[job.setups.length - 1].id, freshId).job,
  (job) => withPlace(job, job.setups[job.setups.length - 1].id, Math.max(0, job.setups.length - 2)),
  (job) => withoutSetup(job, job.setups[0].id),
  (job) => {
    const [item, ...rest] = job.setups[0].items;
    const last = job.setups[job.setups.length - 1];
    if (!item || job.setups.length === 1) return job;
    return {
      ...job,
      setups: job.setups.map((s) =>
        s === job.setups[0] ? { ...s, items: rest } : s === last ? { ...s, items: [...s.items, item] } : s,
      ),
    };
  },
);

describe('steps of a history', () => {
  it('lead from any version to any other, both ways', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(change.map(seen), ofSetups), { maxLength: 12 }), fc.nat(12), (changes, k) => {
        const versions: Job[] = [newJob('Lock 7')];
        for (const c of changes) {
          versions.push(c(versions[versions.length - 1]));
        }
        const [a, b] = [versions[Math.min(k, versions.length - 1)], versions[versions.length - 1]];
        expect(applied(a, deltaOf(a, b))).toEqual(b);
        expect(applied(b, deltaOf(b, a))).toEqual(a);
      }),
    );
  });

  it('of an earlier version lead to what this one can plan', async () => {
    const id = await createJob('Lock 7');
    const s = useOpenJob.getState;
    await s().load(id);
    const floor = (pattern: string) => (j: OneSetup) =>
      void (j.cuts = [
        {
          id: 'c',
          name: 'Floor',
          kind: 'area',
          enabled: true,
          items: [],
          values: { ...(kindOf('area').defaults(j.blank, j.cutters) as Cut['values']), pattern },
          overrides: {},
        },
      ]);
    s().edit('As it was', floor('hatch'));
    s().edit('As it is', floor('contours'));
    await s().close();
    // As Mirvak wrote it before its steps said their version.
    await db()
      .steps.toCollection()
      .modify((row) => {
        const older = JSON.parse(JSON.stringify(row).replaceAll('"hatch"', '"even"')) as typeof row;
        delete older.version;
        Object.assign(row, older);
        delete row.version;
      });
    await s().load(id);
    expect(s().past).toHaveLength(2);
    s().undo();
    expect(s().job!.cuts[0].values.pattern).toBe('trochoidal');
    await s().close();
  });

  it('survive closing the window: undo goes all the way back to the start, redo all the way on, bit by bit', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(change, { minLength: 1, maxLength: 10 }), fc.nat(4), async (changes, undone) => {
        const id = await createJob('Lock 7');
        const s = useOpenJob.getState;
        await s().load(id);
        const start = structuredClone(s().job!);
        for (const c of changes) {
          s().edit('Change', c);
          if (Math.random() < 0.4) await s().flush();
        }
        const last = structuredClone(s().job!);
        for (let i = 0; i < undone; i++) s().undo();
        const [past, future] = [s().past.length, s().future.length];
        await s().close();
        await s().load(id);
        expect([s().past.length, s().future.length]).toEqual([past, future]);
        while (s().past.length) s().undo();
        expect(s().job).toEqual(start);
        while (s().future.length) s().redo();
        expect(s().job).toEqual(last);
        await s().close();
      }),
      { numRuns: 25 },
    );
  });

  it('that are as large as a drawing are not kept, nor what lies before them; what came since is', async () => {
    const id = await createJob('Lock 7');
    const s = useOpenJob.getState;
    await s().load(id);
    s().edit('Name', (j) => void (j.name = 'Lock 8'));
    s().edit('Import', (j) => void j.items.push(...Array.from({ length: 4000 }, (_, i) => box(`n${i}`))));
    s().edit('Width', (j) => void (j.blank.width = 77));
    await s().close();
    await s().load(id);
    expect(s().past.map((p) => p.name)).toEqual(['Width']);
    s().undo();
    expect(s().job!.blank.width).not.toBe(77);
    expect(s().job!.items).toHaveLength(4000);
    await s().close();
  });

  it('that could not be written are written with the next save', async () => {
    const id = await createJob('Lock 7');
    const s = useOpenJob.getState;
    await s().load(id);
    const { db } = await import('./db');
    const put = jest.spyOn(db().histories, 'put').mockImplementationOnce(() => {
      throw new Error('no room');
    });
    s().edit('Name', (j) => void (j.name = 'Lock 8'));
    await s().flush();
    expect(s().save).toBe('saved');
    put.mockRestore();
    s().edit('Width', (j) => void (j.blank.width = 77));
    await s().close();
    await s().load(id);
    expect(s().past.map((p) => p.name)).toEqual(['Name', 'Width']);
    await s().close();
  });

  it('are let go where another window has saved since', async () => {
    const id = await createJob('Lock 7');
    const s = useOpenJob.getState;
    await s().load(id);
    s().edit('Name', (j) => void (j.name = 'Lock 8'));
    await s().flush();
    const { db } = await import('./db');
    await db().jobs.update(id, { revision: 40 });
    await s().load(id);
    expect(s().past).toEqual([]);
  });
});
