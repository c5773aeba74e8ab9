import type { MotionBuilder } from '../../motion/motion';
import { orderPieces, type RoutePiece } from '../../motion/order';
import { pointAt, pointsEvenly, type ArcPolyline } from '../../motion/arcPolyline';

/** Places along a closed track where it may be begun. */
const STARTS = 16;

/** Heights for going from one place to another: between near places, and between far ones. mm. */
export interface RetractHeights {
  readonly safe: number;
  readonly linkHeight: number;
}

/** A track as a piece of the order: a closed one may begin at places spread along it, an open one runs as it lies. */
export function pieceOf(track: ArcPolyline): RoutePiece {
  const a = pointAt(track, 0);
  if (!track.closed) {
    const e = pointAt(track, track.length);
    return { inX: a.x, inY: a.y, outX: e.x, outY: e.y };
  }
  const starts = new Float64Array(2 * STARTS);
  pointsEvenly(track, 0, STARTS).forEach((p, i) => starts.set([p.x, p.y], 2 * i));
  return { inX: a.x, inY: a.y, outX: a.x, outY: a.y, starts };
}

/** Distance along a closed track of its k-th start. */
export const startAt = (track: ArcPolyline, k: number): number => (track.length * k) / STARTS;

/** Does `work` on each track in a short order from where the tool is, telling at which distance along it to begin. */
export function eachTrack(
  b: MotionBuilder,
  tracks: readonly ArcPolyline[],
  work: (track: ArcPolyline, s: number, index: number) => void,
): void {
  for (const { piece, start } of orderPieces(tracks.map(pieceOf), b.count ? b.lastX : 0, b.count ? b.lastY : 0, {
    effort: 2,
  }))
    work(tracks[piece], startAt(tracks[piece], start), piece);
}

/** Over to a place: at the lower height when it is within `near` mm. */
export function rapidTo(b: MotionBuilder, x: number, y: number, m: RetractHeights, near: number): void {
  const lift = b.count && Math.hypot(x - b.lastX, y - b.lastY) < near ? m.linkHeight : m.safe;
  b.lift(lift);
  b.rapid(x, y, lift);
}
