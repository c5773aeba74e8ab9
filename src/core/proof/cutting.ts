import { cuttingLength, formOf, type Cutter } from '../cutters/cutter';
import { flatForm } from '../cutters/form';
import { eachChord, isArc, RAPID, type Motion } from '../motion/motion';
import { SweepKernel } from '../kernels/kernel';
import type { HeightField } from '../relief/field';
import { append } from '../units/append';
import { isWatched, shankRadius } from './pieces';
import { makeRemover, type Remover, type Rows } from '../kernels/removal';

/** A shank that is thinner than its cutter by less than this on each side (mm) rubs in the cutter's own slot. */
const RUB = 0.02;
/** Clashes shallower than this (mm) are the rounding of the program and of the field. */
const COLLISION = 0.02;
/** So many places of a run are remembered: a cutter too short for its depth meets something at every one of ten million moves. */
const MOST_OF_RUN = 20;
const ARC_SAGITTA = 0.0008;

/** What cutting asks of a motion. */
export type Way = Pick<Motion, 'count' | 'kind' | 'x' | 'y' | 'z' | 'cx' | 'cy'>;

export const removerOf = (field: HeightField, cutter: Cutter, rows?: Rows): Remover =>
  makeRemover(field, formOf(cutter), rows);

/** Cuts one move (from the end of move i - 1) out of the field; arcs as chords of sagitta below 0.001 mm. */
export function cutMove(remover: Remover, m: Way, i: number): void {
  if (!isArc(m.kind[i])) {
    remover.cut(m.x[i - 1], m.y[i - 1], m.z[i - 1], m.x[i], m.y[i], m.z[i]);
    return;
  }
  let [x, y, z] = [m.x[i - 1], m.y[i - 1], m.z[i - 1]];
  eachChord(m, i, ARC_SAGITTA, (nx, ny, nz) => {
    remover.cut(x, y, z, nx, ny, nz);
    [x, y, z] = [nx, ny, nz];
  });
}

/** A run of moves to be cut, in the order of cutting. */
export interface Run {
  /** Which of the work's motions, and moves from .. to - 1 of it. */
  readonly way: number;
  readonly from: number;
  readonly to: number;
  /** Whether its moves are asked what they meet. */
  readonly asked: boolean;
  /** Rows of nodes on which it can change or meet something: first, and one after the last. */
  readonly low: number;
  readonly high: number;
}

/**
 * What is to be cut out of a field. Each node depends on nothing but the moves over it, in their order, so the field may be
 * parted into bands of rows, and each cut by somebody else at the same time:
 *
 *     rows ┌──────────────┐
 *          │  band 3      │ one worker     every band goes through all runs in their order and looks at its own
 *          ├──────────────┤                rows alone: the surface, and what is met, is the same to the last bit
 *          │  band 2      │ another
 *          └──────────────┘
 */
export interface CuttingWork {
  readonly field: HeightField;
  readonly ways: readonly { readonly way: Way; readonly cutter: Cutter }[];
  readonly runs: readonly Run[];
}

/** Material met where none should be: by a rapid, by what lies above the cutting edges, or so close beside it that it rubs. */
export type CollisionKind = 'rapid' | 'shank' | 'rub';
/** What move `move` of run `run` met, and how deep. */
export interface Met {
  readonly run: number;
  readonly kind: CollisionKind;
  readonly move: number;
  readonly depth: number;
}

/** Whoever looks on while a field is cut: rows that are looked at come first, and each band of rows is told of that is as it will be. */
export interface Onlooker {
  /** What is looked at lies between these, mm. */
  readonly y0: number;
  readonly y1: number;
  /** `fresh`: the rows, in the field that is being cut. May throw. */
  done(field: HeightField, fresh: Rows): void;
}

