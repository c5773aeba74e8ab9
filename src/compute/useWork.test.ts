import fc from 'fast-check';
import { emptyPlan } from '@/core/cuts/kind';
import { demoJobs } from '@/core/job/demo';
import type { Job, OneSetup } from '@/core/job/job';
import { eachSetup, oneSetup, withSetup } from '@/core/job/oneSetup';
import { paintIds } from '@/core/cutters/paints';
import { keyOf, proofKeyOf } from './keys';
import { hear, isFresh, isUpToDate, noteJob, noteKept, noteLost, useWork } from './useWork';
import type { ProofResult } from './protocol';
import { NO_WORK, NOTHING, type SetupWork } from './work';

/** What a maker may change, of the set-up with a number. */
const changes: Record<string, (s: OneSetup, n: number) => OneSetup> = {
  'a value of a cut': (s, n) => ({
    ...s,
    cuts: s.cuts.map((c, k) => (k === n % s.cuts.length ? { ...c, values: { ...c.values, startDepth: n / 10 } } : c)),
  }),
  'a name of a cut': (s, n) => ({
    ...s,
    cuts: s.cuts.map((c, k) => (k === n % s.cuts.length ? { ...c, name: `${n}` } : c)),
  }),
  'a switch of a cut': (s, n) => ({
    ...s,
    cuts: s.cuts.map((c, k) => (k === n % s.cuts.length ? { ...c, enabled: !c.enabled } : c)),
  }),
  'a speed of a cut': (s, n) => ({
    ...s,
    cuts: s.cuts.map((c, k) =>
      k === n % s.cuts.length ? { ...c, overrides: { ...c.overrides, [s.cutters[0].id]: { feed: 100 + n } } } : c,
    ),
  }),
  'the order of cuts': (s) => ({ ...s, cuts: [...s.cuts].reverse() }),
  'the place of an item': (s, n) => ({
    ...s,
    items: s.items.map((i, k) => (k === n % s.items.length ? { ...i, x: i.x + 1 + n } : i)),
  }),
  'a value of an item': (s, n) => ({
    ...s,
    items: s.items.map((i, k) => (k === n % s.items.length ? { ...i, values: { ...i.values, text: `${n}` } } : i)),
  }),
  'what an item is called': (s, n) => ({
    ...s,
    items: s.items.map((i, k) => (k === n % s.items.length ? { ...i, name: `${n}` } : i)),
  }),
  'the blank': (s, n) => ({ ...s, blank: { ...s.blank, thickness: 12 + n } }),
  'the paint': (s, n) => ({ ...s, blank: { ...s.blank, paint: paintIds[n % paintIds.length] } }),
  'a cutter': (s, n) => ({
    ...s,
    cutters: s.cutters.map((c, k) => (k === n % s.cutters.length ? { ...c, teeth: 1 + (n % 4) } : c)),
  }),
  'the machine': (s, n) => ({ ...s, run: { ...s.run, machine: { ...s.run.machine, rapid: 1000 + n } } }),
  'the clamps': (s, n) => ({ ...s, clamps: [{ x0: -9, y0: n, x1: -2, y1: n + 9, height: 12 }] }),
  notes: (s, n) => ({ ...s, notes: `${n}` }),
  nothing: (s) => ({ ...s }),
};

/** An engine that has worked out a job whole: what it says of another one, given with a number. */
function said(done: Job, of: Job, number: number) {
  const setups: Record<string, SetupWork> = {};
  const fresh: Record<string, { cuts: string[]; all: boolean }> = {};
  for (const s of eachSetup(of)) {
    const was = oneSetup(done, s.at.id);
    setups[s.at.id] = {
      ...NOTHING,
      cuts: Object.fromEntries(was.cuts.map((c) => [c.id, { key: keyOf(was, c), plan: emptyPlan([]) }])),
    };
    fresh[s.at.id] = {
      cuts: s.cuts.filter((c) => setups[s.at.id].cuts[c.id]?.key === keyOf(s, c)).map((c) => c.id),
      all: proofKeyOf(done, was, 'fine') === proofKeyOf(of, s, 'fine'),
    };
  }
  return { ...NO_WORK, setups, fresh, of: number, shown: of.setups[0].id };
}

