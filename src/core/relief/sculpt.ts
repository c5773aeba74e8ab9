import { z } from 'zod';
import { stillWanted } from '../units/stillWanted';
import type { Grid } from './field';

/** What a brush does to what lies under it. */
export const brushTools = {
  raise: 'Raise',
  lower: 'Lower',
  smooth: 'Smooth',
  flatten: 'Flatten',
  pull: 'Pull to a height',
  grab: 'Grab',
} as const;
export type BrushTool = keyof typeof brushTools;

/** On which side of the blank's middle a stroke is repeated. */
export const brushMirrors = { none: 'Not mirrored', across: 'Left and right', along: 'Up and down' } as const;
export type BrushMirror = keyof typeof brushMirrors;

export const brushSchema = z.object({
  tool: z.enum(Object.keys(brushTools) as [BrushTool, ...BrushTool[]]),
  /** Half of its width, mm. */
  radius: z.number().min(0.05).max(500),
  /** How much a straight stroke raises or lowers along its middle, mm. */
  height: z.number().min(0).max(100),
  /** How far a straight stroke brings its middle to where the others aim at, 0 to 1. */
  share: z.number().min(0).max(1),
  /** How much of its radius runs out softly, 0.2 to 1: a harder one would leave the edge of each dab to be seen. */
  soft: z.number().min(0.2).max(1),
  /** What is pulled to, mm above the base of the stack. */
  level: z.number().min(-300).max(300),
  mirror: z.enum(Object.keys(brushMirrors) as [BrushMirror, ...BrushMirror[]]),
});
export type Brush = z.infer<typeof brushSchema>;

/** Numbers that one stroke may hold, and strokes that a form may. */
export const MOST_NUMBERS = 60_000;
export const MOST_STROKES = 5000;
export const brushStrokeSchema = brushSchema.extend({
  /** Where it went: x and y in the blank's frame, mm, and how hard it was pressed, 0 to 1; three numbers for each place. */
  points: z.array(z.number()).max(MOST_NUMBERS),
});
export type BrushStroke = z.infer<typeof brushStrokeSchema>;

/** Dabs of a stroke follow each other at this share of the radius. */
const APART = 0.125;

/**
 * How much of a dab counts so far from its middle, as a share q of the radius: 1 inside, half a cosine over the soft part.
 *
 * ```
 *   1 ----------.
 *                `.            soft = 0.6
 *                   `.
 *   0                  `---
 *     0        0.4        1  q
 * ```
 */
export const falloff = (q: number, soft: number): number => {
  const u = q - (1 - soft);
  return u <= 0 ? 1 : 0.5 + 0.5 * Math.cos((Math.PI * u) / soft);
};

/**
 * The dabs of strokes, in order: which stroke, x, y, pressure; four numbers each. They follow each other along a stroke from its
 * first place on: a stroke that goes on has the dabs that it had, and more.
 */
export function dabsOf(strokes: readonly BrushStroke[]): Float64Array {
  const out: number[] = [];
  strokes.forEach((s, k) => {
    const p = s.points;
    if (p.length < 3) return;
    const apart = APART * s.radius;
    out.push(k, p[0], p[1], p[2]);
    /** So far it is from the last dab to the place that was looked at last. */
    let since = 0;
    for (let i = 3; i + 2 < p.length; i += 3) {
      const [dx, dy] = [p[i] - p[i - 3], p[i + 1] - p[i - 2]];
      const l = Math.sqrt(dx * dx + dy * dy);
      let at = apart - since;
      for (; at <= l; at += apart) {
        const t = at / l;
        out.push(k, p[i - 3] + t * dx, p[i - 2] + t * dy, p[i - 1] + t * (p[i + 2] - p[i - 1]));
      }
      since = l - (at - apart);
    }
  });
  return Float64Array.from(out);
}

/** Lays dabs from the `first` one on heights, in place. Empty places stay empty. Tells whether any met something. */
export function layDabs(
  z: Float32Array,
  g: Grid,
  strokes: readonly BrushStroke[],
  dabs: Float64Array,
  first = 0,
): boolean {
  const [mx, my] = [g.x0 + ((g.cols - 1) * g.cell) / 2, g.y0 + ((g.rows - 1) * g.cell) / 2];
  let met = false;
  for (let i = 4 * first; i < dabs.length; i += 4) {
    const s = strokes[dabs[i]];
    const [x, y, pressure] = [dabs[i + 1], dabs[i + 2], dabs[i + 3]];
    // How far it has come since the dab before it; a stroke's first one has come from nowhere.
    const came = i > 0 && dabs[i - 4] === dabs[i];
    const [vx, vy] = came ? [x - dabs[i - 3], y - dabs[i - 2]] : [0, 0];
    const lay = (x: number, y: number, vx: number, vy: number): boolean =>
      s.tool === 'grab' ? carry(z, g, s, x, y, pressure, vx, vy) : dab(z, g, s, x, y, pressure);
    met = lay(x, y, vx, vy) || met;
    if (s.mirror === 'across') met = lay(2 * mx - x, y, -vx, vy) || met;
    if (s.mirror === 'along') met = lay(x, 2 * my - y, vx, -vy) || met;
  }
  return met;
}

