import { rapidTo, type RetractHeights } from '../clearing/travel';
import type { Line } from '../kind';
import type { MotionBuilder } from '../../motion/motion';
import { headingOf, fitArcs, part, run } from '../../motion/arcPolyline';
import { orderPieces } from '../../motion/order';

/** How grooves are run. mm, mm/min; `heights` of the passes from the top. */
export interface GrooveMoves extends RetractHeights {
  readonly clearance: number;
  /** From so far above the face the tool comes down slowly. */
  readonly approach: number;
  readonly levels: readonly number[];
  readonly feed: number;
  /** Feed of the last bit down and into the material. */
  readonly approachFeed: number;
  /** By how much lines and arcs may stray from the points of a line, mm. */
  readonly merge: number;
  /** Share of the feed kept close to sharp corners, 0..1; 1 for no slowing. */
  readonly cornerFeedFactor: number;
}

/** Corners that turn by more than this are sharp, and the slowing begins so far from them. */
const SHARP = Math.PI / 6;
const SLOW_WITHIN = 0.5;
const STARTS = 24;
/** Places nearer than this are reached low, mm. */
const NEAR = 25;

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
export function grooves(
  b: MotionBuilder,
  lines: readonly Line[],
  m: GrooveMoves,
  progress: (done: number) => void,
): void {
  const nodes = lines.map((l) =>
    l.closed
      ? Array.from({ length: Math.min(STARTS, l.points.length / 2) }, (_, i) =>
          Math.floor((i * l.points.length) / 2 / Math.min(STARTS, l.points.length / 2)),
        )
      : [],
  );
  const pieces = lines.map((l, i) => {
    const n = l.points.length;
    const [x, y] = [l.points[0], l.points[1]];
    return l.closed
      ? {
          inX: x,
          inY: y,
          outX: x,
          outY: y,
          starts: Float64Array.from(nodes[i].flatMap((k) => [l.points[2 * k], l.points[2 * k + 1]])),
        }
      : // An even number of passes ends where it began.
        {
          inX: x,
          inY: y,
          outX: l.points[m.levels.length % 2 ? n - 2 : 0],
          outY: l.points[m.levels.length % 2 ? n - 1 : 1],
          reversible: m.levels.length % 2 === 1,
        };
  });
  const turns = orderPieces(pieces, b.count ? b.lastX : 0, b.count ? b.lastY : 0, {
    effort: 10,
    progress: (f) => progress(0.8 * f),
  });
  turns.forEach(({ piece, reversed, start }, i) => {
    const l = lines[piece];
    let points = l.closed ? from(l.points, nodes[piece][start]) : reversed ? backwards(l.points) : l.points;
    const [x, y] = [points[0], points[1]];
    const here =
      b.count > 0 &&
      Math.hypot(x - b.lastX, y - b.lastY) < 1e-6 &&
      Math.abs(b.lastZ - m.levels[m.levels.length - 1]) < 1e-9 &&
      m.levels.length === 1;
    if (!here) {
      rapidTo(b, x, y, m, NEAR);
      b.rapid(x, y, Math.min(m.approach, m.clearance));
    }
    for (const z of m.levels) {
      b.plunge(z, m.approachFeed);
      follow(b, points, z, m);
      if (!l.closed) points = backwards(points);
    }
    progress(0.8 + (0.2 * (i + 1)) / turns.length);
  });
  b.lift(m.safe);
}

function follow(b: MotionBuilder, p: Float64Array, z: number, m: GrooveMoves): void {
  const { segments: stretches } = fitArcs(p, false, m.merge);
  /** Whether the way turns sharply between a stretch and the next one. */
  const sharp = (i: number): boolean => {
    if (m.cornerFeedFactor >= 1 || i < 0 || i + 1 >= stretches.length) return false;
    const [u, v] = [headingOf(stretches[i], true), headingOf(stretches[i + 1], false)];
    return Math.abs(Math.atan2(u.dx * v.dy - u.dy * v.dx, u.dx * v.dx + u.dy * v.dy)) > SHARP;
  };
  const slow = m.feed * m.cornerFeedFactor;
  stretches.forEach((t, i) => {
    if (!(t.length > 1e-9)) return;
    const [last, next] = [sharp(i - 1), sharp(i)];
    const near = Math.min(SLOW_WITHIN, t.length / 2) / t.length;
    const go = (f0: number, f1: number, feed: number) => {
      if (f1 - f0 > 1e-9) run(b, [part(t, f0, f1)], z, z, feed);
    };
    if (last) go(0, near, slow);
    go(last ? near : 0, next ? 1 - near : 1, m.feed);
    if (next) go(1 - near, 1, slow);
  });
}
