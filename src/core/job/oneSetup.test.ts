import fc from 'fast-check';
import { newItem } from '../artwork/item';
import { alike } from '../merge/alike';
import { demoJobs } from './demo';
import { FIRST_SETUP, jobSchema, tooMany, type Job } from './job';
import { readJob } from './migrate';
import { eachSetup, newJob, oneSetup, setupWith, withSetup } from './oneSetup';
import {
  sourcesOf,
  startingAt,
  startingFrom,
  whyNotAt,
  withCopy,
  withPlace,
  withNewSetup,
  withoutSetup,
  type Beginning,
} from './allSetups';

let ids = 0;
const freshId = () => `f${++ids}`;
const box = (id: string, x = 0) =>
  newItem({ id, name: id, kind: 'rectangle', x, values: { width: 10, height: 5, corner: 'square', radius: 1 } });

type Step = (job: Job) => Job;
const nth = (job: Job, n: number): string => job.setups[n % job.setups.length].id;
/** What a maker may do with set-ups, in any order. */
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.tuple(fc.nat(5), fc.constantFrom<Beginning>('x', 'y', 'none', 'blank')).map(
    ([n, how]): Step =>
      (j) =>
        withNewSetup(j, nth(j, n), how, freshId).job,
  ),
  fc.nat(5).map(
    (n): Step =>
      (j) =>
        withCopy(j, nth(j, n), freshId).job,
  ),
  fc.nat(5).map(
    (n): Step =>
      (j) =>
        withoutSetup(j, nth(j, n)),
  ),
  fc.tuple(fc.nat(5), fc.integer({ min: -1, max: 6 })).map(
    ([n, by]): Step =>
      (j) =>
        withPlace(j, nth(j, n), by),
  ),
  fc
    .tuple(fc.nat(5), fc.nat(5), fc.constantFrom('none' as const, 'x' as const, 'y' as const))
    .map(([n, k, turned]): Step => (j) => {
      const sources = sourcesOf(j, nth(j, n));
      return startingAt(j, nth(j, n), k < sources.length ? { setup: sources[k].id, turned } : null);
    }),
  fc.tuple(fc.nat(5), fc.nat(9)).map(([n, x]): Step => (j) => {
    const one = oneSetup(j, nth(j, n));
    return withSetup(j, { ...one, items: [...one.items, box(freshId(), x)] });
  }),
  fc.tuple(fc.nat(5), fc.integer({ min: 20, max: 40 })).map(([n, width]): Step => (j) => {
    const one = oneSetup(j, nth(j, n));
    return withSetup(j, { ...one, blank: { ...one.blank, width } });
  }),
);
const worked = fc.array(step, { maxLength: 14 }).map((steps) => steps.reduce((j, s) => s(j), newJob('Lock 7')));

describe('a job seen from one of its set-ups', () => {
  it('is the very same when nothing was changed there', () => {
    fc.assert(
      fc.property(worked, (job) => {
        for (const one of eachSetup(job)) {
          expect(withSetup(job, one)).toBe(job);
          expect(withSetup(job, { ...one, blank: { ...one.blank } })).toBe(job);
          expect(oneSetup(job, one.at.id)).toBe(one);
        }
      }),
    );
  });
  it('takes back what was changed there, and leaves the others as they are but for the size of a blank that they share', () => {
    fc.assert(
      fc.property(worked, fc.nat(5), (job, n) => {
        const one = oneSetup(job, nth(job, n));
        const changed = {
          ...one,
          name: 'Lock 8',
          blank: { ...one.blank, thickness: 7.5, safeHeight: 33 },
          items: [...one.items, box(freshId())],
        };
        const next = withSetup(job, changed);
        expect(oneSetup(next, one.at.id)).toEqual(changed);
        for (const other of eachSetup(job)) {
          if (other.at.id === one.at.id) continue;
          expect(setupWith(next, other.at.id)).toBe(setupWith(job, other.at.id));
          const shares = setupWith(job, other.at.id).blank === setupWith(job, one.at.id).blank;
          expect(oneSetup(next, other.at.id).blank.thickness).toBe(shares ? 7.5 : other.blank.thickness);
          expect(oneSetup(next, other.at.id).blank.safeHeight).toBe(other.blank.safeHeight);
        }
      }),
    );
  });
  it('is its first set-up where none has the id', () => expect(oneSetup(newJob('x'), 'gone').at.id).toBe(FIRST_SETUP));
});

