import { hop, type HopHeights } from '../clearing/travel';
import type { Line } from '../kind';
import type { MotionBuilder } from '../../motion/motion';
import { orderPieces } from '../../motion/order';

/** How grooves are run. mm, mm/min; `heights` of the passes from the top. */
export interface GrooveMoves extends HopHeights {
  readonly clearance: number;
  readonly heights: readonly number[];
  readonly feed: number;
  /** Feed of the last half millimetre down and into the material. */
  readonly touch: number;
  /** Share of the feed kept close to sharp corners, 0..1; 1 for no slowing. */
  readonly cornerShare: number;
}

/** Corners that turn by more than this are sharp, and the slowing begins so far from them. */
const SHARP = Math.PI / 6;
const SLOW_WITHIN = 0.5;
const STARTS = 24;
/** Places nearer than this are reached low, mm. */
const NEAR = 25;
/** From so far above the face the tool comes down slowly, mm. */
const APPROACH = 0.5;

/** The points of a closed line from its node k on, back to it. */
function from(points: Float64Array, k: number): Float64Array {
  const out = new Float64Array(points.length + 2);
  out.set(points.subarray(2 * k));
  out.set(points.subarray(0, 2 * k), points.length - 2 * k);
  out.set(points.subarray(2 * k, 2 * k + 2), points.length);
  return out;
}

const backwards = (points: Float64Array): Float64Array => {
  const out = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2) out.set(points.subarray(i, i + 2), points.length - 2 - i);
  return out;
};

/** Runs all lines in a short order: open ones from either end, to and fro where there are several passes, closed ones from any node. */
export function grooves(b: MotionBuilder, lines: readonly Line[], m: GrooveMoves, progress: (done: number) => void): void {
  const nodes = lines.map((l) => (l.closed ? Array.from({ length: Math.min(STARTS, l.points.length / 2) }, (_, i) => Math.floor((i * l.points.length) / 2 / Math.min(STARTS, l.points.length / 2))) : []));
  const pieces = lines.map((l, i) => {
    const n = l.points.length;
    const [x, y] = [l.points[0], l.points[1]];
    return l.closed
      ? { inX: x, inY: y, outX: x, outY: y, starts: Float64Array.from(nodes[i].flatMap((k) => [l.points[2 * k], l.points[2 * k + 1]])) }
      : // An even number of passes ends where it began.
        { inX: x, inY: y, outX: l.points[m.heights.length % 2 ? n - 2 : 0], outY: l.points[m.heights.length % 2 ? n - 1 : 1], reversible: m.heights.length % 2 === 1 };
  });
  const turns = orderPieces(pieces, b.count ? b.lastX : 0, b.count ? b.lastY : 0, { effort: 10, progress: (f) => progress(0.8 * f) });
  turns.forEach(({ piece, reversed, start }, i) => {
    const l = lines[piece];
    let points = l.closed ? from(l.points, nodes[piece][start]) : reversed ? backwards(l.points) : l.points;
    const [x, y] = [points[0], points[1]];
    const here = b.count > 0 && Math.hypot(x - b.lastX, y - b.lastY) < 1e-6 && Math.abs(b.lastZ - m.heights[m.heights.length - 1]) < 1e-9 && m.heights.length === 1;
    if (!here) {
      hop(b, x, y, m, NEAR);
      b.rapid(x, y, Math.min(APPROACH, m.clearance));
    }
    for (const z of m.heights) {
      b.plunge(z, m.touch);
      follow(b, points, z, m);
      if (!l.closed) points = backwards(points);
    }
    progress(0.8 + (0.2 * (i + 1)) / turns.length);
  });
  if (b.count) b.rapid(b.lastX, b.lastY, m.safe);
}

function follow(b: MotionBuilder, p: Float64Array, z: number, m: GrooveMoves): void {
  const n = p.length / 2;
  const sharp = (i: number): boolean => {
    if (m.cornerShare >= 1 || i <= 0 || i >= n - 1) return false;
    const [ax, ay, bx, by] = [p[2 * i] - p[2 * i - 2], p[2 * i + 1] - p[2 * i - 1], p[2 * i + 2] - p[2 * i], p[2 * i + 3] - p[2 * i + 1]];
    return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)) > SHARP;
  };
  let last = sharp(0);
  for (let i = 1; i < n; i++) {
    const next = sharp(i);
    const [x0, y0, x1, y1] = [p[2 * i - 2], p[2 * i - 1], p[2 * i], p[2 * i + 1]];
    const length = Math.hypot(x1 - x0, y1 - y0);
    const slow = m.feed * m.cornerShare;
    const near = Math.min(SLOW_WITHIN, length / 2);
    const at = (d: number) => [x0 + ((x1 - x0) * d) / length, y0 + ((y1 - y0) * d) / length] as const;
    if (length > 1e-9) {
      if (last && next && length <= 2 * near + 1e-9) b.line(x1, y1, z, slow);
      else {
        if (last) b.line(...at(near), z, slow);
        if (next) {
          b.line(...at(length - near), z, m.feed);
          b.line(x1, y1, z, slow);
        } else b.line(x1, y1, z, m.feed);
      }
    }
    last = next;
  }
}
