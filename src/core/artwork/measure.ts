import { derived } from '../geometry/hash';
import { makeArcLengthPath } from '../geometry/arcLengthPath';
import { joined } from '../geometry/box';
import { flatten, type Path } from '../geometry/path';
import { pointOn, type Point } from '../geometry/segment';
import { nearestShare, segmentsCross } from '../geometry/straight';
import { normalise, regionArea, type Bounds } from '../geometry/region';
import { itemBounds, type PlacedItem } from './item';
import { nearest } from './nodes';

/** Chords of curves while measuring, mm. */
const FINE = 0.002;

export interface Measures {
  readonly box: Bounds | null;
  /** mm2 inside closed outlines. */
  readonly area: number;
  /** mm of all outlines and lines. */
  readonly length: number;
}

const sizes = derived<object, Pick<Measures, 'area' | 'length'>>();
/** Of what an item draws about its own origin: turned, mirrored and placed, it is as large. */
const sizesOf = ({ shape: { paths }, fill }: PlacedItem): Pick<Measures, 'area' | 'length'> => ({
  area: regionArea(
    normalise(
      paths.filter((p) => p.closed).map((p) => flatten(p, FINE)),
      fill,
    ),
  ),
  length: paths.reduce((n, p) => n + makeArcLengthPath(p).length, 0),
});

export function measure(items: readonly PlacedItem[]): Measures {
  let area = 0;
  let length = 0;
  let box: Bounds | null = null;
  for (const i of items) {
    if (i.shape.paths.length) box = box ? joined(box, itemBounds(i)) : itemBounds(i);
    const own = sizes(i.values, i.shape.paths.map((p) => p.segments.length).join(), () => sizesOf(i));
    area += own.area;
    length += own.length;
  }
  return { box, area, length };
}

/** The narrowest distance between the outlines of two items, and where; 0 where they cross. */
export function distanceBetween(
  a: PlacedItem,
  b: PlacedItem,
): { distance: number; from: { x: number; y: number }; to: { x: number; y: number } } | null {
  const [p, q] = [chords(a.paths), chords(b.paths)];
  if (!p.length || !q.length) return null;
  let best = { distance: Infinity, from: { x: 0, y: 0 }, to: { x: 0, y: 0 } };
  // Sorted by x, pairs that lie farther apart in x than the best are not looked at.
  q.sort((s, t) => Math.min(s[0], s[2]) - Math.min(t[0], t[2]));
  const reach = q.reduce((m, s) => Math.max(m, Math.abs(s[2] - s[0])), 0);
  for (const s of p) {
    const lo = Math.min(s[0], s[2]);
    const hi = Math.max(s[0], s[2]);
    for (const t of q) {
      const t0 = Math.min(t[0], t[2]);
      if (t0 > hi + best.distance) break;
      if (t0 + reach < lo - best.distance) continue;
      if (segmentsCross(s[0], s[1], s[2], s[3], t[0], t[1], t[2], t[3]))
        return { distance: 0, from: { x: s[0], y: s[1] }, to: { x: s[0], y: s[1] } };
      for (const [x, y, u, back] of [
        [s[0], s[1], t, false],
        [s[2], s[3], t, false],
        [t[0], t[1], s, true],
        [t[2], t[3], s, true],
      ] as const) {
        const f = nearestShare(u[0], u[1], u[2], u[3], x, y);
        const foot = { x: u[0] + (u[2] - u[0]) * f, y: u[1] + (u[3] - u[1]) * f };
        const d = Math.hypot(foot.x - x, foot.y - y);
        if (d < best.distance)
          best = back ? { distance: d, from: foot, to: { x, y } } : { distance: d, from: { x, y }, to: foot };
      }
    }
  }
  return best;
}

function chords(paths: readonly Path[]): Float64Array[] {
  const out: Float64Array[] = [];
  for (const p of paths) {
    const f = flatten(p, FINE);
    const n = f.length;
    for (let i = 2; i < n; i += 2) out.push(Float64Array.of(f[i - 2], f[i - 1], f[i], f[i + 1]));
    if (p.closed && n > 4) out.push(Float64Array.of(f[n - 2], f[n - 1], f[0], f[1]));
  }
  return out;
}

/** The radius of what is drawn nearest to a point: an arc's own, or that of a curve's bend there. Null on straight lines and beyond `reach` mm. */
export function radiusAt(
  items: readonly PlacedItem[],
  x: number,
  y: number,
  reach: number,
): { radius: number; exact: boolean; cx: number; cy: number } | null {
  let best: { distance: number; path: Path; segment: number; t: number } | null = null;
  for (const i of items)
    for (const path of i.paths) {
      const n = nearest(path, x, y);
      if (n.distance <= reach && (!best || n.distance < best.distance))
        best = { distance: n.distance, path, segment: n.segment, t: n.t };
    }
  const hit = best as { path: Path; segment: number; t: number } | null;
  if (!hit) return null;
  const s = hit.path.segments[hit.segment];
  const a = hit.segment === 0 ? hit.path : hit.path.segments[hit.segment - 1];
  if (s.k === 'line') return null;
  if (s.k === 'arc') return { radius: Math.hypot(a.x - s.cx, a.y - s.cy), exact: true, cx: s.cx, cy: s.cy };
  const { t } = hit;
  const u = 1 - t;
  const d = (p0: number, p1: number, p2: number, p3: number) =>
    3 * (u * u * (p1 - p0) + 2 * u * t * (p2 - p1) + t * t * (p3 - p2));
  const dd = (p0: number, p1: number, p2: number, p3: number) => 6 * (u * (p2 - 2 * p1 + p0) + t * (p3 - 2 * p2 + p1));
  const [vx, vy] = [d(a.x, s.x1, s.x2, s.x), d(a.y, s.y1, s.y2, s.y)];
  const [wx, wy] = [dd(a.x, s.x1, s.x2, s.x), dd(a.y, s.y1, s.y2, s.y)];
  const turn = vx * wy - vy * wx;
  const speed = Math.hypot(vx, vy);
  if (Math.abs(turn) < 1e-9 * speed ** 3 || speed < 1e-12) return null;
  const r = speed ** 3 / turn;
  const p = pointOn(a, s, t);
  return { radius: Math.abs(r), exact: false, cx: p.x - (vy / speed) * r, cy: p.y + (vx / speed) * r };
}

/** The angle at b between a and c, degrees from 0 to 180. */
export function angleAt(a: Point, b: Point, c: Point): number {
  const [ux, uy, vx, vy] = [a.x - b.x, a.y - b.y, c.x - b.x, c.y - b.y];
  return (Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) * 180) / Math.PI;
}
