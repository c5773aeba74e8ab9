import { emptyPlan, type CutPlan } from '@/core/cuts/kind';
import { withNewSetup } from '@/core/job/allSetups';
import { demoSetups } from '@/core/job/demo';
import { FIRST_SETUP, type Cut, type Job, type OneSetup } from '@/core/job/job';
import { jobOf, oneSetup, withSetup } from '@/core/job/oneSetup';
import { Cancelled, cutKey } from '@/core/pipeline/planning';

/** Workers as the engine sees them, whose work ends when the test says so. */
interface Asked {
  readonly seat: number;
  readonly what: 'plan' | 'minutes' | 'prove' | 'compare' | 'recall' | 'keep';
  readonly setup: string;
  readonly cut?: string;
  done(value: unknown): void;
  fail(e: Error): void;
  cancelled: boolean;
  /** Given to who proves, for a first look at the field. */
  rows?: unknown;
  show?: ((glimpse: unknown) => void) | null;
}
const asked: Asked[] = [];
const begun = (seat: number, what: Asked['what'], setup: string, cut?: string): Promise<unknown> =>
  new Promise((done, fail) => asked.push({ seat, what, setup, cut, done, fail, cancelled: false }));
class TestSeat {
  constructor(readonly n: number) {}
  private readonly begin = (what: Asked['what'], setup: string, cut?: string) => begun(this.n, what, setup, cut);
  ask(work: (api: unknown, pack: (v: unknown) => unknown) => Promise<unknown>): Promise<unknown> {
    const api = {
      plan: (_: number, { job }: { job: OneSetup }, cut: string) => this.begin('plan', job.at.id, cut),
      minutes: () => this.begin('minutes', ''),
      prove: (
        _: number,
        { job }: { job: OneSetup },
        ...[, , , rows, show]: [number, unknown, unknown, Asked['rows'], Asked['show']]
      ) => {
        const done = this.begin('prove', job.at.id);
        Object.assign(asked.at(-1)!, { rows, show });
        return done;
      },
      compare: (_: number, setup: string) => this.begin('compare', setup),
      keep: (key: string) => this.begin('keep', key),
      clear: () => Promise.resolve(),
    };
    return work(api, (v) => v);
  }
  hearing = (f: unknown) => f;
  next = () => 1;
  /** Everything that was asked for so far. */
  cancel(): void {
    for (const a of asked.filter((q) => q.seat === this.n && !q.cancelled)) {
      a.cancelled = true;
      a.fail(new Cancelled());
    }
  }
}
const seats = [0, 1, 2].map((n) => new TestSeat(n));
jest.mock('./pool', () => ({
  computePool: () => ({ planners: seats, planner: seats[0], prover: seats[2] }),
  onProverLost: () => {},
}));
/** What the window itself asks for. */
const WINDOW = -1;
jest.mock('./derived', () => ({
  ...jest.requireActual<typeof import('./derived')>('./derived'),
  recallDerived: (key: string) => begun(WINDOW, 'recall', key),
  emptyDerived: () => Promise.resolve(),
}));
import { look, results, setJob, stopWork, told } from './engine';
import { askProver } from './questions';

/** What there is of the set-up that is shown, and what is at work. */
const seen = () => ({ ...results.getState(), ...results.getState().setups[told().shown ?? ''] });
const settle = async () => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};
/** What is under way. */
const now = () => asked.filter((a) => !a.cancelled && !ended.has(a));
const ended = new Set<Asked>();
const end = async (a: Asked | undefined, value?: unknown) => {
  ended.add(a!);
  if (value instanceof Error) a!.fail(value);
  else a!.done(value);
  await settle();
};
const planOf = (what: string): CutPlan => emptyPlan([{ level: 'note', text: what }]);
const proof = { files: [], findings: [] };
const planned = (cut: string) => now().find((a) => a.what === 'plan' && a.cut === cut);

