import { waitFor } from '../../core/testing/waitFor';
import 'fake-indexeddb/auto';
import { newItem, type Item } from '@/core/artwork/item';
import { itemKindOf } from '@/core/artwork/registry';
import { withNewSetup } from '@/core/job/allSetups';
import { withLinks } from '@/core/job/linked';
import { shippedLibrary } from '@/core/cutters/library';
import { demoSetups } from '@/core/job/demo';
import { jobSchema, newOneSetup, type OneSetup } from '@/core/job/job';
import { recipeOf } from '@/core/job/recipe';
import { useWork } from '@/compute/useWork';
import { jobOf } from '@/core/job/oneSetup';
import { shown, useOpenJob } from '@/store/openJob';
import { storageOver } from '@/store/local';
import { setView, useView } from '@/ui/view';
import {
  alignPicked,
  centrePicked,
  copyInRing,
  copyInRows,
  copyPicked,
  distributePicked,
  groupPicked,
  joinPicked,
  mirrorPicked,
  toDrawings,
  together,
  turnPicked,
  ungroupPicked,
} from './artwork';
import { addLayer, deleteLayer, copiesToLayer, pickedToLayer } from './layers';
import { copyToClipboard, pasteFromClipboard } from './clipboard';
import {
  addCut,
  addTab,
  applyRecipe,
  changeItem,
  copyCut,
  deleteCut,
  deletePicked,
  groupByCutter,
  moveCut,
  moveFile,
  removeTab,
  takeFromLibrary,
  togglePaths,
} from './edits';

/** What the maker was told. */
const mockTold: string[] = [];
jest.mock('./tell', () => ({ tell: (_kind: string, text: string) => void mockTold.push(text) }));

const rect = (id: string, x: number, y: number, width = 10, height = 6): Item =>
  newItem({ id, name: id, kind: 'rectangle', x, y, values: { width, height, corner: 'square', radius: 1 } });
const job = (): OneSetup => useOpenJob.getState().job!;
const item = (id: string) => job().items.find((i) => i.id === id)!;
const open = (j: OneSetup) => useOpenJob.setState({ id: 'j', ...shown(jobOf(j)), past: [], future: [] });
const pick = (...picked: string[]) => setView({ picked });
const undo = () => useOpenJob.getState().undo();

beforeAll(() => {
  Object.assign(globalThis, { localStorage: storageOver(new Map()) });
});
beforeEach(() => {
  mockTold.length = 0;
  open({
    ...newOneSetup('Actions'),
    items: [rect('a', 20, 30), rect('b', 60, 30, 20), rect('c', 150, 90, 4, 4), rect('d', 200, 150)],
  });
  setView({ picked: [], cutId: null, alsoCuts: [] });
  useWork.setState({ cuts: {} });
});
// Whatever was done, the job is one that can be saved and read.
afterEach(() => expect(jobSchema.safeParse(useOpenJob.getState().whole).success).toBe(true));

describe('arranging what is picked', () => {
  it('centres all of it as one, by its box', () => {
    pick('a', 'b');
    centrePicked();
    const [a, b] = [item('a'), item('b')];
    expect((a.x - 5 + b.x + 10) / 2).toBeCloseTo(150, 9);
    expect(a.y).toBeCloseTo(100, 9);
    expect(b.x - a.x).toBeCloseTo(40, 9);
    undo();
    expect(item('a')).toMatchObject({ x: 20, y: 30 });
  });
  it('aligns to the blank, the group, and the last picked', () => {
    pick('a', 'b');
    alignPicked('right', 'last');
    expect(item('a').x + 5).toBeCloseTo(item('b').x + 10, 9);
    alignPicked('bottom', 'blank');
    expect(item('a').y).toBeCloseTo(3, 9);
  });
  it('distributes, mirrors and turns about its own middle', () => {
    pick('a', 'b', 'c');
    distributePicked('x');
    const gap = item('b').x - 10 - (item('a').x + 5);
    expect(item('c').x - 2 - (item('b').x + 10)).toBeCloseTo(gap, 9);
    pick('a', 'd');
    mirrorPicked('upright');
    expect(item('a').x).toBeCloseTo(200, 9);
    expect(item('d').x).toBeCloseTo(20, 9);
    pick('b');
    turnPicked(90);
    expect(item('b').angle).toBe(90);
  });
  it('copies in rows and rings, each copy a thing of its own', () => {
    pick('a');
    copyInRows(3, 2, 5, 5);
    expect(job().items).toHaveLength(9);
    expect(new Set(job().items.map((i) => i.id)).size).toBe(9);
    expect(job().items[4]).toMatchObject({ x: 20 + 15, y: 30 });
    undo();
    copyInRing(4, 100, 30, true);
    expect(job().items).toHaveLength(7);
    expect(
      job()
        .items.slice(4)
        .map((i) => Math.round(Math.hypot(i.x - 100, i.y - 30))),
    ).toEqual([80, 80, 80]);
    undo();
    copyPicked();
    expect(useView.getState().picked).not.toContain('a');
    expect(job().items).toHaveLength(5);
  });
});

