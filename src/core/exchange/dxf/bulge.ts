import type { Segment } from '../../geometry/path';

/** The side from a vertex to the next: straight, or an arc by the first one's bulge, a quarter of whose angle has that tangent. */
export function bulged(a: { x: number; y: number; bulge?: number }, b: { x: number; y: number }): Segment {
  const k = a.bulge ?? 0;
  if (Math.abs(k) < 1e-9) return { k: 'line', x: b.x, y: b.y };
  const h = (1 - k * k) / (4 * k);
  return {
    k: 'arc',
    x: b.x,
    y: b.y,
    cx: (a.x + b.x) / 2 - h * (b.y - a.y),
    cy: (a.y + b.y) / 2 + h * (b.x - a.x),
    ccw: k > 0,
  };
}
