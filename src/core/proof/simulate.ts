import { type Cutter } from '../cutters/cutter';
import { mix, mixOther } from '../geometry/hash';
import { flatField, type HeightField } from '../relief/field';
import {
  bandsOf,
  cutRows,
  metByAll,
  seenFirst,
  type CuttingWork,
  type Hands,
  type CollisionKind,
  type Met,
  type Onlooker,
  type Run,
  type Way,
} from './cutting';
import { fillTile, piecesOf, TILE, tilesOf, type MotionPiece, type Tiles } from './pieces';
import type { PlacedProgram } from './placed';
import type { Rows } from '../kernels/removal';

/** Material met where none should be, and where. */
export interface Collision {
  readonly kind: CollisionKind;
  readonly cutId: string | null;
  readonly x: number;
  readonly y: number;
  readonly depth: number;
}

/** What programs leave of a blank, and what they met. The field belongs to the simulation and lasts until its next run. */
export interface Simulated {
  readonly field: HeightField;
  readonly collisions: readonly Collision[];
}

export interface Simulation {
  /**
   * Cuts whole programs, in order, out of a flat blank (mm, nodes at most `cell` apart), and notes rapids and
   * shanks that meet material as it is at that moment. `before`: the upper face as it was found, at the same nodes; flat where
   * it is not given. `onlooker`: sees bands of rows as they become ready, where all of it takes long.
   */
  run(
    blank: { readonly width: number; readonly height: number },
    cell: number,
    programs: readonly PlacedProgram[],
    tools: ReadonlyMap<number, Cutter>,
    progress?: (done: number) => void,
    before?: HeightField | null,
    onlooker?: Onlooker | null,
  ): Simulated;
}

/** What a simulation works with. */
export interface Means {
  /** Cut several bands of the field at once; `memory` must then be shared with them. */
  readonly hands?: Hands | null;
  /** Room for so many heights. */
  readonly memory?: (heights: number) => Float32Array;
}

/** More clashes of a kind than this in a cut say nothing new, but for the deepest. */
export const MOST_COLLISIONS = 1000;

/**
 * A simulation that remembers its last run: tiles of the field under the same pieces of cutting in the same
 * order are kept, the others are cut anew. Heights do not depend on the order of cutting (each is the least
 * of what passes over it), so a piece that is cut again changes nothing in a tile that was kept. Where a
 * piece must be watched for clashes, its answer is kept as long as all that lay under it is the same;
 * otherwise every tile under it is cut anew up to that piece.
 */
export function createSimulation({ hands = null, memory = (n) => new Float32Array(n) }: Means = {}): Simulation {
  let field: HeightField | null = null;
  let size = '';
  let start: HeightField | null = null;
  let kept = new Int32Array(0);
  let answers = new Map<string, Collision[]>();
  return {
    run(blank, cell, programs, tools, progress = () => {}, before = null, onlooker = null) {
      const wanted = [blank.width, blank.height, cell].join();
      if (!field || wanted !== size || before !== start) {
        field = flatField(blank.width, blank.height, cell, 0, memory);
        size = wanted;
        start = before;
        // Every tile is nobody's yet.
        const t = tilesOf(field);
        kept = new Int32Array(2 * t.cols * t.rows).fill(before ? -1 : 0);
        answers = new Map();
      }
      const f = field;
      const tiles = tilesOf(f);
      const stretches = programs.flatMap((p) => p.sections);
      const pieces: MotionPiece[] = [];
      /** The stretch that each piece is of. */
      const at: number[] = [];
      const ways: { way: Way; cutter: Cutter }[] = [];
      const wayAt: number[] = [];
      stretches.forEach((s, k) => {
        const cutter = tools.get(s.tool);
        if (!cutter) return;
        for (const p of piecesOf(s.motion, cutter, f)) {
          pieces.push(p);
          at.push(k);
          wayAt.push(ways.length);
        }
        ways.push({ way: s.motion, cutter });
      });

      // Signatures of the tiles, two lanes each: what passed over them, in order.
      const now = new Int32Array(kept.length);
      const count = kept.length / 2;
      const dirty = new Uint8Array(count);
      const asked: (string | null)[] = pieces.map(({ hash: [h, g], watched, tiles: under }) => {
        let key: string | null = null;
        if (watched) {
          let a = h;
          let b = g;
          for (const t of under) {
            a = mix(a, now[2 * t]);
            b = mixOther(b, now[2 * t + 1]);
          }
          key = `${h} ${g} ${a} ${b}`;
          if (!answers.has(key)) for (const t of under) dirty[t] = 1;
        }
        for (const t of under) {
          now[2 * t] = mix(now[2 * t], h);
          now[2 * t + 1] = mixOther(now[2 * t + 1], g);
        }
        return key;
      });
      for (let t = 0; t < count; t++) {
        if (now[2 * t] !== kept[2 * t] || now[2 * t + 1] !== kept[2 * t + 1]) dirty[t] = 1;
        if (!dirty[t]) continue;
        // Until it has been cut anew, the tile is nobody's: a run may be given up.
        kept[2 * t] = kept[2 * t + 1] = -1;
        fillTile(f, tiles, t, before);
      }
      const { work, of } = workOf(
        f,
        tiles,
        pieces,
        dirty,
        ways,
        (k) => wayAt[k],
        (k) => asked[k] !== null && !answers.has(asked[k]!),
      );
      const afresh = ({ from, to }: Rows) => {
        for (let t = Math.floor(from / TILE) * tiles.cols; t < Math.ceil(to / TILE) * tiles.cols; t++)
          if (dirty[t]) fillTile(f, tiles, t, before);
      };
      const found = new Map<string, Collision[]>();
      pieces.forEach((_, k) => {
        const key = asked[k];
        if (key !== null) found.set(key, answers.get(key) ?? []);
      });
      let met: Met[];
      try {
        met = cutAll(work, hands, afresh, progress, onlooker);
      } finally {
        // Whoever was missed may cut a last run into this field at any time: the next one begins with another.
        if (hands?.missed) field = null;
      }
      for (const { run, kind, move, depth } of met) {
        const k = of[run];
        const { x, y } = stretches[at[k]].motion;
        found.get(asked[k]!)!.push({ kind, cutId: null, x: x[move], y: y[move], depth });
      }
      kept = now;
      answers = found;
      const all = pieces.flatMap((_, k) =>
        // What lies wholly off the blank was asked nothing.
        asked[k] === null ? [] : found.get(asked[k]!)!.map((c) => ({ ...c, cutId: stretches[at[k]].cutId })),
      );
      const collisions = fewOf(all);
      progress(1);
      return { field: f, collisions };
    },
  };
}

