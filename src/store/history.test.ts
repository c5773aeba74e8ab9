import { newJob } from '@/core/job/oneSetup';
import { shown, useOpenJob } from './openJob';

/** The open job without a device: what is kept is the history, nothing is saved. */
const open = () =>
  useOpenJob.setState({ id: null, ...shown(newJob('Lock 7')), revision: 1, save: 'saved', past: [], future: [] });
const { edit, undo, redo } = useOpenJob.getState();
const name = () => useOpenJob.getState().job!.name;

describe('the history of the open job', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    open();
  });
  afterEach(() => jest.useRealTimers());

  test('goes back and forward over every change, by name', () => {
    for (const n of ['a', 'b', 'c']) edit(`Name ${n}`, (j) => void (j.name = n));
    expect(useOpenJob.getState().past.map((s) => s.name)).toEqual(['Name a', 'Name b', 'Name c']);
    undo();
    undo();
    expect(name()).toBe('a');
    redo();
    expect(name()).toBe('b');
    edit('Name d', (j) => void (j.name = 'd'));
    expect(useOpenJob.getState().future).toEqual([]);
    undo();
    undo();
    undo();
    undo();
    expect(name()).toBe('Lock 7');
  });
  test('quick changes under one key are one step, slow ones are two', () => {
    edit('Type', (j) => void (j.name = 'F'), 'text');
    edit('Type', (j) => void (j.name = 'Fe'), 'text');
    expect(useOpenJob.getState().past).toHaveLength(1);
    jest.advanceTimersByTime(2000);
    edit('Type', (j) => void (j.name = 'Fen'), 'text');
    expect(useOpenJob.getState().past).toHaveLength(2);
    undo();
    expect(name()).toBe('Fe');
    undo();
    expect(name()).toBe('Lock 7');
  });
  test('a gesture is one step, however long the hand rests in it, and the next one is another', () => {
    for (const drag of [Symbol('drag'), Symbol('drag')])
      for (const place of ['1', '2', '3']) {
        edit('Drag', (j) => void (j.name += place), drag);
        jest.advanceTimersByTime(60_000);
      }
    expect(useOpenJob.getState().past).toHaveLength(2);
    undo();
    expect(name()).toBe('Lock 7123');
    undo();
    expect(name()).toBe('Lock 7');
  });
  test('a change that changes nothing is no step', () => {
    edit('Nothing', (j) => void (j.name = 'Lock 7'));
    expect(useOpenJob.getState().past).toEqual([]);
  });
  test('versions share what did not change', () => {
    const before = useOpenJob.getState().job!;
    edit('Rename', (j) => void (j.name = 'x'));
    const after = useOpenJob.getState().job!;
    expect(after.blank).toBe(before.blank);
    expect(after.run).toBe(before.run);
    undo();
    expect(useOpenJob.getState().job).toBe(before);
  });
});
