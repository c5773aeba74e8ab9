import type { Cutter } from '../cutters/cutter';
import { turnedMotion } from '../motion/turned';
import { heightAt, type HeightField } from '../relief/field';
import { slopeAt, slopeOfDraft } from '../relief/steep';
import type { PlacedProgram } from './placed';
import { createSimulation } from './simulate';

/**
 * What comes out of a mould: it is filled up to a level, and what has set there is turned over about Y.
 *
 *     level ____            ______          the mould, cut
 *               \    __    /
 *                \__/  \__/
 *
 *                 __    __
 *                /  \__/  \                 the casting, on its back
 *               /__________\
 */
export interface Casting {
  /** Heights of its face, mm: 0 at its highest, -`thickness` where there is nothing of it; from (0, 0), as far as it reaches. */
  readonly field: HeightField;
  readonly width: number;
  readonly height: number;
  readonly thickness: number;
  /** How large it is along X and Y: it ends half-way between the last nodes that are of it and the next ones. */
  readonly size: readonly [number, number];
  /** Height that the mould is filled up to, in the frame of its blank, and the highest that is left of it. */
  readonly level: number;
  readonly highest: number;
  /** The part of the blank that it was cast in. */
  readonly from: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };
  /** A place at which the mould is cut through: what is poured runs out. */
  readonly through: Place | null;
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** What is thinner than this is no casting, mm. */
export const FILM = 1e-3;

/**
 * The casting of a mould as it was proven, `thickness` mm thick; filled up to `level`, or, where that is null, up to the highest
 * that is left. Null where nothing is cut below that.
 */
export function castOf(mould: HeightField, thickness: number, level: number | null = null): Casting | null {
  const { cols, rows, cell, z } = mould;
  const highest = z.reduce((a, h) => (h > a ? h : a), -Infinity);
  const top = level ?? highest;
  let [c0, c1, r0, r1] = [cols, -1, rows, -1];
  let [deepest, through] = [0, -1];
  for (let r = 0, i = 0; r < rows; r++)
    for (let c = 0; c < cols; c++, i++) {
      const deep = top - z[i];
      if (!(deep > FILM)) continue;
      if (z[i] <= -thickness) through = through < 0 ? i : through;
      deepest = Math.max(deepest, top - Math.max(z[i], -thickness));
      [c0, c1] = [Math.min(c0, c), Math.max(c1, c)];
      [r0, r1] = [Math.min(r0, r), Math.max(r1, r)];
    }
  if (c1 < 0) return null;
  const size = [c1 - c0 + 1, r1 - r0 + 1].map((n) => n * cell) as [number, number];
  // A node more, so that its rim comes down to its back.
  [c0, c1, r0, r1] = [Math.max(0, c0 - 1), Math.min(cols - 1, c1 + 1), Math.max(0, r0 - 1), Math.min(rows - 1, r1 + 1)];
  const [n, m] = [c1 - c0 + 1, r1 - r0 + 1];
  const face = new Float32Array(n * m);
  for (let r = 0; r < m; r++)
    for (let c = 0; c < n; c++) {
      const deep = top - Math.max(-thickness, z[(r0 + r) * cols + c1 - c]);
      face[r * n + c] = Math.max(0, deep) - deepest;
    }
  const at = (i: number): Place => ({ x: mould.x0 + (i % cols) * cell, y: mould.y0 + Math.floor(i / cols) * cell });
  const [low, high] = [at(r0 * cols + c0), at(r1 * cols + c1)];
  return {
    field: { cols: n, rows: m, cell, x0: 0, y0: 0, z: face },
    size,
    ...{ width: (n - 1) * cell, height: (m - 1) * cell, thickness: deepest, level: top, highest },
    from: { x0: low.x, y0: low.y, x1: high.x, y1: high.y },
    through: through < 0 ? null : at(through),
  };
}

/** So many nodes tell how much a mould holds. */
const NODES = 1e6;
/**
 * The nodes lie turned by so much, radians: no edge that is drawn along an axis, or at a round angle to it, runs along their rows,
 * so that none counts too much all along. Its tangent is 2 less the golden ratio, which no simple fraction comes near.
 */
const ASKEW = Math.atan((3 - Math.sqrt(5)) / 2);

/**
 * How much a mould holds up to a level, mm3. It is cut again at nodes over the part of it that a casting comes `from`, turned
 * against all that is drawn: what is lost at one place of an upright wall is gained at the next. `found`: the upper face as it
 * was before. `tell` 0..1. Throws Cancelled.
 */
