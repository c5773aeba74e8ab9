import type { Cutter } from '../cutters/cutter';
import { turnedMotion } from '../motion/turned';
import { gridOf, heightAt, type HeightField } from '../relief/field';
import { slopeAt, slopeOfDraft } from '../relief/steep';
import { stillWanted } from '../units/stillWanted';
import { cutByNearby, nearby, type Nearby } from './along';
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

/** So many nodes tell how much a mould holds and how its walls lean. */
const NODES = 1.5e6;
/**
 * The nodes lie turned by so much, radians: no edge that is drawn along an axis, or at a round angle to it, runs along their rows,
 * so that none counts too much all along. Its tangent is 2 less the golden ratio, which no simple fraction comes near.
 */
const ASKEW = Math.atan((3 - Math.sqrt(5)) / 2);

/** The part of a mould that a casting comes from, cut again at nodes that lie close, and askew to all that is drawn. */
export interface Closely {
  readonly field: HeightField;
  /** Where a node lies on the blank; what lies beyond the part is of no interest. */
  readonly at: (node: number) => Place;
  readonly within: (p: Place) => boolean;
}

/** Cuts it: `thickness` is the blank's, `found` its upper face as it was before; of what `isHole` nothing is cast. `tell` 0..1. Throws Cancelled. */
export function cutClosely(
  { from }: Pick<Casting, 'from'>,
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  thickness: number,
  found: HeightField | null = null,
  tell: (done: number) => void = () => {},
  isHole: (x: number, y: number) => boolean = () => false,
): Closely {
  const [w, h] = [from.x1 - from.x0, from.y1 - from.y0];
  const [mx, my] = [(from.x0 + from.x1) / 2, (from.y0 + from.y1) / 2];
  const [c, s] = [Math.cos(ASKEW), Math.sin(ASKEW)];
  const blank = { width: w * c + h * s, height: w * s + h * c };
  const cell = Math.sqrt((blank.width * blank.height) / NODES);
  // Where a place of the blank lies among the nodes, and back.
  const turn = {
    ...{ c, s },
    x: mx - (blank.width / 2) * c + (blank.height / 2) * s,
    y: my - (blank.width / 2) * s - (blank.height / 2) * c,
  };
  const back = (u: number, v: number): Place => ({ x: turn.x + u * c - v * s, y: turn.y + u * s + v * c });
  const askew = programs.map((p) => ({
    ...p,
    sections: p.sections.map((q) => ({ ...q, motion: turnedMotion(q.motion, turn) })),
  }));
  const grid = gridOf(blank.width, blank.height, cell);
  const at = (i: number) => back((i % grid.cols) * cell, Math.floor(i / grid.cols) * cell);
  let before: HeightField | null = null;
  if (found) {
    const z = new Float32Array(grid.cols * grid.rows);
    for (let i = 0; i < z.length; i++) {
      const p = at(i);
      z[i] = heightAt(found, p.x, p.y) || 0;
    }
    before = { ...grid, z };
  }
  const { field } = createSimulation().run(blank, cell, askew, tools, tell, before);
  const z = field.z.map((q) => Math.max(-thickness, q));
  return {
    field: { ...field, z },
    at,
    within: ({ x, y }) => x >= from.x0 && x <= from.x1 && y >= from.y0 && y <= from.y1 && !isHole(x, y),
  };
}

/** How much a mould holds up to a level, mm3: what is lost at one place of an upright wall is gained at the next. */
export function volumeOf({ field: { z, cell }, at, within }: Closely, level: number): number {
  let sum = 0;
  for (let i = 0; i < z.length; i++) {
    const deep = level - z[i];
    if (deep > 0 && within(at(i))) sum += deep;
  }
  return sum * cell * cell;
}

/** Where a casting would be held by its mould: the share of its face with less draft than asked, and a place of that. */
export interface Held {
  readonly share: number;
  readonly at: Place | null;
}

