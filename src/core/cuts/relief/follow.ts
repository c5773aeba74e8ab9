import { Points } from '../../geometry/points';
import { stillWanted } from '../../units/stillWanted';

/** How low the cutter stands over places, and how closely it has to be asked along a path. */
export interface Follower {
  at(x: number, y: number): number;
  /** mm. */
  readonly step: number;
}

/** A path seen from above: x, y interleaved, mm. A closed one has no repeated last point. */
export interface Track {
  readonly points: Float64Array;
  readonly closed: boolean;
  /** Whether it goes straight from point to point; else points lie on a curve, as closely as it has to be asked. */
  readonly straight: boolean;
  /** Of a curve: how far above what it follows it is to go at each of its points, mm. */
  readonly raised?: Float64Array;
  /** It goes no lower than so, mm; where it is not said, as low as what it follows. */
  readonly least?: number;
}

/** Halvings of a step where the surface has a crease. */
const HALVINGS = 6;

/** Heights along a straight way, at shares 0..1 of it: evenly, and closer where they bend more than that would show. */
export function sampledAlong(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  f: Follower,
  tolerance: number,
): { readonly shares: Float64Array; readonly heights: Float64Array } {
  const long = Math.hypot(x1 - x0, y1 - y0);
  const n = Math.max(1, Math.ceil(long / f.step - 1e-9));
  const even = new Float64Array(n + 1);
  let creases = 0;
  for (let i = 0; i <= n; i++) even[i] = f.at(x0 + (x1 - x0) * (i / n), y0 + (y1 - y0) * (i / n));
  for (let i = 0; i < n; i++) if (bends(even, i, tolerance) || bends(even, i + 1, tolerance)) creases++;
  // Between two of them there are at most so many more.
  const most = n + 1 + creases * (2 ** HALVINGS - 1);
  const shares = new Float64Array(most);
  const heights = new Float64Array(most);
  let k = 0;
  for (let i = 0; i <= n; i++) {
    shares[k] = i / n;
    heights[k++] = even[i];
    if (i === n || !(bends(even, i, tolerance) || bends(even, i + 1, tolerance))) continue;
    const [a, b] = [i / n, (i + 1) / n];
    const [ax, ay, bx, by] = [x0 + (x1 - x0) * a, y0 + (y1 - y0) * a, x0 + (x1 - x0) * b, y0 + (y1 - y0) * b];
    halved(f, ax, ay, bx, by, even[i], even[i + 1], tolerance, (s, z) => {
      shares[k] = a + (b - a) * s;
      heights[k++] = z;
    });
  }
  return { shares: shares.subarray(0, k), heights: heights.subarray(0, k) };
}

/** Whether heights at even places bend about one of them by more than would show. */
const bends = (z: Float64Array, i: number, tolerance: number): boolean =>
  i > 0 && i < z.length - 1 && Math.abs(z[i - 1] - 2 * z[i] + z[i + 1]) > 4 * tolerance;

/** Places between two, by halving, as long as the one in the middle does not lie between the heights of the others. */
function halved(
  f: Follower,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  from: number,
  to: number,
  tolerance: number,
  give: (share: number, height: number) => void,
): void {
  halve({ f, x0, y0, dx: x1 - x0, dy: y1 - y0, tolerance, give }, 0, from, 1, to, HALVINGS);
}

interface Halving {
  readonly f: Follower;
  readonly x0: number;
  readonly y0: number;
  readonly dx: number;
  readonly dy: number;
  readonly tolerance: number;
  readonly give: (share: number, height: number) => void;
}
function halve(h: Halving, t0: number, z0: number, t1: number, z1: number, depth: number): void {
  const t = (t0 + t1) / 2;
  const z = h.f.at(h.x0 + h.dx * t, h.y0 + h.dy * t);
  const on = depth > 1 && Math.abs(z - (z0 + z1) / 2) > h.tolerance / 2;
  if (on) halve(h, t0, z0, t, z, depth - 1);
  h.give(t, z);
  if (on) halve(h, t, z, t1, z1, depth - 1);
}