export function volumeOf(
  { from, level }: Pick<Casting, 'from' | 'level'>,
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  thickness: number,
  found: HeightField | null = null,
  tell: (done: number) => void = () => {},
): number {
  const [w, h] = [from.x1 - from.x0, from.y1 - from.y0];
  const [mx, my] = [(from.x0 + from.x1) / 2, (from.y0 + from.y1) / 2];
  const [c, s] = [Math.cos(ASKEW), Math.sin(ASKEW)];
  const blank = { width: w * c + h * s, height: w * s + h * c };
  const cell = Math.sqrt((blank.width * blank.height) / NODES);
  // Where a place of the blank lies among the nodes, and back.
  const turn = {
    c,
    s,
    x: mx - (blank.width / 2) * c + (blank.height / 2) * s,
    y: my - (blank.width / 2) * s - (blank.height / 2) * c,
  };
  const back = (u: number, v: number): [number, number] => [turn.x + u * c - v * s, turn.y + u * s + v * c];
  const askew = programs.map((p) => ({
    ...p,
    sections: p.sections.map((q) => ({ ...q, motion: turnedMotion(q.motion, turn) })),
  }));
  const [cols, rows] = [Math.floor(blank.width / cell + 1e-9) + 1, Math.floor(blank.height / cell + 1e-9) + 1];
  let before: HeightField | null = null;
  if (found) {
    const z = new Float32Array(cols * rows);
    for (let i = 0; i < z.length; i++) {
      const at = heightAt(found, ...back((i % cols) * cell, Math.floor(i / cols) * cell));
      z[i] = at === at ? at : 0;
    }
    before = { cols, rows, cell, x0: 0, y0: 0, z };
  }
  const { field } = createSimulation().run(blank, cell, askew, tools, tell, before);
  let sum = 0;
  for (let i = 0; i < field.z.length; i++) {
    const deep = level - Math.max(-thickness, field.z[i]);
    if (!(deep > 0)) continue;
    const [x, y] = back((i % cols) * cell, Math.floor(i / cols) * cell);
    if (x >= from.x0 && x <= from.x1 && y >= from.y0 && y <= from.y1) sum += deep;
  }
  return sum * cell * cell;
}

/** Where a casting would be held by its mould: the share of its face with less draft than asked, and a place in its midst, on the mould. */
export interface Held {
  readonly share: number;
  readonly at: Place | null;
}

/** The part of a casting's walls that lean by less than `draft` degrees from upright. Its rim, where its back begins, counts too. */
export function heldBy({ field, thickness, from }: Casting, draft: number): Held {
  const { cols, rows, cell, z } = field;
  const most = slopeOfDraft(draft);
  const steep = new Uint8Array(z.length);
  let [all, held] = [0, 0];
  for (let r = 0, i = 0; r < rows; r++)
    for (let c = 0; c < cols; c++, i++) {
      if (!(z[i] + thickness > FILM)) continue;
      all++;
      if (!(slopeAt(field, c, r) > most)) continue;
      steep[i] = 1;
      held++;
    }
  if (!held) return { share: 0, at: null };
  // Of all those nodes the one with the most of them around it.
  const reach = Math.max(1, Math.round(1 / cell));
  const sums = new Float64Array((cols + 1) * (rows + 1));
  for (let r = 0; r < rows; r++)
    for (let c = 0, line = 0; c < cols; c++) {
      line += steep[r * cols + c];
      sums[(r + 1) * (cols + 1) + c + 1] = sums[r * (cols + 1) + c + 1] + line;
    }
  let [worst, where] = [-1, 0];
  for (let i = 0; i < z.length; i++) {
    if (!steep[i]) continue;
    const [c, r] = [i % cols, Math.floor(i / cols)];
    const [a, b, d, e] = [c - reach, c + reach + 1, r - reach, r + reach + 1].map((v, k) =>
      Math.min(k < 2 ? cols : rows, Math.max(0, v)),
    );
    const near =
      sums[e * (cols + 1) + b] - sums[d * (cols + 1) + b] - sums[e * (cols + 1) + a] + sums[d * (cols + 1) + a];
    if (near > worst) [worst, where] = [near, i];
  }
  return {
    share: held / all,
    at: { x: from.x1 - (where % cols) * cell, y: from.y0 + Math.floor(where / cols) * cell },
  };
}
