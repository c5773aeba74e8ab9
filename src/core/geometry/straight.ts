/** Straight segments from a to b. One home for what is asked of them everywhere; hot loops of grids and trees spell it out. */

/** Where on a segment (0 at a, 1 at b) the point nearest to x, y lies. */
export function nearestShare(ax: number, ay: number, bx: number, by: number, x: number, y: number): number {
  const ex = bx - ax;
  const ey = by - ay;
  const q = ex * ex + ey * ey;
  return q > 0 ? Math.min(1, Math.max(0, ((x - ax) * ex + (y - ay) * ey) / q)) : 0;
}

/** Distance from x, y to a segment. */
export function toSegment(ax: number, ay: number, bx: number, by: number, x: number, y: number): number {
  const t = nearestShare(ax, ay, bx, by, x, y);
  return Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
}

const side = (ax: number, ay: number, bx: number, by: number, x: number, y: number): number =>
  (bx - ax) * (y - ay) - (by - ay) * (x - ax);

/** Whether two segments cross, each in the inside of the other: touching is no crossing. */
export const segmentsCross = (
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): boolean =>
  side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) < 0 &&
  side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) < 0;

/** Whether a segment has a point in a box (Liang and Barsky, "A new concept and method for line clipping", 1984). */
export function segmentInBox(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  b: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number },
): boolean {
  let t0 = 0;
  let t1 = 1;
  const clip = (p: number, q: number): boolean => {
    if (p === 0) return q >= 0;
    if (p < 0) t0 = Math.max(t0, q / p);
    else t1 = Math.min(t1, q / p);
    return t0 <= t1;
  };
  return clip(ax - bx, ax - b.x0) && clip(bx - ax, b.x1 - ax) && clip(ay - by, ay - b.y0) && clip(by - ay, b.y1 - ay);
}
