import { MotionBuilder } from '../../motion/motion';
import { pointsEvenly, run, slice, type ArcSegment, type ArcPolyline } from '../../motion/arcPolyline';

export const entryKinds = ['helix', 'ramp', 'plunge'] as const;
export type EntryKind = (typeof entryKinds)[number];

/** How a cutter comes down into full material. mm, mm/min, degrees. */
export interface EntryMoves {
  readonly clearance: number;
  /** So far above material the rapid way down ends. */
  readonly approach: number;
  /** Height at which the cut begins; what lies above it may or may not have been cleared. */
  readonly stockTop: number;
  /** Whether all that lies above the height at which the cut begins has been cleared, as far as the cutter reaches. */
  readonly cleared?: boolean;
  /** Whether material may stand beside what was cut so far, higher than the last pass. */
  readonly walled?: boolean;
  readonly feed: number;
  readonly plunge: number;
  readonly ramp: number;
  readonly entry: EntryKind;
  /** Radius of the cutter, and the distance from a point to the wall: a helix needs both. */
  readonly radius: number;
  readonly wallClearance?: (x: number, y: number) => number;
}

/** Axis of a helix and its sense; its radius is from there to where the tool stands. */
export interface Helix {
  readonly cx: number;
  readonly cy: number;
  readonly ccw: boolean;
}

/** Where a track is entered, and the helix that ends there, if one fits. */
export interface EntryPlace {
  readonly s: number;
  readonly helix: Helix | null;
}

/** Radii of a helix as shares of the cutter's: none wider than the cutter, so that no post stays inside. */
const HELIX = [0.9, 0.6, 0.35];
const PLACES = 32;
/** A ramp that would go round a track, or to and fro on it, more often than this is no ramp: there the cutter goes straight down. */
const MOST_TURNS = 40;

/** Looks for room for a helix, beginning at distance `s` of a closed track; elsewhere a ramp begins at `s`. */
export function entryPlace(track: ArcPolyline, s: number, m: EntryMoves): EntryPlace {
  if (m.entry !== 'helix' || !m.wallClearance || !track.closed) return { s, helix: null };
  const places = pointsEvenly(track, s, PLACES);
  // By place and side, the room at the axis of a wider helix and its radius together: nearer to the track there is no more room
  // than that less its own radius, for the way to the wall grows no faster than the way there.
  const most = new Float64Array(2 * PLACES).fill(Infinity);
  for (const share of HELIX) {
    const r = share * m.radius;
    for (const [i, p] of places.entries())
      for (const side of [1, -1]) {
        const k = side > 0 ? 2 * i : 2 * i + 1;
        if (most[k] - r < m.radius + r - 1e-9) continue;
        const cx = p.x - side * r * p.dy;
        const cy = p.y + side * r * p.dx;
        const room = m.wallClearance(cx, cy);
        if (room >= m.radius + r)
          return { s: (s + (track.length * i) / PLACES) % track.length, helix: { cx, cy, ccw: side > 0 } };
        most[k] = room + r;
      }
  }
  return { s, helix: null };
}

/** From above the place down to the face of what is left there, by feed from where there can be material. */
function approach(b: MotionBuilder, m: EntryMoves, previousLevel: number): void {
  const known = m.cleared || (!m.walled && previousLevel < m.stockTop);
  const air = known ? previousLevel : Math.max(0, previousLevel);
  if (b.lastZ > m.clearance) b.lift(m.clearance);
  if (air + m.approach < b.lastZ) b.lift(air + m.approach);
  b.plunge(previousLevel, m.plunge);
}

const steep = (m: EntryMoves) => Math.tan((Math.max(0.5, m.ramp) * Math.PI) / 180);
const slow = (m: EntryMoves) => Math.min(m.feed, 2 * m.plunge);

function turnDown(b: MotionBuilder, { cx, cy, ccw }: Helix, m: EntryMoves, z: number, previousLevel: number): void {
  const [x, y] = [b.lastX, b.lastY];
  const drop = previousLevel - z;
  const turns = Math.max(1, Math.ceil(drop / (2 * Math.PI * Math.hypot(x - cx, y - cy) * steep(m))));
  // Half turns: a whole turn ends where it begins, which few controllers read alike.
  for (let k = 1; k <= 2 * turns; k++)
    b.arc(
      ccw,
      k % 2 ? 2 * cx - x : x,
      k % 2 ? 2 * cy - y : y,
      k === 2 * turns ? z : previousLevel - (drop * k) / (2 * turns),
      cx,
      cy,
      slow(m),
    );
}

/** Comes down from `previousLevel` to `z` by a helix; the tool stands over its circle. */
export function helixDown(b: MotionBuilder, helix: Helix, m: EntryMoves, z: number, previousLevel: number): void {
  approach(b, m, previousLevel);
  turnDown(b, helix, m, z, previousLevel);
}

/**
 * Comes down from `previousLevel` to `z` at a place of a closed track, over which the tool stands: by a helix that ends along
 * the track, by a ramp along the track (round it several times when it is short), or straight. Returns where on the track it is.
 */
export function enter(
  b: MotionBuilder,
  track: ArcPolyline,
  place: EntryPlace,
  m: EntryMoves,
  z: number,
  previousLevel: number,
): number {
  approach(b, m, previousLevel);
  const drop = previousLevel - z;
  if (drop <= 0) return place.s;
  if (place.helix) {
    turnDown(b, place.helix, m, z, previousLevel);
    return place.s;
  }
  const way = drop / steep(m);
  if (m.entry === 'plunge' || way > MOST_TURNS * track.length) {
    b.plunge(z, m.plunge);
    return place.s;
  }
  run(b, slice(track, place.s, place.s + way), previousLevel, z, slow(m));
  return (place.s + way) % track.length;
}

/** Stretches run the other way. */
export const backwards = (stretches: readonly ArcSegment[]): ArcSegment[] =>
  stretches.map((t) => ({ ...t, x0: t.x1, y0: t.y1, x1: t.x0, y1: t.y0, sweep: -t.sweep })).reverse();

/** The same at the start of an open track: by a ramp to and fro that ends at the start, or straight where `free` says that it is air. */
export function enterOpen(
  b: MotionBuilder,
  track: ArcPolyline,
  m: EntryMoves,
  z: number,
  previousLevel: number,
  free: boolean,
): void {
  if (free) {
    // A wider cutter has been here, and nothing stands above its floor.
    if (b.lastZ > z + m.approach) b.lift(z + m.approach);
    return b.plunge(z, m.plunge);
  }
  approach(b, m, previousLevel);
  const drop = b.lastZ - z;
  if (drop <= 0) return;
  const way = drop / steep(m);
  if (m.entry === 'plunge' || way > 2 * MOST_TURNS * track.length) return b.plunge(z, m.plunge);
  const times = Math.max(1, Math.ceil(way / 2 / track.length));
  const leg = slice(track, 0, way / (2 * times));
  for (let k = 0; k < times; k++) {
    run(b, leg, z + (drop * (times - k)) / times, z + (drop * (times - k - 0.5)) / times, slow(m));
    run(b, backwards(leg), z + (drop * (times - k - 0.5)) / times, z + (drop * (times - k - 1)) / times, slow(m));
  }
}
