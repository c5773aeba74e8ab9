import { cutRows, type CuttingWork, type Hands, type CollisionKind, type Met } from '@/core/proof/cutting';
import type { Rows } from '@/core/kernels/removal';
import { derived } from '@/core/geometry/hash';
import type { Motion } from '@/core/motion/motion';
import { append } from '@/core/units/append';
import { DONE, isReady, lead, lend, makeBoard, MORE, SILENCE, type Board } from './board';
import { sharedView } from './shared';

/** Cutting on several cores: bands of the field, off one board (`./board.ts`). */

/** How many things were met. */
const MET = MORE;

/** Room for what is met; more than that is asked anew by one alone. */
const MOST_MET = 20_000;
const KINDS: readonly CollisionKind[] = ['rapid', 'shank', 'rub'];
/** A proof of fewer moves is done by one. */
const WORTH = 20_000;
/** Work as it goes from thread to thread. */
export interface Shared extends Board {
  readonly work: CuttingWork;
  readonly bands: readonly Rows[];
  /** Run, kind, move and depth of each thing met. */
  readonly met: Float64Array;
}

/** Cuts one band; `each` is called after every run, and may throw. */
function cutBand({ work, bands, board, met }: Shared, k: number, each: () => void): void {
  const found = cutRows(work, bands[k], (moves) => {
    Atomics.add(board, DONE, moves);
    each();
  });
  for (const m of found) {
    const at = Atomics.add(board, MET, 1);
    if (at < MOST_MET) met.set([m.run, KINDS.indexOf(m.kind), m.move, m.depth], 4 * at);
  }
}

/** Helps with work that somebody else has laid out, until there is none left or it is no longer wanted. */
export const lendHand = (shared: Shared): void =>
  lend(shared, shared.bands.length, (k, still) => cutBand(shared, k, still));

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
        ...makeBoard(bands.length, 1),
        met: new Float64Array(new SharedArrayBuffer(8 * 4 * MOST_MET)),
      };
      const { board, met } = shared;
      for (const p of ports) p.postMessage(shared);
      let told = 0;
      const said = new Uint8Array(bands.length);
      const tell = () => {
        const now = Atomics.load(board, DONE);
        const more = now - told;
        told = now;
        if (more) progress(more);
        for (const [k, band] of bands.entries())
          if (!said[k] && isReady(shared, k)) {
            said[k] = 1;
            ready(band);
          }
      };
      let runs = 0;
      missed = lead(shared, bands.length, (k) => cutBand(shared, k, () => ++runs % 16 || tell()), tell, silence);
      const count = Atomics.load(board, MET);
      const out: Met[] = [];
      for (let k = 0; k < Math.min(count, MOST_MET); k++) {
        const [run, kind, move, depth] = met.subarray(4 * k, 4 * k + 4);
        out.push({ run, kind: KINDS[kind], move, depth });
      }
      // What a worker that is no more has left is cut anew; all of it, where more was met than there is room for.
      for (const [k, rows] of bands.entries()) {
        if (isReady(shared, k) && count <= MOST_MET) continue;
        afresh(rows);
        append(out, cutRows(work, rows, progress));
      }
      return out;
    },
  };
}
