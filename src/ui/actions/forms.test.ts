import 'fake-indexeddb/auto';
import { jobOf } from '@/core/job/oneSetup';
import { jobSchema, newOneSetup } from '@/core/job/job';
import { formKindOf } from '@/core/relief/registry';
import { MOST_NUMBERS, MOST_STROKES, type BrushStroke } from '@/core/relief/sculpt';
import { storageOver } from '@/store/local';
import { shown, useOpenJob } from '@/store/openJob';
import { useView } from '@/ui/view';
import { changeForm } from './edits';
import { addForm, copyForm, deleteForm, groupForm, moveForm, scaleRelief, setFormValue, ungroupForms } from './relief';
import { brushNow, brushStroke, dropStroke, giveUpStroke, holdStroke, isInHand, letStroke, setBrush } from './sculpt';

/** What the maker was told. */
const mockTold: string[] = [];
jest.mock('./tell', () => ({ tell: (_kind: string, text: string) => void mockTold.push(text) }));

const job = () => useOpenJob.getState().job!;
const form = () => job().relief.forms.find((f) => f.id === useView.getState().formId)!;
const strokes = () => form().values.strokes as BrushStroke[];
const undo = () => useOpenJob.getState().undo();

beforeAll(() => {
  Object.assign(globalThis, { localStorage: storageOver(new Map()) });
});
beforeEach(() => {
  mockTold.length = 0;
  useOpenJob.setState({ id: 'j', ...shown(jobOf(newOneSetup('Forms'))), past: [], future: [] });
});
// Whatever was done, the job is one that can be saved and read.
afterEach(() => expect(jobSchema.safeParse(useOpenJob.getState().whole).success).toBe(true));

describe('an ornament', () => {
  const field = formKindOf('ornament').fields.find((f) => f.key === 'ornament')!;
  it('is called after what it is, as long as nobody has called it something else', () => {
    addForm('ornament');
    expect(form().name).toBe('Heron');
    addForm('ornament');
    expect(form().name).toBe('Heron 2');
    setFormValue(form().id, 'ornament', 'swan', field);
    expect(form().name).toBe('Swan');
    setFormValue(form().id, 'ornament', 'heron', field);
    expect(form().name).toBe('Heron 2');
    // A name of the maker's own that begins like the other.
    changeForm(form().id, 'Rename form', (f) => void (f.name = 'Heron at dawn'));
    setFormValue(form().id, 'ornament', 'swan', field);
    expect(form().name).toBe('Heron at dawn');
  });
});

describe('a group of forms', () => {
  /** Names of the forms in their order from below, those in a group after its name. */
  const named = () =>
    job().relief.forms.map((f) => {
      const group = job().relief.forms.find((g) => g.id === f.group);
      return group ? `${group.name}/${f.name}` : f.name;
    });
  beforeEach(() => {
    for (const kind of ['ground', 'texture', 'limit']) addForm(kind);
  });
  it('is made round a form where that stands, joined by others, and taken apart again', () => {
    const [ground, texture] = job().relief.forms.map((f) => f.id);
    groupForm(texture, 'new');
    expect(named()).toEqual(['Ground', 'Group/Texture', 'Group', 'Limit']);
    const group = job().relief.forms.find((f) => f.kind === 'group')!;
    groupForm(ground, group.id);
    expect(named()).toEqual(['Group/Texture', 'Group/Ground', 'Group', 'Limit']);
    groupForm(texture, null);
    expect(named()).toEqual(['Group/Ground', 'Group', 'Texture', 'Limit']);
    moveForm(texture, group.id);
    // In the place of the group's row, which moves down past it, it stands under that: in the group.
    expect(named()).toEqual(['Group/Ground', 'Group/Texture', 'Group', 'Limit']);
    ungroupForms(group.id);
    expect(named()).not.toContain('Group');
    expect(named()).toHaveLength(3);
    for (let k = 0; k < 5; k++) undo();
    expect(named()).toEqual(['Ground', 'Texture', 'Limit']);
  });
  it('is copied and deleted with what it holds, which is said', () => {
    groupForm(job().relief.forms[0].id, 'new');
    const group = job().relief.forms.find((f) => f.kind === 'group')!;
    copyForm(group.id);
    expect(named()).toEqual(['Group/Ground', 'Group', 'Group 2/Ground', 'Group 2', 'Texture', 'Limit']);
    deleteForm(group.id);
    expect(named()).toEqual(['Group 2/Ground', 'Group 2', 'Texture', 'Limit']);
    expect(mockTold.at(-1)).toMatch(/The group and the form in it are deleted/);
    undo();
    expect(named()).toHaveLength(6);
  });
  it('is made higher as one: what it holds is not made higher twice', () => {
    const [ground, texture] = job().relief.forms.map((f) => f.id);
    groupForm(ground, 'new');
    scaleRelief(2, 0);
    const of = (id: string) => job().relief.forms.find((f) => f.id === id)!;
    expect([of(ground).strength, of(texture).strength]).toEqual([1, 2]);
    expect(job().relief.forms.find((f) => f.kind === 'group')!.strength).toBe(2);
  });
});

