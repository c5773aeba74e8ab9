import fc from 'fast-check';
import { newItem } from '../artwork/item';
import { jobSchema, newOneSetup, type OneSetup } from './job';
import { jobOf } from './oneSetup';
import { liesIn, regroup } from './regroup';

/** a and b in inner, which lies in outer with c; d lies free. */
function board(): OneSetup {
  const job = newOneSetup('Lists');
  job.layers.push({ id: 'l2', name: 'Layer 2', colour: '#1e2a2f', visible: true, locked: false });
  job.groups = [
    { id: 'outer', name: 'Outer', parent: null },
    { id: 'inner', name: 'Inner', parent: 'outer' },
    { id: 'other', name: 'Other', parent: null },
  ];
  const item = (id: string, group: string | null) => ({
    ...newItem({ id, name: id, kind: 'ellipse', x: 0, y: 0, values: { width: 5, height: 5 } }),
    group,
  });
  job.items = [item('a', 'inner'), item('b', 'inner'), item('c', 'outer'), item('d', null), item('e', 'other')];
  return job;
}
const layer = newOneSetup('x').layers[0].id;
const order = (j: OneSetup) => j.items.map((i) => i.id).join('');

describe('moving things in the list', () => {
  it('puts items into a group, below the item that is named', () => {
    const j = board();
    expect(regroup(j, { items: ['d'] }, { group: 'inner', layer, below: 'a' })).toBe(true);
    expect(order(j)).toBe('adbce');
    expect(j.items[1].group).toBe('inner');
  });
  it('takes them out again, and a group that is left empty goes with those that held only it', () => {
    const j = board();
    regroup(j, { items: ['a', 'b', 'c'] }, { group: null, layer: 'l2' });
    expect(j.items.slice(0, 3).every((i) => i.group === null && i.layer === 'l2')).toBe(true);
    expect(j.groups.map((g) => g.id)).toEqual(['other']);
  });
  it('carries a group with all that is in it', () => {
    const j = board();
    expect(regroup(j, { group: 'outer' }, { group: 'other', layer: 'l2', below: 'e' })).toBe(true);
    expect(order(j)).toBe('deabc');
    expect(j.groups.find((g) => g.id === 'outer')!.parent).toBe('other');
    expect(
      j.items
        .filter((i) => i.layer === 'l2')
        .map((i) => i.id)
        .join(''),
    ).toBe('abc');
  });
  it('never puts a group into itself: the job stays as it was', () => {
    const j = board();
    expect(regroup(j, { group: 'outer' }, { group: 'inner', layer })).toBe(false);
    expect(regroup(j, { group: 'outer' }, { group: 'outer', layer })).toBe(false);
    expect(regroup(j, { group: 'outer' }, { group: null, layer, below: 'a' })).toBe(false);
    expect(j).toEqual(board());
  });
  it('leaves a valid job with the same items, whatever is dragged where', () => {
    const step = fc.record({
      what: fc.oneof(
        fc.record({ items: fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { minLength: 1 }) }),
        fc.record({ group: fc.constantFrom('outer', 'inner', 'other') }),
      ),
      on: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
      into: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        const j = board();
        for (const s of steps) {
          const on = j.items.find((i) => i.id === s.on)!;
          regroup(
            j,
            s.what,
            s.into ? { group: on.group, layer: on.layer } : { group: on.group, layer: on.layer, below: on.id },
          );
          expect(jobSchema.safeParse(jobOf(j)).success).toBe(true);
          expect([...order(j)].sort().join('')).toBe('abcde');
          for (const g of j.groups) expect(j.items.some((i) => liesIn(j.groups, i.group, g.id))).toBe(true);
        }
      }),
    );
  });
});
