import { atRest, atWork, stepAside } from './stepAside';

/**
 * Work that several do in bands. Whoever leads lays it out once, in shared memory, tells the others, and takes bands off the same
 * board as they do, until none is left; then it waits for those who are still at one. It never waits for anybody to begin: a
 * worker that is busy with something else comes late, or not at all.
 *
 *     board   next band ── stop ── workers at it ── done ── what else is counted
 */
export interface Board {
  readonly board: Int32Array;
  /** How each band stands. */
  readonly state: Int32Array;
}

const NEXT = 0;
const STOP = 1;
const INSIDE = 2;
/** Rises as work goes on: who leads sees by it that others are alive. */
export const DONE = 3;
/** What those who share the work count beyond that begins here. */
export const MORE = 4;

/** How a band stands that is done. */
const READY = 1;
/** A band of which nothing is heard for so long, ms, is done anew by whoever leads: its worker is no more. */
export const SILENCE = 4000;
/** How often whoever waits looks up, ms. */
const LOOK = 25;

const ints = (n: number): Int32Array => new Int32Array(new SharedArrayBuffer(4 * n));
export const makeBoard = (bands: number, more = 0): Board => ({ board: ints(MORE + more), state: ints(bands) });

export const isReady = ({ state }: Board, k: number): boolean => Atomics.load(state, k) === READY;

/** Whoever lends a hand leaves, and nobody begins. */
export const giveUp = ({ board }: Board): void => void Atomics.store(board, STOP, 1);

class Stopped extends Error {}

/** Takes bands off the board and does them, until none of the `count` is free. */
function takeBands(b: Board, count: number, work: (k: number) => void): void {
  for (let k; (k = Atomics.add(b.board, NEXT, 1)) < count;) {
    stepAside();
    work(k);
    Atomics.store(b.state, k, READY);
  }
}

/** Helps with work that somebody else has laid out, until there is none left or it is no longer wanted; `still` throws then. */
export function lend({ board, state }: Board, count: number, work: (k: number, still: () => void) => void): void {
  const still = () => {
    stepAside();
    if (Atomics.load(board, STOP)) throw new Stopped();
  };
  Atomics.add(board, INSIDE, 1);
  try {
    still();
    atWork(() => takeBands({ board, state }, count, (k) => work(k, still)));
  } catch (e) {
    if (!(e instanceof Stopped)) throw e;
  } finally {
    Atomics.sub(board, INSIDE, 1);
    Atomics.notify(board, INSIDE);
  }
}

/**
 * Leads work of `count` bands: does what is free, and waits for those who are at the rest. `tell` is called while it waits. Tells
 * whether somebody was missed: who may still come back to what this work is done on. Throws what `work` throws, when nobody is at it
 * any more.
 */
export function lead(b: Board, count: number, work: (k: number) => void, tell: () => void, silence = SILENCE): boolean {
  const { board } = b;
  let missed = false;
  /** Waits until nobody is at it any more, or nothing has been heard for too long of those who are. */
  const alone = (say: () => void) => {
    let last = -1;
    let since = performance.now();
    for (let inside; !missed && (inside = Atomics.load(board, INSIDE));) {
      atRest(() => void Atomics.wait(board, INSIDE, inside, LOOK));
      say();
      const now = Atomics.load(board, DONE);
      if (now !== last) [last, since] = [now, performance.now()];
      missed = performance.now() - since > silence;
    }
  };
  try {
    // Whoever leads is not counted among those inside: it is here.
    takeBands(b, count, work);
    alone(tell);
    tell();
  } finally {
    // Late comers find nothing to do; who is cut off in the middle leaves.
    giveUp(b);
    alone(() => {});
  }
  return missed;
}
