import { contours } from '../geometry/levels/contours';
import { findCorners } from '../geometry/levels/corners';
import { withoutRipple } from '../geometry/levels/ripple';
import { fitLine, fitLoop } from '../geometry/fit';
import { reversePath, transformPath, type Path, type Segment } from '../geometry/path';
import { loopArea } from '../geometry/region';
import { append } from '../units/append';
import { stillWanted } from '../units/stillWanted';
import type { HeightFacts } from './facts';
import type { HeightField } from './field';

export interface LevelOptions {
  /** mm that curves may lie away from the line through the crossings of the grid. */
  readonly tolerance: number;
  /** Outlines round less than so much are left out, mm2. */
  readonly smallest: number;
}

export interface LevelLines {
  /** Closed, in the field's frame; what is higher lies on their left. */
  readonly paths: readonly Path[];
  /** Outlines that were left out for their area. */
  readonly left: number;
}

/** A turn from which a line is said to have a corner, degrees. */
const CORNER = 30;
/** What is put in the place of a corner that the grid has cut off moves the line by no more than so many cells. */
const NEAR = { most: 0.75, within: 0.4 };
/** Where a line follows an empty place it is known to half a cell: curves may take so many cells there. */
const BESIDE_EMPTY = 0.6;
/** Of fewer points than so many there are no steps to be seen, and curves that may go far from them go astray. */
const ENOUGH = 12;
const FEW_BESIDE = 0.25;
/** Levels that lie within so little of the ground of a level place go round it, mm: heights are single floats. */
const NUDGE = 2e-4;

/**
 * Outlines round all that is at least so high, mm in the field's frame. Where heights are smooth they lie between the nodes;
 * beside empty places they lie half-way to the last node that is not empty. A level that is exactly that of a level floor (in
 * the lower half of all heights) goes round the floor, that of a level face round the face.
 */
export function levelLines(
  f: HeightField,
  height: number,
  { lowest, highest }: Pick<HeightFacts, 'lowest' | 'highest'>,
  o: LevelOptions,
): LevelLines {
  return linesOf(f, height + (2 * height < lowest + highest ? NUDGE : -NUDGE), o);
}

/** Outlines round all that is no higher than so, mm in the field's frame. */
export const linesBelow = (f: HeightField, height: number, o: LevelOptions): LevelLines =>
  linesOf({ ...f, z: f.z.map((h) => -h) }, -height, o);

/** Outlines round all that is not empty. */
export function borderLines(f: HeightField, o: LevelOptions): LevelLines {
  return linesOf({ ...f, z: f.z.map((h) => (h === h ? 1 : NaN)) }, 0, o);
}

/** Depths of `count` levels that part a height evenly: none of them at its lowest or its highest. */
export const evenLevels = ({ lowest, highest }: Pick<HeightFacts, 'lowest' | 'highest'>, count: number): number[] =>
  Array.from({ length: count }, (_, k) => highest - ((k + 1) * (highest - lowest)) / (count + 1));

function linesOf(f: HeightField, level: number, o: LevelOptions): LevelLines {
  const { cell } = f;
  // Square (0, 0) of the contours has the first node in its middle.
  const toFrame = { a: cell, b: 0, c: 0, d: cell, e: f.x0 - cell / 2, f: f.y0 - cell / 2 };
  const paths: Path[] = [];
  let left = 0;
  for (const raw of contours(f.z, f.cols, f.rows, level, -Infinity)) {
    stillWanted(raw.length);
    const loop = withoutDoubles(raw);
    if (loop.length < 6 || Math.abs(loopArea(loop)) * cell * cell < o.smallest) {
      left++;
      continue;
    }
    const path = fitted(f, loop, o.tolerance / cell);
    // Seen with the first row on top the inside lies left; the field's first row lies below.
    if (path) paths.push(reversePath(transformPath(path, toFrame)));
  }
  return { paths, left };
}

/** A loop without points that repeat the one before. */
function withoutDoubles(l: Float64Array): Float64Array {
  const n = l.length / 2;
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    const p = (i + n - 1) % n;
    if (Math.hypot(l[2 * i] - l[2 * p], l[2 * i + 1] - l[2 * p + 1]) > 1e-9) out.push(l[2 * i], l[2 * i + 1]);
  }
  return Float64Array.from(out);
}

/** Curves through a loop, in cells: close where it lies between two heights, looser and without steps beside what is empty. */
function fitted(f: HeightField, loop: Float64Array, tolerance: number): Path | null {
  const { points, corners } = findCorners(loop, CORNER, NEAR);
  const beside = besideEmpty(f, points);
  const n = points.length / 2;
  if (!beside.includes(1)) return fitLoop(points, { tolerance, corners });
  // Points between two heights stay where they are.
  const calm = withoutRipple(points, [...corners, ...[...beside.keys()].filter((i) => !beside[i])]);
  // Where the one ends and the other begins, the line may bend.
  const bends = new Set(corners);
  for (let i = 0; i < n; i++) if (beside[i] !== beside[(i + n - 1) % n]) bends.add(i);
  if (!bends.size) {
    const loose = n < ENOUGH ? FEW_BESIDE : BESIDE_EMPTY;
    return fitLoop(calm, { tolerance: Math.max(tolerance, loose), corners: [], window: 3 });
  }
  const ends = [...bends].sort((a, b) => a - b);
  const segments: Segment[] = [];
  ends.forEach((from, k) => {
    const to = ends[k + 1] ?? ends[0] + n;
    const part = new Float64Array(2 * (to - from + 1));
    for (let i = from; i <= to; i++) part.set([calm[2 * (i % n)], calm[2 * (i % n) + 1]], 2 * (i - from));
    const loose = to - from < ENOUGH ? FEW_BESIDE : BESIDE_EMPTY;
    append(
      segments,
      fitLine(part, beside[from] ? { tolerance: Math.max(tolerance, loose), window: 3 } : { tolerance }),
    );
  });
  return { x: calm[2 * ends[0]], y: calm[2 * ends[0] + 1], segments, closed: true };
}

/** For each point of a loop: 1 where it lies half-way between a height and an empty node, else 0. */
function besideEmpty(f: HeightField, points: Float64Array): Uint8Array {
  const out = new Uint8Array(points.length / 2);
  const empty = (c: number, r: number) => {
    const inside = c >= 0 && r >= 0 && c < f.cols && r < f.rows;
    return inside && f.z[r * f.cols + c] !== f.z[r * f.cols + c];
  };
  for (let i = 0; i < out.length; i++) {
    const u = points[2 * i] - 0.5;
    const v = points[2 * i + 1] - 0.5;
    const [c, r] = [Math.floor(u), Math.floor(v)];
    // A corner that was put between the lines is not on the grid: it is as the point before it.
    const on = c === u || r === v;
    out[i] = on ? Number(empty(c, r) || empty(c === u ? c : c + 1, r === v ? r : r + 1)) : i ? out[i - 1] : 0;
  }
  return out;
}
