import { formOf, radiusOf, type Cutter } from '../cutters/cutter';
import { isArc, type Motion } from '../motion/motion';
import { BOX, SHEAF, sheavesOf } from '../motion/sheaves';
import { acrossTurn, alongTurn, type Turn } from '../motion/turned';
import type { PlacedProgram } from './placed';
import { heightAt, type HeightField } from '../relief/field';
import { makeRemover } from '../kernels/removal';
import { cutMove, type Way } from './cutting';

/** A straight line over the blank, mm, blank's frame. */
export interface Line {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/**
 * Heights that programs leave along a line, at `count` even places from its start to its end: cut exactly there, not read
 * between the nodes of a proof. The programs are turned so that the line lies along X, and cut a field of a single row. `found`: the upper face as it
 * was before, read between its nodes.
 */
export function cutAlong(
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  line: Line,
  count: number,
  found: HeightField | null = null,
): Float64Array {
  const length = Math.hypot(line.x1 - line.x0, line.y1 - line.y0);
  const z = new Float32Array(count);
  if (!(length > 0) || count < 2) return Float64Array.from(z);
  if (found)
    for (let i = 0; i < count; i++)
      z[i] =
        heightAt(
          found,
          line.x0 + ((line.x1 - line.x0) * i) / (count - 1),
          line.y0 + ((line.y1 - line.y0) * i) / (count - 1),
        ) || 0;
  const field = { cols: count, rows: 1, cell: length / (count - 1), x0: 0, y0: 0, z };
  const [c, s] = [(line.x1 - line.x0) / length, (line.y1 - line.y0) / length];
  for (const { tool, motion } of programs.flatMap((p) => p.sections)) {
    const cutter = tools.get(tool);
    if (!cutter) continue;
    const remover = makeRemover(field, formOf(cutter));
    const reach = radiusOf(cutter) + 1e-6;
    const { boxes, count: sheaves } = sheavesOf(motion);
    for (let b = 0; b < sheaves; b++) {
      const [bx0, by0, bx1, by1, low] = boxes.subarray(BOX * b, BOX * (b + 1));
      // The box about the sheaf, seen along the line: how far its middle lies aside, and how far it goes to either side of that.
      const [mx, my, wx, wy] = [(bx0 + bx1) / 2 - line.x0, (by0 + by1) / 2 - line.y0, (bx1 - bx0) / 2, (by1 - by0) / 2];
      if (low >= 0 || Math.abs(my * c - mx * s) > reach + wx * Math.abs(s) + wy * Math.abs(c)) continue;
      const m = turned(motion, Math.max(0, b * SHEAF - 1), Math.min(motion.count, (b + 1) * SHEAF), {
        ...{ c, s, x: line.x0, y: line.y0 },
      });
      for (let i = 1; i < m.count; i++) if (comesNear(m, i, reach)) cutMove(remover, m, i);
    }
    remover.flush();
  }
  return Float64Array.from(z);
}

/** Moves from .. to - 1 of a motion in the frame of a line. */
function turned(m: Motion, from: number, to: number, turn: Turn): Way {
  const cut = <T extends Float64Array | Uint8Array>(a: T) => a.subarray(from, to) as T;
  const [x, y, cx, cy] = [cut(m.x), cut(m.y), cut(m.cx), cut(m.cy)];
  return {
    ...{ count: to - from, kind: cut(m.kind), z: cut(m.z) },
    ...{ x: alongTurn(turn, x, y), y: acrossTurn(turn, x, y) },
    ...{ cx: alongTurn(turn, cx, cy), cy: acrossTurn(turn, cx, cy) },
  };
}

/** Whether a move below the top face may come within reach of the line Y = 0. An arc stays within twice its radius of where it begins. */
function comesNear(m: Way, i: number, reach: number): boolean {
  if (m.z[i - 1] >= 0 && m.z[i] >= 0) return false;
  const round = isArc(m.kind[i]) ? 2 * Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]) : 0;
  return Math.min(m.y[i - 1], m.y[i]) - round <= reach && Math.max(m.y[i - 1], m.y[i]) + round >= -reach;
}
