import { arcSweep, sealed, type Path, type Segment } from './path';

export interface ArcLengthPath {
  readonly x: number;
  readonly y: number;
  /** Unit tangent. */
  readonly tx: number;
  readonly ty: number;
}

/** A path by its length: mm along it to places and directions. */
export interface Guide {
  readonly length: number;
  readonly closed: boolean;
  /** Beyond its ends an open guide goes on straight; a closed one goes round. */
  at(s: number): ArcLengthPath;
}

/** Steps of a segment for measuring its length. */
const STEPS = 160;

function evaluate(px: number, py: number, s: Segment, t: number): { x: number; y: number; dx: number; dy: number } {
  if (s.k === 'line') return { x: px + (s.x - px) * t, y: py + (s.y - py) * t, dx: s.x - px, dy: s.y - py };
  if (s.k === 'arc') {
    const sweep = arcSweep(px, py, s.x, s.y, s.cx, s.cy, s.ccw);
    const a = Math.atan2(py - s.cy, px - s.cx) + sweep * t;
    const r = Math.hypot(px - s.cx, py - s.cy);
    const sign = Math.sign(sweep);
    return { x: s.cx + r * Math.cos(a), y: s.cy + r * Math.sin(a), dx: -sign * Math.sin(a), dy: sign * Math.cos(a) };
  }
  const u = 1 - t;
  const x = u * u * u * px + 3 * u * u * t * s.x1 + 3 * u * t * t * s.x2 + t * t * t * s.x;
  const y = u * u * u * py + 3 * u * u * t * s.y1 + 3 * u * t * t * s.y2 + t * t * t * s.y;
  let dx = 3 * (u * u * (s.x1 - px) + 2 * u * t * (s.x2 - s.x1) + t * t * (s.x - s.x2));
  let dy = 3 * (u * u * (s.y1 - py) + 2 * u * t * (s.y2 - s.y1) + t * t * (s.y - s.y2));
  if (Math.hypot(dx, dy) < 1e-12) {
    // A control point that lies on its end: the direction to the other one, or to the other end where that lies there too.
    [dx, dy] = t < 0.5 ? [s.x2 - px, s.y2 - py] : [s.x - s.x1, s.y - s.y1];
    if (Math.hypot(dx, dy) < 1e-12) [dx, dy] = [s.x - px, s.y - py];
  }
  return { x, y, dx, dy };
}

/** Measures a path. Lengths along cubics are summed over chords between points on them; places lie on the path itself. */
export function makeArcLengthPath(path: Path): Guide {
  const pieces: { px: number; py: number; segment: Segment; t0: number; t1: number; s0: number; s1: number }[] = [];
  let length = 0;
  let px = path.x;
  let py = path.y;
  for (const segment of sealed(path).segments) {
    const n = segment.k === 'line' ? 1 : STEPS;
    let at = { x: px, y: py };
    const whole =
      segment.k === 'arc'
        ? (Math.abs(arcSweep(px, py, segment.x, segment.y, segment.cx, segment.cy, segment.ccw)) *
            Math.hypot(px - segment.cx, py - segment.cy)) /
          n
        : null;
    for (let i = 0; i < n; i++) {
      const end = evaluate(px, py, segment, (i + 1) / n);
      const l = whole ?? Math.hypot(end.x - at.x, end.y - at.y);
      if (l > 0) pieces.push({ px, py, segment, t0: i / n, t1: (i + 1) / n, s0: length, s1: length + l });
      length += l;
      at = end;
    }
    px = segment.x;
    py = segment.y;
  }
  const { closed } = path;
  return {
    length,
    closed,
    at(s) {
      if (!pieces.length) return { x: path.x, y: path.y, tx: 1, ty: 0 };
      let q = s;
      if (closed) q = ((s % length) + length) % length;
      const inside = Math.max(0, Math.min(length, q));
      let lo = 0;
      let hi = pieces.length - 1;
      while (lo < hi) {
        const mid = (lo + hi) >> 1;
        if (pieces[mid].s1 < inside) lo = mid + 1;
        else hi = mid;
      }
      const p = pieces[lo];
      const e = evaluate(p.px, p.py, p.segment, p.t0 + ((p.t1 - p.t0) * (inside - p.s0)) / (p.s1 - p.s0));
      const d = Math.hypot(e.dx, e.dy) || 1;
      const tx = e.dx / d;
      const ty = e.dy / d;
      return { x: e.x + tx * (q - inside), y: e.y + ty * (q - inside), tx, ty };
    },
  };
}
