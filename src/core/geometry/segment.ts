import { arcSweep, type Segment } from './path';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** The point of a segment from `a` at t in 0..1. */
export function pointOn(a: Point, s: Segment, t: number): Point {
  if (t <= 0) return a;
  if (t >= 1) return { x: s.x, y: s.y };
  return splitSegment(a, s, t)[0];
}

/** A segment cut in two at t (0..1): de Casteljau for cubics, the same circle for arcs. */
export function splitSegment(a: Point, s: Segment, t: number): [Segment, Segment] {
  const mix = (p: Point, q: Point): Point => ({ x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t });
  if (s.k === 'line') return [{ k: 'line', ...mix(a, s) }, s];
  if (s.k === 'arc') {
    const m = Math.atan2(a.y - s.cy, a.x - s.cx) + arcSweep(a.x, a.y, s.x, s.y, s.cx, s.cy, s.ccw) * t;
    const r = Math.hypot(a.x - s.cx, a.y - s.cy);
    return [{ ...s, x: s.cx + r * Math.cos(m), y: s.cy + r * Math.sin(m) }, s];
  }
  const p01 = mix(a, { x: s.x1, y: s.y1 });
  const p12 = mix({ x: s.x1, y: s.y1 }, { x: s.x2, y: s.y2 });
  const p23 = mix({ x: s.x2, y: s.y2 }, s);
  const q0 = mix(p01, p12);
  const q1 = mix(p12, p23);
  const m = mix(q0, q1);
  return [
    { k: 'cubic', x1: p01.x, y1: p01.y, x2: q0.x, y2: q0.y, ...m },
    { k: 'cubic', x1: q1.x, y1: q1.y, x2: p23.x, y2: p23.y, x: s.x, y: s.y },
  ];
}

/** The part of a segment between two of its t. */
export function partOf(a: Point, s: Segment, t0: number, t1: number): { from: Point; segment: Segment } {
  const head = t1 >= 1 ? s : splitSegment(a, s, t1)[0];
  if (t0 <= 0) return { from: a, segment: head };
  const [first, rest] = splitSegment(a, head, t0 / t1);
  return { from: { x: first.x, y: first.y }, segment: rest };
}