describe('groups and layers', () => {
  it('are made, nested, and taken apart', () => {
    pick('a', 'b');
    groupPicked();
    pick('a', 'b', 'c');
    groupPicked();
    expect(job().groups).toHaveLength(2);
    expect(together(job(), 'a').sort()).toEqual(['a', 'b', 'c']);
    pick(...together(job(), 'c'));
    ungroupPicked();
    expect(together(job(), 'c')).toEqual(['c']);
  });
  it('copies of a group are a group of their own', () => {
    pick('a', 'b');
    groupPicked();
    copyPicked();
    const copies = job().items.slice(4);
    expect(new Set(copies.map((i) => i.group)).size).toBe(1);
    expect(copies[0].group).not.toBe(item('a').group);
  });
  it('things are moved and copied to layers; a layer goes with what is on it, but never the last one', () => {
    addLayer();
    const [first, second] = job().layers;
    pick('a', 'b');
    pickedToLayer(second.id);
    expect(job().items.filter((i) => i.layer === second.id)).toHaveLength(2);
    pick('c');
    copiesToLayer(second.id);
    expect(item('c').layer).toBe(first.id);
    expect(job().items.filter((i) => i.layer === second.id)).toHaveLength(3);
    deleteLayer(second.id);
    expect(job().items.map((i) => i.id)).toEqual(['c', 'd']);
    deleteLayer(first.id);
    expect(job().layers).toHaveLength(1);
    expect(mockTold).toEqual(['A job keeps at least one layer.']);
  });
  it('what cuts used goes from them when it is deleted, and outlines take the place of what they came from', () => {
    pick('a', 'b');
    addCut('vcarve', shippedLibrary());
    pick('b');
    toDrawings();
    const drawing = job().items.find((i) => i.kind === 'drawing')!;
    expect(job().cuts[0].items).toEqual(['a', drawing.id]);
    pick('a');
    deletePicked();
    expect(job().cuts[0].items).toEqual([drawing.id]);
  });
  it('ends of lines are joined within a distance, and not beyond', () => {
    const line = (id: string, x0: number, x1: number) =>
      newItem({
        id,
        name: id,
        kind: 'drawing',
        x: 0,
        y: 0,
        values: { fill: 'nonzero', paths: [{ x: x0, y: 5, closed: false, segments: [{ k: 'line', x: x1, y: 5 }] }] },
      });
    open({ ...newOneSetup('Lines'), items: [line('p', 0, 10), line('q', 10.3, 20)] });
    pick('p', 'q');
    joinPicked(0.1);
    expect(job().items).toHaveLength(2);
    expect(mockTold).toEqual(['No two ends lie within 0.1 mm of each other.']);
    joinPicked(0.5);
    expect(job().items).toHaveLength(1);
    expect((job().items[0].values as { paths: unknown[] }).paths).toHaveLength(1);
  });
});

