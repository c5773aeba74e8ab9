import { Worker } from 'node:worker_threads';
import { lend, makeBoard } from './board';
import { atRest, atWork, followMaker, pageFirst, pageMark, stepAside, takeMark } from './stepAside';

/** As many as the code is told of: here by what this machine has. */
const PROCESSORS = globalThis.navigator?.hardwareConcurrency || 2;

/** The time, ms, and the waits: each takes as long as it may. */
let now = 0;
jest.spyOn(performance, 'now').mockImplementation(() => now);
const waits = jest.spyOn(Atomics, 'wait');
const LONGEST = 80;
const busy = (): number => Atomics.load(new Int32Array(pageMark()!), 0);
const setBusy = (): void => void Atomics.store(new Int32Array(pageMark()!), 0, 1);
/** So many of the other workers are at work. */
const others = (n: number): void => void Atomics.store(new Int32Array(pageMark()!), 1, n);
const workers = (): number => Atomics.load(new Int32Array(pageMark()!), 1);
/** Work that is asked after so long, ms, whether it steps aside; tells how often it has waited. */
const worksFor = (...after: number[]): number => {
  waits.mockClear();
  atWork(() => {
    for (const ms of after) {
      now += ms;
      stepAside();
    }
  });
  return waits.mock.calls.length;
};

/** A page: what it listens to, whether it is seen, and what it does once it has nothing else to do. */
function page() {
  const heard = new Map<string, (e: object) => void>();
  const idle: (() => void)[] = [];
  const listens = { addEventListener: (kind: string, f: (e: object) => void) => void heard.set(kind, f) };
  const document = { ...listens, hidden: false };
  const requestIdleCallback = (f: () => void) => void idle.push(f);
  Object.assign(globalThis, { window: { ...listens, requestIdleCallback }, document, requestIdleCallback });
  followMaker();
  return {
    document,
    happens: (kind: string, e = {}) => heard.get(kind)!(e),
    rests: () => idle.splice(0).forEach((f) => f()),
  };
}
beforeEach(() => {
  takeMark(new SharedArrayBuffer(8));
  waits.mockImplementation((_, __, ___, ms) => ((now += ms!), 'timed-out'));
});
afterEach(() => {
  for (const name of ['window', 'document', 'requestIdleCallback'])
    delete (globalThis as Record<string, unknown>)[name];
});

test('who works waits while the page is at work and finds no processor free: not for ever, and not until it has worked itself', () => {
  others(PROCESSORS - 1);
  expect(worksFor(1000)).toBe(0);
  setBusy();
  expect(worksFor(LONGEST - 1)).toBe(0);
  expect(worksFor(LONGEST)).toBe(1);
  expect(waits.mock.calls[0].slice(1)).toEqual([0, 1, LONGEST]);
  expect(worksFor(LONGEST, LONGEST - 1)).toBe(1);
  expect(worksFor(LONGEST, LONGEST - 1, 1)).toBe(2);
});

test('nobody waits where a processor is free, nor who has nothing to do', () => {
  setBusy();
  others(PROCESSORS - 2);
  expect(worksFor(1000)).toBe(0);
  others(PROCESSORS);
  now += 1000;
  stepAside();
  expect(waits).not.toHaveBeenCalled();
});

test('whoever works is counted, once whatever it does within, and not while it waits or when it has failed', () => {
  const seen: number[] = [];
  atWork(() => atWork(() => seen.push(workers())));
  expect(() =>
    atWork(() => {
      throw new Error('no');
    }),
  ).toThrow('no');
  atWork(() => atRest(() => void seen.push(workers())));
  atRest(() => void seen.push(workers()));
  expect([...seen.splice(0), workers()]).toEqual([1, 0, 0, 0]);
  setBusy();
  others(PROCESSORS - 1);
  waits.mockImplementation(() => (seen.push(workers()), 'ok'));
  expect(worksFor(LONGEST)).toBe(1);
  expect([...seen, workers()]).toEqual([PROCESSORS - 1, PROCESSORS - 1]);
});

test('those who take bands off a board step aside between them', () => {
  setBusy();
  others(PROCESSORS - 1);
  const done: number[] = [];
  waits.mockClear();
  lend(makeBoard(3), 3, (k) => {
    now += LONGEST / 2;
    done.push(k);
  });
  expect(waits).toHaveBeenCalledTimes(1);
  expect(done).toEqual([0, 1, 2]);
});

test('and goes on as soon as it is told that the page has nothing more to do', async () => {
  waits.mockRestore();
  const really = jest.spyOn(Atomics, 'wait');
  setBusy();
  others(PROCESSORS - 1);
  const wakes = `const { workerData, parentPort } = require('node:worker_threads');
    parentPort.postMessage('');
    while (!Atomics.notify(new Int32Array(workerData), 0)) Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 1);`;
  const other = new Worker(wakes, { eval: true, workerData: pageMark() });
  await new Promise((r) => other.once('message', r));
  atWork(() => {
    now += LONGEST;
    stepAside();
  });
  expect(really.mock.results.map((r) => r.value as string)).toEqual(['ok']);
  await other.terminate();
});

test('a page is at work from a key, a press or what it is told until it rests, and not for a pointer that goes over it', () => {
  const p = page();
  for (const kind of ['keydown', 'pointerdown', 'click', 'wheel']) {
    expect(busy()).toBe(0);
    p.happens(kind);
    p.happens(kind);
    expect(busy()).toBe(1);
    p.rests();
  }
  p.happens('pointermove', { buttons: 0 });
  expect(busy()).toBe(0);
  p.happens('pointermove', { buttons: 1 });
  expect(busy()).toBe(1);
  p.rests();
  pageFirst();
  expect(busy()).toBe(1);
});

test('a page that is not seen lets everybody work', () => {
  const p = page();
  p.happens('click');
  p.document.hidden = true;
  p.happens('visibilitychange');
  expect(busy()).toBe(0);
  p.rests();
  pageFirst();
  expect(busy()).toBe(0);
});