/** Bands in the order in which they are cut: those that are looked at first, from their middle on. */
export function seenFirst(
  bands: readonly Rows[],
  { cell, y0: low }: HeightField,
  { y0, y1 }: Pick<Onlooker, 'y0' | 'y1'>,
): Rows[] {
  const middle = (y0 + y1) / 2;
  const away = ({ from, to }: Rows) => {
    const [a, b] = [low + from * cell, low + to * cell];
    // How far a band lies from what is looked at; of those that are, none is before another that lies nearer to its middle.
    const off = Math.max(0, a - y1, y0 - b);
    return [off, Number.isFinite(middle) ? Math.abs((a + b) / 2 - middle) : 0] as const;
  };
  return bands
    .map((band) => ({ band, at: away(band) }))
    .sort((p, q) => p.at[0] - q.at[0] || p.at[1] - q.at[1])
    .map((p) => p.band);
}

/** Whoever cuts several bands at once. Gives what was met, each band's for itself. */
export interface Hands {
  /** How many bands are cut at once, with whoever asks. */
  readonly count: number;
  /** Fewer moves than this are cut before anybody else could begin. */
  readonly worth: number;
  /** Whether, the last time, somebody did not come back from the field: nobody knows when they cut on. */
  readonly missed: boolean;
  /**
   * Cuts bands, the first ones first. `afresh`: puts the rows of a band back to where its cutting began. `progress` may throw:
   * then no hand is at the field any more. `ready` is told of bands that are as they will be.
   */
  cut(
    work: CuttingWork,
    bands: readonly Rows[],
    afresh: (rows: Rows) => void,
    progress: (moves: number) => void,
    ready?: (band: Rows) => void,
  ): Met[];
}

/** The last field that was cut where a kernel reaches it: one of the same size is cut there too. */
let near: HeightField | null = null;
function nearOf(f: HeightField): HeightField | null {
  const same = near && (['cols', 'rows', 'cell', 'x0', 'y0'] as const).every((k) => near![k] === f[k]);
  return same ? near : (near = SweepKernel.at(f));
}

/**
 * Cuts all runs out of a band of rows; `done` is told how many moves each had. The rows are cut where the kernel reaches them, and
 * stand in the field at the end: work that is given up half-way (`done` throws) has changed nothing. Without a kernel they
 * are cut where they are.
 */
export function cutRows(work: CuttingWork, rows: Rows, done: (moves: number) => void): Met[] {
  const at = nearOf(work.field);
  if (!at) return cutHere(work, rows, done);
  const { cols, z } = work.field;
  let [low, high] = [rows.to, rows.from];
  for (const run of work.runs) {
    low = Math.min(low, Math.max(rows.from, run.low));
    high = Math.max(high, Math.min(rows.to, run.high));
  }
  if (low >= high) return [];
  at.z.set(z.subarray(low * cols, high * cols), low * cols);
  const met = cutHere({ ...work, field: at }, rows, done);
  z.set(at.z.subarray(low * cols, high * cols), low * cols);
  return met;
}

/**
 * Of what a run meets, move by move: all that its rapids do; of what shanks do the first `MOST_OF_RUN`, and the deepest of each kind.
 * A move that is among these in all rows is among them in each band of rows that it meets so much in: they are the same however
 * the rows were parted.
 */
function firstAndDeepest(): { add(m: Met): void; list(): Met[] } {
  const rapids: Met[] = [];
  const first: Met[] = [];
  const deepest = new Map<CollisionKind, Met>();
  return {
    add(m) {
      if (m.kind === 'rapid') return void rapids.push(m);
      if (first.length < MOST_OF_RUN) first.push(m);
      const was = deepest.get(m.kind);
      if (!was || m.depth > was.depth) deepest.set(m.kind, m);
    },
    list: () => [...rapids, ...new Set([...first, ...deepest.values()])],
  };
}

/** Cuts rows of a field where it lies. */
function cutHere(work: CuttingWork, rows: Rows, done: (moves: number) => void): Met[] {
  const { field, ways, runs } = work;
  const out: Met[] = [];
  let at = -1;
  let remover!: Remover;
  let shank!: Remover;
  let rubbing: Remover | null = null;
  let edges = Infinity;
  runs.forEach((run, k) => {
    if (run.high <= rows.from || run.low >= rows.to) return;
    const { way, cutter } = ways[run.way];
    if (at !== run.way) {
      at = run.way;
      remover = removerOf(field, cutter, rows);
      const radius = shankRadius(cutter);
      shank = makeRemover(field, flatForm(radius), rows);
      // The wall stands at the nearest node that was not cut.
      rubbing = radius > formOf(cutter).radius - RUB ? makeRemover(field, flatForm(radius + field.cell), rows) : null;
      edges = cuttingLength(cutter);
    }
    const few = firstAndDeepest();
    const note = (kind: CollisionKind, move: number, depth: number) => {
      if (depth > COLLISION) few.add({ run: k, kind, move, depth });
    };
    cutRun(way, run, remover, shank, rubbing, edges, note);
    append(out, few.list());
    done(run.to - run.from);
  });
  return out;
}

