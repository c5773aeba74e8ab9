import { cutRows, type CuttingWork, type Hands, type CollisionKind, type Met } from '@/core/proof/cutting';
import type { Rows } from '@/core/kernels/removal';
import { derived } from '@/core/geometry/hash';
import type { Motion } from '@/core/motion/motion';
import { append } from '@/core/units/append';
import { sharedView } from './shared';

/**
 * Cutting on several cores. Whoever proves lays the work out once, in shared memory, tells the others, and takes bands off the
 * same board as they do, until none is left; then it waits for those who are still at one. It never waits for anybody to begin:
 * a worker that is busy with something else comes late, or not at all.
 *
 *     board   next band ── stop ── workers at it ── moves done ── met
 */
const NEXT = 0;
const STOP = 1;
const INSIDE = 2;
const DONE = 3;
const MET = 4;
const BOARD = 5;

/** How a band stands that has been cut. */
const CUT = 1;

/** Room for what is met; more than that is asked anew by one alone. */
const MOST_MET = 20_000;
const KINDS: readonly CollisionKind[] = ['rapid', 'shank', 'rub'];
/** A band of which nothing is heard for so long, ms, is cut anew by whoever asked: its worker is no more. */
const SILENCE = 4000;
/** A proof of fewer moves is done by one. */
const WORTH = 20_000;
/** How often whoever waits looks up, ms. */
const LOOK = 25;

/** Work as it goes from thread to thread. */
export interface Shared {
  readonly work: CuttingWork;
  readonly bands: readonly Rows[];
  readonly board: Int32Array;
  /** How each band stands. */
  readonly state: Int32Array;
  /** Run, kind, move and depth of each thing met. */
  readonly met: Float64Array;
}

class Stopped extends Error {}

/** Cuts one band; `each` is called after every run, and may throw. */
function cutBand({ work, bands, board, state, met }: Shared, k: number, each: () => void): void {
  const found = cutRows(work, bands[k], (moves) => {
    Atomics.add(board, DONE, moves);
    each();
  });
  for (const m of found) {
    const at = Atomics.add(board, MET, 1);
    if (at < MOST_MET) met.set([m.run, KINDS.indexOf(m.kind), m.move, m.depth], 4 * at);
  }
  Atomics.store(state, k, CUT);
}

/** Takes bands off the board and cuts them, until none is free. */
function cutBands(shared: Shared, each: () => void): void {
  for (let k; (k = Atomics.add(shared.board, NEXT, 1)) < shared.bands.length; ) cutBand(shared, k, each);
}

/** Helps with work that somebody else has laid out, until there is none left or it is no longer wanted. */
export function lendHand(shared: Shared): void {
  const { board } = shared;
  const stopped = () => {
    if (Atomics.load(board, STOP)) throw new Stopped();
  };
  Atomics.add(board, INSIDE, 1);
  try {
    stopped();
    cutBands(shared, stopped);
  } catch (e) {
    if (!(e instanceof Stopped)) throw e;
  } finally {
    Atomics.sub(board, INSIDE, 1);
    Atomics.notify(board, INSIDE);
  }
}

const ways = derived<Motion, Motion>();
/** What cutting needs of a motion, in shared memory: copied once, however often it is cut. */
const sharedWay = (m: Motion): Motion =>
  ways(m, '', () => ({
    ...m,
    kind: sharedView(m.kind),
    x: sharedView(m.x),
    y: sharedView(m.y),
    z: sharedView(m.z),
    cx: sharedView(m.cx),
    cy: sharedView(m.cy),
    // Cutting knows no speeds.
    feed: new Float64Array(0),
  }));

const ints = (n: number): Int32Array => new Int32Array(new SharedArrayBuffer(4 * n));

/** Heights in memory that others can cut in. */
export const sharedHeights = (n: number): Float32Array => new Float32Array(new SharedArrayBuffer(4 * n));

interface Port {
  postMessage(what: Shared): void;
}

/** Those behind some ports, who answer with `lendHand`, and whoever asks. `ports` is looked at each time: others may come. */
export function handsOver(ports: readonly Port[], { silence = SILENCE, worth = WORTH } = {}): Hands {
  let missed = false;
  return {
    worth,
    get missed() {
      return missed;
    },
    get count() {
      return ports.length + 1;
    },
    cut(work, bands, afresh, progress, ready = () => {}) {
      const shared: Shared = {
        work: { ...work, ways: work.ways.map(({ way, cutter }) => ({ way: sharedWay(way as Motion), cutter })) },
        bands,
        board: ints(BOARD),
        state: ints(bands.length),
        met: new Float64Array(new SharedArrayBuffer(8 * 4 * MOST_MET)),
      };
      const { board, state, met } = shared;
      for (const p of ports) p.postMessage(shared);
      let told = 0;
      const said = new Uint8Array(bands.length);
      const tell = () => {
        const now = Atomics.load(board, DONE);
        const more = now - told;
        told = now;
        if (more) progress(more);
        for (const [k, band] of bands.entries())
          if (!said[k] && Atomics.load(state, k) === CUT) {
            said[k] = 1;
            ready(band);
          }
      };
      let runs = 0;
      missed = false;
      /** Waits until nobody is at the field any more, or nothing has been heard for too long of those who are. */
      const alone = (say: () => void) => {
        let last = -1;
        let since = performance.now();
        for (let inside; !missed && (inside = Atomics.load(board, INSIDE)); ) {
          Atomics.wait(board, INSIDE, inside, LOOK);
          say();
          const now = Atomics.load(board, DONE);
          if (now !== last) [last, since] = [now, performance.now()];
          missed = performance.now() - since > silence;
        }
      };
      try {
        // Whoever asks is not counted among those inside: it is here.
        cutBands(shared, () => ++runs % 16 || tell());
        alone(tell);
        tell();
      } finally {
        // Late comers find nothing to do; who is cut off in the middle leaves the field.
        Atomics.store(board, STOP, 1);
        alone(() => {});
      }
      const count = Atomics.load(board, MET);
      const out: Met[] = [];
      for (let k = 0; k < Math.min(count, MOST_MET); k++) {
        const [run, kind, move, depth] = met.subarray(4 * k, 4 * k + 4);
        out.push({ run, kind: KINDS[kind], move, depth });
      }
      // What a worker that is no more has left is cut anew; all of it, where more was met than there is room for.
      for (const [k, rows] of bands.entries()) {
        if (Atomics.load(state, k) === CUT && count <= MOST_MET) continue;
        afresh(rows);
        append(out, cutRows(work, rows, progress));
      }
      return out;
    },
  };
}
