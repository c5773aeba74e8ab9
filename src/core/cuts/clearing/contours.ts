import { insetsOf, type Insets } from '../../geometry/insets';
import { boundsOf, contains, loopArea, offset, subtract, type Loop, type Region } from '../../geometry/region';
import { clearWay } from '../../geometry/lines';
import { MotionBuilder } from '../../motion/motion';
import { orderPieces } from '../../motion/order';
import { fitArcs, nearestOn, pointAt, run, slice, type ArcPolyline } from '../../motion/arcPolyline';
import type { Budget } from '../budget';
import { enter, entryPlace, type EntryMoves } from './entry';
import { append } from '../../units/append';
import type { RetractHeights } from './travel';

/** Slivers below this area (mm2) are rounding. */
const SPECK = 1e-5;

/** One contour of a clearing pass and those that lie inside it. */
interface Ring {
  loop: Loop;
  /** The contour as it is run, from when it was run first. */
  track?: ArcPolyline;
  inner: Ring[];
}

/** A cutter seen from above, mm: how far it cuts, and within what radius it leaves a level floor (less where its rim is round). */
export interface Footprint {
  readonly radius: number;
  readonly floorRadius: number;
}

/** Lines of a clearing that are run one after the other. */
export interface Level {
  readonly loops: Region;
  /** So far from the outline, mm, everything that the disc can come to has been gone over with this level; null where something between two contours has not. */
  readonly done: number | null;
}

export interface Clearing {
  /** Where the cutter's centre may go. */
  readonly free: Region;
  readonly pockets: readonly Ring[];
}

/**
 * Contours of a region for a cutter, at r, r + step, r + 2 step... inside the outline, r being its radius, down to `deep` mm from
 * it. Where the step is over the radius of its level floor, what lies between two contours and is touched by neither is found
 * as a region and comes as a level of its own.
 */
export function levelsOf(
  region: Region,
  { radius: r, floorRadius, budget }: Footprint & { readonly budget: Budget },
  step: number,
  deep: number,
  progress: () => void,
): { free: Region; levels: Level[]; insets: Insets } {
  const insets = insetsOf(region);
  const free = insets.at(r, budget.offset);
  const levels: Level[] = [];
  let at = free;
  let k = 0;
  while (at.length && r + (k - 1) * step < deep) {
    progress();
    // From a point that lies deeper, the way straight to the outline meets the contour after as much as it lies deeper.
    levels.push({ loops: at, done: step > floorRadius ? null : r + k * step + floorRadius });
    k++;
    const inset = insets.at(r + k * step, budget.offset);
    if (step > floorRadius) {
      const missed = subtract(
        insets.at(r + floorRadius + (k - 1) * step, budget.offset),
        inset.length ? offset(inset, floorRadius, budget.offset) : [],
      );
      const slivers = missed.filter((l) => Math.abs(loopArea(l)) > SPECK);
      if (slivers.length) levels.push({ loops: slivers, done: null });
    }
    at = inset;
    if (k > 20000) throw new RangeError('The step-over is too small for the size of the area.');
  }
  return { free, levels, insets };
}

