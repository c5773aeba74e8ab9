import { newOneSetup, type OneSetup } from '@/core/job/job';
import { freshForm } from '@/core/relief/freshForm';
import type { ReliefState } from './work';

/** A worker that shapes when the test says so. */
interface Asked {
  readonly cell: number;
  done(): void;
  fail(e: Error): void;
}
const asked: Asked[] = [];
let cancels = 0;
const seat = {
  ask: (work: (api: unknown, pack: (v: unknown) => unknown) => Promise<unknown>) =>
    work(
      {
        shape: (_: number, _job: OneSetup, cell: number) =>
          new Promise((done, fail) => asked.push({ cell, done: () => done({ cell }), fail })),
      },
      (v) => v,
    ),
  hearing: (f: unknown) => f,
  next: () => 1,
  cancel: () => {
    cancels++;
    asked.at(-1)?.fail(Object.assign(new Error('Cancelled'), { name: 'Cancelled' }));
  },
};
jest.mock('./pool', () => ({ computePool: () => ({ shaper: seat }) }));
import { shaper } from './shaping';

const settle = async () => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};
const setup = (height: number, cell: number | null = 1): OneSetup => {
  const one = newOneSetup('Reed-bed sign');
  return { ...one, relief: { baseDepth: 0, cell, forms: [freshForm('g', 'g', 'ground', { height })] } };
};

function bench(first: OneSetup | null) {
  let shown = first;
  let held: ReliefState | null = null;
  const words: string[] = [];
  const s = shaper({
    shown: () => shown,
    held: () => held,
    current: () => shown,
    put: (_, r) => void (held = r),
    tell: () => {},
    fail: (w) => void words.push(w),
  });
  return {
    words,
    held: () => held,
    show: async (job: OneSetup | null) => {
      shown = job;
      s.follow();
      await settle();
    },
  };
}
beforeEach(() => {
  asked.length = 0;
  cancels = 0;
});

it('shapes coarsely, then finely, and nothing more while nothing changes', async () => {
  const b = bench(null);
  const first = setup(1, 0.1);
  await b.show(first);
  expect(asked).toHaveLength(1);
  // So many nodes at first, however fine it is to be.
  const { width, height } = setup(1, 0.1).blank;
  const coarse = asked[0].cell;
  expect((width * height) / (coarse * coarse)).toBeCloseTo(25_000, 3);
  asked[0].done();
  await settle();
  expect(b.held()).toMatchObject({ fine: false });
  expect(asked.map((a) => a.cell)).toEqual([coarse, 0.1]);
  asked[1].done();
  await settle();
  expect(b.held()).toMatchObject({ fine: true });
  await b.show({ ...first, name: 'Another name' });
  expect(asked).toHaveLength(2);
});

it('shows first looks while a hand moves, and shapes finely when it rests', async () => {
  jest.useFakeTimers();
  try {
    const b = bench(null);
    await b.show(setup(1, 0.1));
    asked[0].done();
    await settle();
    asked[1].done();
    await settle();
    const key = b.held()!.key;
    // Steps that come quicker than looks: none is given up, and the next look is of where the hand is by then.
    await b.show(setup(2, 0.1));
    await b.show(setup(3, 0.1));
    await b.show(setup(4, 0.1));
    expect(asked).toHaveLength(3);
    expect(cancels).toBe(0);
    asked[2].done();
    await settle();
    expect(b.held()).toMatchObject({ fine: false });
    expect(b.held()!.key).not.toBe(key);
    expect(asked).toHaveLength(4);
    asked[3].done();
    await settle();
    expect(asked).toHaveLength(4);
    // Before the rest is over the hand moves on.
    await jest.advanceTimersByTimeAsync(100);
    await b.show(setup(5, 0.1));
    expect(asked.map((a) => a.cell > 0.1)).toEqual([true, false, true, true, true]);
    asked[4].done();
    await settle();
    await jest.advanceTimersByTimeAsync(119);
    expect(asked).toHaveLength(5);
    await jest.advanceTimersByTimeAsync(2);
    expect(asked[5].cell).toBe(0.1);
    // What is shaped finely is given up when the hand moves.
    await b.show(setup(6, 0.1));
    expect(cancels).toBe(1);
    expect(asked[6].cell).toBeGreaterThan(0.1);
  } finally {
    jest.useRealTimers();
  }
});

it('shapes a change that stands alone finely as soon as its first look can be painted', async () => {
  jest.useFakeTimers();
  try {
    const b = bench(null);
    await b.show(setup(1, 0.1));
    for (const height of [2, 3]) {
      for (const a of asked.splice(0)) a.done();
      await settle();
      for (const a of asked.splice(0)) a.done();
      await settle();
      expect(b.held()).toMatchObject({ fine: true });
      jest.advanceTimersByTime(600);
      await b.show(setup(height, 0.1));
      expect(asked).toHaveLength(1);
      asked[0].done();
      await settle();
      await jest.advanceTimersByTimeAsync(41);
      expect(asked.map((a) => a.cell === 0.1)).toEqual([false, true]);
    }
  } finally {
    jest.useRealTimers();
  }
});

it('shapes what is small at once, and shows each though a hand has moved on', async () => {
  const b = bench(null);
  await b.show(setup(1));
  await b.show(setup(2));
  expect(cancels).toBe(0);
  expect(asked.map((a) => a.cell)).toEqual([1]);
  asked[0].done();
  await settle();
  expect(b.held()).toMatchObject({ fine: true });
  const first = b.held()!.key;
  expect(asked.map((a) => a.cell)).toEqual([1, 1]);
  asked[1].done();
  await settle();
  expect(b.held()!.key).not.toBe(first);
  expect(asked).toHaveLength(2);
});

it('gives up what is no longer wanted, and shapes what is', async () => {
  const b = bench(null);
  await b.show(setup(1, 0.1));
  asked[0].done();
  await settle();
  // Finely by now.
  await b.show(setup(2, 0.1));
  expect(cancels).toBe(1);
  expect(asked).toHaveLength(3);
  asked[2].done();
  await settle();
  expect(b.held()!.key).not.toBe('');
  // Without forms, or without a job, there is none.
  await b.show(setup(1));
  expect(asked).toHaveLength(4);
  await b.show({ ...setup(1), relief: { forms: [], baseDepth: 0, cell: null } });
  asked[3].done();
  await settle();
  expect(b.held()).toBeNull();
});

it('says what failed, and tries again only when something has changed', async () => {
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => {});
  const b = bench(null);
  await b.show(setup(1));
  asked[0].fail(new Error('broken'));
  await settle();
  expect(b.words).toHaveLength(1);
  await b.show(setup(1));
  expect(asked).toHaveLength(1);
  await b.show(setup(2));
  expect(asked).toHaveLength(2);
  quiet.mockRestore();
});
