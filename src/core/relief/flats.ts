import type { Path } from '../geometry/path';
import { stillWanted } from '../units/stillWanted';
import type { HeightField } from './field';
import { borderLines, type LevelOptions } from './levels';

/** A level floor or face of a relief. */
export interface FlatPlace {
  /** From the top face, mm: the mean of its nodes. */
  readonly height: number;
  /** mm2, by its nodes. */
  readonly area: number;
  /** One of its nodes. */
  readonly node: number;
  /** Round it, within half a cell, and round the holes in it. */
  readonly paths: readonly Path[];
}

/** Nodes of a level place differ by no more than this, mm. */
export const LEVEL = 0.002;

/**
 * Level places of at least so much area, the largest first: nodes side by side that are as high as one of them. A node belongs to one
 * only if it is level along both ways; else each row of nodes along a slope would be one.
 */
export function flatPlaces(f: HeightField, o: LevelOptions): FlatPlace[] {
  const { cols, rows, cell, z } = f;
  const least = o.smallest / (cell * cell);
  const seen = new Uint8Array(z.length);
  const stack = new Int32Array(z.length);
  const found: FlatPlace[] = [];
  const alike = (i: number, k: number) => Math.abs(z[i] - z[k]) <= LEVEL;
  const levelHere = (i: number, c: number, r: number) =>
    ((c > 0 && alike(i, i - 1)) || (c < cols - 1 && alike(i, i + 1))) &&
    ((r > 0 && alike(i, i - cols)) || (r < rows - 1 && alike(i, i + cols)));
  for (let r = 0, i = 0; r < rows; r++) for (let c = 0; c < cols; c++, i++) seen[i] = Number(!levelHere(i, c, r));
  for (let seed = 0; seed < z.length; seed++) {
    if (seen[seed]) continue;
    // All that is reached, from the seed on; the list is what was reached and what is still to be left from.
    let [count, at] = [0, 0];
    let [c0, c1, r0, r1] = [cols, -1, rows, -1];
    let sum = 0;
    const take = (i: number) => {
      if (seen[i] || !alike(i, seed)) return;
      seen[i] = 1;
      stack[count++] = i;
    };
    take(seed);
    while (at < count) {
      const i = stack[at++];
      const [c, r] = [i % cols, Math.floor(i / cols)];
      sum += z[i];
      c0 = Math.min(c0, c);
      c1 = Math.max(c1, c);
      r0 = Math.min(r0, r);
      r1 = Math.max(r1, r);
      if (c > 0) take(i - 1);
      if (c < cols - 1) take(i + 1);
      if (r > 0) take(i - cols);
      if (r < rows - 1) take(i + cols);
    }
    stillWanted(count);
    if (count < least || c1 === c0 || r1 === r0) continue;
    const reached = stack.subarray(0, count);
    found.push({
      height: sum / count,
      area: count * cell * cell,
      node: seed,
      paths: roundOf(f, reached, c0, c1, r0, r1, o),
    });
  }
  return found.sort((a, b) => b.area - a.area);
}

/** Outlines round some nodes. Only the part of the field that holds them is looked at, and a rim where the field goes on. */
function roundOf(
  f: HeightField,
  nodes: Int32Array,
  left: number,
  right: number,
  low: number,
  high: number,
  o: LevelOptions,
): readonly Path[] {
  const [c0, r0] = [Math.max(0, left - 1), Math.max(0, low - 1)];
  const cols = Math.min(f.cols - 1, right + 1) - c0 + 1;
  const rows = Math.min(f.rows - 1, high + 1) - r0 + 1;
  const z = new Float32Array(cols * rows).fill(NaN);
  for (const i of nodes) z[(Math.floor(i / f.cols) - r0) * cols + (i % f.cols) - c0] = 0;
  const part = { cols, rows, cell: f.cell, x0: f.x0 + c0 * f.cell, y0: f.y0 + r0 * f.cell, z };
  return borderLines(part, { ...o, smallest: 0 }).paths;
}
