/**
 * Workers step aside while the page is at work for its maker. There are as many workers as processors, so where all of them work the
 * page would have to share a processor with one, and be twice as long over each of its tasks: so many of them wait that one is free.
 *
 *     page       ──── key ▇▇▇▇▇ nothing more to do ─────── tells ▇▇ ───
 *     one        ▇▇▇▇▇▇▇▇▇      ▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇     ▇▇▇
 *     the other  ▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇▇
 *
 * They see it by marks in shared memory, where they ask whether their work is still wanted.
 */
let mark: Int32Array | null = null;
/** When this worker may be asked to wait again, ms. */
let again = 0;
let working = false;

/** Whether the page is at work, and how many of its workers are. */
const PAGE = 0;
const WORKERS = 1;
const FREE = 0;
const BUSY = 1;
/**
 * So long a worker waits at most, and so long it works before that, whatever the page does, ms: it goes on at half its speed at
 * least, and what is short is done before it: the page may be waiting for just that.
 */
const LONGEST = 80;
/** A page that is never done is taken for done after so long, ms. */
const NEVER_DONE = 300;

/** The mark of this page, or of the page that this worker works for; null where memory cannot be shared. */
export function pageMark(): SharedArrayBuffer | null {
  if (!mark && typeof SharedArrayBuffer !== 'undefined') mark = new Int32Array(new SharedArrayBuffer(8));
  return (mark?.buffer as SharedArrayBuffer | undefined) ?? null;
}

/** In a worker: takes the mark of the page that it works for. */
export const takeMark = (shared: SharedArrayBuffer | null): void => void (mark = shared && new Int32Array(shared));

const rested = (): void => void (again = performance.now() + LONGEST);

/** In a worker that computes: does work that takes a processor. One that dies at it stays counted: the others wait sooner than they need. */
export function atWork<T>(work: () => T): T {
  // What is done within other work is counted once.
  if (working || !mark) return work();
  working = true;
  Atomics.add(mark, WORKERS, 1);
  rested();
  try {
    return work();
  } finally {
    Atomics.sub(mark, WORKERS, 1);
    working = false;
  }
}

/** In a worker that computes: waits for others, and is not counted meanwhile. */
export function atRest(wait: () => void): void {
  if (!mark || !working) return wait();
  Atomics.sub(mark, WORKERS, 1);
  wait();
  Atomics.add(mark, WORKERS, 1);
}

/** In a worker that computes: waits while its page is at work and finds no processor free, within bounds. */
export function stepAside(): void {
  if (!mark || !working || Atomics.load(mark, PAGE) !== BUSY || performance.now() < again) return;
  // Whoever waits is not counted: the next one may find that enough of them do.
  if (Atomics.sub(mark, WORKERS, 1) >= processors()) {
    Atomics.wait(mark, PAGE, BUSY, LONGEST);
    rested();
  }
  Atomics.add(mark, WORKERS, 1);
}

const processors = (): number => globalThis.navigator?.hardwareConcurrency || 2;

function pageDone(): void {
  if (!mark) return;
  Atomics.store(mark, PAGE, FREE);
  Atomics.notify(mark, PAGE);
}

/** In the page: it has something to do for its maker, if it is seen, and its workers step aside until it has nothing more to do. */
export function pageFirst(): void {
  if (document.hidden || !pageMark()) return;
  // What comes while it is at work belongs to that.
  if (Atomics.exchange(mark!, PAGE, BUSY) === BUSY) return;
  if ('requestIdleCallback' in window) requestIdleCallback(pageDone, { timeout: NEVER_DONE });
  // Where nobody tells when a page has nothing to do: after its next picture.
  else requestAnimationFrame(() => setTimeout(pageDone));
}

/** In the page: from now on it goes first at whatever its maker does; a pointer that goes over it with no button down asks for nothing. */
export function followMaker(): void {
  for (const kind of ['keydown', 'pointerdown', 'pointerup', 'click', 'wheel'] as const)
    window.addEventListener(kind, pageFirst, { capture: true, passive: true });
  window.addEventListener('pointermove', (e) => void (e.buttons && pageFirst()), { capture: true, passive: true });
  // Whoever is not seen any more is told late, or not at all, that there is nothing to do.
  document.addEventListener('visibilitychange', () => document.hidden && pageDone());
}
