import { newItem } from '@/core/artwork/item';
import { newOneSetup, type OneSetup } from '@/core/job/job';
import { itemTree, ROOT } from './itemTree';

const thing = (id: string, layer = 'layer-1', group: string | null = null) =>
  newItem({
    id,
    name: id,
    kind: 'rectangle',
    layer,
    group,
    values: { width: 1, height: 1, corner: 'square', radius: 0 },
  });
const group = (id: string, parent: string | null = null) => ({ id, name: id, parent });
const layer = (id: string) => ({ id, name: id, colour: '#112233', visible: true, locked: false });
const job = (more: Partial<OneSetup>): OneSetup => ({ ...newOneSetup('Tree'), ...more });
const inside = (t: ReturnType<typeof itemTree>, id = ROOT): unknown[] =>
  t.children.get(id)!.map((k) => (t.children.has(k) ? [k, ...inside(t, k)] : k));

describe('the tree of artwork', () => {
  it('of one layer has no layers; groups stand where their first thing is drawn, in each other', () => {
    const t = itemTree(
      job({
        groups: [group('a'), group('b', 'a')],
        items: [thing('1'), thing('2', 'layer-1', 'b'), thing('3', 'layer-1', 'a'), thing('4', 'layer-1', 'b')],
      }),
    );
    expect(inside(t)).toEqual(['1', ['layer-1 a', ['layer-1 b', '2', '4'], '3']]);
    expect(t.entries.get('layer-1 a')).toMatchObject({ of: 'group', items: ['2', '3', '4'] });
  });
  it('of several layers has a row for a group in each where it has two things or more', () => {
    const t = itemTree(
      job({
        layers: [layer('red'), layer('blue'), layer('bare')],
        groups: [group('g')],
        items: [thing('1', 'red', 'g'), thing('2', 'blue', 'g'), thing('3', 'blue', 'g')],
      }),
    );
    expect(inside(t)).toEqual([['red', '1'], ['blue', ['blue g', '2', '3']], ['bare']]);
    expect(t.entries.get('blue')).toMatchObject({ of: 'layer', count: 2 });
  });
  it('holds every item once, however many there are', () => {
    const items = Array.from({ length: 3000 }, (_, k) => thing(`i${k}`, k % 3 ? 'red' : 'blue', k % 5 ? 'g' : null));
    const t = itemTree(job({ layers: [layer('red'), layer('blue')], groups: [group('g')], items }));
    const all = [...t.children.values()].flat();
    expect(new Set(all).size).toBe(all.length);
    expect(items.every((i) => all.includes(i.id))).toBe(true);
  });
});