/** The nodes under a brush at a place; null where there are none. */
function boxUnder(g: Grid, radius: number, x: number, y: number): Box | null {
  const c0 = Math.max(0, Math.ceil((x - radius - g.x0) / g.cell));
  const c1 = Math.min(g.cols - 1, Math.floor((x + radius - g.x0) / g.cell));
  const r0 = Math.max(0, Math.ceil((y - radius - g.y0) / g.cell));
  const r1 = Math.min(g.rows - 1, Math.floor((y + radius - g.y0) / g.cell));
  if (c0 > c1 || r0 > r1) return null;
  stillWanted((r1 - r0 + 1) * (c1 - c0 + 1));
  return [c0, r0, c1, r1];
}

/**
 * One dab of a brush that carries what is under it along by (vx, vy), mm: each node gets the height that stood where it came from.
 * Between nodes by cubic pieces through four of them (E. Catmull, R. Rom, "A Class of Local Interpolating Splines", 1974): many
 * small steps wear a ridge down far less than straight ones would.
 */
function carry(
  z: Float32Array,
  g: Grid,
  s: BrushStroke,
  x: number,
  y: number,
  pressure: number,
  vx: number,
  vy: number,
): boolean {
  const box = boxUnder(g, s.radius, x, y);
  if (!box) return false;
  const [c0, r0, c1, r1] = box;
  const far = Math.ceil(Math.max(Math.abs(vx), Math.abs(vy)) / g.cell) + 2;
  const [a0, a1] = [Math.max(0, c0 - far), Math.min(g.cols - 1, c1 + far)];
  const [b0, b1] = [Math.max(0, r0 - far), Math.min(g.rows - 1, r1 + far)];
  const wide = a1 - a0 + 1;
  const was = new Float32Array(wide * (b1 - b0 + 1));
  for (let r = b0; r <= b1; r++) was.set(z.subarray(r * g.cols + a0, r * g.cols + a1 + 1), (r - b0) * wide);
  const at = (c: number, r: number): number =>
    was[(Math.min(b1, Math.max(b0, r)) - b0) * wide + Math.min(a1, Math.max(a0, c)) - a0];
  const row = (k: number, c: number, t: number) => cubic(at(c - 1, k), at(c, k), at(c + 1, k), at(c + 2, k), t);
  const share = s.share * pressure;
  let met = false;
  for (let r = r0; r <= r1; r++)
    for (let c = c0; c <= c1; c++) {
      const h = z[r * g.cols + c];
      if (h !== h) continue;
      const [ex, ey] = [g.x0 + c * g.cell - x, g.y0 + r * g.cell - y];
      const q = Math.sqrt(ex * ex + ey * ey) / s.radius;
      if (q >= 1) continue;
      met = true;
      const w = (falloff(q, s.soft) * share) / g.cell;
      if (w === 0 || (vx === 0 && vy === 0)) continue;
      const [u, v] = [c - w * vx, r - w * vy];
      const [cu, rv] = [Math.floor(u), Math.floor(v)];
      const [fu, fv] = [u - cu, v - rv];
      const i = (rv - 1 - b0) * wide + cu - 1 - a0;
      // In the middle of what was copied nothing has to be held back from its rim.
      const to =
        cu > a0 && cu + 2 <= a1 && rv > b0 && rv + 2 <= b1
          ? cubic(
              cubic(was[i], was[i + 1], was[i + 2], was[i + 3], fu),
              cubic(was[i + wide], was[i + wide + 1], was[i + wide + 2], was[i + wide + 3], fu),
              cubic(was[i + 2 * wide], was[i + 2 * wide + 1], was[i + 2 * wide + 2], was[i + 2 * wide + 3], fu),
              cubic(was[i + 3 * wide], was[i + 3 * wide + 1], was[i + 3 * wide + 2], was[i + 3 * wide + 3], fu),
              fv,
            )
          : cubic(row(rv - 1, cu, fu), row(rv, cu, fu), row(rv + 1, cu, fu), row(rv + 2, cu, fu), fv);
      // Beside what is empty it stays as it is: empty places are not carried.
      if (to === to) z[r * g.cols + c] = to;
    }
  return met;
}
const cubic = (a: number, b: number, c: number, d: number, t: number): number =>
  b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));