describe('the cut plan', () => {
  beforeEach(() => open(demoSetups['lock-cottage-board']()));
  const names = () => job().cuts.map((c) => c.name);
  it('is reordered, copied and thinned', () => {
    const [first] = job().cuts;
    moveCut(first.id, 2);
    expect(names()).toEqual(['Ornament', 'Border channel', 'Lettering', 'Cut free']);
    copyCut(first.id);
    expect(names()[3]).toBe('Lettering 2');
    deleteCut(first.id);
    expect(names()).toEqual(['Ornament', 'Border channel', 'Lettering 2', 'Cut free']);
  });
  it('is grouped by cutter, what parts the piece from the blank last', () => {
    moveCut(job().cuts[3].id, 0);
    groupByCutter();
    expect(names()[3]).toBe('Cut free');
  });
  it('programs change places with their cuts', () => {
    const [a, b, c, d] = job().cuts.map((q) => q.id);
    moveFile([a, b], [c]);
    expect(job().cuts.map((q) => q.id)).toEqual([c, a, b, d]);
  });
  it('paths are hidden and shown, several at once', () => {
    const ids = job()
      .cuts.slice(0, 2)
      .map((c) => c.id);
    togglePaths(ids);
    expect(job().cuts.map((c) => !!c.hidden)).toEqual([true, true, false, false]);
    togglePaths([ids[0]]);
    expect(job().cuts[0]).not.toHaveProperty('hidden');
    togglePaths(ids);
    expect(job().cuts.map((c) => !!c.hidden)).toEqual([true, true, false, false]);
  });
  it('tabs are put, taken away, and then stand where they were put', () => {
    const cut = job().cuts[3];
    const at = [
      { x: 10, y: 10 },
      { x: 90, y: 10 },
    ];
    useWork.setState({
      cuts: {
        [cut.id]: {
          key: '',
          plan: {
            toolpaths: [],
            remarks: [],
            unreached: { area: 0, region: [] },
            cutsFree: true,
            tabs: at.map((p) => ({ ...p, dx: 1, dy: 0, length: 8 })),
          },
        },
      },
    });
    addTab(cut.id, 50, 60);
    const tabs = () => job().cuts[3].values.tabs as { count: number; by: string; length: number; at: unknown[] };
    expect(tabs()).toMatchObject({ count: 3, by: 'count', at: [...at, { x: 50, y: 60 }] });
    removeTab(cut.id, 0);
    expect(tabs()).toMatchObject({ count: 1, at: [{ x: 90, y: 10 }] });
    expect(tabs().length).toBe((cut.values.tabs as { length: number }).length);
  });
  it('a recipe brings its cuts and cutters to other artwork', () => {
    const recipe = recipeOf(job(), [job().cuts[0].id, job().cuts[3].id], 'r', 'Board');
    open({ ...newOneSetup('Other'), items: [rect('a', 20, 30)] });
    pick('a');
    applyRecipe(recipe);
    expect(names()).toEqual(['Lettering', 'Cut free']);
    expect(job().cuts.every((c) => c.items.join() === 'a')).toBe(true);
    expect(job().cutters.length).toBeGreaterThanOrEqual(3);
  });
  it('a cutter is taken as the library has it, but keeps its slot in this job', () => {
    const mine = job().cutters[0];
    takeFromLibrary({ ...mine, name: 'Sharpened', slot: 99 });
    expect(job().cutters[0]).toMatchObject({ name: 'Sharpened', slot: mine.slot });
    takeFromLibrary({ ...mine, id: 'nobody' });
    expect(job().cutters.some((c) => c.id === 'nobody')).toBe(false);
  });
});

describe('what is copied into another job', () => {
  const font = { id: 'a'.repeat(64), type: 'font' as const, name: 'Oak', file: 'fonts/oak.ttf' };
  const other = { ...font, id: 'b'.repeat(64), name: 'Elm' };
  const letters = newItem({
    id: 'l',
    name: 'Letters',
    kind: 'lettering',
    values: { ...(itemKindOf('lettering').defaults as object), font: font.id },
  });
  it('brings the files that it needs, and says which are not on this device', async () => {
    open({ ...newOneSetup('Lock 7'), assets: [font, other], items: [letters, rect('a', 20, 30)] });
    pick('l', 'a');
    expect(copyToClipboard()).toBe(true);
    open(newOneSetup('Lock 8'));
    pasteFromClipboard();
    expect(job().items.map((i) => i.kind)).toEqual(['lettering', 'rectangle']);
    expect(job().assets).toEqual([font]);
    pasteFromClipboard();
    expect(job().assets).toEqual([font]);
    await waitFor(() => mockTold.join().includes('came without the font "Oak"'));
    undo();
    undo();
    expect(job().assets).toEqual([]);
  });
  it('that is typed into a sheet which lags behind goes to what the sheet shows, whichever set-up is shown by then', () => {
    open({ ...newOneSetup('Lock 7'), items: [rect('a', 20, 30)] });
    const whole = useOpenJob.getState().whole!;
    const front = whole.setups[0].id;
    const two = withNewSetup(whole, front, 'y', () => `f${Math.random()}`);
    useOpenJob.setState({ id: 'j', ...shown(two.job, two.id), past: [], future: [] });
    changeItem('a', 'Move', (i) => void (i.x = 25));
    expect(useOpenJob.getState().shownId).toBe(two.id);
    expect(useOpenJob.getState().whole!.setups[0].items[0].x).toBe(25);
    undo();
    expect(useOpenJob.getState().whole!.setups[0].items[0].x).toBe(20);
  });
  it('follows nothing there: a link comes as what it shows, and stays a link in its own job', () => {
    open({ ...newOneSetup('Lock 7'), items: [rect('a', 20, 30)] });
    const whole = useOpenJob.getState().whole!;
    const two = withNewSetup(whole, whole.setups[0].id, 'y', () => `f${Math.random()}`);
    const linked = withLinks(two.job, two.id, whole.setups[0].items, () => 'link').job;
    useOpenJob.setState({ id: 'j', ...shown(linked, two.id), past: [], future: [] });
    const { x } = job().items[0];
    expect(x).toBe(linked.blanks[0].width - 20);
    pick('link');
    copyToClipboard();
    pasteFromClipboard();
    expect(job().items.map((i) => [i.kind, i.x])).toEqual([
      ['linked', x],
      ['linked', x + 5],
    ]);
    open(newOneSetup('Lock 8'));
    pasteFromClipboard();
    expect(job().items.map((i) => [i.kind, i.x, i.values.width])).toEqual([['rectangle', x, 10]]);
  });
});
