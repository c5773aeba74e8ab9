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

/** Segments that are stroked in one go. */
const STRETCH = 2000;
const pieces = new WeakMap<Shape, readonly Path2D[]>();

/**
 * What a shape draws about its own origin, in pieces that are stroked one after the other: a stroke of tens of thousands of
 * segments holds the page up.
 */
export function piecesOf(shape: Shape): readonly Path2D[] {
  let list = pieces.get(shape);
  if (!list) {
    list = inStretches(shape.paths, STRETCH).map((paths) => {
      const piece = new Path2D();
      for (const p of paths) trace(piece, p);
      return piece;
    });
    pieces.set(shape, list);
  }
  return list;
}

/**
 * Outlines in groups of `most` segments. A long one is parted at its nodes; each part begins with the segment before it, and
 * the last of a closed one ends with its first segment, so that the corners between them are drawn.
 */
export function inStretches(paths: readonly Path[], most: number): Path[][] {
  const groups: Path[][] = [];
  let left = 0;
  for (const p of paths)
    for (let i = 0; i < Math.max(1, p.segments.length);) {
      if (left <= 0) {
        groups.push([]);
        left = most;
      }
      const n = Math.max(1, Math.min(left, p.segments.length - i));
      groups[groups.length - 1].push(n >= p.segments.length ? p : stretch(p, i, i + n));
      left -= n;
      i += n;
    }
  return groups;
}

/** Segments from .. to - 1 of an outline, with the one before them, and what closes it behind its last. */
function stretch(p: Path, from: number, to: number): Path {
  const first = Math.max(0, from - 1);
  const start = first ? p.segments[first - 1] : p;
  const segments = p.segments.slice(first, to);
  if (p.closed && to === p.segments.length) segments.push({ k: 'line', x: p.x, y: p.y }, p.segments[0]);
  return { x: start.x, y: start.y, segments, closed: false };
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