describe('set-ups', () => {
  it('stay a sound job whatever is done with them, in a file too', () => {
    fc.assert(
      fc.property(worked, (job) => {
        const r = jobSchema.safeParse(job);
        expect(r.error?.issues ?? []).toEqual([]);
        expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
        // Every blank is some set-up's.
        for (const b of job.blanks) expect(job.setups.some((s) => s.blank === b.id)).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
  it('are copied with all that is on them, under ids of their own', () => {
    const job = demoJobs['lock-cottage-board']();
    const { job: two, id } = withCopy(job, job.setups[0].id, freshId);
    const [a, b] = [job.setups[0], two.setups.find((s) => s.id === id)!];
    const idsIn = (s: typeof a) => [s.items, s.cuts].flatMap((l) => l.map((v) => v.id));
    expect(idsIn(b).filter((k) => idsIn(a).includes(k))).toEqual([]);
    // The same by name: what lies on what, and what is cut of it.
    const said = (s: typeof a) => {
      const name = new Map([...s.layers, ...s.groups, ...s.items].map((v) => [v.id, v.name]));
      return [
        s.items.map((i) => [i.name, i.x, name.get(i.layer), i.group && name.get(i.group)]),
        s.cuts.map((c) => [c.name, c.items.map((i) => name.get(i))]),
      ];
    };
    expect(said(b)).toEqual(said(a));
    expect(two.blanks).toHaveLength(2);
  });
  it('run no earlier than what they start from', () => {
    const { job, id } = withNewSetup(newJob('x'), FIRST_SETUP, 'x', freshId);
    expect(whyNotAt(job, id, 0)).toMatch(/starts from what "Set-up 1" leaves/);
    expect(withPlace(job, id, 0)).toBe(job);
    expect(whyNotAt(job, FIRST_SETUP, 1)).toMatch(/starts from/);
    const free = startingAt(job, id, null);
    expect(withPlace(free, id, 0).setups.map((s) => s.id)).toEqual([id, FIRST_SETUP]);
  });
  it('start from an uncut blank, or from what lies before it, when their source is taken out', () => {
    const a = withNewSetup(newJob('x'), FIRST_SETUP, 'none', freshId);
    const b = withNewSetup(a.job, a.id, 'y', freshId);
    expect(startingFrom(b.job, a.id).map((s) => s.id)).toEqual([b.id]);
    const out = withoutSetup(b.job, a.id);
    expect(out.setups.find((s) => s.id === b.id)!.after).toEqual({ setup: FIRST_SETUP, turned: 'y' });
    expect(withoutSetup(out, FIRST_SETUP).setups.map((s) => s.after)).toEqual([null]);
    const last = withoutSetup(withoutSetup(out, FIRST_SETUP), b.id);
    expect(last.setups).toHaveLength(1);
  });
  it.each<[string, (job: Job) => void, RegExp]>([
    ['a blank that is not there', (j) => void (j.setups[1].blank = 'gone'), /lies on a blank that is not there/],
    [
      'a source that comes after it',
      (j) => void j.setups.reverse(),
      /starts from a set-up that does not come before it/,
    ],
    ['itself as its source', (j) => void (j.setups[1].after!.setup = j.setups[1].id), /does not come before it/],
    [
      'a source on another blank',
      (j) => void (j.blanks.push({ ...j.blanks[0], id: 'b' }), (j.setups[1].blank = 'b')),
      /starts from a set-up of another blank/,
    ],
    [
      'an item twice, in two set-ups',
      (j) => j.setups.forEach((s) => s.items.push(box('same'))),
      /Two items have the id "same"/,
    ],
    ['no set-up', (j) => void (j.setups = []), /setups/],
  ])('with %s are refused by name', (_what, spoil, words) => {
    const { job } = withNewSetup(newJob('x'), FIRST_SETUP, 'x', freshId);
    const bad = structuredClone(job);
    spoil(bad);
    expect(() => readJob(bad)).toThrow(words);
  });
  it('are bounded, each for itself', () => {
    const { job, id } = withNewSetup(newJob('x'), FIRST_SETUP, 'x', freshId);
    const one = oneSetup(job, id);
    const guides = Array.from({ length: 201 }, (_, k) => ({ axis: 'x' as const, at: k }));
    expect(tooMany(job, withSetup(job, { ...one, guides }))).toMatch(/at most 200 guides/);
    expect(tooMany(job, withSetup(job, { ...one, guides: guides.slice(0, 200) }))).toBeNull();
    expect(alike(job, structuredClone(job))).toBe(true);
  });
});

describe('the order of running', () => {
  it('is any in which each set-up comes after what it starts from, and a place that cannot be is refused by name', () => {
    fc.assert(
      fc.property(worked, fc.nat(5), fc.integer({ min: -1, max: 7 }), (job, n, to) => {
        const id = nth(job, n);
        const why = whyNotAt(job, id, to);
        const next = withPlace(job, id, to);
        expect(
          next.setups.every((s, k) => !s.after || next.setups.slice(0, k).some((q) => q.id === s.after!.setup)),
        ).toBe(true);
        expect([...next.setups].sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual(
          [...job.setups].sort((a, b) => (a.id < b.id ? -1 : 1)),
        );
        if (why) expect(next).toBe(job);
        else expect(next.setups[to].id).toBe(id);
        // What starts from nothing and has nothing start from it goes anywhere.
        const loose = !job.setups.some((s) => s.id === id && s.after) && !startingFrom(job, id).length;
        if (loose && to >= 0 && to < job.setups.length) expect(why).toBeNull();
      }),
    );
  });
});
