import { followingOf, followPiece, type FollowHands, type FollowWork, type Pieces } from '@/core/cuts/relief/following';
import { whileWanted } from '@/core/units/stillWanted';
import { DONE, isReady, lead, lend, makeBoard, MORE, SILENCE, type Board } from './board';
import { inShared } from './shared';

/** Ways over a surface that several work out, as they go from thread to thread (`./board.ts`). */
export interface SharedWays extends Board {
  readonly work: FollowWork;
  readonly pieces: Pieces;
  /** Which pieces a band holds: from the first of it to that of the next. */
  readonly bands: Int32Array;
  /** Room for ways, and where in it that of each piece lies: its first number, and how many; -1 where there was no room. */
  readonly out: Float64Array;
  readonly where: Int32Array;
}

/** How much of the room is taken, and how many pieces are done. */
const TAKEN = MORE;
const PIECES = MORE + 1;
/** So many bands for each of those who take part: who is done first does more. */
const EACH = 8;
/** Fewer places are asked by one. */
const WORTH = 60_000;
/** Room for so many numbers at most: what does not fit is worked out by whoever leads. */
const MOST_ROOM = 32e6;
/** Numbers for each place that is asked: most of them are merged, and where the ground bends some are put in. */
const A_PLACE = 3;
/** A piece may be longer than it is thought to be. */
const SPARE = 64;

const ints = (n: number): Int32Array => new Int32Array(new SharedArrayBuffer(4 * n));

/** Works out one band. */
function followBand(
  { work, pieces, bands, out, where, board }: SharedWays,
  k: number,
  f: ReturnType<typeof followingOf>,
) {
  for (let p = bands[k]; p < bands[k + 1]; p++) {
    const way = followPiece(work, f, pieces, p);
    const at = Atomics.add(board, TAKEN, way.length);
    const fits = at + way.length <= out.length;
    if (fits) out.set(way, at);
    where.set([fits ? at : -1, way.length], 2 * p);
    Atomics.add(board, PIECES, 1);
    Atomics.add(board, DONE, 1);
  }
}

/** Helps with ways that somebody else has laid out. */
export function lendWays(shared: SharedWays): void {
  let own: ReturnType<typeof followingOf> | null = null;
  lend(shared, shared.bands.length - 1, (k, still) =>
    // As long as it works, whoever leads hears of it.
    whileWanted(
      () => {
        Atomics.add(shared.board, DONE, 1);
        still();
      },
      () => followBand(shared, k, (own ??= followingOf(shared.work))),
    ),
  );
}

/** The first piece of each band, about as many places in each, and how many pieces there are. */
function bandsOf(sizes: Float64Array, several: number): Int32Array {
  const all = sizes.reduce((a, b) => a + b, 0);
  const each = all / (EACH * several);
  const firsts = [0];
  let size = 0;
  sizes.forEach((s, k) => {
    size += s;
    if (size >= each * firsts.length && k + 1 < sizes.length) firsts.push(k + 1);
  });
  const bands = ints(firsts.length + 1);
  bands.set([...firsts, sizes.length]);
  return bands;
}

interface Port {
  postMessage(what: SharedWays): void;
}

/** Those behind some ports, who answer with `lendWays`, and whoever asks. `ports` is looked at each time: others may come. */
export const followHands = (
  ports: readonly Port[],
  { silence = SILENCE, worth = WORTH, most = MOST_ROOM } = {},
): FollowHands => ({
  get worth() {
    return ports.length ? worth : Infinity;
  },
  follow(work, pieces, sizes, tell) {
    const bands = bandsOf(sizes, ports.length + 1);
    const all = sizes.reduce((a, b) => a + b, 0);
    const shared: SharedWays = {
      ...makeBoard(bands.length - 1, 2),
      work: inShared(work),
      pieces: inShared(pieces),
      bands,
      out: new Float64Array(
        new SharedArrayBuffer(8 * Math.min(most, Math.ceil(A_PLACE * (all + SPARE * sizes.length)))),
      ),
      where: ints(2 * sizes.length),
    };
    for (const p of ports) p.postMessage(shared);
    const own = followingOf(work);
    const { board } = shared;
    const say = () => tell(Atomics.load(board, PIECES) / sizes.length);
    const missed = lead(shared, bands.length - 1, (k) => (say(), followBand(shared, k, own)), say, silence);
    // Whoever was missed may still write into what it was given.
    const [out, where] = missed ? [shared.out.slice(), shared.where.slice()] : [shared.out, shared.where];
    const ways: Float64Array[] = [];
    for (let k = 0; k + 1 < bands.length; k++)
      for (let p = bands[k]; p < bands[k + 1]; p++) {
        const [at, length] = [where[2 * p], where[2 * p + 1]];
        ways.push(isReady(shared, k) && at >= 0 ? out.subarray(at, at + length) : followPiece(work, own, pieces, p));
      }
    tell(1);
    return ways;
  },
});
