import { arcChords } from '../geometry/path';
import { fitMoves } from './fitMoves';
import type { MotionBuilder } from './motion';

/**
 * A contour at one height as lines and arcs with their lengths: what profile and clearance passes
 * run along, can start anywhere on, and can be cut out of (for tabs and ramps).
 */
export interface ArcSegment {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** Centre and sense of an arc; sweep 0 is a line. */
  cx: number;
  cy: number;
  sweep: number;
  length: number;
}

export interface ArcPolyline {
  segments: ArcSegment[];
  length: number;
  closed: boolean;
}

function straight(x0: number, y0: number, x1: number, y1: number): ArcSegment {
  return { x0, y0, x1, y1, cx: 0, cy: 0, sweep: 0, length: Math.hypot(x1 - x0, y1 - y0) };
}

/**
 * Lines and arcs through a line of points (x, y interleaved), within `tolerance` mm of the points and of the middles of the
 * chords between them (see ./fitMoves.ts).
 */
export function fitArcs(points: Float64Array, closed: boolean, tolerance: number): ArcPolyline {
  const count = points.length / 2;
  // A closed contour of one circle has no corner; start it where its longest chord ends.
  let start = 0;
  if (closed) {
    let longest = -1;
    for (let i = 0; i < count; i++) {
      const j = (i + 1) % count;
      const l = Math.hypot(points[2 * j] - points[2 * i], points[2 * j + 1] - points[2 * i + 1]);
      if (l > longest + 1e-6) {
        longest = l;
        start = j;
      }
    }
  }
  const n = closed ? count + 1 : count;
  const flat = new Float64Array(3 * n);
  for (let i = 0; i < n; i++) {
    flat[3 * i] = points[2 * ((start + i) % count)];
    flat[3 * i + 1] = points[2 * ((start + i) % count) + 1];
  }
  let [x0, y0] = [flat[0], flat[1]];
  const segments = fitMoves(flat, tolerance).map(({ to, cx, cy, sweep }): ArcSegment => {
    const [x1, y1] = [flat[3 * to], flat[3 * to + 1]];
    const s =
      sweep === 0
        ? straight(x0, y0, x1, y1)
        : { x0, y0, x1, y1, cx, cy, sweep, length: Math.abs(sweep) * Math.hypot(x0 - cx, y0 - cy) };
    [x0, y0] = [x1, y1];
    return s;
  });
  return { segments, length: segments.reduce((s, t) => s + t.length, 0), closed };
}

/** The same elsewhere, by so many mm. */
export const movedTrack = ({ segments, ...track }: ArcPolyline, x: number, y: number): ArcPolyline => ({
  ...track,
  segments: segments.map((t) => ({
    ...t,
    x0: t.x0 + x,
    y0: t.y0 + y,
    x1: t.x1 + x,
    y1: t.y1 + y,
    cx: t.cx + x,
    cy: t.cy + y,
  })),
});

/** Unit direction of a stretch at its start or end. */
export function headingOf(t: ArcSegment, end: boolean): { dx: number; dy: number } {
  if (t.sweep === 0) return { dx: (t.x1 - t.x0) / (t.length || 1), dy: (t.y1 - t.y0) / (t.length || 1) };
  const [x, y] = end ? [t.x1 - t.cx, t.y1 - t.cy] : [t.x0 - t.cx, t.y0 - t.cy];
  const r = Math.hypot(x, y) * Math.sign(t.sweep);
  return { dx: -y / r, dy: x / r };
}

/** Points along a track, x, y interleaved, whose chords stay within `tolerance` mm of its arcs. */
export function pointsOf(track: ArcPolyline, tolerance: number): Float64Array {
  const first = track.segments[0];
  const out = first ? [first.x0, first.y0] : [];
  for (const t of track.segments) {
    const r = Math.hypot(t.x0 - t.cx, t.y0 - t.cy);
    const n = t.sweep === 0 ? 1 : arcChords(t.sweep, r, tolerance);
    for (let k = 1; k < n; k++) {
      const p = within(t, k / n);
      out.push(p.x, p.y);
    }
    out.push(t.x1, t.y1);
  }
  return Float64Array.from(out);
}

/** The point at distance s along a track. */
export function pointAt(track: ArcPolyline, s: number): { x: number; y: number; dx: number; dy: number } {
  let left = track.closed ? ((s % track.length) + track.length) % track.length : Math.min(Math.max(s, 0), track.length);
  for (const t of track.segments) {
    if (left <= t.length || t === track.segments[track.segments.length - 1]) return onStretch(t, left);
    left -= t.length;
  }
  return { x: 0, y: 0, dx: 1, dy: 0 };
}

