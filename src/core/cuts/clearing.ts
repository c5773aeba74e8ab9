import { insetsOf } from '../geometry/insets';
import { boundsOf, contains, loopArea, offset, regionArea, subtract, intersect, simplifyRegion, type Loop, type Region } from '../geometry/region';
import { clearWay } from '../geometry/lines';
import { MotionBuilder } from '../motion/motion';
import { orderPieces } from '../motion/order';
import { makeTrack, nearestOn, pointAt, run, slice, type Track } from '../motion/track';

/** Chord tolerance of offsets, and by how much arcs may then stray from them: together under 0.002 mm. */
export const OFFSET_TOLERANCE = 0.0006;
export const ARC_TOLERANCE = 0.0008;
/** Slivers below this area (mm2) are rounding. */
const SPECK = 1e-5;

/** One contour of a clearing pass and those that lie inside it. */
interface Ring {
  loop: Loop;
  inner: Ring[];
}

export interface Clearing {
  /** Where the cutter's centre may go. */
  readonly free: Region;
  readonly pockets: readonly Ring[];
}

/**
 * Contour-parallel clearing of a region by a disc of radius `r`: contours at r, r + step, r + 2 step...
 * inside the outline. Where the step is over half the cutter, what lies between two contours and is
 * touched by neither is found as a region and gone over along its own outline.
 */
export function contours(region: Region, r: number, step: number, progress: () => void = () => {}): Clearing {
  const insets = insetsOf(region);
  const free = insets.at(r, OFFSET_TOLERANCE);
  const levels: Region[] = [];
  let at = free;
  let k = 0;
  while (at.length) {
    progress();
    levels.push(at);
    k++;
    const inset = insets.at(r + k * step, OFFSET_TOLERANCE);
    if (step > r) {
      const missed = subtract(insets.at(2 * r + (k - 1) * step, OFFSET_TOLERANCE), inset.length ? offset(inset, r, OFFSET_TOLERANCE) : []);
      const slivers = missed.filter((l) => Math.abs(loopArea(l)) > SPECK);
      if (slivers.length) levels.push(slivers);
    }
    at = inset;
    if (k > 20000) throw new RangeError('The step-over is too small for the size of the area.');
  }
  // Nest: each ring hangs under the nearest ring of an earlier level that holds it.
  const pockets: Ring[] = [];
  const above: { ring: Ring; box: { x0: number; y0: number; x1: number; y1: number } }[] = [];
  for (const level of levels) {
    const fresh: typeof above = [];
    for (const loop of level) {
      const ring: Ring = { loop, inner: [] };
      const box = boundsOf([loop])!;
      fresh.push({ ring, box });
      let host: Ring | null = null;
      if (loopArea(loop) > 0)
        for (let i = above.length - 1; i >= 0 && !host; i--) {
          const b = above[i].box;
          if (loopArea(above[i].ring.loop) > 0 && b.x0 <= box.x0 && b.x1 >= box.x1 && b.y0 <= box.y0 && b.y1 >= box.y1 && contains([above[i].ring.loop], loop[0], loop[1])) host = above[i].ring;
        }
      else {
        // A hole's contour: run it with the nearest contour around it on the same level, after it.
        for (let i = fresh.length - 2; i >= 0 && !host; i--) if (loopArea(fresh[i].ring.loop) > 0 && contains([fresh[i].ring.loop], loop[0], loop[1])) host = fresh[i].ring;
        for (let i = above.length - 1; i >= 0 && !host; i--) if (loopArea(above[i].ring.loop) > 0 && contains([above[i].ring.loop], loop[0], loop[1])) host = above[i].ring;
      }
      (host ? host.inner : pockets).push(ring);
    }
    above.push(...fresh);
  }
  return { free, pockets };
}

export interface ClearingMoves {
  readonly safe: number;
  readonly clearance: number;
  /** Heights of the passes, and of the material's face before the first. */
  readonly heights: readonly number[];
  readonly face: number;
  readonly feed: number;
  readonly plunge: number;
  /** Ramp angle in degrees. */
  readonly ramp: number;
  readonly climb: boolean;
}

