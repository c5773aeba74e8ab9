import fc from 'fast-check';
import { emptyAfter, renamed, groupInto, groupsOf, moveGroup, placeCutter } from './groups';
import { shippedLibrary } from './library';

const library = shippedLibrary();
const ids = (list: readonly { id: string }[]) => list.map((c) => c.id);
const groups = groupsOf(library);

describe('groups of the library', () => {
  it('are renamed with all that lie in them', () => {
    const nested = groupInto(library, 'Engraving cones', 'Engraving / Cones');
    const deeper = groupInto(
      groupInto(nested, 'Drag diamonds', 'Engraving / Cones / Diamonds'),
      'Engraving / Cones',
      'Fine',
    );
    expect(groupsOf(deeper)).toContain('Fine / Diamonds');
    expect(deeper.filter((c) => c.group === 'Fine')).toHaveLength(
      library.filter((c) => c.group === 'Engraving cones').length,
    );
    // A name that merely begins alike is another group.
    expect(groupInto([{ ...library[0], group: 'Drill bits' }], 'Drill', 'X')[0].group).toBe('Drill bits');
  });
  it('are dragged as a block before or behind another one', () => {
    const up = moveGroup(library, 'Drills', 'End mills');
    expect(groupsOf(up)[0]).toBe('Drills');
    const down = moveGroup(library, 'End mills', 'Drills');
    expect(groupsOf(down).at(-1)).toBe('End mills');
    expect(moveGroup(library, 'Drills', 'Drills / Small')).toEqual(library);
  });
  it('lose and double nothing, whatever is dragged where', () => {
    const any = fc.constantFrom(...library);
    fc.assert(
      fc.property(
        fc.array(fc.record({ a: any, b: any, how: fc.constantFrom('group', 'over', 'into') }), { maxLength: 8 }),
        (steps) => {
          let list = library;
          for (const { a, b, how } of steps)
            list =
              how === 'group'
                ? moveGroup(list, a.group, b.group)
                : placeCutter(list, a.id, how === 'over' ? { over: b.id } : { group: b.group });
          expect(ids(list).sort()).toEqual(ids(library).sort());
          expect(groupsOf(list).every((g) => groups.includes(g))).toBe(true);
        },
      ),
    );
  });
  it('take a cutter at the place of another, in its group', () => {
    const [first, second, third] = library;
    expect(ids(placeCutter(library, first.id, { over: third.id })).slice(0, 3)).toEqual([
      second.id,
      third.id,
      first.id,
    ]);
    expect(ids(placeCutter(library, third.id, { over: first.id })).slice(0, 3)).toEqual([
      third.id,
      first.id,
      second.id,
    ]);
    const drill = placeCutter(library, first.id, { group: 'Drills' });
    const block = drill.filter((c) => c.group === 'Drills');
    expect(block[0].id).toBe(first.id);
    expect(placeCutter(library, 'nobody', { over: first.id })).toEqual(library);
  });
  it('may be empty: named until something lies in them, and kept when they lose their last', () => {
    const [first] = library;
    const one = [{ ...first, group: 'Alone' }];
    expect(emptyAfter(['New', 'Alone'], [], one)).toEqual(['New']);
    const moved = placeCutter([...one, library[1]], first.id, { group: 'New' });
    expect(moved.at(-1)).toMatchObject({ id: first.id, group: 'New' });
    expect(emptyAfter(['New'], [...one, library[1]], moved)).toEqual(['Alone']);
    // What holds a group that holds something is not empty.
    expect(emptyAfter(['Engraving'], [], [{ ...first, group: 'Engraving / Cones' }])).toEqual([]);
    expect(moveGroup(library, 'End mills', 'New')).toEqual(library);
    expect(['Drills', 'Drills / Small', 'Drillings'].map((g) => renamed(g, 'Drills', 'Bits'))).toEqual([
      'Bits',
      'Bits / Small',
      'Drillings',
    ]);
  });
});