/** So many points spread evenly along a track, the first at distance s. */
export function pointsEvenly(track: ArcPolyline, s: number, count: number): ReturnType<typeof pointAt>[] {
  // Each is looked for from the stretch on in which the one before lies.
  const { segments, length } = track;
  const out: ReturnType<typeof pointAt>[] = [];
  let k = 0;
  let begun = 0;
  for (let i = 0; i < count; i++) {
    const at = (((s + (length * i) / count) % length) + length) % length;
    if (at < begun) [k, begun] = [0, 0];
    while (k < segments.length - 1 && at - begun > segments[k].length) begun += segments[k++].length;
    out.push(onStretch(segments[k], at - begun));
  }
  return out;
}

/** The point so far along a stretch, and which way that runs there. */
function onStretch(t: ArcSegment, s: number): { x: number; y: number; dx: number; dy: number } {
  const f = t.length > 0 ? Math.min(1, s / t.length) : 0;
  const p = within(t, f);
  if (t.sweep === 0) return { ...p, dx: (t.x1 - t.x0) / (t.length || 1), dy: (t.y1 - t.y0) / (t.length || 1) };
  const r = Math.hypot(p.x - t.cx, p.y - t.cy);
  const sign = Math.sign(t.sweep);
  return { ...p, dx: (-sign * (p.y - t.cy)) / r, dy: (sign * (p.x - t.cx)) / r };
}

function within(t: ArcSegment, f: number): { x: number; y: number } {
  if (t.sweep === 0) return { x: t.x0 + (t.x1 - t.x0) * f, y: t.y0 + (t.y1 - t.y0) * f };
  const a = Math.atan2(t.y0 - t.cy, t.x0 - t.cx) + t.sweep * f;
  const r = Math.hypot(t.x0 - t.cx, t.y0 - t.cy);
  return { x: t.cx + r * Math.cos(a), y: t.cy + r * Math.sin(a) };
}

/** The part of a stretch between two shares of its length. */
export function part(t: ArcSegment, f0: number, f1: number): ArcSegment {
  if (f0 <= 0 && f1 >= 1) return t;
  const a = f0 <= 0 ? { x: t.x0, y: t.y0 } : within(t, f0);
  const b = f1 >= 1 ? { x: t.x1, y: t.y1 } : within(t, f1);
  return { ...t, x0: a.x, y0: a.y, x1: b.x, y1: b.y, sweep: t.sweep * (f1 - f0), length: t.length * (f1 - f0) };
}

/** The stretches between distances s0 <= s1 along a track; a closed track may be run through several times. */
export function slice(track: ArcPolyline, s0: number, s1: number): ArcSegment[] {
  const out: ArcSegment[] = [];
  const n = track.segments.length;
  let base = track.closed ? Math.floor(s0 / track.length) * track.length : 0;
  while (base < s1 - 1e-9) {
    for (let i = 0; i < n; i++) {
      const t = track.segments[i];
      const a = Math.max(s0, base);
      const b = Math.min(s1, base + t.length);
      if (b - a > 1e-9) out.push(part(t, (a - base) / t.length, (b - base) / t.length));
      base += t.length;
    }
    if (!track.closed) break;
  }
  return out;
}

/** Distance along a track of the point of it that is nearest to (x, y), and how far that is. */
export function nearestOn(track: ArcPolyline, x: number, y: number): { s: number; distance: number } {
  let best = { s: 0, distance: Infinity };
  let base = 0;
  for (const t of track.segments) {
    let f: number;
    if (t.sweep === 0) {
      const ex = t.x1 - t.x0;
      const ey = t.y1 - t.y0;
      f = t.length > 0 ? ((x - t.x0) * ex + (y - t.y0) * ey) / (t.length * t.length) : 0;
    } else {
      const a0 = Math.atan2(t.y0 - t.cy, t.x0 - t.cx);
      let d = (Math.atan2(y - t.cy, x - t.cx) - a0) * Math.sign(t.sweep);
      d = ((d % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
      const span = Math.abs(t.sweep);
      f = d <= span ? d / span : d - span < 2 * Math.PI - d ? 1 : 0;
    }
    const p = within(t, Math.min(1, Math.max(0, f)));
    const distance = Math.hypot(p.x - x, p.y - y);
    if (distance < best.distance) best = { s: base + Math.min(1, Math.max(0, f)) * t.length, distance };
    base += t.length;
  }
  return best;
}

/** Feeds along stretches from z0 to z1, Z changing evenly with the distance. */
export function run(b: MotionBuilder, stretches: readonly ArcSegment[], z0: number, z1: number, feed: number): void {
  const total = stretches.reduce((s, t) => s + t.length, 0) || 1;
  let done = 0;
  for (const t of stretches) {
    done += t.length;
    const z = done >= total - 1e-9 ? z1 : z0 + ((z1 - z0) * done) / total;
    if (t.sweep === 0) b.line(t.x1, t.y1, z, feed);
    else b.arc(t.sweep > 0, t.x1, t.y1, z, t.cx, t.cy, feed);
  }
}
