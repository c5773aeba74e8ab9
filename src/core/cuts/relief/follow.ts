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

/** Growing x, y, z. */
class Points {
  data = new Float64Array(3072);
  length = 0;
  push(x: number, y: number, z: number): void {
    if (this.length + 3 > this.data.length) {
      const wider = new Float64Array(2 * this.data.length);
      wider.set(this.data);
      this.data = wider;
    }
    this.data[this.length++] = x;
    this.data[this.length++] = y;
    this.data[this.length++] = z;
  }
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
  const at = (t: number) => f.at(x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
  const even = Float64Array.from({ length: n + 1 }, (_, i) => at(i / n));
  const shares: number[] = [];
  const heights: number[] = [];
  const give = (share: number, height: number) => {
    shares.push(share);
    heights.push(height);
  };
  for (let i = 0; i <= n; i++) {
    give(i / n, even[i]);
    if (i === n || !(bends(even, i, tolerance) || bends(even, i + 1, tolerance))) continue;
    const [a, b] = [i / n, (i + 1) / n];
    const [ax, ay, bx, by] = [x0 + (x1 - x0) * a, y0 + (y1 - y0) * a, x0 + (x1 - x0) * b, y0 + (y1 - y0) * b];
    halved(f, ax, ay, bx, by, even[i], even[i + 1], tolerance, (s, z) => give(a + (b - a) * s, z));
  }
  return { shares: Float64Array.from(shares), heights: Float64Array.from(heights) };
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
  const halve = (t0: number, z0: number, t1: number, z1: number, depth: number): void => {
    const t = (t0 + t1) / 2;
    const z = f.at(x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
    const on = depth > 1 && Math.abs(z - (z0 + z1) / 2) > tolerance / 2;
    if (on) halve(t0, z0, t, z, depth - 1);
    give(t, z);
    if (on) halve(t, z, t1, z1, depth - 1);
  };
  halve(0, from, 1, to, HALVINGS);
}

/**
 * The fewest straight pieces, greedily, that stay within a tolerance of heights along a straight way: their ends need not be samples.
 * From where a piece begins each sample leaves a wedge of slopes; the piece goes on as long as the wedges meet.
 *
 *              _.-' |
 *        _.-'    ___|     the next sample may be passed so much above
 *     o------___    |     and so much below
 *               ----|
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
  for (let i = 1; i <= last; i++) {
    const d = shares[i] - s;
    // Where it ends it is exact: the next way goes on from there.
    const slack = i === last ? 0 : tolerance;
    const least = (heights[i] - slack - z) / d;
    const most = (heights[i] + slack - z) / d;
    if (Math.max(low, least) <= Math.min(high, most)) {
      low = Math.max(low, least);
      high = Math.min(high, most);
      if (i === last) give(shares[i], heights[i]);
      continue;
    }
    // The piece ends at the sample before, and another begins there.
    const slope = (low + high) / 2;
    z += slope * (shares[i - 1] - s);
    s = shares[i - 1];
    give(s, z);
    const e = shares[i] - s;
    low = (heights[i] - slack - z) / e;
    high = (heights[i] + slack - z) / e;
    if (i === last) give(shares[i], heights[i]);
  }
}

/** What stands off sideways counts so many times in height: the ground may be as steep as that. */
const SIDEWAYS = 2;

/**
 * The same along a curve of points (x, y, z interleaved): the longest straight pieces from point to point, found by doubling and then
 * halving, from which no point between stands off by more than the tolerance.
 */
export function fewestAlong(p: Float64Array, tolerance: number, give: (i: number) => void): void {
  const n = p.length / 3;
  const fits = (i: number, j: number): boolean => {
    const [ex, ey, ez] = [p[3 * j] - p[3 * i], p[3 * j + 1] - p[3 * i + 1], p[3 * j + 2] - p[3 * i + 2]];
    const long = ex * ex + ey * ey;
    if (!(long > 0)) return false;
    for (let k = i + 1; k < j; k++) {
      const [dx, dy] = [p[3 * k] - p[3 * i], p[3 * k + 1] - p[3 * i + 1]];
      const t = (dx * ex + dy * ey) / long;
      if (t < 0 || t > 1) return false;
      const beside = Math.abs(dx * ey - dy * ex) / Math.sqrt(long);
      if (SIDEWAYS * beside + Math.abs(p[3 * k + 2] - p[3 * i + 2] - t * ez) > tolerance) return false;
    }
    return true;
  };
  for (let i = 0; i < n - 1; ) {
    let to = i + 1;
    for (let step = 2; step > 0 && to < n - 1; ) {
      const j = Math.min(n - 1, to + step);
      if (fits(i, j)) {
        to = j;
        step *= 2;
      } else step = step > 1 ? step >> 1 : 0;
    }
    give(to);
    i = to;
  }
}

/**
 * Where a cutter goes that follows a surface along a path: x, y, z interleaved, within `merge` of what its follower says, which is
 * asked so closely that it bends no more than `sample` in between. mm.
 */
export function followed(t: Track, ground: Follower, sample: number, merge: number): Float64Array {
  const { least } = t;
  const f =
    least === undefined
      ? ground
      : { step: ground.step, at: (x: number, y: number) => Math.max(least, ground.at(x, y)) };
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
  fewestAlong(p, merge, (i) => out.push(p[3 * i], p[3 * i + 1], p[3 * i + 2]));
  return out.data.slice(0, out.length);
}