/** The contours of a region, nested as they lie in each other. */
export function contours(
  region: Region,
  cutter: Footprint & { readonly budget: Budget },
  step: number,
  progress: () => void = () => {},
): Clearing {
  const { free, levels } = levelsOf(region, cutter, step, Infinity, progress);
  // Nest: each ring hangs under the nearest ring of an earlier level that holds it.
  const pockets: Ring[] = [];
  const above: { ring: Ring; box: { x0: number; y0: number; x1: number; y1: number } }[] = [];
  for (const level of levels) {
    const fresh: typeof above = [];
    for (const loop of level.loops) {
      const ring: Ring = { loop, inner: [] };
      const box = boundsOf([loop])!;
      fresh.push({ ring, box });
      let host: Ring | null = null;
      if (loopArea(loop) > 0)
        for (let i = above.length - 1; i >= 0 && !host; i--) {
          const b = above[i].box;
          if (
            loopArea(above[i].ring.loop) > 0 &&
            b.x0 <= box.x0 &&
            b.x1 >= box.x1 &&
            b.y0 <= box.y0 &&
            b.y1 >= box.y1 &&
            contains([above[i].ring.loop], loop[0], loop[1])
          )
            host = above[i].ring;
        }
      else {
        // A hole's contour: run it with the nearest contour around it on the same level, after it.
        for (let i = fresh.length - 2; i >= 0 && !host; i--)
          if (loopArea(fresh[i].ring.loop) > 0 && contains([fresh[i].ring.loop], loop[0], loop[1]))
            host = fresh[i].ring;
        for (let i = above.length - 1; i >= 0 && !host; i--)
          if (loopArea(above[i].ring.loop) > 0 && contains([above[i].ring.loop], loop[0], loop[1]))
            host = above[i].ring;
      }
      (host ? host.inner : pockets).push(ring);
    }
    append(above, fresh);
  }
  return { free, pockets };
}

export interface ClearingMoves extends EntryMoves, RetractHeights, Footprint {
  readonly budget: Budget;
  /** Heights of the passes. */
  readonly levels: readonly number[];
  readonly climb: boolean;
}

/** Moves for a clearing: pockets in a short order, in each all depths, rings from the inside out. */
export function clearingMoves(b: MotionBuilder, clearing: Clearing, m: ClearingMoves): void {
  const { pockets } = clearing;
  const order = orderPieces(
    pockets.map((p) => {
      const q = pointAt((p.track ??= trackOf(p.loop, m)), 0);
      return { inX: q.x, inY: q.y, outX: q.x, outY: q.y };
    }),
    b.count ? b.lastX : 0,
    b.count ? b.lastY : 0,
  );
  for (const { piece: k } of order) {
    let previousLevel = m.stockTop;
    for (const z of m.levels) {
      const down = { on: false };
      cutRing(b, pockets[k], clearing, m, z, previousLevel, down);
      previousLevel = z;
    }
    b.lift(m.safe);
  }
}

/** A contour as it is run. */
export const trackOf = (loop: Loop, m: { readonly climb: boolean; readonly budget: Budget }): ArcPolyline =>
  fitArcs(m.climb ? loop : reversed(loop), true, m.budget.arc);

export function reversed(loop: Loop): Loop {
  const out = new Float64Array(loop.length);
  for (let i = 0, n = loop.length; i < n; i += 2) {
    out[i] = loop[n - 2 - i];
    out[i + 1] = loop[n - 1 - i];
  }
  return out;
}

function cutRing(
  b: MotionBuilder,
  ring: Ring,
  c: Clearing,
  m: ClearingMoves,
  z: number,
  previousLevel: number,
  down: { on: boolean },
): void {
  for (const inner of ring.inner) cutRing(b, inner, c, m, z, previousLevel, down);
  const track = (ring.track ??= trackOf(ring.loop, m));
  if (!(track.length > 0)) return;
  let s = b.count ? nearestOn(track, b.lastX, b.lastY).s : 0;
  const near = pointAt(track, s);
  if (down.on && clearWay(c.free, b.lastX, b.lastY, near.x, near.y)) {
    b.line(near.x, near.y, z, m.feed);
  } else {
    const place = entryPlace(track, s, m);
    const p = pointAt(track, place.s);
    if (b.count === 0) b.rapid(p.x, p.y, m.safe);
    else {
      // Lift only as far as needed: inside the same pocket the face is the highest thing there is.
      const lift = down.on ? m.linkHeight : m.safe;
      b.lift(lift);
      b.rapid(p.x, p.y, lift);
    }
    s = enter(b, track, place, m, z, previousLevel);
  }
  run(b, slice(track, s, s + track.length), z, z, m.feed);
  down.on = true;
}
