import { radiusOf, type Cutter } from '../cutters/cutter';
import type { HeightField } from '../relief/field';
import { stillWanted } from '../units/stillWanted';
import { FILM } from './casting';
import type { PlacedProgram } from './placed';

/** A hole as it was drilled: its middle and its radius, mm. */
export interface Hole {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** Holes that programs drill, by the cuts that are drillings. */
export function holesIn(
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  isDrilling: (cutId: string) => boolean,
): Hole[] {
  const out = new Map<string, Hole>();
  for (const { sections } of programs)
    for (const { cutId, tool, motion } of sections) {
      if (!cutId || !isDrilling(cutId)) continue;
      const radius = radiusOf(tools.get(tool)!);
      for (let i = 0; i < motion.count; i++) {
        if (!(motion.z[i] < 0)) continue;
        const [x, y] = [motion.x[i], motion.y[i]];
        out.set(`${x.toFixed(3)} ${y.toFixed(3)} ${radius}`, { x, y, radius });
      }
    }
  return [...out.values()];
}

/**
 * Holes of a mould that stand alone: bolts and dowels go through them, and nothing is poured there. A hole that what is cast comes to
 * is part of it. `level`: up to which it is filled.
 *
 *      ____   _____          ____         the left one stands alone, the right one is a gate
 *          | |     \        /
 *          | |      \__  __/
 *          | |         ||
 */
export function standingAlone(mould: HeightField, holes: readonly Hole[], level: number): Hole[] {
  const { cols, rows, cell, x0, y0, z } = mould;
  const seen = new Uint8Array(z.length);
  const isHollow = (i: number) => level - z[i] > FILM;
  const drilled = inHoles(holes, cell);
  return holes.filter((h) => {
    const [c, r] = [Math.round((h.x - x0) / cell), Math.round((h.y - y0) / cell)];
    if (c < 0 || r < 0 || c >= cols || r >= rows || !isHollow(r * cols + c)) return false;
    const stack = [r * cols + c];
    let alone = true;
    seen.fill(0);
    seen[stack[0]] = 1;
    const take = (i: number) => {
      if (!seen[i] && isHollow(i)) stack.push(i);
      seen[i] = 1;
    };
    while (stack.length && alone) {
      stillWanted();
      const i = stack.pop()!;
      const [q, s] = [i % cols, Math.floor(i / cols)];
      alone = drilled(x0 + q * cell, y0 + s * cell);
      if (q > 0) take(i - 1);
      if (q < cols - 1) take(i + 1);
      if (s > 0) take(i - cols);
      if (s < rows - 1) take(i + cols);
    }
    return alone;
  });
}

/** Whether a place lies in one of some holes, or so near that heights about it are a hole's. */
export const inHoles =
  (holes: readonly Hole[], near: number) =>
  (x: number, y: number): boolean =>
    holes.some((h) => Math.hypot(x - h.x, y - h.y) < h.radius + near);

/** A mould with the holes that stand alone filled to its face, and these; `level`: up to which it is cast, null for its highest. */
export function withoutHoles(
  mould: HeightField,
  holes: readonly Hole[],
  level: number | null,
): { mould: HeightField; holes: Hole[] } {
  if (!holes.length) return { mould, holes: [] };
  const highest = mould.z.reduce((a, h) => (h > a ? h : a), -Infinity);
  const alone = standingAlone(mould, holes, level ?? highest);
  if (!alone.length) return { mould, holes: alone };
  const { cols, cell, x0, y0 } = mould;
  const isHole = inHoles(alone, cell);
  const z = mould.z.map((h, i) => (isHole(x0 + (i % cols) * cell, y0 + Math.floor(i / cols) * cell) ? highest : h));
  return { mould: { ...mould, z }, holes: alone };
}