/**
 * Few straight pieces that stay within a tolerance of heights along a straight way: their ends need not be samples, nor lie on them.
 * From where a piece begins each sample leaves a wedge of slopes; the piece goes on as long as the wedges meet, and then as far as its
 * outermost slope stays between what may be passed above and below (after H. Imai and M. Iri, "An optimal algorithm for approximating
 * a piecewise linear function", 1987, whose windows are points here). It ends on the side from which the next piece goes furthest.
 *
 *      - - - _ _            above this it may not go
 *     o------___ - - _
 *      - - -    ---o   -    the way bends up: the next piece begins as low as it may
 *               - _ _ -
 */
export function fewest(
  shares: Float64Array,
  heights: Float64Array,
  tolerance: number,
  give: (share: number, height: number) => void,
): void {
  let [s, z] = [shares[0], heights[0]];
  let [low, high] = [-Infinity, Infinity];
  const last = shares.length - 1;
  // Where it ends it is exact: the next way goes on from there.
  const slackAt = (i: number) => (i === last ? 0 : tolerance);
  for (let i = 1; i <= last; i++) {
    const slack = slackAt(i);
    let d = shares[i] - s;
    let least = (heights[i] - slack - z) / d;
    let most = (heights[i] + slack - z) / d;
    if (!(Math.max(low, least) <= Math.min(high, most))) {
      const up = least > high;
      const slope = up ? high : low;
      // How far inside of what may be passed it is at the sample before, and how far outside at this one.
      const side = up ? 1 : -1;
      const before = side * (z + slope * (shares[i - 1] - s) - heights[i - 1]) + tolerance;
      const after = side * (z + slope * d - heights[i]) + slack;
      const t = Math.min(NEARLY, Math.max(0, before / (before - after) || 0));
      const to = shares[i - 1] + t * (shares[i] - shares[i - 1]);
      z += slope * (to - s);
      s = to;
      give(s, z);
      d = shares[i] - s;
      least = (heights[i] - slack - z) / d;
      most = (heights[i] + slack - z) / d;
      [low, high] = [-Infinity, Infinity];
    }
    low = Math.max(low, least);
    high = Math.min(high, most);
    if (i === last) give(shares[i], heights[i]);
  }
}

/** A piece ends no nearer to the next sample than so, of the way to it. */
const NEARLY = 1 - 1e-6;

/** What stands off sideways counts so many times in height: the ground may be as steep as that. */
const SIDEWAYS = 2;

/**
 * The same along a curve of points (x, y, z interleaved): pieces from over or under one point to over or under another, each as far as
 * it goes (found by doubling and then halving), from which no point between stands off by more than the tolerance. `give` is told which
 * point, and at which height.
 */
export function fewestAlong(p: Float64Array, tolerance: number, give: (i: number, z: number) => void): void {
  const n = p.length / 3;
  /** Heights at which a piece from point i, begun at height z, may end at point j: from `low` to `high`. */
  let [low, high] = [0, 0];
  const fits = (i: number, z: number, j: number): boolean => {
    const [x0, y0] = [p[3 * i], p[3 * i + 1]];
    const [ex, ey] = [p[3 * j] - x0, p[3 * j + 1] - y0];
    const long = ex * ex + ey * ey;
    let beside = 0;
    if (j > i + 1) {
      if (!(long > 0)) return false;
      for (let k = i + 1; k < j; k++) {
        const off = Math.abs((p[3 * k] - x0) * ey - (p[3 * k + 1] - y0) * ex);
        if (off > beside) beside = off;
      }
      beside /= Math.sqrt(long);
    }
    const slack = tolerance - SIDEWAYS * beside;
    if (!(slack >= 0)) return false;
    const end = j === n - 1 ? 0 : slack;
    [low, high] = [p[3 * j + 2] - end, p[3 * j + 2] + end];
    for (let k = i + 1; k < j; k++) {
      const t = ((p[3 * k] - x0) * ex + (p[3 * k + 1] - y0) * ey) / long;
      if (!(t > 0 && t <= 1)) return false;
      const h = p[3 * k + 2] - z;
      low = Math.max(low, z + (h - slack) / t);
      high = Math.min(high, z + (h + slack) / t);
      if (low > high) return false;
    }
    return true;
  };
  for (let i = 0, z = p[2]; i < n - 1;) {
    let to = i + 1;
    for (let step = 2; step > 0 && to < n - 1;) {
      const j = Math.min(n - 1, to + step);
      if (fits(i, z, j)) {
        to = j;
        step *= 2;
      } else step = step > 1 ? step >> 1 : 0;
    }
    fits(i, z, to);
    let end = to === n - 1 ? p[3 * to + 2] : (low + high) / 2;
    if (to < n - 1) {
      // On the side to which the way bends next.
      const far = (k: number) => Math.hypot(p[3 * k] - p[3 * i], p[3 * k + 1] - p[3 * i + 1]);
      const ahead = z + ((end - z) * far(to + 1)) / far(to);
      if (ahead < p[3 * to + 5]) end = high;
      else if (ahead > p[3 * to + 5]) end = low;
    }
    give(to, end);
    [i, z] = [to, end];
  }
}

