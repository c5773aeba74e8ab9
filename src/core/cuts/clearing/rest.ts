import { clipLines } from '../../geometry/lines';
import { makeOutline } from '../../geometry/outline';
import { contains, offset, type Region } from '../../geometry/region';
import type { MotionBuilder } from '../../motion/motion';
import { makeTrack, pointAt, run, slice, type Track } from '../../motion/track';
import { ARC_TOLERANCE, levelsOf, reversed, type ClearingMoves } from './contours';
import { enter, enterOpen, entryPlace } from './entry';
import { eachTrack, hop } from './travel';

/** How far beyond what is left a line goes on, mm: it begins and ends in what is cleared. */
const OVERRUN = 0.2;

interface RestLine {
  readonly track: Track;
  /** Whether the first point stands in what a larger cutter has cleared. */
  readonly free: boolean;
}

/**
 * Lines for a cutter of radius `r` over what a larger one left of `region`: the contours of the whole region, cut to where
 * the disc touches `left`. What the disc can reach of `left` is then all cut, and nothing is gone over twice.
 */
function restLines(region: Region, left: Region, r: number, step: number, climb: boolean, progress: () => void): RestLine[] {
  const wall = makeOutline(region);
  let deep = 0;
  for (const l of left) for (let i = 0; i < l.length; i += 2) deep = Math.max(deep, wall.distance(l[i], l[i + 1]));
  const zone = offset(left, r + OVERRUN, 0.01);
  const rest = makeOutline(left);
  const out: RestLine[] = [];
  const add = (points: Float64Array, closed: boolean) => {
    const track = makeTrack(points, closed, ARC_TOLERANCE);
    if (track.length < 1e-6) return;
    out.push({ track, free: !closed && !contains(left, points[0], points[1]) && rest.distance(points[0], points[1]) >= r });
  };
  for (const level of levelsOf(region, r, step, deep + r, progress).levels)
    for (const loop of level) {
      const l = climb ? loop : reversed(loop);
      const n = l.length / 2;
      // Begin outside the zone, so that no piece is torn at the loop's own start.
      let first = -1;
      for (let i = 0; i < n && first < 0; i++) if (!contains(zone, l[2 * i], l[2 * i + 1])) first = i;
      const line = new Float64Array(l.length + 2);
      for (let i = 0; i <= n; i++) line.set(l.subarray(2 * ((Math.max(0, first) + i) % n), 2 * ((Math.max(0, first) + i) % n) + 2), 2 * i);
      const parts = clipLines([line], zone);
      if (first < 0 && parts.length === 1) add(l, true);
      else for (const p of parts) add(oriented(p, line), false);
    }
  return out;
}

/** A clipped part in the sense of the line that it comes from: the clipper keeps no promise about it. */
function oriented(part: Float64Array, line: Float64Array): Float64Array {
  const at = (x: number, y: number): number => {
    let best = Infinity;
    let where = 0;
    for (let i = 0; i + 3 < line.length; i += 2) {
      const ex = line[i + 2] - line[i];
      const ey = line[i + 3] - line[i + 1];
      const q = ex * ex + ey * ey;
      const t = q > 0 ? Math.min(1, Math.max(0, ((x - line[i]) * ex + (y - line[i + 1]) * ey) / q)) : 0;
      const d = (x - line[i] - t * ex) ** 2 + (y - line[i + 1] - t * ey) ** 2;
      if (d < best) {
        best = d;
        where = i / 2 + t;
      }
    }
    return where;
  };
  const n = part.length;
  return at(part[0], part[1]) <= at(part[n - 2], part[n - 1]) ? part : reversed(part);
}

/** Clears what is left, one connected place after another, each to its whole depth. */
export function restMoves(b: MotionBuilder, region: Region, left: Region, step: number, m: ClearingMoves, progress: () => void): void {
  if (!left.length) return;
  const lines = restLines(region, left, m.radius, step, m.climb, progress);
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

