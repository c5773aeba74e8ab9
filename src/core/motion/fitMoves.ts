import { stillWanted } from '../units/stillWanted';
import { hashFloats, sizedMemo } from '../geometry/hash';

/**
 * Lines and arcs through a line of points in space, each as long as the tolerance lets it be.
 *
 * Points are x, y, z interleaved, mm. An arc is round in X and Y and rises evenly with its angle (a helix). What stands off is
 * weighed as sideways / weight + height: on a wall that leans by tan = weight that is what it comes to in depth. Greedy: the
 * longest line and the longest arc from where the last move ended, found by galloping; the one that gets further is taken.
 * Ends of moves are points of the line.
 */
export interface FittedMove {
  /** Number of the point at which the move ends. */
  readonly to: number;
  /** Centre and signed angle (positive counter-clockwise) of an arc; sweep 0 is a line. */
  readonly cx: number;
  readonly cy: number;
  readonly sweep: number;
}

/** Flatter arcs are lines; tighter ones are corners. mm. */
const WIDEST = 5000;
const TIGHTEST = 0.02;
/** Arcs turn by less than this, and each of their chords by less than that. */
const MOST_TURN = 1.5 * Math.PI;
const MOST_STEP = Math.PI / 3;
/** An arc goes over at least so many chords: three points lie on a circle always. */
const LEAST = 3;

