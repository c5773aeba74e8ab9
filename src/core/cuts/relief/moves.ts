import type { Preset } from '../../cutters/cutter';
import type { MotionBuilder } from '../../motion/motion';
import { rapidTo, type RetractHeights } from '../clearing/travel';
import { easedDown } from '../easing';
import type { Engaged } from './engaged';

/** One layer: the cutter goes no lower than its floor, and only where it goes lower than the layers above it. mm. */
export interface Layer {
  readonly floor: number;
  readonly above: number;
}

export interface FollowMoves extends RetractHeights {
  readonly clearance: number;
  readonly approach: number;
  readonly preset: Preset;
  /** No faster down than so, mm/min: steep ways down are gone slower; Infinity for as fast as along. */
  readonly sink?: number;
  /** Where it meets more than beside a line it goes slower; not said: nowhere. */
  readonly engaged?: Engaged;
  /** These lines are some of many: on both sides of each there are others, which have been cut. */
  readonly amid?: boolean;
  /** Between places no further apart it lifts only as high as needed, mm. */
  readonly near: number;
  /** The way down along the surface to where a line begins (x, y, z interleaved). */
  lead?(line: Float64Array): Float64Array;
  /** The way over the surface from one place to another (x, y, z interleaved), where it can stay down; null where it cannot. */
  link?(x0: number, y0: number, x1: number, y1: number): Float64Array | null;
}

/** Less than this above what is there is nothing, mm. */
const AIR = 1e-6;
/** Over a stretch of air no longer than so it does not lift, mm. */
const HOP = 3;

/** A line begun at the point that is nearest to a place, if it is closed. */
function begunNear(p: Float64Array, x: number, y: number): Float64Array {
  const last = p.length - 3;
  if (last < 6 || p[0] !== p[last] || p[1] !== p[last + 1]) return p;
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < last; i += 3) {
    const d = (p[i] - x) ** 2 + (p[i + 1] - y) ** 2;
    if (d < least) [best, least] = [i, d];
  }
  if (!best) return p;
  const out = new Float64Array(p.length);
  out.set(p.subarray(best, last));
  out.set(p.subarray(0, best + 3), last - best);
  return out;
}

/** The parts of a line that lie below a height, no lower than the floor; where it is above for a short way only, it goes on. */
export function lowParts(p: Float64Array, { floor, above }: Layer): Float64Array[] {
  const out: Float64Array[] = [];
  let run: number[] = [];
  /** Where the run was below for the last time, and how far it has gone since. */
  let low = 0;
  let air = 0;
  const end = () => {
    if (low > 3) out.push(Float64Array.from(run.slice(0, low)));
    run = [];
    low = 0;
    air = 0;
  };
  const put = (x: number, y: number, z: number, below: boolean) => {
    if (!low && !below) {
      // The last place before it dips.
      run = [x, y, Math.max(z, floor)];
      return;
    }
    const n = run.length;
    if (n && !below) air += Math.hypot(x - run[n - 3], y - run[n - 2]);
    if (air > HOP) {
      end();
      run = [x, y, Math.max(z, floor)];
      return;
    }
    run.push(x, y, Math.max(z, floor));
    if (below) {
      low = run.length;
      air = 0;
    }
  };
  for (let i = 0; i < p.length; i += 3) {
    const z = p[i + 2];
    if (i) {
      const before = p[i - 1];
      // Where it passes the floor, and where it leaves what is below: those are places of it.
      const cross = [floor, above].filter((h) => before - h > AIR !== z - h > AIR && Math.abs(before - z) > AIR);
      if (before < z) cross.sort((a, b) => a - b);
      else cross.sort((a, b) => b - a);
      for (const h of cross) {
        const t = (h - before) / (z - before);
        const [x, y] = [p[i - 3] + (p[i] - p[i - 3]) * t, p[i - 2] + (p[i + 1] - p[i - 2]) * t];
        if (t > 0 && t < 1) put(x, y, h, h < above - AIR || z > before);
      }
    }
    // Where it comes up to what is above and no higher is a place of it, too.
    put(p[i], p[i + 1], z, z < above - AIR || (i > 0 && p[i - 1] < above - AIR && z <= above + AIR));
  }
  end();
  return out;
}

/** Goes on along the places of a way but its first, none lower than `floor`. A function of its own: it is compiled once for all. */
function goAlong(b: MotionBuilder, way: Float64Array, floor: number, m: FollowMoves): void {
  const { feed } = m.preset;
  const { sink = Infinity, engaged } = m;
  for (let i = 3; i < way.length; i += 3) {
    const x = way[i];
    const y = way[i + 1];
    const z = Math.max(way[i + 2], floor);
    if (engaged) engaged.line(b, x, y, z, feed, sink);
    else if (sink === Infinity) b.line(x, y, z, feed);
    else b.line(x, y, z, easedDown(feed, sink, Math.hypot(x - b.lastX, y - b.lastY, z - b.lastZ), b.lastZ - z));
  }
}

/** Runs along lines in their order, layer by layer: down by feed, along, up; from one to the next along the surface where it can. */
export function followMoves(
  b: MotionBuilder,
  lines: readonly Float64Array[],
  layers: readonly Layer[],
  m: FollowMoves,
): void {
  const { plunge } = m.preset;
  for (const layer of layers) {
    m.engaged?.restart(m.amid);
    for (const line of lines) {
      const begun = b.count ? begunNear(line, b.lastX, b.lastY) : line;
      for (const p of lowParts(begun, layer)) {
        const link = b.count && b.lastZ <= layer.above ? (m.link?.(b.lastX, b.lastY, p[0], p[1]) ?? null) : null;
        if (link) goAlong(b, link, layer.floor, m);
        else {
          const lead = m.lead?.(p) ?? p.subarray(0, 3);
          const z = Math.max(lead[2], layer.floor);
          rapidTo(b, lead[0], lead[1], m, m.near);
          b.lift(Math.min(m.clearance, Math.max(layer.above, z) + m.approach));
          b.plunge(z, plunge);
          m.engaged?.begin();
          goAlong(b, lead, layer.floor, m);
        }
        goAlong(b, p, -Infinity, m);
      }
    }
  }
  b.lift(m.safe);
}