/**
 * Cuts one run; where it is asked, its moves are asked about clashes. Chains of moves are parted where there would be something to
 * ask, whether it is asked or not: how a chain is parted may show in the last bit of a single float.
 */
function cutRun(
  m: Way,
  run: Run,
  remover: Remover,
  shank: Remover,
  rubbing: Remover | null,
  edges: number,
  note: (kind: CollisionKind, i: number, depth: number) => void,
): void {
  for (let i = run.from; i < run.to; i++) {
    let straight = i;
    while (straight < run.to && !isArc(m.kind[straight]) && !isWatched(m, straight, edges)) straight++;
    if (straight > i) remover.follow(m.x, m.y, m.z, i, straight);
    i = straight;
    if (i === run.to) break;
    const rapid = m.kind[i] === RAPID;
    const watched = isWatched(m, i, edges);
    if (rapid && watched) {
      remover.flush();
      if (run.asked) note('rapid', i, remover.collision(m.x[i - 1], m.y[i - 1], m.z[i - 1], m.x[i], m.y[i], m.z[i]));
    }
    cutMove(remover, m, i);
    if (!rapid && watched) {
      remover.flush();
      if (!run.asked) continue;
      const way = [m.x[i - 1], m.y[i - 1], m.z[i - 1] + edges, m.x[i], m.y[i], m.z[i] + edges] as const;
      const depth = shank.collision(...way);
      if (depth > COLLISION) note('shank', i, depth);
      else if (rubbing) note('rub', i, rubbing.collision(...way));
    }
  }
  remover.flush();
}

/**
 * What bands met, as one: of each move the deepest; what a shank meets, it does not rub against. By run, then by move, and of each
 * as few as a band has.
 */
export function metByAll(met: readonly Met[]): Met[] {
  const by = new Map<string, Met>();
  for (const m of met) {
    const key = `${m.run} ${m.move}`;
    const was = by.get(key);
    if (!was || (was.kind === 'rub' && m.kind === 'shank') || (was.kind === m.kind && m.depth > was.depth))
      by.set(key, m);
  }
  const all = [...by.values()].sort((a, b) => a.run - b.run || a.move - b.move);
  const out: Met[] = [];
  for (let from = 0; from < all.length;) {
    const few = firstAndDeepest();
    const { run } = all[from];
    while (from < all.length && all[from].run === run) few.add(all[from++]);
    append(out, few.list());
  }
  return out;
}

/** Bands of rows with about as many moves each; `grain`: rows that are not parted. */
export function bandsOf(work: CuttingWork, count: number, grain: number): Rows[] {
  const { rows } = work.field;
  const steps = Math.ceil(rows / grain);
  const load = new Float64Array(steps + 1);
  for (const r of work.runs) {
    // Moves lie somewhere in the rows of their run: evenly, for all that is known.
    const [a, b] = [Math.floor(r.low / grain), Math.min(steps, Math.ceil(r.high / grain))];
    const each = (r.to - r.from) / Math.max(1, b - a);
    load[a] += each;
    load[b] -= each;
  }
  let sum = 0;
  let total = 0;
  for (let k = 0; k < steps; k++) total += sum += load[k];
  const bands: Rows[] = [];
  let from = 0;
  let held = 0;
  sum = 0;
  for (let k = 0; k < steps; k++) {
    held += sum += load[k];
    if (k + 1 < steps && (held < (total * (bands.length + 1)) / count || bands.length + 1 === count)) continue;
    const to = Math.min(rows, (k + 1) * grain);
    bands.push({ from, to });
    from = to;
  }
  return bands;
}
