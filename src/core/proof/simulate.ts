import { cuttingLength, formOf, type Cutter } from '../cutters/cutter';
import { flatForm } from '../cutters/form';
import { mix, mixOther } from '../geometry/hash';
import { ARC_CCW, isArc, RAPID, sweepOf, type Motion } from '../motion/motion';
import { flatField, type HeightField } from '../relief/field';
import { fillTile, isWatched, piecesOf, shankRadius, tilesOf, type Piece } from './pieces';
import type { PlacedProgram } from './placed';
import { makeRemover, type Remover } from './removal';

/** Material met where none should be: by a rapid, by what lies above the cutting edges, or so close beside it that it rubs. */
export interface Clash {
  readonly kind: 'rapid' | 'shank' | 'rub';
  readonly cutId: string | null;
  readonly x: number;
  readonly y: number;
  readonly depth: number;
}

/** A shank that is thinner than its cutter by less than this on each side (mm) rubs in the cutter's own slot. */
const RUB = 0.02;
/** Clashes shallower than this (mm) are the rounding of the program and of the field. */
const CLASH = 0.02;
const ARC_SAGITTA = 0.0008;

export const removerOf = (field: HeightField, cutter: Cutter): Remover => makeRemover(field, formOf(cutter));

/** Cuts one move (from the end of move i - 1) out of the field; arcs as chords of sagitta below 0.001 mm. */
export function cutMove(remover: Remover, m: Motion, i: number): void {
  if (!isArc(m.kind[i])) {
    remover.cut(m.x[i - 1], m.y[i - 1], m.z[i - 1], m.x[i], m.y[i], m.z[i]);
    return;
  }
  const r = Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]);
  const sweep = sweepOf(m, i);
  const n = Math.max(1, Math.ceil(sweep / (r > ARC_SAGITTA ? 2 * Math.acos(1 - ARC_SAGITTA / r) : Math.PI / 2)));
  const a0 = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
  const sign = m.kind[i] === ARC_CCW ? 1 : -1;
  let x = m.x[i - 1];
  let y = m.y[i - 1];
  let z = m.z[i - 1];
  for (let k = 1; k <= n; k++) {
    const a = a0 + (sign * sweep * k) / n;
    const nx = k === n ? m.x[i] : m.cx[i] + r * Math.cos(a);
    const ny = k === n ? m.y[i] : m.cy[i] + r * Math.sin(a);
    const nz = m.z[i - 1] + ((m.z[i] - m.z[i - 1]) * k) / n;
    remover.cut(x, y, z, nx, ny, nz);
    x = nx;
    y = ny;
    z = nz;
  }
}

/** What programs leave of a blank, and what they met. The field belongs to the simulation and lasts until its next run. */
export interface Simulated {
  readonly field: HeightField;
  readonly clashes: readonly Clash[];
}

export interface Simulation {
  /**
   * Cuts whole programs, in order, out of a flat blank (mm, nodes at most `cell` apart), and notes rapids and
   * shanks that meet material as it is at that moment. `before`: the upper face as it was found, at the same nodes; flat where
   * it is not given.
   */
  run(blank: { readonly width: number; readonly height: number }, cell: number, programs: readonly PlacedProgram[], tools: ReadonlyMap<number, Cutter>, progress?: (done: number) => void, before?: HeightField | null): Simulated;
}

/** More clashes than this say nothing new. */
const MOST = 1000;

/**
 * A simulation that remembers its last run: tiles of the field under the same pieces of cutting in the same
 * order are kept, the others are cut anew. Heights do not depend on the order of cutting (each is the least
 * of what passes over it), so a piece that is cut again changes nothing in a tile that was kept. Where a
 * piece must be watched for clashes, its answer is kept as long as all that lay under it is the same;
 * otherwise every tile under it is cut anew up to that piece.
 */
