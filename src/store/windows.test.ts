import { waitFor } from '../core/testing/waitFor';
import 'fake-indexeddb/auto';
import { newItem, type Item } from '@/core/artwork/item';
import { FIRST_SETUP, type OneSetup } from '@/core/job/job';
import { oneSetup } from '@/core/job/oneSetup';
import { storageOver } from './local';

Object.assign(globalThis, { localStorage: storageOver(new Map()) });

/** The modules of one window: two of them share what is kept, and nothing else. */
interface Window {
  readonly open: typeof import('./openJob').useOpenJob;
  readonly jobs: typeof import('./jobs');
  readonly db: typeof import('./db').db;
}
async function newWindow(): Promise<Window> {
  let w!: Window;
  await jest.isolateModulesAsync(async () => {
    w = { open: (await import('./openJob')).useOpenJob, jobs: await import('./jobs'), db: (await import('./db')).db };
  });
  return w;
}
const box = (id: string, x = 0): Item =>
  newItem({ id, name: id, kind: 'rectangle', x, values: { width: 10, height: 5, corner: 'square', radius: 1 } });
const add = (id: string) => (j: OneSetup) => void j.items.push(box(id));
const move = (id: string, x: number) => (j: OneSetup) => void (j.items.find((i) => i.id === id)!.x = x);
const ids = (w: Window) => w.open.getState().job!.items.map((i) => i.id);
const xOf = (w: Window, id: string) => w.open.getState().job!.items.find((i) => i.id === id)!.x;

/** How many windows have left work of a job. */
const left = (id: string): number =>
  Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i)!).filter((k) =>
    k.startsWith(`mirvak.left.${id}.`),
  ).length;

async function twoWindows(): Promise<{ a: Window; b: Window; id: string }> {
  const a = await newWindow();
  const id = await a.jobs.createJob('Lock 7');
  await a.open.getState().load(id);
  for (const i of ['p', 'q']) a.open.getState().edit('Add', add(i));
  await a.open.getState().flush();
  const b = await newWindow();
  await b.open.getState().load(id);
  return { a, b, id };
}

