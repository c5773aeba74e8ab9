import type { FormHands } from '@/core/pipeline/shaping';
import type { Grid } from '@/core/relief/field';
import { formKindOf } from '@/core/relief/registry';
import { whileWanted } from '@/core/units/stillWanted';
import { DONE, isReady, lead, lend, makeBoard, SILENCE, type Board } from './board';
import { sharedHeights } from './hands';
import { inShared } from './shared';

/** Rows of a form that several make, as it goes from thread to thread (`./board.ts`). */
export interface SharedForm extends Board {
  readonly form: string;
  readonly data: unknown;
  readonly grid: Grid;
  readonly under: Float32Array;
  readonly reach: number;
  readonly bands: readonly (readonly [from: number, to: number])[];
  readonly z: Float32Array;
}

/** Distances are worked out in squares of so many nodes: bands end where squares do. */
const SQUARE = 64;
/** So many bands for each of those who take part: who is done first does more. */
const EACH = 3;

const rowsOf = (g: Grid, from: number, to: number): Grid => ({ ...g, rows: to - from, first: from });

/** Makes one band, with as many rows round it as are looked at. */
function makeBand({ form, data, grid: g, under, reach, bands, z, board }: SharedForm, k: number): void {
  const [from, to] = bands[k];
  const [low, high] = [Math.max(0, from - reach), Math.min(g.rows, to + reach)];
  const made = formKindOf(form).rows!(data, rowsOf(g, low, high), under.subarray(low * g.cols, high * g.cols));
  z.set(made.subarray((from - low) * g.cols, (to - low) * g.cols), from * g.cols);
  Atomics.add(board, DONE, 1);
}

/** Helps with a form that somebody else has laid out. */
export const lendRows = (shared: SharedForm): void =>
  lend(shared, shared.bands.length, (k, still) => {
    // As long as it works, whoever leads hears of it.
    whileWanted(
      () => {
        Atomics.add(shared.board, DONE, 1);
        still();
      },
      () => makeBand(shared, k),
    );
  });

function bandsOf(rows: number, reach: number, several: number): (readonly [number, number])[] {
  // Rows that are looked at round a band are made twice.
  const least = Math.max(SQUARE, SQUARE * Math.ceil((4 * reach) / SQUARE));
  const each = Math.max(least, SQUARE * Math.ceil(rows / (EACH * several) / SQUARE));
  return Array.from({ length: Math.ceil(rows / each) }, (_, k) => [k * each, Math.min(rows, (k + 1) * each)] as const);
}

/** More than so many do not make rows any faster: memory is what they wait for. */
const MOST_THREADS = 8;
/** Fewer nodes are shaped by one. */
const WORTH = 2e5;

interface Port {
  postMessage(what: SharedForm): void;
}

/** Those behind some ports, who answer with `lendRows`, and whoever asks. `ports` is looked at each time: others may come. */
export const formHands = (ports: readonly Port[], { silence = SILENCE, worth = WORTH } = {}): FormHands => ({
  worth,
  memory: sharedHeights,
  rows(kind, { data, reach = 0 }, grid, under) {
    const bands = bandsOf(grid.rows, reach, Math.min(MOST_THREADS, ports.length + 1));
    const alone = bands.length < 2 || !ports.length;
    const shared: SharedForm = {
      ...makeBoard(bands.length),
      form: kind.id,
      data: alone ? data : inShared(data),
      grid,
      under: kind.adjusts ? under : new Float32Array(),
      reach,
      bands,
      z: sharedHeights(grid.cols * grid.rows),
    };
    if (!alone) for (const p of ports) p.postMessage(shared);
    const missed = lead(
      shared,
      bands.length,
      (k) => makeBand(shared, k),
      () => {},
      silence,
    );
    // Whoever was missed may still write into what it was given.
    const z = missed ? shared.z.slice() : shared.z;
    const anew = { ...shared, z };
    for (let k = 0; k < bands.length; k++) if (!isReady(shared, k)) makeBand(anew, k);
    return z;
  },
});
