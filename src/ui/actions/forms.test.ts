import 'fake-indexeddb/auto';
import { jobOf } from '@/core/job/oneSetup';
import { jobSchema, newOneSetup } from '@/core/job/job';
import { formKindOf } from '@/core/relief/registry';
import { MOST_NUMBERS, MOST_STROKES, type BrushStroke } from '@/core/relief/sculpt';
import { storageOver } from '@/store/local';
import { shown, useOpenJob } from '@/store/openJob';
import { useView } from '@/ui/view';
import { changeForm } from './edits';
import { addForm, setFormValue } from './relief';
import { brushNow, brushStroke, dropStroke, setBrush } from './sculpt';

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

describe('strokes of a brush', () => {
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
