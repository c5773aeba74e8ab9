import { formOf, type Cutter } from '../cutters/cutter';
import { widthOf } from '../cutters/form';
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
  if (found) readInto(z, found, line);
  const field = { cols: count, rows: 1, cell: length / (count - 1), x0: 0, y0: 0, z };
  const [c, s] = [(line.x1 - line.x0) / length, (line.y1 - line.y0) / length];
  for (const { tool, motion } of programs.flatMap((p) => p.sections)) {
    const cutter = tools.get(tool);
    if (!cutter) continue;
    const remover = makeRemover(field, formOf(cutter));
    const reach = reachOf(cutter, motion);
    const { boxes, count: sheaves } = sheavesOf(motion);
    for (let b = 0; b < sheaves; b++) {
      const [bx0, by0, bx1, by1, low] = boxes.subarray(BOX * b, BOX * (b + 1));
      // The box about the sheaf, seen along the line: how far its middle lies aside and before or behind, and how far it goes from there.
      const [mx, my, wx, wy] = [(bx0 + bx1) / 2 - line.x0, (by0 + by1) / 2 - line.y0, (bx1 - bx0) / 2, (by1 - by0) / 2];
      if (low >= 0 || Math.abs(my * c - mx * s) > reach + wx * Math.abs(s) + wy * Math.abs(c)) continue;
      if (Math.abs(mx * c + my * s - length / 2) > length / 2 + reach + wx * Math.abs(c) + wy * Math.abs(s)) continue;
      const m = turned(motion, Math.max(0, b * SHEAF - 1), Math.min(motion.count, (b + 1) * SHEAF), {
        ...{ c, s, x: line.x0, y: line.y0 },
      });
      for (let i = 1; i < m.count; i++) if (comesNear(m, i, reach, length)) cutMove(remover, m, i);
    }
    remover.flush();
  }
  return Float64Array.from(z);
}

/** How far from its axis a cutter cuts at the lowest place of a motion. */
function reachOf(cutter: Cutter, m: Motion): number {
  const { boxes, count } = sheavesOf(m);
  let low = 0;
  for (let b = 0; b < count; b++) low = Math.min(low, boxes[BOX * b + 4]);
  return widthOf(formOf(cutter), -low) + 1e-6;
}

/** Moves from .. to - 1 of a motion in the frame of a line. */
function turned(m: Way, from: number, to: number, turn: Turn): Way {
  const cut = <T extends Float64Array | Uint8Array>(a: T) => a.subarray(from, to) as T;
  const [x, y, cx, cy] = [cut(m.x), cut(m.y), cut(m.cx), cut(m.cy)];
  return {
    ...{ count: to - from, kind: cut(m.kind), z: cut(m.z) },
    ...{ x: alongTurn(turn, x, y), y: acrossTurn(turn, x, y) },
    ...{ cx: alongTurn(turn, cx, cy), cy: acrossTurn(turn, cx, cy) },
  };
}

/**
 * Whether a move below the top face may come within reach of the stretch 0..length of the line Y = 0. An arc stays within twice its
 * radius of where it begins, and as far from its centre.
 */
function comesNear(m: Way, i: number, reach: number, length: number): boolean {
  if (m.z[i - 1] >= 0 && m.z[i] >= 0) return false;
  const round = isArc(m.kind[i]) ? Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]) : 0;
  if (round && Math.abs(Math.hypot(m.cx[i] - length / 2, m.cy[i]) - round) > reach + length / 2) return false;
  const far = reach + 2 * round;
  return (
    Math.min(m.y[i - 1], m.y[i]) <= far &&
    Math.max(m.y[i - 1], m.y[i]) >= -far &&
    Math.min(m.x[i - 1], m.x[i]) <= length + far &&
    Math.max(m.x[i - 1], m.x[i]) >= -far
  );
}

/** The moves of programs that come near a place, cutter by cutter; each stands behind where it begins. */
export type Nearby = readonly { readonly cutter: Cutter; readonly reach: number; readonly way: Way }[];

/** The moves that come within `away` mm of a place: lines across there are cut by these alone. */
export function nearby(
  programs: readonly PlacedProgram[],
  tools: ReadonlyMap<number, Cutter>,
  x: number,
  y: number,
  away: number,
): Nearby {
  return programs
    .flatMap((p) => p.sections)
    .flatMap(({ tool, motion: m }) => {
      const cutter = tools.get(tool);
      if (!cutter) return [];
      const turn: Turn = { c: 1, s: 0, x: x - away, y };
      const reach = reachOf(cutter, m) + away;
      const found: number[] = [];
      const { boxes, count } = sheavesOf(m);
      for (let b = 0; b < count; b++) {
        const [bx0, by0, bx1, by1, low] = boxes.subarray(BOX * b, BOX * (b + 1));
        if (low >= 0 || bx0 > x + reach || bx1 < x - reach || by0 > y + reach || by1 < y - reach) continue;
        const from = Math.max(0, b * SHEAF - 1);
        const w = turned(m, from, Math.min(m.count, (b + 1) * SHEAF), turn);
        for (let i = 1; i < w.count; i++) if (comesNear(w, i, reach, 2 * away)) found.push(from + i - 1, from + i);
      }
      const taken = <T extends Float64Array | Uint8Array>(a: T): T =>
        (a.constructor as unknown as { from(l: number[]): T }).from(found.map((i) => a[i]));
      if (!found.length) return [];
      const way = {
        kind: taken(m.kind),
        x: taken(m.x),
        y: taken(m.y),
        z: taken(m.z),
        cx: taken(m.cx),
        cy: taken(m.cy),
      };
      return [{ cutter, reach: reach - away, way: { count: found.length, ...way } }];
    });
}

/** Heights of a field at even places of a line; 0 beyond it. */
function readInto(z: Float32Array, found: HeightField, { x0, y0, x1, y1 }: Line): void {
  const last = z.length - 1;
  for (let i = 0; i <= last; i++) z[i] = heightAt(found, x0 + ((x1 - x0) * i) / last, y0 + ((y1 - y0) * i) / last) || 0;
}

/** What `cutAlong` gives, of moves that were found to come near; the line has some length. */
export function cutByNearby(moves: Nearby, line: Line, count: number, found: HeightField | null = null): Float32Array {
  const length = Math.hypot(line.x1 - line.x0, line.y1 - line.y0);
  const z = new Float32Array(count);
  if (found) readInto(z, found, line);
  const field = { cols: count, rows: 1, cell: length / (count - 1), x0: 0, y0: 0, z };
  const turn = { c: (line.x1 - line.x0) / length, s: (line.y1 - line.y0) / length, x: line.x0, y: line.y0 };
  for (const { cutter, reach, way } of moves) {
    const remover = makeRemover(field, formOf(cutter));
    const m = turned(way, 0, way.count, turn);
    for (let i = 1; i < m.count; i += 2) if (comesNear(m, i, reach, length)) cutMove(remover, m, i);
    remover.flush();
  }
  return z;
}