/** The demo board with four cuts, and one value of one cut changed. */
const board = (): Job => jobOf(demoSetups['lock-cottage-board']());
const changed = (job: Job, cut: number, more = 1): Job => {
  const one = oneSetup(job);
  const cuts = one.cuts.map((c, k): Cut =>
    k === cut ? { ...c, values: { ...c.values, startDepth: Number(c.values.startDepth ?? 0) + more } } : c,
  );
  return withSetup(job, { ...one, cuts });
};
const all = (job: Job) => oneSetup(job).cuts.filter((c) => c.enabled);

async function proveAll(): Promise<void> {
  for (let a = now()[0]; a; a = now()[0])
    await end(a, a.what === 'plan' ? planOf('first') : a.what === 'prove' ? proof : []);
}

describe('what is worked out, and when', () => {
  beforeEach(async () => {
    stopWork();
    setJob(null, null);
    await settle();
    asked.length = 0;
    ended.clear();
    jest.restoreAllMocks();
  });

  it('calls off what is asked about proofs that a change has made old, and nothing else', async () => {
    const job = board();
    setJob(job, FIRST_SETUP);
    await settle();
    await proveAll();
    const ask = () => {
      const answer = askProver(() => begun(2, 'compare', 'asked')).then(String, (e: Error) => e.name);
      return { answer, at: asked.at(-1)! };
    };
    // What changes nothing that is proven leaves it alone.
    const first = ask();
    setJob({ ...job, notes: 'Dry the ash first.' }, FIRST_SETUP);
    await settle();
    expect(first.at.cancelled).toBe(false);
    await end(first.at, 'fits');
    expect(await first.answer).toBe('fits');
    const second = ask();
    setJob(changed(job, 1), FIRST_SETUP);
    await settle();
    expect(await second.answer).toBe('Cancelled');
    // A proof that is under way is not called off with it.
    await end(
      now().find((a) => a.what === 'plan'),
      planOf('second'),
    );
    const third = ask();
    const proving = now().find((a) => a.what === 'prove')!;
    setJob({ ...changed(job, 1), notes: 'Again.' }, FIRST_SETUP);
    await settle();
    expect([proving.cancelled, third.at.cancelled]).toEqual([false, false]);
  });

  it('works out how long a cut that is switched off would take, once, and only as long as there is nothing else to do', async () => {
    const one = oneSetup(board());
    const off = one.cuts[2].id;
    const switched = (job: Job, on: boolean): Job => {
      const s = oneSetup(job);
      return withSetup(job, { ...s, cuts: s.cuts.map((c) => (c.id === off ? { ...c, enabled: on } : c)) });
    };
    const job = switched(board(), false);
    setJob(job, FIRST_SETUP);
    await settle();
    const due = async () => {
      for (let a = now()[0]; a && a.cut !== off && a.what !== 'minutes'; a = now()[0])
        await end(a, a.what === 'plan' ? planOf('on') : a.what === 'prove' ? proof : []);
    };
    expect(planned(off)).toBeUndefined();
    await due();
    expect(seen()).toMatchObject({ proof: { compared: true }, planning: null, proving: null });
    expect(now().map((a) => [a.what, a.cut])).toEqual([['plan', off]]);
    // Another change comes first.
    const next = changed(job, 0);
    setJob(next, FIRST_SETUP);
    await settle();
    expect(planned(off)).toBeUndefined();
    await due();
    await end(planned(off), planOf('off'));
    await end(
      now().find((a) => a.what === 'minutes'),
      12,
    );
    expect(seen().cuts[off].would?.minutes).toBe(12);
    expect(told().fresh[FIRST_SETUP].cuts).toContain(off);
    expect(now()).toEqual([]);
    // Another machine takes another time over the same ways.
    const s = oneSetup(next);
    const slower = withSetup(next, { ...s, run: { ...s.run, machine: { ...s.run.machine, factor: 2 } } });
    setJob(slower, FIRST_SETUP);
    await settle();
    await due();
    expect(now().map((a) => a.what)).toEqual(['minutes']);
    await end(now()[0], 24);
    expect(seen().cuts[off]).toMatchObject({ would: { minutes: 24 }, plan: planOf('off') });
    // Switched on it is as it was planned.
    setJob(switched(slower, true), FIRST_SETUP);
    await settle();
    expect(now().map((a) => a.what)).toEqual(['prove']);
    // One that cannot be planned at all is left alone.
    const quiet = jest.spyOn(console, 'error').mockImplementation(() => {});
    setJob(changed(slower, 2), FIRST_SETUP);
    await settle();
    await due();
    await end(planned(off), new Error('gone'));
    expect(now()).toEqual([]);
    expect(seen().error).toBe('');
    expect(quiet).toHaveBeenCalled();
  });

  it('gives each free worker a cut, then proves, then holds the proof against what is wanted', async () => {
    const job = board();
    setJob(job, FIRST_SETUP);
    await settle();
    expect(now().map((a) => [a.what, a.seat])).toEqual([
      ['plan', 0],
      ['plan', 1],
      ['plan', 2],
    ]);
    expect(new Set(now().map((a) => a.cut)).size).toBe(3);
    expect(Object.keys(seen().planning!)).toHaveLength(3);
    const fourth = all(job)
      .map((c) => c.id)
      .find((id) => !planned(id))!;
    await end(now()[1], planOf('a'));
    expect(planned(fourth)!.seat).toBe(1);
    while (now().some((a) => a.what === 'plan')) await end(now()[0], planOf('b'));
    expect(now().map((a) => [a.what, a.seat])).toEqual([['prove', 2]]);
    await end(now()[0], proof);
    expect(now().map((a) => a.what)).toEqual(['compare']);
    await end(now()[0], []);
    expect(now()).toEqual([]);
    expect(seen()).toMatchObject({
      planning: null,
      proving: null,
      comparing: false,
      proof: { compared: true },
    });
  });

  it('gives up what a change outdates, and nothing else; what comes late is not taken for fresh', async () => {
    const job = board();
    setJob(job, FIRST_SETUP);
    await settle();
    const [first, second, third] = now();
    const k = all(job).findIndex((c) => c.id === second.cut);
    const next = changed(
      job,
      oneSetup(job).cuts.findIndex((c) => c.id === all(job)[k].id),
    );
    setJob(next, FIRST_SETUP);
    await settle();
    expect([first.cancelled, second.cancelled, third.cancelled]).toEqual([false, true, false]);
    // It is planned anew, where it was before.
    expect(planned(second.cut!)!.seat).toBe(second.seat);
    await end(first, planOf('first'));
    await end(planned(second.cut!), planOf('second, changed'));
    const one = oneSetup(next);
    expect(
      cutKey(
        one,
        one.cuts.find((c) => c.id === second.cut)!,
      ),
    ).toBe(seen().cuts[second.cut!].key);
    expect(told().fresh[FIRST_SETUP].cuts).toContain(second.cut);
    setJob(job, FIRST_SETUP);
    expect(told().fresh[FIRST_SETUP].cuts).not.toContain(second.cut);
    setJob(next, FIRST_SETUP);
    expect(seen().cuts[second.cut!].plan.remarks[0].text).toBe('second, changed');
    await proveAll();
  });

  it('plans a changed cut where it was planned before, and no other', async () => {
    const job = board();
    setJob(job, FIRST_SETUP);
    await settle();
    const where = new Map<string, number>();
    for (let a = now()[0]; a; a = now()[0]) {
      for (const q of now()) if (q.cut) where.set(q.cut, q.seat);
      await end(a, a.what === 'plan' ? planOf('x') : a.what === 'prove' ? proof : []);
    }
    for (const [n, cut] of oneSetup(job).cuts.entries()) {
      if (!cut.enabled || !('startDepth' in cut.values)) continue;
      setJob(changed(job, n, 0.5), FIRST_SETUP);
      await settle();
      expect(now().map((a) => [a.what, a.cut, a.seat])).toEqual([['plan', cut.id, where.get(cut.id)]]);
      await proveAll();
      setJob(job, FIRST_SETUP);
      await settle();
      await proveAll();
    }
  });

  it('goes on with the others when one fails, and says so', async () => {
    const job = board();
    jest.spyOn(console, 'error').mockImplementation(() => {});
    setJob(job, FIRST_SETUP);
    await settle();
    const [first, second] = now();
    await end(first, new Error('broken'));
    expect(seen().error).toMatch(/could not be worked out/);
    await end(second, planOf('second'));
    expect(seen().cuts[second.cut!]).toBeDefined();
    // The next change begins anew.
    setJob(changed(job, 0), FIRST_SETUP);
    await settle();
    expect(seen().error).toBe('');
    await proveAll();
    expect(seen().proof).not.toBeNull();
  });

  it('works out what is shown first, whatever is under way for other set-ups', async () => {
    const { job, id } = withNewSetup(board(), FIRST_SETUP, 'blank', () => 'second');
    const one = oneSetup(job);
    const two = withSetup(job, {
      ...oneSetup(job, id),
      items: one.items.map((i) => ({ ...i, id: `${i.id}2` })),
      cuts: one.cuts.slice(0, 2).map((c) => ({ ...c, id: `${c.id}2`, items: c.items.map((i) => `${i}2`) })),
    });
    setJob(two, FIRST_SETUP);
    await settle();
    expect(new Set(now().map((a) => a.setup))).toEqual(new Set([FIRST_SETUP]));
    setJob(two, id);
    await settle();
    expect(new Set(now().map((a) => a.setup))).toEqual(new Set([id]));
    await proveAll();
    expect(Object.keys(seen().setups).sort()).toEqual([FIRST_SETUP, id].sort());
    expect(asked.filter((a) => a.what === 'prove').map((a) => a.setup)).toEqual([id, FIRST_SETUP]);
  });

  it('holds a proof against what is wanted later, where another set-up was looked at first', async () => {
    const { job, id } = withNewSetup(board(), FIRST_SETUP, 'none', () => 'fresh');
    const one = oneSetup(job);
    const two = withSetup(job, {
      ...oneSetup(job, id),
      items: one.items.map((i) => ({ ...i, id: `${i.id}2` })),
      cuts: one.cuts.slice(0, 1).map((c) => ({ ...c, id: `${c.id}2`, items: c.items.map((i) => `${i}2`) })),
    });
    setJob(two, FIRST_SETUP);
    await settle();
    while (now().some((a) => a.what === 'plan')) await end(now()[0], planOf('a'));
    await end(now()[0], { ...proof });
    expect(now().map((a) => [a.what, a.setup])).toEqual([['compare', FIRST_SETUP]]);
    // Another is looked at before the first has been compared: that is given up, and made up for in the end.
    setJob(two, id);
    await settle();
    const done: string[] = [];
    for (let a = now()[0]; a; a = now()[0]) {
      done.push(`${a.what} ${a.setup}`);
      await end(a, a.what === 'plan' ? planOf('b') : a.what === 'prove' ? { ...proof } : []);
    }
    expect(done).toEqual([`plan ${id}`, `prove ${id}`, `compare ${id}`, `compare ${FIRST_SETUP}`]);
    for (const setup of [FIRST_SETUP, id]) expect(seen().setups[setup].proof).toMatchObject({ compared: true });
  });

  it('shows the field coarsely until there is a first proof, and never instead of one', async () => {
    const job = board();
    setJob(job, FIRST_SETUP);
    await settle();
    while (now().some((a) => a.what === 'plan')) await end(now()[0], planOf('a'));
    // Nobody looks: nobody is told.
    expect(now()[0].show).toBeNull();
    const rows = { y0: 20, y1: 60 };
    look(rows);
    setJob(changed(job, 1), FIRST_SETUP);
    await settle();
    while (now().some((a) => a.what === 'plan')) await end(now()[0], planOf('a'));
    const first = now()[0];
    expect(first.rows).toEqual(rows);
    const glimpse = { coarse: true };
    first.show!(glimpse);
    expect(seen()).toMatchObject({ glimpse, proof: null });
    // What another change has outdated says nothing any more.
    setJob(changed(job, 0), FIRST_SETUP);
    await settle();
    first.show!({ late: true });
    expect(seen().glimpse).toBe(glimpse);
    while (now().some((a) => a.what === 'plan')) await end(now()[0], planOf('b'));
    await end(now()[0], { ...proof });
    expect(seen()).toMatchObject({ glimpse: null, proof });
    await end(now()[0], []);
    setJob(job, FIRST_SETUP);
    await settle();
    while (now().some((a) => a.what === 'plan')) await end(now()[0], planOf('c'));
    expect(now().map((a) => [a.what, a.show])).toEqual([['prove', null]]);
    await proveAll();
    look(null);
  });

  it('a comparison that never comes to an end is not begun for ever', async () => {
    const job = board();
    setJob(job, FIRST_SETUP);
    await settle();
    let compared = 0;
    for (let a = now()[0]; a; a = now()[0]) {
      if (a.what === 'compare') compared++;
      await end(a, a.what === 'plan' ? planOf('a') : a.what === 'prove' ? { ...proof } : new Cancelled());
    }
    expect(compared).toBe(3);
  });

  it('shows what was kept, teaches the prover what is needed before it is, and keeps what stands', async () => {
    jest.replaceProperty(process, 'env', { ...process.env, NODE_ENV: 'production', MIRVAK_STAMP: 'make' });
    // Three set-ups, each after the one before; nothing is kept of the third.
    let n = 0;
    const fresh = () => `fresh${++n}`;
    const one = withNewSetup(board(), FIRST_SETUP, 'x', fresh);
    const two = withNewSetup(one.job, one.id, 'none', fresh);
    const ids = [FIRST_SETUP, one.id, two.id];
    const some = all(board()).slice(0, 2);
    const job = ids
      .slice(1)
      .reduce(
        (j, id) =>
          withSetup(j, { ...oneSetup(j, id), cuts: some.map((c) => ({ ...c, id: `${c.id} ${id}`, items: [] })) }),
        two.job,
      );
    setJob(job, FIRST_SETUP);
    await settle();
    for (const id of ids) {
      const s = oneSetup(job, id);
      const ask = now()[0];
      expect([ask.what, ask.setup.startsWith('make ')]).toEqual(['recall', true]);
      const plans = s.cuts
        .filter((c) => c.enabled)
        .map((c) => ({ cut: c.id, key: cutKey(s, c), plan: planOf('kept') }));
      await end(ask, id === two.id ? null : { plans, proof: { ...proof, compared: true } });
      if (id !== two.id) expect(seen().setups[id].proof).toMatchObject({ compared: true });
    }
    expect(seen().proof).not.toBeNull();
    const done: string[] = [];
    for (let a = now()[0]; a; a = now()[0]) {
      done.push(a.what === 'plan' ? `plan ${a.setup}` : `${a.what} ${a.setup}`);
      // What is shown already is proven without a word.
      if (a.what === 'prove' && a.setup !== two.id) expect(seen().proving).toBeNull();
      await end(a, a.what === 'plan' ? planOf('new') : a.what === 'prove' ? proof : []);
    }
    expect(done).toEqual([
      `plan ${two.id}`,
      `plan ${two.id}`,
      `prove ${ids[0]}`,
      `prove ${ids[1]}`,
      `prove ${two.id}`,
      `compare ${two.id}`,
    ]);
    // Left: what would be kept after a rest is kept at once.
    setJob(null, null);
    await settle();
    expect(now().map((a) => a.what)).toEqual(['keep']);
    await end(now()[0]);
  });
});
