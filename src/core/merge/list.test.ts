import fc from 'fast-check';
import type { Cutter } from '../cutters/cutter';
import { shippedLibrary } from '../cutters/library';
import { withChange } from './list';

const all = shippedLibrary().slice(0, 8);
const [a, b, c, d] = all;
const names = (l: readonly Cutter[]) => l.map((q) => q.name);
const called = (q: Cutter, name: string): Cutter => ({ ...q, name });

/** Any library of some of eight cutters, in any order, some renamed. */
const library = fc
  .shuffledSubarray(all, { minLength: 1 })
  .chain((list) =>
    fc
      .array(fc.boolean(), { minLength: list.length, maxLength: list.length })
      .map((marks) => list.map((q, i) => (marks[i] ? called(q, `${q.name}, mine`) : q))),
  );

describe('a change of the library, made to a version that others have changed', () => {
  it('is the change itself where nobody has', () => {
    fc.assert(fc.property(library, library, (from, to) => expect(withChange(from, from, to)).toEqual(to)));
  });
  it('changes nothing when it is none', () => {
    fc.assert(fc.property(library, library, (now, from) => expect(withChange(now, from, from)).toEqual(now)));
  });
  it('loses and doubles nothing: what either side put in or changed is there, what either took out is not', () => {
    fc.assert(
      fc.property(library, library, library, (base, mine, theirs) => {
        const both = withChange(theirs, base, mine);
        const ids = both.map((q) => q.id);
        expect(new Set(ids).size).toBe(ids.length);
        const has = (l: readonly Cutter[], id: string) => l.find((q) => q.id === id);
        for (const { id } of all) {
          const [was, m, t, now] = [has(base, id), has(mine, id), has(theirs, id), has(both, id)];
          if (was && !m) expect(now).toBeUndefined();
          else if (m && JSON.stringify(m) !== JSON.stringify(was) && (t || !was)) expect(now).toEqual(m);
          else if (t) expect(now).toEqual(t);
          else if (was) expect(now).toBeUndefined();
        }
      }),
    );
  });
  it('keeps orders: of mine where I moved something, of theirs where I did not', () => {
    expect(names(withChange([a, b, d, c], [a, b, c], [c, a, b]))).toEqual(names([c, a, b, d]));
    expect(names(withChange([c, b, a], [a, b, c], [a, b, d, c]))).toEqual(names([c, b, d, a]));
    expect(names(withChange([b], [a, b], [d, a, b]))).toEqual(names([d, b]));
  });
});
