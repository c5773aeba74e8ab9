import { offset, type Region } from '../../geometry/region';
import { chance } from '../../relief/noise';
import { besideTracks, ringTracks, rowTracks, spokeTracks } from '../relief/patterns';
import type { Track } from '../relief/follow';
import { beginsOf, CLOSEST, wandered, wandering, wanderStep, type Wander } from './wander';

/** Which way strokes run. */
export const ways = {
  rows: 'At an angle',
  rings: 'Rings',
  spokes: 'From the middle',
  line: 'Along a line',
} as const;
export type Way = keyof typeof ways;

/** How a face is stroked. mm. */
export interface Strokes extends Wander {
  readonly way: Way;
  /** Of rows, from X, degrees. */
  readonly angle: number;
  /** Between two lines of strokes. */
  readonly spacing: number;
  /** Length of a stroke, and of what is left between two; strokes of no length go through from end to end. */
  readonly long: number;
  readonly gap: number;
  /** A stroke comes down, and goes up again, over so much of its length. */
  readonly runs: number;
  readonly depth: number;
}

/** A way in or out is met by so many places. */
const A_RUN = 12;

/** How far apart places of strokes lie, so that waves, ways in and bends are met, mm. */
const strokeStep = (v: Strokes): number =>
  Math.min(wanderStep(v), Math.max(CLOSEST, v.runs > 0 ? v.runs / A_RUN : Infinity));

/** The lines on which strokes lie, before they wander, over a region; `drawn`: lines that they run along. */
function linesOf(v: Strokes, region: Region, drawn: readonly Float64Array[], tolerance: number): Track[] {
  switch (v.way) {
    case 'rows':
      return rowTracks(region, v.angle, v.spacing, true);
    case 'rings':
      return ringTracks(offset(region, -v.spacing / 2, tolerance), v.spacing, tolerance, false);
    case 'spokes':
      return spokeTracks(region, v.spacing);
    case 'line':
      return besideTracks(region, drawn, v.spacing, tolerance);
  }
}

/**
 * The strokes over a region: x, y, z interleaved, mm, z from a level face, in the order of their lines, every other of which runs
 * back.
 */
export function strokesOver(
  v: Strokes,
  region: Region,
  drawn: readonly Float64Array[],
  tolerance: number,
): Float64Array[] {
  if (!region.length) return [];
  const wide = v.swing > 0 ? offset(region, v.swing, tolerance) : region;
  const lines = linesOf(v, wide, drawn, tolerance);
  const { up } = wandering(v);
  const luck = v.chance / 100;
  const out: Float64Array[][] = lines.map(() => []);
  for (const { line, points, along } of wandered(
    lines,
    region,
    strokeStep(v),
    v,
    beginsOf(v.way === 'rows' ? v.angle : v.way, wide),
  )) {
    const n = along.length;
    const give = (from: number, to: number) => {
      const stroke = strokeOf(points, along, from, to, (s) => {
        const runs = v.runs > 0 ? Math.min(1, (s - from) / v.runs, (to - s) / v.runs) : 1;
        return (up(line, s) - v.depth) * Math.sin((Math.PI / 2) * Math.max(0, runs));
      });
      if (stroke.length > 3) out[line].push(stroke);
    };
    const [begin, end] = [along[0], along[n - 1]];
    if (!(v.long > 0)) {
      give(begin, end);
      continue;
    }
    const pace = v.long + v.gap;
    // Strokes of every other line begin half a stroke later, as bricks do, and as chance has it.
    const shift = pace * ((line % 2) / 2 + luck * chance(line, 0, v.seed + 7));
    for (let k = Math.floor((begin - shift) / pace) - 1; shift + k * pace < end; k++) {
      const from = shift + k * pace + luck * v.gap * (chance(line, k, v.seed + 11) - 0.5);
      const to = from + v.long * (1 + luck * (chance(line, k, v.seed + 13) - 0.5));
      const [a, b] = [Math.max(from, begin), Math.min(to, end)];
      // What the boundary leaves of a stroke is a stroke as long as there is room to come down and go up.
      if (b - a > Math.max(2 * CLOSEST, Math.min(v.runs, (to - from) / 2))) give(a, b);
    }
  }
  return out.flatMap((strokes, line) => (line % 2 ? strokes.reverse().map(turned) : strokes));
}

/** The part of a line from one place along it to another, with its heights. */
function strokeOf(
  p: Float64Array,
  along: Float64Array,
  from: number,
  to: number,
  height: (s: number) => number,
): Float64Array {
  const out: number[] = [];
  const put = (s: number, i: number) => {
    const t = along[i + 1] > along[i] ? (s - along[i]) / (along[i + 1] - along[i]) : 0;
    out.push(p[2 * i] + (p[2 * i + 2] - p[2 * i]) * t, p[2 * i + 1] + (p[2 * i + 3] - p[2 * i + 1]) * t, height(s));
  };
  let i = 0;
  while (i < along.length - 2 && along[i + 1] <= from) i++;
  put(from, i);
  for (i++; i < along.length && along[i] < to; i++)
    if (along[i] > from) out.push(p[2 * i], p[2 * i + 1], height(along[i]));
  put(to, Math.max(0, Math.min(along.length - 2, i - 1)));
  return Float64Array.from(out);
}

/** A stroke the other way. */
function turned(p: Float64Array): Float64Array {
  const out = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) out.set(p.subarray(i, i + 3), p.length - 3 - i);
  return out;
}
