import { fitArcs, pointAt, type ArcPolyline } from '../../motion/arcPolyline';

export const leadKinds = ['none', 'arc', 'line'] as const;
export type LeadKind = (typeof leadKinds)[number];

/** A way into a closed track at distance `s`, and out of it again, both in the direction of travel. */
export interface Lead {
  readonly s: number;
  readonly into: ArcPolyline;
  readonly out: ArcPolyline;
}

const PLACES = 24;
const SIZES = [1, 0.6, 0.35];

/**
 * Finds where a track can be met along a quarter circle (tangent to it) or a straight line at 45 degrees, from the side on
 * which the waste lies, so that no point of the way is forbidden. Looks first near distance `s`. Null where nothing fits.
 * `side` is 1 when the waste is on the left of the direction of travel, -1 when it is on the right.
 */
export function findLead(
  track: ArcPolyline,
  s: number,
  kind: LeadKind,
  size: number,
  side: 1 | -1,
  allowed: (x: number, y: number) => boolean,
): Lead | null {
  if (kind === 'none' || !(size > 0)) return null;
  for (const share of SIZES)
    for (let i = 0; i < PLACES; i++) {
      const at = (s + (track.length * i) / PLACES) % track.length;
      const into = way(track, at, kind, share * size, side, true);
      const out = way(track, at, kind, share * size, side, false);
      const clear = (points: Float64Array) => {
        for (let k = 0; k < points.length; k += 2)
          if (
            Math.hypot(points[k] - into[into.length - 2], points[k + 1] - into[into.length - 1]) > 1e-3 &&
            !allowed(points[k], points[k + 1])
          )
            return false;
        return true;
      };
      if (clear(into) && clear(out)) return { s: at, into: fitArcs(into, false, 1e-4), out: fitArcs(out, false, 1e-4) };
    }
  return null;
}

/** Points of a way in (ending on the track) or out (beginning on it). */
function way(
  track: ArcPolyline,
  s: number,
  kind: LeadKind,
  size: number,
  side: number,
  entering: boolean,
): Float64Array {
  const p = pointAt(track, s);
  const nx = -side * p.dy;
  const ny = side * p.dx;
  const n = 24;
  const points = new Float64Array(2 * (n + 1));
  for (let k = 0; k <= n; k++) {
    // u runs from the track (0) to the far end (1).
    const u = (entering ? n - k : k) / n;
    const along = kind === 'arc' ? Math.sin((u * Math.PI) / 2) : u * Math.SQRT1_2;
    const off = kind === 'arc' ? 1 - Math.cos((u * Math.PI) / 2) : u * Math.SQRT1_2;
    const d = entering ? -1 : 1;
    points[2 * k] = p.x + size * (d * along * p.dx + off * nx);
    points[2 * k + 1] = p.y + size * (d * along * p.dy + off * ny);
  }
  return points;
}
