import { derived } from '../geometry/hash';
import { makeInside } from '../geometry/inside';
import { loopArea } from '../geometry/region';
import { stillWanted } from '../units/stillWanted';
import { columnsOf, nearestSegments } from './distance';
import { yOf, type Grid } from './field';
import type { Line } from './form';

/**
 * Profiles led over nodes of a grid: heights in mm, NaN where there is nothing. A node on the very edge belongs to what is swept.
 */

/** Height at `u`, -1 to 1, across a width whose half is given, mm. */
export type Across = (u: number, half: number) => number;

const EDGE = 1e-9;

/** How much of its height it has so far from its end: a quarter of a wave, level where it is whole; 1 where its ends are open. */
const tapered = (fromEnd: number, taper: number): number =>
  taper <= 0 || fromEnd >= taper ? 1 : fromEnd <= 0 ? 0 : Math.sin((Math.PI / 2) * (fromEnd / taper));

/** A straight way: how long, where its middle lies, and how it is turned; mm and degrees. */
export interface Axis {
  readonly length: number;
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

/** Goes through the nodes with their places along and across an axis, from its middle. */
function overAxis({ x, y, angle }: Axis, g: Grid, at: (along: number, across: number) => number): Float32Array {
  const z = new Float32Array(g.cols * g.rows);
  const turn = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  for (let r = 0; r < g.rows; r++) {
    stillWanted(g.cols);
    const dy = yOf(g, r) - y;
    for (let q = 0; q < g.cols; q++) {
      const dx = g.x0 + q * g.cell - x;
      z[r * g.cols + q] = at(dx * cos + dy * sin, dy * cos - dx * sin);
    }
  }
  return z;
}

/** Straight, over a width; its ends run out over `taper`, mm. */
export function sweptStraight(
  a: Axis & { readonly width: number; readonly taper: number },
  g: Grid,
  across: Across,
): Float32Array {
  const half = a.width / 2;
  return overAxis(a, g, (s, d) => {
    const end = a.length / 2 - Math.abs(s);
    if (end < -EDGE || Math.abs(d) > half + EDGE) return NaN;
    return across(Math.max(-1, Math.min(1, d / half)), half) * tapered(end, a.taper);
  });
}

/** Turned about an axis that lies at the base, with a radius for each place of it, -1 to 1; its upper half. */
export function sweptAbout(a: Axis, g: Grid, radius: (u: number) => number): Float32Array {
  const half = a.length / 2;
  return overAxis(a, g, (s, d) => {
    if (Math.abs(s) > half + EDGE) return NaN;
    const r = radius(Math.max(-1, Math.min(1, s / half)));
    return Math.abs(d) > r + EDGE ? NaN : Math.sqrt(Math.max(0, r * r - d * d));
  });
}

/** Along lines, over a width; where two of them cross, the higher. Open lines end square, or run out over `taper`, mm. */
export function sweptAlong(
  lines: readonly Line[],
  g: Grid,
  width: number,
  taper: number,
  across: Across,
): Float32Array {
  const half = width / 2;
  const z = new Float32Array(g.cols * g.rows).fill(NaN);
  for (const line of lines)
    alongLine(line, g, half + EDGE, (node, w) => {
      // Beyond the end of an open line there is nothing.
      if (w.beyond || w.far > half + EDGE) return;
      const end = line.closed ? Infinity : Math.min(w.along, w.whole - w.along);
      const h = across(Math.min(1, w.far / half) * w.side, half) * tapered(end, taper);
      if (!(z[node] >= h)) z[node] = h;
    });
  return z;
}

const only = derived<Line, Line[]>();

/** Where a node lies by a line. */
interface Beside {
  /** How far along the line the place is that is nearest to it, mm, and how long the whole line is. */
  readonly along: number;
  readonly whole: number;
  /** How far it is from there, and on which side: -1 left of the way that the line goes, 1 right. */
  readonly far: number;
  readonly side: 1 | -1;
  /** By how much it lies before the beginning (below zero) or behind the end of an open line, mm along its first or last segment. */
  readonly beyond: number;
}

/** Tells where nodes lie by a line; those further than `most` from it may be left out. */
function alongLine(line: Line, g: Grid, most: number, tell: (node: number, w: Beside) => void): void {
  const alone = only(line, '', () => [line]);
  const { count, s } = columnsOf(alone);
  // How far along it each segment begins, mm.
  const start = new Float64Array(count + 1);
  for (let i = 0; i < count; i++) start[i + 1] = start[i] + Math.hypot(s[5 * i + 2], s[5 * i + 3]);
  const whole = start[count];
  nearestSegments(
    alone,
    g,
    (node, square, at) => {
      const i = at / 5;
      const x = g.x0 + (node % g.cols) * g.cell - s[at];
      const y = yOf(g, Math.floor(node / g.cols)) - s[at + 1];
      const t = (x * s[at + 2] + y * s[at + 3]) * s[at + 4];
      const long = start[i + 1] - start[i];
      const before = !line.closed && i === 0 && t < -EDGE;
      const behind = !line.closed && i === count - 1 && t > 1 + EDGE;
      tell(node, {
        along: start[i] + Math.max(0, Math.min(1, t)) * long,
        whole,
        far: Math.sqrt(square),
        side: sideOf(s, count, i, line.closed, t, x, y),
        beyond: before ? t * long : behind ? (t - 1) * long : 0,
      });
    },
    { most },
  );
}

/**
 * For each node how far along the nearest of some lines it lies, and how far beside it, left above zero; mm. Beyond the ends of open
 * ones it goes on straight.
 */
export function besideLines(
  lines: readonly Line[],
  g: Grid,
): { readonly along: Float32Array; readonly beside: Float32Array } {
  const [along, beside, nearest] = Array.from({ length: 3 }, () => new Float32Array(g.cols * g.rows));
  nearest.fill(Infinity);
  for (const line of lines)
    alongLine(line, g, Infinity, (node, w) => {
      if (w.far >= nearest[node]) return;
      nearest[node] = w.far;
      along[node] = w.along + w.beyond;
      beside[node] = -w.side * Math.sqrt(Math.max(0, w.far * w.far - w.beyond * w.beyond));
    });
  return { along, beside };
}

/**
 * On which side of a line a place lies whose nearest segment is `i`, at `t` of its length: -1 left of the way that it goes, 1 right.
 * Where a corner is nearest, what parts the sides is the mean of both segments' normals (after J. A. Baerentzen, H. Aanaes, "Signed
 * Distance Computation Using the Angle Weighted Pseudonormal", 2005). `x`, `y`: from where the segment begins.
 */
function sideOf(s: Float64Array, n: number, i: number, closed: boolean, t: number, x: number, y: number): 1 | -1 {
  const unit = (at: number): [number, number] => {
    const l = Math.hypot(s[at + 2], s[at + 3]) || 1;
    return [s[at + 2] / l, s[at + 3] / l];
  };
  let [ex, ey] = unit(5 * i);
  const other = t <= 0 ? i - 1 : t >= 1 ? i + 1 : null;
  if (other !== null && (closed || (other >= 0 && other < n))) {
    const [ox, oy] = unit(5 * ((other + n) % n));
    [ex, ey] = [ex + ox, ey + oy];
  }
  // From the corner that is nearest, not from where the segment begins.
  const [px, py] = t >= 1 ? [x - s[5 * i + 2], y - s[5 * i + 3]] : [x, y];
  return ex * py - ey * px > 0 ? -1 : 1;
}

/**
 * From one line to another, both open or both closed: `u` goes by the distances to both, which is exact for lines that are parallel
 * and for circles about one middle. Where it `swells`, it is as high in proportion as the lines lie apart.
 */
export function sweptBetween(a: Line, b: Line, g: Grid, across: Across, swells: boolean): Float32Array {
  const [near, far] = [a, b].map((line) => {
    const d = new Float32Array(g.cols * g.rows);
    nearestSegments(
      only(line, '', () => [line]),
      g,
      (i, square) => (d[i] = Math.sqrt(square)),
    );
    return d;
  });
  const inside = makeInside(stripOf(a, b));
  const z = new Float32Array(g.cols * g.rows).fill(NaN);
  let widest = 0;
  for (let r = 0, i = 0; r < g.rows; r++) {
    stillWanted(g.cols);
    for (let q = 0; q < g.cols; q++, i++) {
      if (!inside(g.x0 + q * g.cell, yOf(g, r))) continue;
      const wide = near[i] + far[i];
      if (!(wide > 0)) continue;
      widest = Math.max(widest, wide);
      z[i] = across((2 * near[i]) / wide - 1, wide / 2) * (swells ? wide : 1);
    }
  }
  // Empty places stay empty.
  if (swells && widest > 0) for (let i = 0; i < z.length; i++) z[i] /= widest;
  return z;
}

const back = (p: Float64Array): Float64Array => {
  const out = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 2) out.set([p[i], p[i + 1]], p.length - 2 - i);
  return out;
};

/** What lies between two lines: one along the first and back along the second; of closed ones, one round the other way. */
function stripOf(a: Line, b: Line): Float64Array[] {
  const [p, q] = [a.points, b.points];
  if (a.closed) return [p, loopArea(p) * loopArea(q) > 0 ? back(q) : q];
  const far = (i: number, j: number) => Math.hypot(p[i] - q[j], p[i + 1] - q[j + 1]);
  const [pe, qe] = [p.length - 2, q.length - 2];
  // Ends that lie near each other belong together, whichever way the lines were drawn.
  const same = far(0, 0) + far(pe, qe) <= far(0, qe) + far(pe, 0);
  return [Float64Array.from([...p, ...(same ? back(q) : q)])];
}
