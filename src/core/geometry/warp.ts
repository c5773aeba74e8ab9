import { arcsToCubics, type Path, type Segment } from './path';
import { pointOn, type Point } from './segment';

/** The cubic that passes a third and two thirds of its way through the two points between its ends. */
export const cubicByThirds = (a: Point, b: Point, c: Point, d: Point): Segment => ({
  k: 'cubic',
  x1: (-5 * a.x + 18 * b.x - 9 * c.x + 2 * d.x) / 6,
  y1: (-5 * a.y + 18 * b.y - 9 * c.y + 2 * d.y) / 6,
  x2: (2 * a.x - 9 * b.x + 18 * c.x - 5 * d.x) / 6,
  y2: (2 * a.y - 9 * b.y + 18 * c.y - 5 * d.y) / 6,
  x: d.x,
  y: d.y,
});

/**
 * Bends paths by any smooth map of the plane. Segments are cut into pieces no longer than `step` mm; each becomes
 * the cubic through the images of four of its points, so the result stays curves with few nodes.
 */
export function warpPath(path: Path, map: (x: number, y: number) => { x: number; y: number }, step: number): Path {
  const source = arcsToCubics(path);
  const start = map(source.x, source.y);
  const segments: Segment[] = [];
  let px = source.x;
  let py = source.y;
  for (const s of source.segments) {
    const from = { x: px, y: py };
    const at = (t: number): Point => pointOn(from, s, t);
    const way =
      s.k === 'cubic'
        ? Math.hypot(s.x1 - px, s.y1 - py) + Math.hypot(s.x2 - s.x1, s.y2 - s.y1) + Math.hypot(s.x - s.x2, s.y - s.y2)
        : Math.hypot(s.x - px, s.y - py);
    const n = Math.max(1, Math.min(200, Math.ceil(way / step)));
    let a = map(px, py);
    for (let i = 0; i < n; i++) {
      const q = (f: number) => {
        const p = at((i + f) / n);
        return map(p.x, p.y);
      };
      const b = q(1 / 3);
      const c = q(2 / 3);
      const d = q(1);
      segments.push(cubicByThirds(a, b, c, d));
      a = d;
    }
    px = s.x;
    py = s.y;
  }
  return { x: start.x, y: start.y, segments, closed: source.closed };
}