/** Walls lower than this are not looked at, mm. */
export const LOWEST = 0.15;
/** So many places on walls are looked at closely; along a line across a wall heights lie so far apart, and so many of them tell its slope. */
const [LOOKS, FINE, STEPS] = [400, 0.001, 5];
/** For places so near to each other moves are looked for once, mm. */
const TILE = 4;

/**
 * The part of a mould's walls below a level that lean by less than `draft` degrees from upright. Between two nodes an upright wall
 * looks like one that leans; places at which heights fall by as much as a wall are cut once more, along a line straight across it.
 */
export function heldBy(
  { field, at, within }: Closely,
  level: number,
  draft: number,
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  found: HeightField | null = null,
): Held {
  const { cols, rows, cell, z } = field;
  const most = slopeOfDraft(draft);
  const walls: number[] = [];
  let all = 0;
  for (let r = 0, i = 0; r < rows; r++)
    for (let c = 0; c < cols; c++, i++) {
      if (!(level - z[i] > FILM) || !within(at(i))) continue;
      all++;
      const slope = slopeAt(field, c, r);
      if (slope > most || slope * cell > LOWEST) walls.push(i);
    }
  const every = Math.max(1, walls.length / LOOKS);
  let [held, looked] = [0, 0];
  let worst: { readonly i: number; readonly steep: number } | null = null;
  let near: { readonly from: Place; readonly moves: Nearby } | null = null;
  for (let k = 0; k < walls.length; k += every) {
    stillWanted();
    const i = walls[Math.floor(k)];
    const p = at(i);
    if (!near || Math.hypot(p.x - near.from.x, p.y - near.from.y) > TILE)
      near = { from: p, moves: nearby(programs, tools, p.x, p.y, TILE + LOWEST + 3 * cell) };
    looked++;
    const steep = steepest(near.moves, field, i, at, level, found);
    if (!(steep > most)) continue;
    held++;
    if (!worst || steep > worst.steep) worst = { i, steep };
  }
  return worst ? { share: (held / looked) * (walls.length / all), at: at(worst.i) } : { share: 0, at: null };
}

/** How steep a wall is about a node, rise for each mm across; 0 where what is there is lower than a wall. */
function steepest(
  moves: Nearby,
  { cols, rows, cell, z }: HeightField,
  i: number,
  at: Closely['at'],
  level: number,
  found: HeightField | null,
): number {
  const [c, r] = [i % cols, Math.floor(i / cols)];
  const [left, right] = [Math.max(0, c - 1), Math.min(cols - 1, c + 1)];
  const [low, high] = [Math.max(0, r - 1), Math.min(rows - 1, r + 1)];
  const [gu, gv] = [z[r * cols + right] - z[r * cols + left], z[high * cols + c] - z[low * cols + c]];
  const l = Math.hypot(gu, gv);
  if (!(l > 0)) return 0;
  // Directions of rows and columns on the blank.
  const [a, b] = [at(r * cols + left), at(r * cols + right)];
  const [ux, uy] = [(b.x - a.x) / ((right - left) * cell), (b.y - a.y) / ((right - left) * cell)];
  const [dx, dy] = [(gu * ux - gv * uy) / l, (gu * uy + gv * ux) / l];
  const reach = Math.max(1.5 * cell, LOWEST);
  const count = Math.max(2 * STEPS, Math.ceil((2 * reach) / FINE) + 1);
  const p = at(i);
  const line = { x0: p.x - dx * reach, y0: p.y - dy * reach, x1: p.x + dx * reach, y1: p.y + dy * reach };
  // What stands above the level touches no casting.
  const h = cutByNearby(moves, line, count, found).map((v) => Math.min(v, level));
  const step = (2 * reach) / (count - 1);
  let [lowest, highest, steep] = [Infinity, -Infinity, 0];
  for (let k = 0; k < count; k++) {
    lowest = Math.min(lowest, h[k]);
    highest = Math.max(highest, h[k]);
    if (k >= STEPS) steep = Math.max(steep, Math.abs(h[k] - h[k - STEPS]) / (STEPS * step));
  }
  return highest - lowest > LOWEST ? steep : 0;
}
