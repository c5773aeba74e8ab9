import fc from 'fast-check';
import { newItem } from '../artwork/item';
import { demoJobs } from '../job/demo';
import { FIRST_SETUP, jobSchema, newOneSetup, type Job, type OneSetup } from '../job/job';
import { jobOf, oneSetup, withSetup } from '../job/oneSetup';
import { withNewSetup, withoutSetup } from '../job/allSetups';
import { alike } from './alike';
import { mergeJobs, placeOf, sharing, type Side } from './job';
import { wordsOf } from './words';

const box = (id: string, x = 0) =>
  newItem({ id, name: id, kind: 'rectangle', x, values: { width: 10, height: 5, corner: 'square', radius: 1 } });
/** A job of one set-up, changed as that is seen. */
const on = (job: Job, change: (one: OneSetup) => OneSetup): Job => withSetup(job, change(oneSetup(job)));
const base: Job = jobOf({ ...newOneSetup('Lock 7'), items: ['a', 'b', 'c', 'd'].map((id, k) => box(id, 20 * k)) });
const movedOn = (one: OneSetup, id: string, by: Record<string, unknown>): OneSetup => ({
  ...one,
  items: one.items.map((i) => (i.id === id ? { ...i, ...by } : i)),
});
const moved = (job: Job, id: string, by: Record<string, unknown>): Job => on(job, (one) => movedOn(one, id, by));

const idsOf = (job: Job): string[] => oneSetup(job).items.map((i) => i.id);

/** Any version of the job: things moved, resized, taken out, put in, put in another order, the blank changed. */
type Change = {
  readonly what: 'x' | 'y' | 'out' | 'in' | 'swap' | 'blank' | 'width';
  readonly at: number;
  readonly to: number;
};
const change: fc.Arbitrary<Change> = fc.record({
  what: fc.constantFrom('x', 'y', 'out', 'in', 'swap', 'blank', 'width'),
  at: fc.nat(3),
  to: fc.integer({ min: 1, max: 4 }),
});
const changed = (job: Job, changes: readonly Change[], who: string): Job =>
  on(job, (one) => changedOn(one, changes, who));
function changedOn(one: OneSetup, changes: readonly Change[], who: string): OneSetup {
  let j = one;
  for (const { what, at, to } of changes) {
    const id = 'abcd'[at];
    const there = j.items.some((i) => i.id === id);
    if (what === 'x' || what === 'y') j = movedOn(j, id, { [what]: to });
    else if (what === 'width')
      j = { ...j, items: j.items.map((i) => (i.id === id ? { ...i, values: { ...i.values, width: to } } : i)) };
    else if (what === 'out') j = { ...j, items: j.items.filter((i) => i.id !== id) };
    else if (what === 'in' && !j.items.some((i) => i.id === `${who}${at}`))
      j = { ...j, items: [...j.items.slice(0, to), box(`${who}${at}`, to), ...j.items.slice(to)] };
    else if (what === 'swap' && there)
      j = { ...j, items: [...j.items.filter((i) => i.id !== id), j.items.find((i) => i.id === id)!] };
    else if (what === 'blank')
      j = { ...j, blank: { ...j.blank, [['width', 'height', 'thickness', 'clearance'][at]]: 10 * to } };
  }
  return j;
}
const version = (who: string) => fc.array(change, { maxLength: 5 }).map((c) => changed(base, c, who));

/** Every value in a job by its place; things in lists go by their ids. */
function leaves(v: unknown, path: string, out: Map<string, unknown>): Map<string, unknown> {
  if (Array.isArray(v)) v.forEach((q, i) => leaves(q, `${path}/${(q as { id?: string })?.id ?? i}`, out));
  else if (v && typeof v === 'object') for (const [k, q] of Object.entries(v)) leaves(q, `${path}/${k}`, out);
  else out.set(path, v);
  return out;
}