describe('strokes of a brush', () => {
  it('that a second finger ends leave nothing, in the step that they began', () => {
    addForm('sculpt');
    const id = form().id;
    const key = Symbol('stroke');
    brushStroke(id, brushNow(job()), [1, 1, 1], key, false);
    holdStroke(id, key);
    expect([isInHand(key), strokes().length]).toEqual([true, 1]);
    giveUpStroke();
    expect([isInHand(key), strokes().length]).toEqual([false, 0]);
    // Nobody is at one: nothing is taken.
    const other = Symbol('stroke');
    brushStroke(id, brushNow(job()), [2, 2, 1], other, false);
    holdStroke(id, other);
    letStroke();
    giveUpStroke();
    expect(strokes()).toHaveLength(1);
    for (let k = 0; k < 3; k++) undo();
    expect(form()).toBeUndefined();
  });
  const stroke = (places: number[], key = Symbol('stroke'), begun = false) =>
    brushStroke(useView.getState().formId!, brushNow(job()), places, key, begun);
  it('go on where they were, one step to undo each, however quickly their places come', () => {
    addForm('sculpt');
    for (const first of [10, 40]) {
      const key = Symbol('stroke');
      expect(stroke([first, 10, 1], key)).toBe(true);
      for (let k = 1; k < 5; k++) expect(stroke([first + k, 10, 1], key, true)).toBe(true);
    }
    expect(strokes().map((s) => s.points.length)).toEqual([15, 15]);
    undo();
    expect(strokes().map((s) => s.points.length)).toEqual([15]);
    setBrush({ tool: 'smooth' });
    stroke([1, 2, 0.5]);
    expect(strokes().map((s) => s.tool)).toEqual(['raise', 'smooth']);
    dropStroke(form().id);
    expect(strokes().length).toBe(1);
    undo();
    expect(strokes().length).toBe(2);
    setBrush({ tool: 'raise' });
  });
  it('are taken by the form that is open and shown, and by no other', () => {
    addForm('sculpt');
    changeForm(form().id, 'Leave out a form', (f) => void (f.visible = false));
    expect(stroke([1, 2, 1])).toBe(false);
    addForm('ground');
    expect(stroke([1, 2, 1])).toBe(false);
    expect(job().relief.forms.map((f) => (f.values.strokes as unknown[] | undefined)?.length)).toEqual([0, undefined]);
  });
  it('are as long and as many as a job holds: a longer one goes on as another, one too many is refused and said', () => {
    addForm('sculpt');
    const key = Symbol('stroke');
    stroke(Array(MOST_NUMBERS).fill(1), key);
    expect(stroke([2, 2, 1], key, true)).toBe(true);
    expect(strokes().map((s) => s.points.length)).toEqual([MOST_NUMBERS, 3]);
    changeForm(form().id, 'Fill', (f) => void (f.values.strokes = Array(MOST_STROKES).fill(strokes()[1])));
    expect(stroke([3, 3, 1])).toBe(false);
    expect(strokes().length).toBe(MOST_STROKES);
    expect(mockTold[0]).toMatch(/holds 5000 strokes, and no more/);
  });
});
