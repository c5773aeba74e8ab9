import type { Path, Segment } from './path';
import type { Point } from './segment';

/**
 * A closed path through corners, each rounded by an arc of `radius` mm that touches both sides; where sides
 * are too short the arc is smaller. A corner whose entry in `which` is false stays sharp.
 */
export function roundedPath(corners: readonly Point[], radius: number, which?: readonly boolean[]): Path {
  const n = corners.length;
  const segments: Segment[] = [];
  let start: Point | null = null;
  for (let i = 0; i < n; i++) {
    const a = corners[(i + n - 1) % n];
    const b = corners[i];
    const c = corners[(i + 1) % n];
    const u = unit(b, a);
    const v = unit(b, c);
    const cos = u.x * v.x + u.y * v.y;
    // Half of the angle between the sides; the arc touches them at radius / tan of it from the corner.
    const half = Math.acos(Math.min(1, Math.max(-1, cos))) / 2;
    const slack = Math.min(Math.hypot(a.x - b.x, a.y - b.y), Math.hypot(c.x - b.x, c.y - b.y)) / 2;
    const t = Math.min(radius / Math.tan(half), slack);
    const flat = half > Math.PI / 2 - 1e-9;
    if (!(radius > 0) || flat || t < 1e-9 || which?.[i] === false) {
      if (start) segments.push({ k: 'line', x: b.x, y: b.y });
      else start = b;
      continue;
    }
    const r = t * Math.tan(half);
    const from = { x: b.x + u.x * t, y: b.y + u.y * t };
    const to = { x: b.x + v.x * t, y: b.y + v.y * t };
    const d = r / Math.sin(half);
    const m = unit({ x: 0, y: 0 }, { x: u.x + v.x, y: u.y + v.y });
    if (start) segments.push({ k: 'line', ...from });
    else start = from;
    // Leaving the corner to the left of the way in is a turn to the left.
    segments.push({ k: 'arc', ...to, cx: b.x + m.x * d, cy: b.y + m.y * d, ccw: -u.x * v.y + u.y * v.x > 0 });
  }
  const first = start ?? { x: 0, y: 0 };
  const last = segments[segments.length - 1];
  if (last && Math.hypot(last.x - first.x, last.y - first.y) > 1e-12) segments.push({ k: 'line', ...first });
  return { ...first, segments, closed: true };
}

const unit = (from: Point, to: Point): Point => {
  const l = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  return { x: (to.x - from.x) / l, y: (to.y - from.y) / l };
};
