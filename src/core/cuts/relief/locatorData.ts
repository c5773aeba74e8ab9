import type { CutterForm } from '../../cutters/form';
import { derived, memo } from '../../geometry/hash';
import type { HeightField } from '../../relief/field';
import { refined } from '../../relief/refine';
import { column } from '../../units/columns';

/*
 * What locators go by (see `locator.ts`), in numbers alone: made once for a surface and a way of asking it, and shared by threads.
 */

/** Nodes to a side of a block whose greatest height is known. */
export const SIDE = 8;
/** More nodes than so many are not made of a surface. */
const MOST_NODES = 25e6;
/** Nodes nearer than so are not put in, mm. */
const NEAREST = 0.005;
/** Narrower tips count as so wide, mm: what stands beside them is met by what lies under them, which is asked exactly. */
const TIP = 0.1;

/** Least radius with which a cutter is round where it meets what is not level, mm; Infinity for one with upright sides. */
export function roundness(form: CutterForm): number {
  if (form.ball > 0) return form.ball;
  // Along a ridge past its axis the side of a cone is a hyperbola, sharpest at the rim of the tip; a ridge runs along nodes.
  if (form.rise < Infinity) return (2 * Math.max(TIP, form.core)) / form.rise;
  return Infinity;
}

/** How close nodes must lie for a cutter, mm. */
const closeness = (form: CutterForm, tolerance: number): number =>
  Math.max(NEAREST, Math.sqrt(4 * roundness(form) * tolerance));

/** The surface as it is asked, and the greatest heights of its blocks: numbers alone, which pass between threads. */
export interface Blocks {
  readonly f: HeightField;
  readonly across: number;
  readonly up: number;
  readonly tops: Float32Array;
  readonly top: number;
  readonly lowest: number;
  /** For each node: in which ways the surface falls steeply from it: 1 to the next column, 2 to the one before, 4 to the next row, 8 to the one before. */
  readonly falls: Uint8Array;
  /** For each block: nodes from which a wall falls, from `firsts` of it to that of the next. */
  readonly firsts: Int32Array;
  readonly wallNodes: Int32Array;
}

/** Locations over all of the nodes, row by row as they are asked for first by anybody. */
export interface Located {
  readonly z: Float32Array;
  /** 1 for each row that is there. */
  readonly have: Int32Array;
}

/** All that a locator goes by, in memory that threads share where there is any. */
export interface LocatorData {
  readonly blocks: Blocks;
  readonly located: Located;
  readonly form: CutterForm;
  readonly tolerance: number;
  /** As the surface's own nodes lie, mm. */
  readonly apart: number;
}

/**
 * Nodes that lie so many times as far apart in height stand on a wall. Of what is less steep the line between two of them is no
 * matter but where the cutter is met, and there it is asked.
 */
const WALL = 4;

/** `far`: nodes that lie further apart in height are told to be steep, mm. */
function blocksOf(f: HeightField, far: number): Blocks {
  const { cols, rows, z } = f;
  const [across, up] = [Math.ceil(cols / SIDE), Math.ceil(rows / SIDE)];
  const tops = column(Float32Array, across * up).fill(-Infinity);
  const falls = column(Uint8Array, cols * rows);
  const walls: number[] = [];
  const firsts = column(Int32Array, across * up + 1);
  let lowest = Infinity;
  for (let r = 0, i = 0; r < rows; r++) {
    const row = (r >> 3) * across;
    for (let c = 0; c < cols; c++, i++) {
      const h = z[i];
      if (h > tops[row + (c >> 3)]) tops[row + (c >> 3)] = h;
      if (h < lowest) lowest = h;
      const west = c > 0 ? h - z[i - 1] : 0;
      const south = r > 0 ? h - z[i - cols] : 0;
      if (west > far) falls[i] |= 2;
      else if (west < -far) falls[i - 1] |= 1;
      if (south > far) falls[i] |= 8;
      else if (south < -far) falls[i - cols] |= 4;
      if (west > WALL * far || south > WALL * far) walls.push(i);
      if (west < -WALL * far) walls.push(i - 1);
      if (south < -WALL * far) walls.push(i - cols);
    }
  }
  const blockOf = (i: number) => (Math.floor(i / cols) >> 3) * across + (i % cols >> 3);
  for (const i of walls) firsts[blockOf(i) + 1]++;
  for (let b = 0; b < across * up; b++) firsts[b + 1] += firsts[b];
  const wallNodes = column(Int32Array, walls.length);
  const next = firsts.slice();
  for (const i of walls) wallNodes[next[blockOf(i)]++] = i;
  let top = -Infinity;
  for (const t of tops) if (t > top) top = t;
  return { f, across, up, tops, top, lowest, falls, firsts, wallNodes };
}

/** Surfaces are held ready for so many ways in which cutters ask them, and located for so many cutters. */
const HELD = 2;

/** What locators of several cutters over one surface go by; what two of them have in common is made once. */
function dataOver(surface: HeightField): (form: CutterForm, tolerance: number) => LocatorData {
  const blocks = memo<Blocks>(HELD);
  const located = memo<Located>(HELD);
  return (form, tolerance) => {
    const wanted = Math.ceil(surface.cell / closeness(form, tolerance) - 1e-9);
    const most = Math.max(1, Math.floor(Math.sqrt(MOST_NODES / surface.z.length)));
    const times = Math.max(1, Math.min(wanted, most));
    // A line of nodes is asked where its ends lie further apart than a round tells from them.
    const cell = surface.cell / times;
    const far = Math.sqrt(Math.max(cell * cell, 8 * Math.min(1e3, roundness(form)) * tolerance - cell * cell));
    const key = `${times} ${far}`;
    const b = blocks(key, () => blocksOf(refined(surface, times), far));
    const rows = located(`${key} ${JSON.stringify(form)}`, () => ({
      z: column(Float32Array, b.f.z.length),
      have: column(Int32Array, b.f.rows),
    }));
    return { blocks: b, located: rows, form, tolerance, apart: surface.cell };
  };
}
const datas = derived<HeightField, ReturnType<typeof dataOver>>();
export const locatorData = (surface: HeightField, form: CutterForm, tolerance: number): LocatorData =>
  datas(surface, '', () => dataOver(surface))(form, tolerance);
