import fc from 'fast-check';
import { newItem } from '../artwork/item';
import { demoJobs } from '../job/demo';
import { newOneSetup, oneSetupSchema, type OneSetup } from '../job/job';
import { alike } from './alike';
import { mergeJobs, placeOf, sharing, type Side } from './job';
import { wordsOf } from './words';

const box = (id: string, x = 0) =>
  newItem({ id, name: id, kind: 'rectangle', x, values: { width: 10, height: 5, corner: 'square', radius: 1 } });
const base: OneSetup = { ...newOneSetup('Lock 7'), items: ['a', 'b', 'c', 'd'].map((id, k) => box(id, 20 * k)) };
const moved = (job: OneSetup, id: string, by: Record<string, unknown>): OneSetup => ({
  ...job,
  items: job.items.map((i) => (i.id === id ? { ...i, ...by } : i)),
});

/** Any version of the job: things moved, resized, taken out, put in, put in another order, the blank changed. */
type Change = { readonly what: 'x' | 'y' | 'out' | 'in' | 'swap' | 'blank' | 'width'; readonly at: number; readonly to: number };
const change: fc.Arbitrary<Change> = fc.record({
  what: fc.constantFrom('x', 'y', 'out', 'in', 'swap', 'blank', 'width'),
  at: fc.nat(3),
  to: fc.integer({ min: 1, max: 4 }),
});
function changed(job: OneSetup, changes: readonly Change[], who: string): OneSetup {
  let j = job;
  for (const { what, at, to } of changes) {
    const id = 'abcd'[at];
    const there = j.items.some((i) => i.id === id);
    if (what === 'x' || what === 'y') j = moved(j, id, { [what]: to });
    else if (what === 'width') j = { ...j, items: j.items.map((i) => (i.id === id ? { ...i, values: { ...i.values, width: to } } : i)) };
    else if (what === 'out') j = { ...j, items: j.items.filter((i) => i.id !== id) };
    else if (what === 'in' && !j.items.some((i) => i.id === `${who}${at}`))
      j = { ...j, items: [...j.items.slice(0, to), box(`${who}${at}`, to), ...j.items.slice(to)] };
    else if (what === 'swap' && there) j = { ...j, items: [...j.items.filter((i) => i.id !== id), j.items.find((i) => i.id === id)!] };
    else if (what === 'blank') j = { ...j, blank: { ...j.blank, [['width', 'height', 'thickness', 'clearance'][at]]: 10 * to } };
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
          expect(r.clashes).toEqual([]);
          expect(r.job).toEqual(v);
        }
      }),
    );
  });
  it('keeps what either side alone has changed, and tells every place where both have', () => {
    fc.assert(
      fc.property(version('m'), version('t'), fc.constantFrom<Side>('mine', 'theirs'), (mine, theirs, side) => {
        const { job, clashes } = mergeJobs(base, mine, theirs, () => side)!;
        expect(oneSetupSchema.safeParse(job).success).toBe(true);
        const [b, m, t, now] = [base, mine, theirs, job].map((j) => leaves(j, '', new Map()));
        const told = clashes.map((c) => `/${placeOf(c.path)}`);
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
        // A clash is one: both sides differ there, from each other and from what was.
        for (const c of clashes) expect(alike(c.mine, c.theirs)).toBe(false);
      }),
    );
  });
  it('loses no thing and doubles none, and keeps an order of one of them', () => {
    const mine = { ...base, items: [base.items[2], base.items[0], base.items[1], base.items[3]] };
    const theirs = { ...base, items: [...base.items.slice(0, 2), box('new'), ...base.items.slice(2)] };
    expect(mergeJobs(base, mine, theirs)!.job.items.map((i) => i.id)).toEqual(['c', 'a', 'b', 'new', 'd']);
    expect(mergeJobs(base, theirs, mine)!.job.items.map((i) => i.id)).toEqual(['c', 'a', 'b', 'new', 'd']);
  });
  it('asks where one has taken out what the other has changed', () => {
    const out = { ...base, items: base.items.slice(1) };
    const other = moved(base, 'a', { x: 7 });
    const r = mergeJobs(base, out, other, () => 'theirs')!;
    expect(r.clashes).toEqual([{ path: ['items', 'a'], mine: undefined, theirs: other.items[0] }]);
    expect(r.job.items[0]).toEqual(other.items[0]);
    expect(mergeJobs(base, out, other)!.job.items.map((i) => i.id)).toEqual(['b', 'c', 'd']);
    expect(wordsOf(r.clashes[0], [out, other])).toEqual({ place: 'Artwork "a"', what: '', mine: 'taken out', theirs: 'changed' });
  });
  it('brings a layer back that one has taken out and the other has put something on', () => {
    const layer = { ...base.layers[0], id: 'two', name: 'Two' };
    const both = { ...base, layers: [...base.layers, layer] };
    const mine = { ...both, items: [...both.items, { ...box('e'), layer: 'two' }] };
    const r = mergeJobs(both, mine, base)!;
    expect(r.job.layers).toContainEqual(layer);
    expect(r.job.items.map((i) => i.id)).toEqual(['a', 'b', 'c', 'd', 'e']);
  });
  it('names a field as its form does, with its values in the unit of the job', () => {
    const job = demoJobs['lock-cottage-board']();
    const cut = job.cuts.find((c) => typeof c.values.depth === 'number')!;
    const deeper = (depth: number): OneSetup => ({
      ...job,
      cuts: job.cuts.map((c) => (c === cut ? { ...c, values: { ...c.values, depth } } : c)),
    });
    const { clashes } = mergeJobs(job, deeper(1.25), deeper(2))!;
    expect(clashes.map((c) => wordsOf(c, [job]))).toEqual([
      { place: `Cut "${cut.name}"`, what: expect.stringMatching(/depth/i), mine: '1.25 mm', theirs: '2 mm' },
    ]);
    expect(
      wordsOf(
        mergeJobs(base, { ...base, blank: { ...base.blank, width: 40 } }, { ...base, blank: { ...base.blank, width: 50 } })!.clashes[0],
        [base],
      ),
    ).toEqual({ place: 'Blank', what: 'width', mine: '40 mm', theirs: '50 mm' });
  });
});

describe('versions that share', () => {
  it('say the same as they did, and hold the very objects of the other where those say the same', () => {
    fc.assert(
      fc.property(version('m'), (v) => {
        const copy = structuredClone(v);
        const s = sharing(base, copy);
        expect(s).toEqual(v);
        for (const i of s.items) {
          const old = base.items.find((q) => q.id === i.id);
          if (alike(old, i)) expect(i).toBe(old);
        }
        if (alike(v, base)) expect(s).toBe(base);
      }),
    );
  });
});
