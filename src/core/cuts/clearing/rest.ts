import { makeOutline } from '../../geometry/outline';
import { axisFor } from '../../geometry/insets';
import { AxisError } from '../../geometry/medial/axis';
import { components, contains, type Region } from '../../geometry/region';
import type { MotionBuilder } from '../../motion/motion';
import { makeTrack, pointAt, run, slice, type Track } from '../../motion/track';
import { levelsOf, reversed, type ClearingMoves } from './contours';
import { enter, enterOpen, entryPlace } from './entry';
import { partsNear } from './near';
import { eachTrack, hop } from './travel';

/** How far beyond what is left a line goes on, mm: it begins and ends in what is cleared. */
const OVERRUN = 0.2;

interface RestLine {
  readonly track: Track;
  /** Whether the first point stands in what a larger cutter has cleared. */
  readonly free: boolean;
}

/**
 * How far from the outline of a region a part of it reaches at most, mm (never too little). The distance grows no faster than
 * the way, so the ends of each edge tell of the whole edge; inside the part it is greatest at nodes of the medial axis.
 * Infinity where the outline is too tangled for an axis.
 */
function depthOf(part: Region, region: Region): number {
  const wall = makeOutline(region);
  let deep = 0;
  for (const l of part)
    for (let i = 0; i < l.length; i += 2) {
      const j = (i + 2) % l.length;
      deep = Math.max(deep, wall.distance(l[i], l[i + 1]) + Math.hypot(l[j] - l[i], l[j + 1] - l[i + 1]) / 2);
    }
  for (const piece of components(region)) {
    try {
      const { sites, trace: t } = axisFor(piece);
      for (let v = 0; v < t.nodes; v++) if (t.nodeR[v] > deep && contains(part, t.nodeX[v] + sites.originX, t.nodeY[v] + sites.originY)) deep = t.nodeR[v];
    } catch (e) {
      if (!(e instanceof AxisError)) throw e;
      return Infinity;
    }
  }
  return deep;
}

/**
 * Lines for a cutter over what a larger one left of `region`: the contours of the whole region, cut to where
 * the disc touches `left`. What the disc can reach of `left` is then all cut, and nothing is gone over twice.
 */
function restLines(region: Region, left: Region, m: ClearingMoves, step: number, progress: () => void): RestLine[] {
  const r = m.radius;
  const near = partsNear(left, r, OVERRUN);
  const rest = makeOutline(left);
  const out: RestLine[] = [];
  const add = (points: Float64Array, closed: boolean) => {
    const track = makeTrack(points, closed, m.budget.arc);
    if (track.length < 1e-6) return;
    out.push({ track, free: !closed && rest.distance(points[0], points[1]) >= r && !contains(left, points[0], points[1]) });
  };
  for (const level of levelsOf(region, m, step, depthOf(left, region) + r, progress).levels)
    for (const loop of level) {
      const l = m.climb ? loop : reversed(loop);
      const parts = near(l);
      if (!parts) add(l, true);
      else for (const p of parts) add(p, false);
    }
  return out;
}

/** Clears what is left, one connected place after another, each to its whole depth. */
export function restMoves(b: MotionBuilder, region: Region, left: Region, step: number, m: ClearingMoves, progress: () => void): void {
  if (!left.length) return;
  const lines = restLines(region, left, m, step, progress);
  if (!lines.length) return;
  let above = m.face;
  for (const z of m.heights) {
    eachTrack(b, lines.map((l) => l.track), (track, from, k) => {
      const place = track.closed ? entryPlace(track, from, m) : { s: 0, helix: null };
      const p = pointAt(track, place.s);
      hop(b, p.x, p.y, m, 6 * m.radius);
      if (track.closed) {
        const at = enter(b, track, place, m, z, above);
        run(b, slice(track, at, at + track.length), z, z, m.feed);
      } else {
        enterOpen(b, track, m, z, above, lines[k].free);
        run(b, track.stretches, z, z, m.feed);
      }
      progress();
    });
    above = z;
  }
  b.rapid(b.lastX, b.lastY, m.safe);
}