/** What follows a surface no lower than so. */
class NoLower implements Follower {
  readonly step: number;
  constructor(
    private readonly ground: Follower,
    private readonly least: number,
  ) {
    this.step = ground.step;
  }
  at(x: number, y: number): number {
    return Math.max(this.least, this.ground.at(x, y));
  }
}

/**
 * Where a cutter goes that follows a surface along a path: x, y, z interleaved, within `merge` of what its follower says, which is
 * asked so closely that it bends no more than `sample` in between. mm.
 */
export function followed(t: Track, ground: Follower, sample: number, merge: number): Float64Array {
  const { least } = t;
  const f = least === undefined ? ground : new NoLower(ground, least);
  const n = t.points.length / 2;
  const out = new Points();
  const ends = t.closed ? n : n - 1;
  const way = (i: number) => {
    const [a, b] = [2 * i, 2 * ((i + 1) % n)];
    return [t.points[a], t.points[a + 1], t.points[b], t.points[b + 1]] as const;
  };
  const up = (i: number) => t.raised?.[i % n] ?? 0;
  const first = f.at(t.points[0], t.points[1]) + up(0);
  out.push(t.points[0], t.points[1], first);
  if (t.straight) {
    for (let i = 0; i < ends; i++) {
      const [x0, y0, x1, y1] = way(i);
      const { shares, heights } = sampledAlong(x0, y0, x1, y1, f, sample);
      stillWanted(shares.length);
      fewest(shares, heights, merge, (s, z) => out.push(x0 + (x1 - x0) * s, y0 + (y1 - y0) * s, z));
    }
    return out.data.slice(0, out.length);
  }
  const all = new Points();
  all.push(t.points[0], t.points[1], first);
  const even = Float64Array.from({ length: ends + 1 }, (_, i) =>
    i ? f.at(t.points[2 * (i % n)], t.points[2 * (i % n) + 1]) + up(i) : first,
  );
  /** What follows the surface between two points, as far above it as lies between them. */
  const between = (i: number, x0: number, y0: number, long: number): Follower =>
    t.raised
      ? { step: f.step, at: (x, y) => f.at(x, y) + up(i) + ((up(i + 1) - up(i)) * Math.hypot(x - x0, y - y0)) / long }
      : f;
  for (let i = 0; i < ends; i++) {
    const [x0, y0, x1, y1] = way(i);
    if (bends(even, i, sample) || bends(even, i + 1, sample))
      halved(
        between(i, x0, y0, Math.hypot(x1 - x0, y1 - y0) || 1),
        x0,
        y0,
        x1,
        y1,
        even[i],
        even[i + 1],
        sample,
        (s, z) => all.push(x0 + (x1 - x0) * s, y0 + (y1 - y0) * s, z),
      );
    all.push(x1, y1, even[i + 1]);
  }
  stillWanted(all.length);
  const p = all.data.subarray(0, all.length);
  fewestAlong(p, merge, (i, z) => out.push(p[3 * i], p[3 * i + 1], z));
  return out.data.slice(0, out.length);
}
