import type { PlacedItem } from '@/core/artwork/item';
import type { Path } from '@/core/geometry/path';

const kept = new WeakMap<PlacedItem, Path2D>();

/** An item's outlines for drawing and picking, in mm. */
export function pathOf(p: PlacedItem): Path2D {
  let path = kept.get(p);
  if (!path) {
    path = new Path2D();
    for (const q of p.paths) trace(path, q);
    kept.set(p, path);
  }
  return path;
}

function trace(to: Path2D, p: Path): void {
  to.moveTo(p.x, p.y);
  let x = p.x;
  let y = p.y;
  for (const s of p.segments) {
    if (s.k === 'line') to.lineTo(s.x, s.y);
    else if (s.k === 'cubic') to.bezierCurveTo(s.x1, s.y1, s.x2, s.y2, s.x, s.y);
    else {
      const a0 = Math.atan2(y - s.cy, x - s.cx);
      const a1 = Math.atan2(s.y - s.cy, s.x - s.cx);
      const whole = Math.abs(a1 - a0) < 1e-9;
      to.arc(s.cx, s.cy, Math.hypot(x - s.cx, y - s.cy), a0, whole ? a0 + (s.ccw ? 2 : -2) * Math.PI : a1, !s.ccw);
    }
    x = s.x;
    y = s.y;
  }
  if (p.closed) to.closePath();
}
