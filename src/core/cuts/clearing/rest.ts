import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { axisFor } from '../../geometry/insets';
import { AxisError } from '../../geometry/medial/axis';
import { staysInside } from '../../geometry/lines';
import { cornersOf, keptAnywhere, movedLoops } from '../../geometry/local';
import {
  boundsOf,
  boxesMeet,
  boxOfLoop,
  components,
  contains,
  pointBeside,
  thicken,
  type Region,
} from '../../geometry/region';
import type { MotionBuilder } from '../../motion/motion';
import { fitArcs, movedTrack, pointAt, pointsOf, run, slice, type ArcPolyline } from '../../motion/arcPolyline';
import { append } from '../../units/append';
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
 * Lines for a cutter over what a larger one left of a connected region: the contours of all of it, cut to where the disc touches
 * what of `left` the contours before have not taken. What the disc can reach of `left` is then all cut, and nothing is gone
 * over twice.
 */
function linesInPart(region: Region, left: Region, m: ClearingMoves, step: number, progress: () => void): Rest {
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

interface Rest {
  /** Where the cutter's centre may go, as far as something is left there. */
  readonly free: Region;
  readonly lines: readonly RestLine[];
}
/** So many corners and stretches of lines are kept: some 50 MB. */
const MOST_LINES = 1e6;
const kept = keptAnywhere<Rest>(
  MOST_LINES,
  ({ free, lines }) => cornersOf(free) + lines.reduce((n, l) => n + l.track.segments.length, 0),
);

/** The same of any region: part by part, for no disc inside of one reaches another. */
function restLines(region: Region, left: Region, m: ClearingMoves, step: number, progress: () => void): Rest {
  const free: Region = [];
  const lines: RestLine[] = [];
  const { radius, floorRadius, climb, budget } = m;
  const as = [radius, floorRadius, step, climb, budget.arc, budget.offset].join(' ');
  for (const { part, mine } of shared(left, components(region))) {
    const { value, x, y } = kept(`${as} ${part.length}`, [...part, ...mine], (loops) =>
      linesInPart(loops.slice(0, part.length), loops.slice(part.length), m, step, progress),
    );
    append(free, movedLoops(value.free, x, y));
    for (const l of value.lines) lines.push({ ...l, track: movedTrack(l.track, x, y) });
  }
  return { free, lines };
}

/** The parts of a region in which something is left, each with that. */
function shared(left: Region, parts: readonly Region[]): { readonly part: Region; readonly mine: Region }[] {
  const mine = parts.map((): Region => []);
  for (const piece of components(left)) {
    const near = [...parts.keys()].filter((k) => boxesMeet(boxOfLoop(parts[k][0]), boxOfLoop(piece[0])));
    const { x, y } = pointBeside(piece[0]);
    // What is left reaches beyond the outline by what tolerances make of it: then it belongs to what is nearest.
    const away = (k: number) => (contains(parts[k], x, y) ? 0 : makeSegmentIndex(parts[k]).distance(x, y));
    const home = near.length > 1 ? near.map((k) => [away(k), k]).sort(([a], [b]) => a - b)[0][1] : near[0];
    if (home !== undefined) append(mine[home], piece);
  }
  return parts.map((part, k) => ({ part, mine: mine[k] })).filter((p) => p.mine.length);
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
