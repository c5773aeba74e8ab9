import type { PlacedItem } from '@/core/artwork/item';
import type { Shape } from '@/core/artwork/kind';
import type { Path } from '@/core/geometry/path';

const shapes = new WeakMap<Shape, Path2D>();
const kept = new WeakMap<PlacedItem, Path2D>();

/** An item's outlines for drawing and picking, in mm. What its shape draws is put together once, wherever the item goes. */
export function pathOf(p: PlacedItem): Path2D {
  let path = kept.get(p);
  if (!path) {
    let shape = shapes.get(p.shape);
    if (!shape) {
      shape = new Path2D();
      for (const q of p.shape.paths) trace(shape, q);
      shapes.set(p.shape, shape);
    }
    path = new Path2D();
    path.addPath(shape, p.at);
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
