import fc from 'fast-check';
import { freshForm } from './freshForm';
import { arranged, counting, groupOf, membersOf, movedForm, regrouped } from './groups';
import type { Form } from './stack';

const form = (id: string, group: string | null = null): Form => freshForm(id, id, 'ground', {}, { group });
const group = (id: string): Form => freshForm(id, id, 'group');
/** Rows as they are listed, the uppermost first: `g[b a]` for a group. */
const rows = (forms: readonly Form[]): string =>
  arranged(forms)
    .reverse()
    .map((f) => (groupOf(forms, f) ? `.${f.id}` : f.id))
    .join(' ');
// From below: a, then g with b and c, then d.
const stack = [form('a'), form('b', 'g'), form('c', 'g'), group('g'), form('d')];

describe('groups of forms', () => {
  it('stand right above what they hold, wherever that is in the job', () => {
    expect(rows(stack)).toBe('d g .c .b a');
    expect(rows([group('g'), form('c', 'g'), form('a'), form('b', 'g')])).toBe('a g .b .c');
    expect(membersOf(stack, 'g').map((f) => f.id)).toEqual(['b', 'c']);
  });
  it('that are not there hold nothing, nor do forms that are none', () => {
    const lost = [form('a', 'gone'), form('b', 'a'), { ...group('h'), group: 'g' }, group('g')];
    expect(rows(lost)).toBe('g h b a');
  });
  it('do not count when they are left out', () => {
    const hidden = stack.map((f) => (f.id === 'g' ? { ...f, visible: false } : f));
    expect(counting(hidden).map((f) => f.id)).toEqual(['a', 'd']);
    expect(counting(stack.map((f) => (f.id === 'b' ? { ...f, visible: false } : f))).map((f) => f.id)).toEqual([
      'a',
      'c',
      'g',
      'd',
    ]);
  });
  it.each([
    // Into the group from above and from below, out of it at either end.
    ['d', 'g', 'g .d .c .b a'],
    ['d', 'c', 'g .c .d .b a'],
    ['a', 'b', 'd g .c .a .b'],
    ['b', 'c', 'd g .b .c a'],
    ['b', 'a', 'd g .c a b'],
    ['c', 'g', 'd c g .b a'],
    // As a whole: past what stands by itself, never into a group.
    ['g', 'a', 'd a g .c .b'],
    ['g', 'd', 'g .c .b d a'],
    ['g', 'b', 'd g .c .b a'],
    ['d', 'a', 'g .c .b a d'],
    ['a', 'd', 'a d g .c .b'],
  ])('%s in the place of %s', (id, over, want) => {
    expect(rows(movedForm(stack, id, over))).toBe(want);
  });
  it('keep every form, and their own order, however they are moved', () => {
    const ids = ['a', 'b', 'c', 'g', 'd', 'h', 'e'];
    const both = [...stack, form('e', 'h'), group('h')];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...ids), fc.constantFrom(...ids)), { maxLength: 20 }), (moves) => {
        let forms: Form[] = both;
        for (const [id, over] of moves) forms = movedForm(forms, id, over);
        expect(forms.map((f) => f.id).sort()).toEqual([...ids].sort());
        expect(forms.map((f) => f.id)).toEqual(arranged(forms).map((f) => f.id));
        expect(forms.filter((f) => f.kind === 'group').every((f) => f.group === null)).toBe(true);
      }),
    );
  });
  it('are joined and left by name too', () => {
    expect(rows(regrouped(stack, 'a', 'g'))).toBe('d g .a .c .b');
    expect(rows(regrouped(stack, 'b', null))).toBe('d b g .c a');
    // Where it belongs already it stays where it is.
    expect(rows(regrouped(stack, 'a', null))).toBe('d g .c .b a');
    expect(rows(regrouped(stack, 'b', 'g'))).toBe('d g .c .b a');
  });
});