describe('two versions of a job brought together', () => {
  it('is the one that was changed where only one was', () => {
    fc.assert(
      fc.property(version('m'), (v) => {
        for (const r of [mergeJobs(base, v, base)!, mergeJobs(base, base, v)!, mergeJobs(base, v, v)!]) {
          expect(r.conflicts).toEqual([]);
          expect(r.job).toEqual(v);
        }
      }),
    );
  });
  it('keeps what either side alone has changed, and tells every place where both have', () => {
    fc.assert(
      fc.property(version('m'), version('t'), fc.constantFrom<Side>('mine', 'theirs'), (mine, theirs, side) => {
        const { job, conflicts } = mergeJobs(base, mine, theirs, () => side)!;
        expect(jobSchema.safeParse(job).success).toBe(true);
        const [b, m, t, now] = [base, mine, theirs, job].map((j) => leaves(j, '', new Map()));
        const told = conflicts.map((c) => `/${placeOf(c.path)}`);
        const isTold = (place: string) => told.some((p) => place === p || place.startsWith(`${p}/`));
        for (const place of new Set([...b.keys(), ...m.keys(), ...t.keys(), ...now.keys()])) {
          const [was, my, their] = [b.get(place), m.get(place), t.get(place)];
          if (my === their) expect(now.get(place)).toEqual(my);
          else if (isTold(place)) expect(now.get(place)).toEqual(side === 'mine' ? my : their);
          else if (their === was) expect(now.get(place)).toEqual(my);
          else {
            // Not told: then only their side has changed it.
            expect(my).toEqual(was);
            expect(now.get(place)).toEqual(their);
          }
        }
        // A conflict is one: both sides differ there, from each other and from what was.
        for (const c of conflicts) expect(alike(c.mine, c.theirs)).toBe(false);
      }),
    );
  });
  it('loses no thing and doubles none, and keeps an order of one of them', () => {
    const items = oneSetup(base).items;
    const mine = on(base, (j) => ({ ...j, items: [items[2], items[0], items[1], items[3]] }));
    const theirs = on(base, (j) => ({ ...j, items: [...items.slice(0, 2), box('new'), ...items.slice(2)] }));
    expect(idsOf(mergeJobs(base, mine, theirs)!.job)).toEqual(['c', 'a', 'b', 'new', 'd']);
    expect(idsOf(mergeJobs(base, theirs, mine)!.job)).toEqual(['c', 'a', 'b', 'new', 'd']);
  });
  it('asks where one has taken out what the other has changed', () => {
    const out = on(base, (j) => ({ ...j, items: j.items.slice(1) }));
    const other = moved(base, 'a', { x: 7 });
    const r = mergeJobs(base, out, other, () => 'theirs')!;
    expect(r.conflicts).toEqual([
      { path: ['setups', FIRST_SETUP, 'items', 'a'], mine: undefined, theirs: oneSetup(other).items[0] },
    ]);
    expect(oneSetup(r.job).items[0]).toEqual(oneSetup(other).items[0]);
    expect(idsOf(mergeJobs(base, out, other)!.job)).toEqual(['b', 'c', 'd']);
    expect(wordsOf(r.conflicts[0], [out, other])).toEqual({
      place: 'Artwork "a"',
      what: '',
      mine: 'taken out',
      theirs: 'changed',
    });
  });
  it('brings a layer back that one has taken out and the other has put something on', () => {
    const layer = { ...oneSetup(base).layers[0], id: 'two', name: 'Two' };
    const both = on(base, (j) => ({ ...j, layers: [...j.layers, layer] }));
    const mine = on(both, (j) => ({ ...j, items: [...j.items, { ...box('e'), layer: 'two' }] }));
    const r = mergeJobs(both, mine, base)!;
    expect(oneSetup(r.job).layers).toContainEqual(layer);
    expect(idsOf(r.job)).toEqual(['a', 'b', 'c', 'd', 'e']);
  });
  it('of several set-ups: what each has changed in another one is kept, a new one stays, one whose source is taken out starts from an uncut blank', () => {
    let n = 0;
    const fresh = () => `n${++n}`;
    const two = withNewSetup(base, FIRST_SETUP, 'y', fresh);
    const back = (job: Job, change: (one: OneSetup) => OneSetup): Job => withSetup(job, change(oneSetup(job, two.id)));
    const mine = back(two.job, (j) => ({ ...j, items: [box('on the back')] }));
    const theirs = moved(two.job, 'a', { x: 3 });
    const { job, conflicts } = mergeJobs(two.job, mine, theirs)!;
    expect(conflicts).toEqual([]);
    expect(oneSetup(job).items[0].x).toBe(3);
    expect(oneSetup(job, two.id).items.map((i) => i.id)).toEqual(['on the back']);
    // One has taken the first set-up out, the other has gone on with the second.
    const r = mergeJobs(two.job, withoutSetup(two.job, FIRST_SETUP), mine)!;
    expect(r.conflicts).toEqual([]);
    expect(r.job.setups.map((s) => [s.id, s.after])).toEqual([[two.id, null]]);
    const deep = (safeHeight: number) => back(two.job, (j) => ({ ...j, blank: { ...j.blank, safeHeight } }));
    const asked = mergeJobs(two.job, deep(7), deep(8))!.conflicts;
    expect(asked.map((c) => wordsOf(c, [two.job]))).toEqual([
      { place: 'Set-up 1, other face: Blank', what: 'safe height', mine: '7 mm', theirs: '8 mm' },
    ]);
  });
  it('names a field as its form does, with its values in the unit of the job', () => {
    const job = demoJobs['lock-cottage-board']();
    const cut = oneSetup(job).cuts.find((c) => typeof c.values.depth === 'number')!;
    const deeper = (depth: number): Job =>
      on(job, (j) => ({ ...j, cuts: j.cuts.map((c) => (c === cut ? { ...c, values: { ...c.values, depth } } : c)) }));
    const { conflicts } = mergeJobs(job, deeper(1.25), deeper(2))!;
    expect(conflicts.map((c) => wordsOf(c, [job]))).toEqual([
      { place: `Cut "${cut.name}"`, what: expect.stringMatching(/depth/i), mine: '1.25 mm', theirs: '2 mm' },
    ]);
    const wide = (width: number) => on(base, (j) => ({ ...j, blank: { ...j.blank, width } }));
    expect(wordsOf(mergeJobs(base, wide(40), wide(50))!.conflicts[0], [base])).toEqual({
      place: 'Blank',
      what: 'width',
      mine: '40 mm',
      theirs: '50 mm',
    });
  });
});

describe('versions that share', () => {
  it('say the same as they did, and hold the very objects of the other where those say the same', () => {
    fc.assert(
      fc.property(version('m'), (v) => {
        const copy = structuredClone(v);
        const s = sharing(base, copy);
        expect(s).toEqual(v);
        for (const i of oneSetup(s).items) {
          const old = oneSetup(base).items.find((q) => q.id === i.id);
          if (alike(old, i)) expect(i).toBe(old);
        }
        if (alike(v, base)) expect(s).toBe(base);
      }),
    );
  });
});