/** The first of each kind in each cut, and the deepest. */
function fewOf(all: readonly Collision[]): Collision[] {
  const groups = new Map<string, { readonly list: Collision[]; deepest: Collision }>();
  for (const c of all) {
    const key = `${c.kind} ${c.cutId}`;
    const group = groups.get(key);
    if (!group) {
      groups.set(key, { list: [c], deepest: c });
      continue;
    }
    if (group.list.length < MOST_COLLISIONS) group.list.push(c);
    if (c.depth > group.deepest.depth) group.deepest = c;
  }
  return [...groups.values()].flatMap(({ list, deepest }) => (list.includes(deepest) ? list : [...list, deepest]));
}

/** So many bands for each of those who cut: who is ready sooner takes another. */
const BANDS = 4;

/** What has to be cut: the pieces over tiles that are cut anew, as runs, and the piece that each run is. */
function workOf(
  field: HeightField,
  tiles: Tiles,
  pieces: readonly MotionPiece[],
  dirty: Uint8Array,
  ways: CuttingWork['ways'],
  wayOf: (piece: number) => number,
  asked: (piece: number) => boolean,
): { work: CuttingWork; of: number[] } {
  const runs: Run[] = [];
  const of: number[] = [];
  pieces.forEach((p, k) => {
    let [low, high] = [Infinity, -1];
    for (const t of p.tiles) {
      if (!dirty[t]) continue;
      const r = Math.floor(t / tiles.cols);
      if (r < low) low = r;
      if (r > high) high = r;
    }
    if (high < 0) return;
    runs.push({ way: wayOf(k), from: p.from, to: p.to, asked: asked(k), low: low * TILE, high: (high + 1) * TILE });
    of.push(k);
  });
  return { work: { field, ways, runs }, of };
}

/** Fewer moves than this are cut before anybody could look on. */
const LONG = 20_000;

/** Cuts all of it: in bands by several where it is worth it, or where somebody looks on, else at once. */
function cutAll(
  work: CuttingWork,
  hands: Hands | null,
  afresh: (rows: Rows) => void,
  progress: (done: number) => void,
  onlooker: Onlooker | null,
): Met[] {
  const { field } = work;
  const total = work.runs.reduce((n, r) => n + r.to - r.from, 0);
  let done = 0;
  const told = (moves: number) => progress(Math.min(1, (done += moves) / total));
  const together = hands && total >= hands.worth ? hands : null;
  const looked = total >= LONG ? onlooker : null;
  if (!together && !looked) return cutRows(work, { from: 0, to: field.rows }, told);
  const even = bandsOf(work, BANDS * (together?.count ?? 1), TILE);
  const bands = looked ? seenFirst(even, field, looked) : even;
  const ready = (band: Rows) => looked?.done(field, band);
  if (together) return metByAll(together.cut(work, bands, afresh, told, ready));
  return metByAll(
    bands.flatMap((band) => {
      const met = cutRows(work, band, told);
      ready(band);
      return met;
    }),
  );
}
