import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { axisFor } from '../../geometry/insets';
import { AxisError } from '../../geometry/medial/axis';
import { staysInside } from '../../geometry/lines';
import { boundsOf, boxesMeet, components, contains, thicken, type Region } from '../../geometry/region';
import type { MotionBuilder } from '../../motion/motion';
import { fitArcs, pointAt, pointsOf, run, slice, type ArcPolyline } from '../../motion/arcPolyline';
import { levelsOf, reversed, type ClearingMoves } from './contours';
import { enter, enterOpen, entryPlace } from './entry';
import { partsNear } from './near';
import { HAIR, restOf, within, type Swept } from './reach';
import { eachTrack, rapidTo } from './travel';

/** How far beyond what is left a line goes on, mm: it begins and ends in what is cleared. */
const OVERRUN = 0.2;
/** Chords of what counts as taken, mm: told from what is left by more than this. */
const TAKEN = 0.006;
/** What lifting and coming down again takes beside the way itself, minutes. */
const LIFT = 0.01;

interface RestLine {
  readonly track: ArcPolyline;
  /** Whether the first point stands in what a larger cutter has cleared. */
  readonly free: boolean;
}

/**
 * How far from the outline of a region a part of it reaches at most, mm (never too little). The distance grows no faster than
 * the way, so the ends of each edge tell of the whole edge; inside the part it is greatest at nodes of the medial axis.
 * Infinity where the outline is too tangled for an axis.
 */
function depthOf(part: Region, region: Region): number {
  const wall = makeSegmentIndex(region);
  let deep = 0;
  for (const l of part)
    for (let i = 0; i < l.length; i += 2) {
      const j = (i + 2) % l.length;
      deep = Math.max(deep, wall.distance(l[i], l[i + 1]) + Math.hypot(l[j] - l[i], l[j + 1] - l[i + 1]) / 2);
    }
  for (const piece of components(region)) {
    try {
      const { sites, trace: t } = axisFor(piece);
      for (let v = 0; v < t.nodes; v++)
        if (t.nodeR[v] > deep && contains(part, t.nodeX[v] + sites.originX, t.nodeY[v] + sites.originY))
          deep = t.nodeR[v];
    } catch (e) {
      if (!(e instanceof AxisError)) throw e;
      return Infinity;
    }
  }
  return deep;
}

/** What a disc sweeps along tracks. As it is, and not a hair wider, it is worked out only where it is asked for. */
function sweptAlong(tracks: readonly ArcPolyline[], radius: number): Swept {
  const lines = tracks.map((t) => ({ points: pointsOf(t, TAKEN), loops: null as Region | null }));
  const wide = lines.map((l) => thicken(l.points, radius + HAIR, TAKEN));
  return {
    wide: wide.flat(),
    loops: (within) =>
      lines.flatMap((l, i) => {
        const b = boundsOf(wide[i]);
        return b && boxesMeet(b, within) ? (l.loops ??= thicken(l.points, radius, TAKEN)) : [];
      }),
  };
}

/**
 * Lines for a cutter over what a larger one left of `region`: the contours of the whole region, cut to where the disc touches
 * what of `left` the contours before have not taken. What the disc can reach of `left` is then all cut, and nothing is gone
 * over twice.
 */
function restLines(
  region: Region,
  left: Region,
  m: ClearingMoves,
  step: number,
  progress: () => void,
): { free: Region; lines: RestLine[] } {
  const r = m.radius;
  const rest = makeSegmentIndex(left);
  const lines: RestLine[] = [];
  /** Adds a line, and gives it as it is cut. */
  const add = (points: Float64Array, closed: boolean): ArcPolyline[] => {
    const track = fitArcs(points, closed, m.budget.arc);
    if (track.length < 1e-6) return [];
    lines.push({
      track,
      free: !closed && rest.distance(points[0], points[1]) >= r && !contains(left, points[0], points[1]),
    });
    return [track];
  };
  const { free, levels, insets } = levelsOf(region, m, step, depthOf(left, region) + r, progress);
  let todo = left;
  for (const [k, level] of levels.entries()) {
    if (!todo.length) break;
    const near = partsNear(todo, r, OVERRUN);
    const taken: ArcPolyline[] = [];
    for (const loop of level.loops) {
      const l = m.climb ? loop : reversed(loop);
      const parts = near(l);
      if (!parts) taken.push(...add(l, true));
      else for (const p of parts) taken.push(...add(p, false));
    }
    // What the last ones take nobody asks.
    if (!taken.length || k + 1 === levels.length) continue;
    todo =
      level.done === null
        ? restOf(todo, sweptAlong(taken, m.floorRadius - TAKEN)).left
        : within(todo, insets.at(level.done - TAKEN, TAKEN / 4));
  }
  return { free, lines };
}

/** Clears what is left, one connected place after another, each to its whole depth; from line to line it stays down where that is quicker. */
export function restMoves(
  b: MotionBuilder,
  region: Region,
  left: Region,
  step: number,
  m: ClearingMoves,
  progress: () => void,
): void {
  if (!left.length) return;
  const { free, lines } = restLines(region, left, m, step, progress);
  if (!lines.length) return;
  const near = 6 * m.radius;
  let previousLevel = m.stockTop;
  for (const z of m.levels) {
    eachTrack(
      b,
      lines.map((l) => l.track),
      (track, from, k) => {
        const p = pointAt(track, track.closed ? from : 0);
        const way = b.count ? Math.hypot(p.x - b.lastX, p.y - b.lastY) : Infinity;
        const link =
          b.lastZ === z &&
          way < near &&
          way / m.feed < (m.linkHeight - z + m.approach) / m.plunge / 2 + LIFT &&
          staysInside(free, b.lastX, b.lastY, p.x, p.y);
        if (link) {
          b.line(p.x, p.y, z, m.feed);
          run(b, track.closed ? slice(track, from, from + track.length) : track.segments, z, z, m.feed);
        } else if (track.closed) {
          const place = entryPlace(track, from, m);
          const q = pointAt(track, place.s);
          rapidTo(b, q.x, q.y, m, near);
          const at = enter(b, track, place, m, z, previousLevel);
          run(b, slice(track, at, at + track.length), z, z, m.feed);
        } else {
          rapidTo(b, p.x, p.y, m, near);
          enterOpen(b, track, m, z, previousLevel, lines[k].free);
          run(b, track.segments, z, z, m.feed);
        }
        progress();
      },
    );
    previousLevel = z;
  }
  b.lift(m.safe);
}
