import { boundsOf, offset, thicken, unite, type Region } from '../../geometry/region';
import { chance } from '../../relief/noise';
import { stillWanted } from '../../units/stillWanted';
import { cutTo, ringTracks, rowTracks, spokeTracks } from '../relief/patterns';
import type { Track } from '../relief/follow';
import { wandering, type Wander } from './wander';

/** Which way strokes run. */
export const ways = {
  rows: 'At an angle',
  rings: 'Along the boundary',
  spokes: 'From the middle outwards',
  line: 'Along a picked line',
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

/** Places of a stroke lie no closer than so, and no further apart, mm. */
const CLOSEST = 0.04;
const FURTHEST = 0.5;
/** So many places make a wave, and a way in or out. */
const A_WAVE = 32;
const A_RUN = 12;

/** How far apart places of strokes lie, so that waves, ways in and bends are met, mm. */
export const strokeStep = (v: Strokes): number =>
  Math.max(
    CLOSEST,
    Math.min(v.swing || v.lift ? v.wave / A_WAVE : FURTHEST, v.runs > 0 ? v.runs / A_RUN : FURTHEST, FURTHEST),
  );

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
      return besideLines(region, drawn, v.spacing, tolerance);
  }
}

/** Drawn lines, and lines at even distances from them, as far as a region goes. */
function besideLines(region: Region, drawn: readonly Float64Array[], step: number, tolerance: number): Track[] {
  const out: Track[] = drawn.map((points) => ({ points, closed: false, straight: true }));
  let far = 0;
  for (const l of region)
    for (let i = 0; i < l.length; i += 2) {
      let near = Infinity;
      for (const d of drawn)
        for (let k = 0; k < d.length; k += 2) near = Math.min(near, Math.hypot(d[k] - l[i], d[k + 1] - l[i + 1]));
      far = Math.max(far, near);
    }
  for (let k = 1; drawn.length && k * step <= far; k++) {
    const round = drawn.map((d) => thicken(d, k * step, tolerance)).reduce(unite);
    stillWanted(round.length);
    for (const points of round) out.push({ points, closed: true, straight: true });
  }
  return out;
}

/** Visits places of a line, so far apart or a little closer, with how far along it they lie and its direction there. */
function eachPlace(
  { points: p, closed }: Track,
  step: number,
  visit: (x: number, y: number, s: number, tx: number, ty: number) => void,
): void {
  const n = p.length / 2;
  const ways = closed ? n : n - 1;
  const way = (i: number) => {
    const [a, b] = [2 * (((i % n) + n) % n), 2 * ((((i + 1) % n) + n) % n)];
    const [x, y] = [p[b] - p[a], p[b + 1] - p[a + 1]];
    const long = Math.hypot(x, y) || 1;
    return { x: p[a], y: p[a + 1], tx: x / long, ty: y / long, long: Math.hypot(x, y) };
  };
  let s = 0;
  let from = way(closed ? -1 : 0);
  for (let i = 0; i < ways; i++) {
    const at = way(i);
    const parts = Math.max(1, Math.ceil(at.long / step));
    for (let k = 0; k < parts; k++) {
      // At a corner halfway between both directions.
      const [tx, ty] = k ? [at.tx, at.ty] : [at.tx + from.tx, at.ty + from.ty];
      const one = Math.hypot(tx, ty) || 1;
      visit(
        at.x + (at.tx * at.long * k) / parts,
        at.y + (at.ty * at.long * k) / parts,
        s + (at.long * k) / parts,
        tx / one,
        ty / one,
      );
    }
    s += at.long;
    from = at;
  }
  const last = way(ways - 1);
  visit(last.x + last.tx * last.long, last.y + last.ty * last.long, s, last.tx, last.ty);
}

/** Lines that have wandered, cut to a region; `along` says how far along its line each place lies. */
export function wandered(
  lines: readonly Track[],
  region: Region,
  step: number,
  w: Wander,
  /** How far along all that wanders alike a line begins. */
  begins: (t: Track) => number,
) {
  const { aside } = wandering(w);
  return lines.flatMap((t, line) => {
    const cut = cutTo(region);
    const s0 = begins(t);
    stillWanted(t.points.length);
    eachPlace(t, step, (x, y, s, tx, ty) => {
      const a = aside(line, s0 + s);
      cut.to(x - ty * a, y + tx * a, s0 + s);
    });
    return cut.end().map((piece) => ({ line, ...piece }));
  });
}

/** Where lines that wander alike begin: along the rows of an angle, from the middle, or at their own beginning. */
function beginsOf(v: Strokes, region: Region): (t: Track) => number {
  const box = boundsOf(region);
  if (v.way === 'rows') {
    const [cos, sin] = [Math.cos((v.angle * Math.PI) / 180), Math.sin((v.angle * Math.PI) / 180)];
    return ({ points: p }) => p[0] * cos + p[1] * sin;
  }
  if (v.way === 'spokes' && box)
    return ({ points: p }) => Math.hypot(p[0] - (box.x0 + box.x1) / 2, p[1] - (box.y0 + box.y1) / 2);
  return () => 0;
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
  for (const { line, points, along } of wandered(lines, region, strokeStep(v), v, beginsOf(v, wide))) {
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
