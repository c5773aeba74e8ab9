import 'fake-indexeddb/auto';
import { demoSetups } from '@/core/job/demo';
import { cutKinds } from '@/core/cuts/registry';
import { jobOf } from '@/core/job/oneSetup';
import { shown, useOpenJob } from '@/store/openJob';
import { setView, useView } from '@/ui/view';
import { pickable } from './edits';
import { actions, onShortcut } from './registry';

/** A key as the browser reports it, pressed over the table unless over something else. */
function press(key: string, { ctrl = false, shift = false, alt = false, code = '', over = '' } = {}): boolean {
  const event = {
    key,
    code,
    ctrlKey: ctrl,
    metaKey: false,
    shiftKey: shift,
    altKey: alt,
    target: { closest: (selector: string) => (selector.includes(over || 'application') ? {} : null) },
    preventDefault: () => {},
  };
  return onShortcut(event as unknown as KeyboardEvent);
}
beforeAll(() => {
  Object.assign(globalThis, { document: { querySelector: () => null } });
});
beforeEach(() => {
  useOpenJob.setState({ id: 'j', ...shown(jobOf(demoSetups['lock-cottage-board']())), past: [], future: [] });
  setView({ stage: 'artwork', picked: [], tool: 'pick', table: 'both', commands: false });
});

describe('actions', () => {
  it('have ids, names and shortcuts of their own', () => {
    for (const key of ['id', 'name'] as const) expect(new Set(actions.map((a) => a[key])).size).toBe(actions.length);
    const keys = actions.flatMap((a) => a.shortcut ?? []);
    expect(new Set(keys).size).toBe(keys.length);
    for (const k of cutKinds) expect(actions.some((a) => a.id === `cut-${k.id}`)).toBe(true);
  });
  it('are met by their shortcuts', () => {
    expect(press('n')).toBe(true);
    expect(useView.getState().tool).toBe('nodes');
    expect(press('4', { alt: true, code: 'Digit4' })).toBe(true);
    expect(useView.getState().stage).toBe('cuts');
    press('1');
    expect(useView.getState().table).toBe('plan');
    press('k', { ctrl: true });
    expect(useView.getState().commands).toBe(true);
    expect(press('F9')).toBe(false);
  });
  it('change the job, and undo takes it back', () => {
    press('a', { ctrl: true });
    const all = pickable(useOpenJob.getState().job!);
    expect(useView.getState().picked).toEqual(all.map((i) => i.id));
    const x = all[0].x;
    press('ArrowRight', { shift: true });
    expect(useOpenJob.getState().job!.items.find((i) => i.id === all[0].id)!.x).toBeCloseTo(x + 10, 9);
    press('Delete');
    expect(useOpenJob.getState().job!.items).toHaveLength(0);
    press('z', { ctrl: true });
    press('z', { ctrl: true });
    expect(useOpenJob.getState().job!.items.find((i) => i.id === all[0].id)!.x).toBe(x);
    press('z', { ctrl: true, shift: true });
    expect(useOpenJob.getState().job!.items.find((i) => i.id === all[0].id)!.x).toBeCloseTo(x + 10, 9);
  });
  it('leave typing alone, but for those that cannot be meant for the text', () => {
    expect(press('d', { over: 'input' })).toBe(false);
    expect(press('z', { ctrl: true, over: 'input' })).toBe(false);
    expect(press('k', { ctrl: true, over: 'input' })).toBe(true);
    expect(press('2', { alt: true, code: 'Digit2', over: 'input' })).toBe(true);
  });
  it('change artwork or tool by a bare key on the table alone', () => {
    setView({ picked: [useOpenJob.getState().job!.items[0].id] });
    const before = useOpenJob.getState().job;
    for (const key of ['n', 'd', 'g', 'm', 't', 'c', 'ArrowRight', 'ArrowUp']) press(key, { over: 'Items' });
    expect(useOpenJob.getState().job).toBe(before);
    expect(useView.getState().tool).toBe('pick');
    press('m');
    expect(useOpenJob.getState().job).not.toBe(before);
  });
  it('move things by sixteenths of an inch in a job in inches', () => {
    const job = demoSetups['lock-cottage-board']();
    job.unit = 'in';
    useOpenJob.setState(shown(jobOf(job)));
    setView({ picked: [job.items[0].id] });
    press('ArrowRight');
    expect(useOpenJob.getState().job!.items[0].x).toBeCloseTo(job.items[0].x + 25.4 / 16, 9);
  });
  it('hold back while they make no sense', () => {
    const group = actions.find((a) => a.id === 'group')!;
    expect(group.enabled!()).toBe(false);
    setView({ picked: [useOpenJob.getState().job!.items[0].id] });
    expect(group.enabled!()).toBe(true);
  });
  it('do not pick what is hidden, or lies on a hidden or locked layer', () => {
    const job = demoSetups['lock-cottage-board']();
    const n = job.items.length;
    job.items[0] = { ...job.items[0], visible: false };
    expect(pickable(job)).toHaveLength(n - 1);
    job.layers[0] = { ...job.layers[0], locked: true };
    expect(pickable(job)).toHaveLength(job.items.filter((i) => i.layer !== job.layers[0].id && i.visible).length);
  });
});