/** Moves for a clearing: pockets in a short order, in each all depths, rings from the inside out. */
export function clearingMoves(b: MotionBuilder, clearing: Clearing, m: ClearingMoves): void {
  const pockets = clearing.pockets.map((p) => ({ p, track: trackOf(p.loop, m.climb) }));
  const order = orderPieces(
    pockets.map(({ track }) => {
      const q = pointAt(track, 0);
      return { inX: q.x, inY: q.y, outX: q.x, outY: q.y };
    }),
    b.count ? b.lastX : 0,
    b.count ? b.lastY : 0,
  );
  for (const { piece: k } of order) {
    let above = m.face;
    for (const z of m.heights) {
      const down = { on: false };
      cutRing(b, pockets[k].p, clearing, m, z, above, down);
      above = z;
    }
    b.rapid(b.lastX, b.lastY, m.safe);
  }
}

const trackOf = (loop: Loop, climb: boolean): Track => makeTrack(climb ? loop : reversed(loop), true, ARC_TOLERANCE);

export function reversed(loop: Loop): Loop {
  const out = new Float64Array(loop.length);
  for (let i = 0, n = loop.length; i < n; i += 2) {
    out[i] = loop[n - 2 - i];
    out[i + 1] = loop[n - 1 - i];
  }
  return out;
}

function cutRing(b: MotionBuilder, ring: Ring, c: Clearing, m: ClearingMoves, z: number, above: number, down: { on: boolean }): void {
  for (const inner of ring.inner) cutRing(b, inner, c, m, z, above, down);
  const track = trackOf(ring.loop, m.climb);
  if (!(track.length > 0)) return;
  let s = b.count ? nearestOn(track, b.lastX, b.lastY).s : 0;
  let p = pointAt(track, s);
  if (down.on && clearWay(c.free, b.lastX, b.lastY, p.x, p.y)) {
    b.line(p.x, p.y, z, m.feed);
  } else {
    if (b.count === 0) b.rapid(p.x, p.y, m.safe);
    else {
      // Lift only as far as needed: inside the same pocket the face is the highest thing there is.
      const lift = down.on ? m.clearance : m.safe;
      b.rapid(b.lastX, b.lastY, lift);
      b.rapid(p.x, p.y, lift);
    }
    s = enter(b, track, s, m, z, above);
    p = pointAt(track, s);
  }
  run(b, slice(track, s, s + track.length), z, z, m.feed);
  down.on = true;
}

/** Comes down to `z` by a ramp along the track, round it several times when it is short; returns where it arrives. */
export function enter(b: MotionBuilder, track: Track, s: number, m: { face: number; clearance: number; plunge: number; feed: number; ramp: number }, z: number, above: number): number {
  const top = Math.min(m.clearance, above + 0.5);
  b.rapid(b.lastX, b.lastY, m.clearance);
  if (above + 0.5 < m.clearance) b.rapid(b.lastX, b.lastY, top);
  b.plunge(above, m.plunge);
  const drop = above - z;
  if (drop <= 0) return s;
  const way = drop / Math.tan((Math.max(0.5, m.ramp) * Math.PI) / 180);
  run(b, slice(track, s, s + way), above, z, Math.min(m.feed, m.plunge * 2));
  return (s + way) % track.length;
}

/** Reach is told to within this, mm: it is for choosing cutters and for going over corners again, not for walls. */
const REACH_TOLERANCE = 0.004;

/** What a disc of radius r can clear inside a region (its opening), and what stays out of its reach. */
export function reachOf(region: Region, r: number): { reached: Region; left: Region; area: number } {
  const coarse = simplifyRegion(region, REACH_TOLERANCE / 2);
  const reached = offset(insetsOf(coarse).at(r, REACH_TOLERANCE), r, REACH_TOLERANCE);
  const rest = subtract(coarse, reached);
  // Tolerances leave hair-thin rims along the outline; an opening by a hair removes them.
  const hair = 3 * REACH_TOLERANCE;
  const wide = offset(rest, -hair, REACH_TOLERANCE);
  const left = wide.length ? intersect(rest, offset(wide, hair * 1.5, REACH_TOLERANCE)) : [];
  return { reached, left, area: Math.max(0, regionArea(left)) };
}