describe('a job that is open in two windows', () => {
  it('shows what the other has saved, and undo takes back what was done here, not what was done there', async () => {
    const { a, b } = await twoWindows();
    a.open.getState().edit('Move p', move('p', 7));
    await a.open.getState().flush();
    await b.open.getState().catchUp();
    expect(xOf(b, 'p')).toBe(7);
    expect(b.open.getState()).toMatchObject({ save: 'saved', other: null });
    b.open.getState().edit('Add r', add('r'));
    await b.open.getState().flush();
    await a.open.getState().catchUp();
    expect(ids(a)).toEqual(['p', 'q', 'r']);
    a.open.getState().undo();
    expect(xOf(a, 'p')).toBe(0);
    expect(ids(a)).toEqual(['p', 'q', 'r']);
    a.open.getState().undo();
    a.open.getState().undo();
    expect(ids(a)).toEqual(['r']);
    for (let i = 0; i < 3; i++) a.open.getState().redo();
    expect(ids(a)).toEqual(['p', 'q', 'r']);
    expect(xOf(a, 'p')).toBe(7);
  });
  it('keeps the work of both where they have changed different things, whoever saves first', async () => {
    const { a, b, id } = await twoWindows();
    a.open.getState().edit('Move p', move('p', 7));
    b.open.getState().edit('Move q', move('q', 9));
    await a.open.getState().flush();
    await b.open.getState().flush();
    await b.open.getState().flush();
    expect([xOf(b, 'p'), xOf(b, 'q'), b.open.getState().save]).toEqual([7, 9, 'saved']);
    const there = (await a.jobs.readRow(id))!;
    expect(oneSetup(there.job).items.map((i) => i.x)).toEqual([7, 9]);
    await a.open.getState().catchUp();
    expect([xOf(a, 'p'), xOf(a, 'q')]).toEqual([7, 9]);
  });
  it('asks where both have changed the same, and makes what is chosen', async () => {
    const { a, b, id } = await twoWindows();
    a.open.getState().edit('Move p', move('p', 7));
    a.open.getState().edit('Add r', add('r'));
    b.open.getState().edit('Move p', move('p', 9));
    b.open.getState().edit('Move q', move('q', 3));
    await a.open.getState().flush();
    await b.open.getState().flush();
    expect(b.open.getState().save).toBe('changed');
    expect(b.open.getState().other!.conflicts).toMatchObject([
      { path: ['setups', FIRST_SETUP, 'items', 'p', 'x'], mine: 9, theirs: 7 },
    ]);
    // Nothing of this window is lost, and nothing of the other is overwritten, until it is said whose counts.
    expect(xOf(b, 'p')).toBe(9);
    expect(oneSetup((await a.jobs.readRow(id))!.job).items[0].x).toBe(7);
    b.open.getState().bringTogether(new Map([[`setups/${FIRST_SETUP}/items/p/x`, 'theirs']]));
    await b.open.getState().flush();
    expect([xOf(b, 'p'), xOf(b, 'q'), ids(b).length, b.open.getState().save]).toEqual([7, 3, 3, 'saved']);
    b.open.getState().undo();
    expect([xOf(b, 'p'), xOf(b, 'q'), ids(b).length]).toEqual([9, 3, 2]);
  });
  it('knows what the other has saved when it has been saved, whoever asked for that first', async () => {
    const { a, b } = await twoWindows();
    a.open.getState().edit('Move p', move('p', 7));
    b.open.getState().edit('Move p', move('p', 9));
    await a.open.getState().flush();
    // As where the time for it has come while the window is being left.
    void b.open.getState().flush();
    await b.open.getState().flush();
    expect(b.open.getState().other!.conflicts).toHaveLength(1);
  });
  it('is left with a copy beside it where the versions do not go together, or where the other has deleted it', async () => {
    const { a, b, id } = await twoWindows();
    a.open.getState().edit('Move p', move('p', 7));
    b.open.getState().edit('Move p', move('p', 9));
    await a.open.getState().flush();
    expect(await b.open.getState().close()).toBe('copy');
    const rows = await a.jobs.listJobs();
    const copy = rows.find((r) => r.name === 'Lock 7 (my version)')!;
    expect(oneSetup((await a.jobs.readRow(copy.id))!.job).items[0].x).toBe(9);

    await b.open.getState().load(copy.id);
    b.open.getState().edit('Add s', add('s'));
    await a.jobs.deleteJob(copy.id);
    await b.open.getState().catchUp();
    expect(b.open.getState().save).toBe('gone');
    await b.open.getState().putBack();
    expect(b.open.getState().save).toBe('saved');
    expect(oneSetup((await a.jobs.readRow(copy.id))!.job).items).toHaveLength(3);
    void id;
  });
  it('keeps what cannot be saved in its window, with its history, until it can', async () => {
    const { a, id } = await twoWindows();
    const { edit, close, load } = a.open.getState();
    edit('Move p', move('p', 7));
    const full = jest
      .spyOn(a.db().jobs, 'put')
      .mockRejectedValue(Object.assign(new Error('full'), { name: 'QuotaExceededError' }));
    expect(await close()).toBe('held');
    expect(a.open.getState()).toMatchObject({ job: null, held: { [id]: 'Lock 7' } });
    expect(oneSetup(a.open.getState().heldJob(id)!).items[0].x).toBe(7);
    full.mockRestore();
    expect(await load(id)).toBe(true);
    expect([xOf(a, 'p'), Object.keys(a.open.getState().held)]).toEqual([7, []]);
    await a.open.getState().flush();
    expect(oneSetup((await a.jobs.readRow(id))!.job).items[0].x).toBe(7);
    a.open.getState().undo();
    expect(xOf(a, 'p')).toBe(0);
    await a.open.getState().close();
  });
  it('says that a save takes longer than it should, leaves the work for the next window, and takes it back when it is', async () => {
    const { a, id } = await twoWindows();
    const { edit } = a.open.getState();
    // A disk that does not answer for a while.
    let answer = (): void => {};
    const asked = new Promise<void>((begun) =>
      jest.spyOn(a.db(), 'transaction').mockImplementationOnce((() => {
        begun();
        return new Promise((r) => (answer = () => r({ ok: true, revision: 99, merged: null })));
      }) as never),
    );
    edit('Move p', move('p', 7));
    await asked;
    await waitFor(() => a.open.getState().slow);
    // Typing on does not make it look better.
    a.open.getState().edit('Move p', move('p', 8));
    expect(a.open.getState()).toMatchObject({ slow: true, save: 'pending' });
    expect(left(id)).toBe(1);
    answer();
    await waitFor(() => !a.open.getState().slow);
    jest.restoreAllMocks();
  });
});
