import type { Wanted } from '../cuts/wanted';
import { derived } from '../geometry/hash';
import { sparser, type HeightField } from '../relief/field';
import { keptOf, NOTHING_KEPT, type KeptPlaces, type Sampled } from './kept';
import { placesOf, TOLERANCE, type Place } from './places';

/** Sideways, a place may be off by so much, mm: walls stand where nodes do not. */
const SIDEWAYS = 0.006;

/** Of a larger field fewer nodes are looked at. */
const MOST_NODES = 7e5;

/** What the proof shows of one cut. */
export interface Compared {
  readonly cutId: string;
  /** Places that stand above what the cut is to leave, largest first. */
  readonly left: readonly Place[];
  /** What it leaves though all goes as it is meant to. */
  readonly kept: KeptPlaces;
  /** Share of its artwork (by area) that stands too high, 0 to 1; null where its artwork covers no node. */
  readonly untouched: number | null;
  /** Whether cuts before it take everything that it is to take. */
  readonly idle: boolean;
}

export interface Comparison {
  readonly cuts: readonly Compared[];
  /** Places below all that is wanted, largest first. */
  readonly below: readonly Place[];
}

const AROUND = [
  [SIDEWAYS, 0],
  [-SIDEWAYS, 0],
  [0, SIDEWAYS],
  [0, -SIDEWAYS],
] as const;

const sampled = derived<Wanted, Sampled>();

/**
 * What a cut wants at the nodes in its box: asked once for as long as it wants the same, since each answer is a search for
 * the nearest outline.
 */
const sampledOver = ({ cols, rows, cell, x0, y0 }: HeightField, w: Wanted, progress: (done: number) => void): Sampled =>
  sampled(w, [cols, rows, cell, x0, y0].join(), () => {
    const c0 = Math.max(0, Math.ceil((w.box.x0 - SIDEWAYS - x0) / cell));
    const c1 = Math.min(cols - 1, Math.floor((w.box.x1 + SIDEWAYS - x0) / cell));
    const r0 = Math.max(0, Math.ceil((w.box.y0 - SIDEWAYS - y0) / cell));
    const r1 = Math.min(rows - 1, Math.floor((w.box.y1 + SIDEWAYS - y0) / cell));
    const count = Math.max(0, c1 - c0 + 1);
    const heights = new Float32Array(count * Math.max(0, r1 - r0 + 1));
    for (let r = r0, k = 0; r <= r1; r++, k += count) {
      const y = y0 + r * cell;
      if (w.surfaceAlong) w.surfaceAlong(y, { x0, first: c0, cell }, heights.subarray(k, k + count));
      else for (let c = c0; c <= c1; c++) heights[k + c - c0] = w.surface(x0 + c * cell, y);
      if ((r & 31) === 0) progress((r - r0) / Math.max(1, r1 - r0));
    }
    return { c0, c1, r0, r1, heights };
  });

interface Tally {
  /** Nodes that stand above the surface. */
  readonly above: number[];
  /** Nodes where something is wanted. */
  nodes: number;
  idle: boolean;
}

/** Holds a row of nodes, from the i-th on, against what is wanted there, and takes note of what is wanted. */
function holdRow(
  wanted: Float32Array,
  from: number,
  count: number,
  z: Float32Array,
  lowest: Float32Array,
  i: number,
  tally: Tally,
): void {
  for (let k = from; k < from + count; k++, i++) {
    const s = wanted[k];
    if (!(s < 0)) continue;
    tally.nodes++;
    const low = lowest[i];
    if (s < low) {
      // Less than the tolerance counts here only where nothing else is wanted.
      if (s < low - TOLERANCE || low === 0) tally.idle = false;
      lowest[i] = s;
    }
    if (z[i] > s + TOLERANCE) tally.above.push(i);
  }
}

/** Nodes that lie below all that is wanted. */
function nodesBelow(z: Float32Array, lowest: Float32Array): number[] {
  const out: number[] = [];
  for (let i = 0; i < z.length; i++) if (z[i] < lowest[i] - TOLERANCE) out.push(i);
  return out;
}

/**
 * Holds a proof against what each cut is to make, node by node: first exactly where the node is, then, where that differs,
 * a hair to every side. `wanted` in the order of the plan. `found`: the surface as it was before all of them, at the same nodes.
 */
export function compare(
  whole: HeightField,
  wanted: ReadonlyMap<string, Wanted>,
  progress: (done: number) => void = () => {},
  found: HeightField | null = null,
): Comparison {
  const field = sparser(whole, MOST_NODES);
  const { cols, rows, cell, x0, y0, z } = field;
  /** The wanted surface of all cuts so far. */
  const lowest = found ? sparser(found, MOST_NODES).z.slice() : new Float32Array(cols * rows);
  const at = (i: number): [number, number] => [x0 + (i % cols) * cell, y0 + Math.floor(i / cols) * cell];
  const cuts: Compared[] = [];
  const samples: Sampled[] = [];
  /** By cut, the nodes that stand higher than they may. */
  const tooHigh: Set<number>[] = [];
  /** By how much nodes are off, for whoever asks for places; nothing between two of them. */
  const off = new Float32Array(cols * rows);
  for (const [cutId, w] of wanted) {
    const sample = sampledOver(field, w, (f) => progress((cuts.length + f) / (wanted.size + 1)));
    samples.push(sample);
    const { c0, c1, r0, r1, heights } = sample;
    const tally: Tally = { above: [], nodes: 0, idle: true };
    const count = c1 - c0 + 1;
    for (let r = r0, k = 0; r <= r1; r++, k += count) holdRow(heights, k, count, z, lowest, r * cols + c0, tally);
    const { above, nodes, idle } = tally;
    progress((cuts.length + 1) / (wanted.size + 1));
    // What the cutters' shapes must leave is asked of those alone, and of their neighbours a hair away.
    const stays = w.stays ?? w.surface;
    const high = new Set<number>();
    let some = false;
    for (const i of above) {
      const [x, y] = at(i);
      const over = z[i] - stays(x, y);
      if (over <= TOLERANCE) continue;
      high.add(i);
      if (!AROUND.every(([dx, dy]) => z[i] > stays(x + dx, y + dy) + TOLERANCE)) continue;
      off[i] = over;
      some = true;
    }
    tooHigh.push(high);
    const left = some ? placesOf(off, field) : [];
    const untouched = nodes ? high.size / nodes : null;
    cuts.push({ cutId, left, kept: NOTHING_KEPT, untouched, idle: idle && nodes > 0 });
  }
  const all = [...wanted.values()];
  keptOf(field, all, samples, tooHigh, off).forEach((kept, k) => (cuts[k] = { ...cuts[k], kept }));
  let deeper = false;
  const least = (px: number, py: number) =>
    all.reduce(
      (low, w) =>
        px < w.box.x0 || px > w.box.x1 || py < w.box.y0 || py > w.box.y1
          ? low
          : Math.min(low, (w.least ?? w.surface)(px, py)),
      0,
    );
  for (const i of nodesBelow(z, lowest)) {
    const [x, y] = at(i);
    const low = Math.min(lowest[i], least(x, y));
    if (
      z[i] < low - TOLERANCE &&
      AROUND.every(([dx, dy]) => z[i] < Math.min(lowest[i], least(x + dx, y + dy)) - TOLERANCE)
    )
      [off[i], deeper] = [low - z[i], true];
  }
  progress(1);
  return { cuts, below: deeper ? placesOf(off, field) : [] };
}