/** One dab of a brush; tells whether it met anything. */
function dab(z: Float32Array, g: Grid, s: BrushStroke, x: number, y: number, pressure: number): boolean {
  const box = boxUnder(g, s.radius, x, y);
  if (!box) return false;
  const [c0, r0, c1, r1] = box;
  // The falloff along a line through the middle, added up over the dabs of a straight stroke, comes to this many whole dabs.
  const dabs = (2 - s.soft) / APART;
  const moves = s.tool === 'raise' ? 1 : s.tool === 'lower' ? -1 : 0;
  const by = (moves * s.height * pressure) / dabs;
  // Shares multiply: what is left of the way after all of them is what a stroke leaves.
  const share = 1 - (1 - s.share * pressure) ** (1 / dabs);
  const aims = s.tool === 'smooth' ? boxMeansWithin(z, g, box, Math.max(1, Math.round(s.radius / 4 / g.cell))) : null;
  const level = s.tool === 'flatten' ? meanUnder(z, g, s, x, y, box) : s.level;
  let met = false;
  for (let r = r0; r <= r1; r++) {
    const dy = g.y0 + r * g.cell - y;
    for (let c = c0; c <= c1; c++) {
      const i = r * g.cols + c;
      const h = z[i];
      if (h !== h) continue;
      const dx = g.x0 + c * g.cell - x;
      const q = Math.sqrt(dx * dx + dy * dy) / s.radius;
      if (q >= 1) continue;
      met = true;
      const w = falloff(q, s.soft);
      const aim = aims ? aims[(r - r0) * (c1 - c0 + 1) + c - c0] : level;
      z[i] = moves ? h + by * w : h + w * share * (aim - h);
    }
  }
  return met;
}

type Box = readonly [number, number, number, number];

/** The mean height under a dab, each node as it counts; NaN where all is empty. */
function meanUnder(z: Float32Array, g: Grid, s: BrushStroke, x: number, y: number, [c0, r0, c1, r1]: Box): number {
  let [sum, all] = [0, 0];
  for (let r = r0; r <= r1; r++)
    for (let c = c0; c <= c1; c++) {
      const h = z[r * g.cols + c];
      const q = Math.sqrt((g.x0 + c * g.cell - x) ** 2 + (g.y0 + r * g.cell - y) ** 2) / s.radius;
      if (h !== h || q >= 1) continue;
      const w = falloff(q, s.soft);
      sum += w * h;
      all += w;
    }
  return sum / all;
}

/** For each node of a box the mean of the nodes that lie at most `half` away in both directions, those that are empty left out. */
export function boxMeansWithin(z: Float32Array, g: Grid, [c0, r0, c1, r1]: Box, half: number): Float64Array {
  const [a0, a1] = [Math.max(0, c0 - half), Math.min(g.cols - 1, c1 + half)];
  const [b0, b1] = [Math.max(0, r0 - half), Math.min(g.rows - 1, r1 + half)];
  const wide = a1 - a0 + 2;
  // Sums of all that lies to the left and below, with a row and a column of noughts before them.
  const sums = new Float64Array(wide * (b1 - b0 + 2));
  const counts = new Float64Array(sums.length);
  for (let r = b0; r <= b1; r++) {
    let [sum, count] = [0, 0];
    const row = (r - b0 + 1) * wide;
    for (let c = a0; c <= a1; c++) {
      const h = z[r * g.cols + c];
      if (h === h) {
        sum += h;
        count++;
      }
      const k = row + c - a0 + 1;
      sums[k] = sums[k - wide] + sum;
      counts[k] = counts[k - wide] + count;
    }
  }
  const out = new Float64Array((r1 - r0 + 1) * (c1 - c0 + 1));
  let i = 0;
  for (let r = r0; r <= r1; r++) {
    const low = (Math.max(b0, r - half) - b0) * wide;
    const high = (Math.min(b1, r + half) - b0 + 1) * wide;
    for (let c = c0; c <= c1; c++) {
      const left = Math.max(a0, c - half) - a0;
      const right = Math.min(a1, c + half) - a0 + 1;
      const n = counts[high + right] - counts[high + left] - counts[low + right] + counts[low + left];
      out[i++] = (sums[high + right] - sums[high + left] - sums[low + right] + sums[low + left]) / n;
    }
  }
  return out;
}