export function fitMoves(p: Float64Array, tolerance: number, weight = 1): FittedMove[] {
  const n = p.length / 3;
  const side = 1 / weight;
  const side2 = side * side;
  /** Angles of the chords of the arc that is tried. */
  const turns = new Float64Array(n);

  const lineFits = (i: number, j: number): boolean => {
    const [ax, ay, az] = [p[3 * i], p[3 * i + 1], p[3 * i + 2]];
    const ex = p[3 * j] - ax;
    const ey = p[3 * j + 1] - ay;
    const ez = p[3 * j + 2] - az;
    const q = side2 * (ex * ex + ey * ey) + ez * ez;
    let before = 0;
    for (let k = i + 1; k < j; k++) {
      const vx = p[3 * k] - ax;
      const vy = p[3 * k + 1] - ay;
      const vz = p[3 * k + 2] - az;
      const along = q > 0 ? (side2 * (vx * ex + vy * ey) + vz * ez) / q : 0;
      // A way that turns back is no line, however near it stays.
      if (along < before - 1e-9 || along > 1) return false;
      before = along;
      const dx = vx - along * ex;
      const dy = vy - along * ey;
      const dz = vz - along * ez;
      if (side * Math.sqrt(dx * dx + dy * dy) + Math.abs(dz) > tolerance) return false;
    }
    return true;
  };

  /** The arc from point i to point j, its centre on their perpendicular by least squares, or null where it does not fit. */
  const arcFits = (i: number, j: number): FittedMove | null => {
    const [ax, ay, az] = [p[3 * i], p[3 * i + 1], p[3 * i + 2]];
    const [bx, by, bz] = [p[3 * j], p[3 * j + 1], p[3 * j + 2]];
    const chord = Math.hypot(bx - ax, by - ay);
    if (chord < 1e-6) return null;
    const ux = (bx - ax) / chord;
    const uy = (by - ay) / chord;
    const mx = (ax + bx) / 2;
    const my = (ay + by) / 2;
    const half2 = (chord * chord) / 4;
    // A point at (u, v) about the chord's middle lies on the circle about (0, k) when u^2 + v^2 - half^2 = 2 v k.
    let top = 0;
    let bottom = 0;
    // Each point between the ends, and the middle from each to the next.
    for (let k = 2 * i + 1; k < 2 * j; k++) {
      const [h, odd] = [3 * (k >> 1), 3 * (k & 1)];
      const x = (p[h] + p[h + odd]) / 2 - mx;
      const y = (p[h + 1] + p[h + 1 + odd]) / 2 - my;
      const u = x * ux + y * uy;
      const v = y * ux - x * uy;
      top += v * (u * u + v * v - half2);
      bottom += 2 * v * v;
    }
    if (!(bottom > 1e-18)) return null;
    const k0 = top / bottom;
    const cx = mx - k0 * uy;
    const cy = my + k0 * ux;
    const r = Math.sqrt(half2 + k0 * k0);
    if (r > WIDEST || r < TIGHTEST) return null;
    // The middle tells most misfits apart at once.
    const m = 3 * ((i + j) >> 1);
    if (side * Math.abs(Math.sqrt((p[m] - cx) ** 2 + (p[m + 1] - cy) ** 2) - r) > tolerance) return null;
    let sweep = 0;
    let sense = 0;
    let x = ax - cx;
    let y = ay - cy;
    for (let k = i; k < j; k++) {
      const ex = p[3 * k + 3] - cx;
      const ey = p[3 * k + 4] - cy;
      const hx = (x + ex) / 2;
      const hy = (y + ey) / 2;
      if (
        side * Math.abs(Math.sqrt(hx * hx + hy * hy) - r) > tolerance ||
        side * Math.abs(Math.sqrt(ex * ex + ey * ey) - r) > tolerance
      )
        return null;
      const a = Math.atan2(x * ey - y * ex, x * ex + y * ey);
      if (a > MOST_STEP || a < -MOST_STEP || a === 0 || (sense !== 0 && a > 0 !== sense > 0)) return null;
      sense = a;
      sweep += a;
      turns[k - i] = a;
      x = ex;
      y = ey;
    }
    if (Math.abs(sweep) > MOST_TURN) return null;
    // The same with the height, which rises evenly with the angle.
    const rise = (bz - az) / sweep;
    let turned = 0;
    x = ax - cx;
    y = ay - cy;
    for (let k = i; k < j; k++) {
      const ex = p[3 * k + 3] - cx;
      const ey = p[3 * k + 4] - cy;
      const hx = (x + ex) / 2;
      const hy = (y + ey) / 2;
      const a = turns[k - i];
      if (
        side * Math.abs(Math.sqrt(hx * hx + hy * hy) - r) +
          Math.abs((p[3 * k + 2] + p[3 * k + 5]) / 2 - az - rise * (turned + a / 2)) >
        tolerance
      )
        return null;
      turned += a;
      if (side * Math.abs(Math.sqrt(ex * ex + ey * ey) - r) + Math.abs(p[3 * k + 5] - az - rise * turned) > tolerance)
        return null;
      x = ex;
      y = ey;
    }
    return { to: j, cx, cy, sweep };
  };

  /** The furthest point that a test lets through from `first` on: by doubling steps, then by halving ones. */
  const furthest = <T>(first: number, fits: (j: number) => T | null): { j: number; got: T } | null => {
    if (first > n - 1) return null;
    const got = fits(first);
    if (got === null) return null;
    let best = { j: first, got };
    for (let step = 2; step > 0 && best.j < n - 1;) {
      const j = Math.min(n - 1, best.j + step);
      const more = fits(j);
      if (more !== null) {
        best = { j, got: more };
        step *= 2;
      } else step = step > 1 ? step >> 1 : 0;
    }
    return best;
  };

  const out: FittedMove[] = [];
  for (let i = 0; i < n - 1;) {
    stillWanted();
    const from = i;
    const line = furthest(from + 1, (j) => (lineFits(from, j) ? true : null))!;
    const arc = furthest(from + LEAST, (j) => arcFits(from, j));
    if (arc && arc.j > line.j) {
      out.push(arc.got);
      i = arc.j;
    } else {
      out.push({ to: line.j, cx: 0, cy: 0, sweep: 0 });
      i = line.j;
    }
  }
  return out;
}

/** Places are taken to be the same that lie no further apart than this (mm): what is left of moving a line by doubles. */
const SAME = 1e-9;
/** So many points are kept, and moves to them: some 40 MB. */
const kept = sizedMemo<{ readonly points: number; readonly moves: readonly FittedMove[] }>(2e6, (k) => k.points + 10);

/**
 * The same moves wherever the line lies: they are fitted about its first point and kept under what it looks like there, so a
 * letter that stands further right costs no more than one that stands where it was. Points, tolerance and weight as of `fitMoves`.
 */
export function fitMovesAnywhere(p: Float64Array, tolerance: number, weight = 1): FittedMove[] {
  const [x, y] = p;
  const local = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) {
    local[i] = Math.round((p[i] - x) / SAME) * SAME + 0;
    local[i + 1] = Math.round((p[i + 1] - y) / SAME) * SAME + 0;
    local[i + 2] = p[i + 2];
  }
  const { moves } = kept(`${tolerance} ${weight} ${hashFloats([local])}`, () => ({
    points: p.length / 3,
    moves: fitMoves(local, tolerance, weight),
  }));
  return moves.map((m) => (m.sweep === 0 ? m : { ...m, cx: m.cx + x, cy: m.cy + y }));
}