describe('what is shown as up to date', () => {
  it('is so by the keys of the engine, whatever was changed since it has said something; and all of it that is, once it has', () => {
    const step = fc.tuple(fc.constantFrom(...Object.keys(changes)), fc.nat({ max: 20 }), fc.boolean(), fc.boolean());
    let fresh = 0;
    let left = 0;
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 8 }), (steps) => {
        noteJob(null, null);
        const first = demoJobs['keeper-plate']();
        let job = first;
        let number = noteJob(job, job.setups[0].id);
        hear(said(first, job, number));
        for (const [what, n, second, answered] of steps) {
          const at = job.setups[second ? job.setups.length - 1 : 0].id;
          job = withSetup(job, changes[what](oneSetup(job, at), n));
          number = noteJob(job, job.setups[0].id);
          if (answered) hear(said(first, job, number));
          for (const s of eachSetup(job)) {
            const was = oneSetup(first, s.at.id);
            for (const c of s.cuts) {
              const before = was.cuts.find((b) => b.id === c.id)!;
              const same = keyOf(was, before) === keyOf(s, c);
              if (answered) expect(isFresh(s, c.id)).toBe(same);
              else if (isFresh(s, c.id)) expect(same).toBe(true);
              if (isFresh(s, c.id)) fresh++;
              else left++;
            }
            const same = proofKeyOf(first, was, 'fine') === proofKeyOf(job, s, 'fine');
            if (answered) expect(isUpToDate(job, s.at.id)).toBe(same);
            else if (isUpToDate(job, s.at.id)) expect(same).toBe(true);
          }
        }
      }),
      { numRuns: 150 },
    );
    // It can see both.
    expect(fresh).toBeGreaterThan(100);
    expect(left).toBeGreaterThan(100);
  });

  it('is what was not touched, before the engine has said a word', () => {
    const job = demoJobs['lock-cottage-board']();
    noteJob(null, null);
    const id = job.setups[0].id;
    hear(said(job, job, noteJob(job, id)));
    const one = oneSetup(job);
    const next = withSetup(job, changes['a value of a cut'](one, 1));
    noteJob(next, id);
    expect(oneSetup(next).cuts.map((c) => isFresh(oneSetup(next), c.id))).toEqual(one.cuts.map((_, k) => k !== 1));
    expect(isUpToDate(next, id)).toBe(false);
    const renamed = withSetup(job, changes['what an item is called'](one, 0));
    noteJob(renamed, id);
    expect(isUpToDate(renamed, id)).toBe(true);
    useWork.setState({ quality: 'quick' });
    expect(isUpToDate(renamed, id)).toBe(false);
    useWork.setState({ quality: 'fine' });
  });

  it('is all of it when paint is chosen: nothing that is cut depends on it', () => {
    const job = demoJobs['keeper-plate']();
    const id = job.setups[0].id;
    noteJob(null, null);
    hear(said(job, job, noteJob(job, id)));
    const painted = withSetup(job, changes['the paint'](oneSetup(job, id), 1));
    expect(oneSetup(painted, id).blank.paint).not.toBe(oneSetup(job, id).blank.paint);
    noteJob(painted, id);
    expect(isUpToDate(painted, id)).toBe(true);
    expect(proofKeyOf(painted, oneSetup(painted, id), 'fine')).toBe(proofKeyOf(job, oneSetup(job, id), 'fine'));
    for (const c of oneSetup(painted, id).cuts) expect(isFresh(oneSetup(painted, id), c.id)).toBe(true);
  });

  it('is nothing of a job that was closed, whatever is said of it later', () => {
    const job = demoJobs['lock-cottage-board']();
    const id = job.setups[0].id;
    const number = noteJob(job, id);
    noteJob(null, null);
    hear(said(job, job, number));
    expect(useWork.getState()).toMatchObject({ setups: {}, cuts: {}, said: null });
    noteJob(job, id);
    hear(said(job, job, number));
    expect(isUpToDate(job, id)).toBe(false);
  });

  it('is of the set-up that is shown at once, and what is at work of no other', () => {
    const job = demoJobs['keeper-plate']();
    expect(job.setups.length).toBeGreaterThan(1);
    const [a, b] = job.setups;
    noteJob(null, null);
    hear({ ...said(job, job, noteJob(job, a.id)), proving: 0.4 });
    expect(useWork.getState().proving).toBe(0.4);
    expect(Object.keys(useWork.getState().cuts)).toEqual(a.cuts.map((c) => c.id));
    const number = noteJob(job, b.id);
    expect(useWork.getState().proving).toBeNull();
    expect(Object.keys(useWork.getState().cuts)).toEqual(b.cuts.map((c) => c.id));
    // Said before the engine knew that another one is looked at.
    hear({ ...said(job, job, number - 1), proving: 0.6 });
    expect(useWork.getState().proving).toBeNull();
    expect(Object.keys(useWork.getState().cuts)).toEqual(b.cuts.map((c) => c.id));
  });

  describe('from before the engine has a proof of its own', () => {
    const job = demoJobs['keeper-plate']();
    const [a, b] = job.setups.map((s) => s.id);
    const proof = (moves: number) => ({ moves }) as unknown as ProofResult;
    const work = (moves: number): SetupWork => ({
      ...NOTHING,
      cuts: { old: { key: 'k', plan: emptyPlan([]) } },
      proof: proof(moves),
      proofKey: 'k',
    });
    /** What an engine says that has only just got the job. */
    const begun = (of: number) => ({
      ...NO_WORK,
      shown: a,
      of,
      setups: { [a]: NOTHING },
      fresh: { [a]: { cuts: [], all: false } },
    });
    const moves = () => useWork.getState().proof?.moves;
    beforeEach(() => noteJob(null, null));

    it('is what was kept, through what the engine says at first, until it has its own', () => {
      const number = noteJob(job, a);
      noteKept(number, a, 'fine', work(1));
      expect([moves(), isUpToDate(job, a), isUpToDate(job, b)]).toEqual([1, true, false]);
      hear(begun(number));
      expect([moves(), isUpToDate(job, a)]).toEqual([1, true]);
      noteKept(number, b, 'fine', work(2));
      expect([useWork.getState().setups[b].proof?.moves, isUpToDate(job, b)]).toEqual([2, true]);
      hear({ ...said(job, job, number), setups: { [a]: work(3) } });
      expect([moves(), isUpToDate(job, a)]).toEqual([3, true]);
      hear({ ...begun(number), setups: { [a]: { ...work(3), proof: null } } });
      expect(moves()).toBeUndefined();
    });

    it('is dimmed by what is changed meanwhile, and by what is worked out anew', () => {
      const board = demoJobs['lock-cottage-board']();
      const one = oneSetup(board);
      const { id } = one.at;
      const here = { ...begun(0), shown: id, fresh: {}, setups: {} };
      noteKept(noteJob(board, id), id, 'fine', work(1));
      const next = withSetup(board, changes['a value of a cut'](one, 1));
      const of = noteJob(next, id);
      const fresh = () => oneSetup(next).cuts.map((c) => isFresh(oneSetup(next), c.id));
      const others = one.cuts.map((_, k) => k !== 1);
      expect([isUpToDate(next, id), fresh()]).toEqual([false, others]);
      hear({ ...here, of });
      expect([moves(), isUpToDate(next, id), fresh()]).toEqual([1, false, others]);
      hear({ ...here, of, setups: { [id]: { ...NOTHING, cuts: { [one.cuts[0].id]: work(2).cuts.old } } } });
      expect([moves(), fresh()]).toEqual([1, one.cuts.map(() => false)]);
      hear({ ...here, of: noteJob(board, id) });
      expect(isUpToDate(board, id)).toBe(true);
      useWork.setState({ quality: 'quick' });
      hear({ ...here, of: noteJob(board, id), quality: 'quick' });
      expect(isUpToDate(board, id)).toBe(false);
      useWork.setState({ quality: 'fine' });
    });

    it('is what was said by an engine that is gone', () => {
      const number = noteJob(job, a);
      hear({ ...said(job, job, number), setups: { [a]: work(1), [b]: { ...work(2), proof: null } } });
      noteLost();
      hear(begun(number));
      expect([moves(), isUpToDate(job, a), isUpToDate(job, b)]).toEqual([1, true, false]);
    });

    it('is nothing that comes late: for a job that was closed, or behind a proof', () => {
      const number = noteJob(job, a);
      noteJob(null, null);
      noteKept(number, a, 'fine', work(1));
      expect(useWork.getState().proof).toBeNull();
      const again = noteJob(job, a);
      hear({ ...said(job, job, again), setups: { [a]: work(2) } });
      noteKept(again, a, 'fine', work(1));
      expect(moves()).toBe(2);
      // Nor of set-ups that are no more.
      const less = { ...job, setups: job.setups.slice(0, 1) };
      noteKept(again, b, 'fine', work(3));
      hear({ ...begun(noteJob(less, a)), setups: { [a]: work(2) } });
      expect(Object.keys(useWork.getState().setups)).toEqual([a]);
    });
  });
});