export function createSimulation(): Simulation {
  let field: HeightField | null = null;
  let size = '';
  let start: HeightField | null = null;
  let kept = new Int32Array(0);
  let answers = new Map<string, Clash[]>();
  return {
    run(blank, cell, programs, tools, progress = () => {}, before = null) {
      const wanted = [blank.width, blank.height, cell].join();
      if (!field || wanted !== size || before !== start) {
        field = flatField(blank.width, blank.height, cell);
        size = wanted;
        start = before;
        // Every tile is nobody's yet.
        const t = tilesOf(field);
        kept = new Int32Array(2 * t.cols * t.rows).fill(before ? -1 : 0);
        answers = new Map();
      }
      const f = field;
      const tiles = tilesOf(f);
      const stretches = programs.flatMap((p) => p.stretches);
      const pieces: Piece[] = [];
      /** The stretch that each piece is of. */
      const at: number[] = [];
      stretches.forEach((s, k) => {
        if (!tools.has(s.tool)) return;
        for (const p of piecesOf(s.motion, tools.get(s.tool)!, f)) {
          pieces.push(p);
          at.push(k);
        }
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
      const todo = pieces.map((p) => p.tiles.some((t) => dirty[t] === 1));
      const total = pieces.reduce((n, p, k) => n + (todo[k] ? p.to - p.from : 0), 0);
      const found = new Map<string, Clash[]>();
      let done = 0;
      let of = -1;
      let remover!: Remover;
      let shank!: Remover;
      let rubbing: Remover | null = null;
      pieces.forEach((p, k) => {
        const key = asked[k];
        if (key !== null && answers.has(key)) found.set(key, answers.get(key)!);
        if (!todo[k]) return;
        const s = stretches[at[k]];
        const cutter = tools.get(s.tool)!;
        if (of !== at[k]) {
          of = at[k];
          remover = removerOf(f, cutter);
          const radius = shankRadius(cutter);
          shank = makeRemover(f, flatForm(radius));
          // The wall stands at the nearest node that was not cut.
          rubbing = radius > formOf(cutter).radius - RUB ? makeRemover(f, flatForm(radius + f.cell)) : null;
        }
        const clashes = cutPiece(s.motion, p, remover, shank, rubbing, key !== null && !answers.has(key) ? cuttingLength(cutter) : Infinity);
        if (key !== null && !found.has(key)) found.set(key, clashes);
        done += p.to - p.from;
        progress(done / total);
      });
      kept = now;
      answers = found;
      const clashes: Clash[] = [];
      pieces.forEach((_, k) => {
        // What lies wholly off the blank was asked nothing.
        if (asked[k] !== null) for (const c of found.get(asked[k]!) ?? []) if (clashes.length < MOST) clashes.push({ ...c, cutId: stretches[at[k]].cutId });
      });
      progress(1);
      return { field: f, clashes };
    },
  };
}

/** Cuts one piece; up to a finite length of the cutting edges, its moves are asked about clashes first. */
function cutPiece(m: Motion, p: Piece, remover: Remover, shank: Remover, rubbing: Remover | null, edges: number): Clash[] {
  const clashes: Clash[] = [];
  const note = (kind: Clash['kind'], i: number, depth: number) => {
    if (depth > CLASH) clashes.push({ kind, cutId: null, x: m.x[i], y: m.y[i], depth });
  };
  for (let i = p.from; i < p.to; i++) {
    const rapid = m.kind[i] === RAPID;
    const watched = p.watched && isWatched(m, i, edges);
    if (rapid && watched && edges < Infinity) note('rapid', i, remover.clash(m.x[i - 1], m.y[i - 1], m.z[i - 1], m.x[i], m.y[i], m.z[i]));
    cutMove(remover, m, i);
    if (!rapid && watched) {
      remover.settle();
      const way = [m.x[i - 1], m.y[i - 1], m.z[i - 1] + edges, m.x[i], m.y[i], m.z[i] + edges] as const;
      const depth = shank.clash(...way);
      if (depth > CLASH) note('shank', i, depth);
      else if (rubbing) note('rub', i, rubbing.clash(...way));
    }
  }
  remover.settle();
  return clashes;
}
