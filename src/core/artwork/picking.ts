import { flatten } from '../geometry/path';
import { boundsOf, contains, normalise, type Bounds, type Region } from '../geometry/region';
import { itemBounds, type PlacedItem } from './item';

/** Chords of outlines that are only pointed at, mm. */
const COARSE = 0.05;

interface Seen {
  readonly lines: readonly { readonly points: Float64Array; readonly closed: boolean }[];
  readonly box: Bounds;
  region: Region | null;
}
const kept = new WeakMap<PlacedItem, Seen>();

function seen(p: PlacedItem): Seen {
  let s = kept.get(p);
  if (!s) kept.set(p, (s = { lines: p.paths.map((q) => ({ points: flatten(q, COARSE), closed: q.closed })), box: itemBounds(p), region: null }));
  return s;
}

/** What an item's closed outlines fill. */
export function filledBy(p: PlacedItem): Region {
  const s = seen(p);
  return (s.region ??= normalise(
    s.lines.filter((l) => l.closed).map((l) => l.points),
    p.fill,
  ));
}

/** The box of what an item draws. */
export const boxOf = (p: PlacedItem): Bounds => seen(p).box;

/** Distance from a point to an item's lines and outlines, mm; Infinity when it draws nothing. */
export function distanceTo(p: PlacedItem, x: number, y: number): number {
  let best = Infinity;
  for (const { points: l, closed } of seen(p).lines) {
    const n = l.length;
    for (let i = closed ? 0 : 2, j = closed ? n - 2 : 0; i < n; j = i, i += 2) {
      const ex = l[i] - l[j];
      const ey = l[i + 1] - l[j + 1];
      const q = ex * ex + ey * ey;
      const t = q > 0 ? Math.min(1, Math.max(0, ((x - l[j]) * ex + (y - l[j + 1]) * ey) / q)) : 0;
      const d = (l[j] + t * ex - x) ** 2 + (l[j + 1] + t * ey - y) ** 2;
      if (d < best) best = d;
    }
  }
  return Math.sqrt(best);
}

/** Whether a straight line from a to b has a point in a box (Liang and Barsky 1984). */
function crosses(ax: number, ay: number, bx: number, by: number, b: Bounds): boolean {
  let t0 = 0;
  let t1 = 1;
  const clip = (p: number, q: number): boolean => {
    if (p === 0) return q >= 0;
    const t = q / p;
    if (p < 0) t0 = Math.max(t0, t);
    else t1 = Math.min(t1, t);
    return t0 <= t1;
  };
  return clip(ax - bx, ax - b.x0) && clip(bx - ax, b.x1 - ax) && clip(ay - by, ay - b.y0) && clip(by - ay, b.y1 - ay);
}

/** Whether any line or outline of an item has a point in a box. */
export function touches(p: PlacedItem, b: Bounds): boolean {
  for (const { points: l, closed } of seen(p).lines) {
    const n = l.length;
    for (let i = closed ? 0 : 2, j = closed ? n - 2 : 0; i < n; j = i, i += 2) if (crosses(l[j], l[j + 1], l[i], l[i + 1], b)) return true;
  }
  return false;
}

/** Whether all that an item draws lies in a box. */
export function isWithin(p: PlacedItem, b: Bounds): boolean {
  const { box } = seen(p);
  return box.x0 >= b.x0 && box.x1 <= b.x1 && box.y0 >= b.y0 && box.y1 <= b.y1;
}

/** Whether all that an item draws lies inside of outlines (their holes are outside). */
export function liesInside(p: PlacedItem, region: Region): boolean {
  const { lines, box } = seen(p);
  const b = boundsOf(region);
  if (!b || !lines.length || !isWithin(p, b) || !contains(region, (lines[0].points[0] + lines[0].points[2]) / 2, (lines[0].points[1] + lines[0].points[3]) / 2)) return false;
  // One point inside, and no outline of the region goes through the item: then all of it is inside.
  for (const l of region)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      if (!crosses(l[j], l[j + 1], l[i], l[i + 1], box)) continue;
      for (const { points: q, closed } of lines)
        for (let k = closed ? 0 : 2, m = closed ? q.length - 2 : 0; k < q.length; m = k, k += 2) if (meet(l[j], l[j + 1], l[i], l[i + 1], q[m], q[m + 1], q[k], q[k + 1])) return false;
    }
  return true;
}

/** What reaches beyond the blank, and what of that lies wholly off it. */
export function offBlank(things: readonly { readonly id: string; readonly placed: PlacedItem }[], blank: { readonly width: number; readonly height: number }): { readonly over: string[]; readonly off: string[] } {
  const whole = { x0: -1e-6, y0: -1e-6, x1: blank.width + 1e-6, y1: blank.height + 1e-6 };
  const drawn = things.filter((t) => t.placed.paths.length);
  const off = drawn.filter(({ placed }) => boxOf(placed).x1 < 0 || boxOf(placed).y1 < 0 || boxOf(placed).x0 > blank.width || boxOf(placed).y0 > blank.height).map((t) => t.id);
  return { over: drawn.filter((t) => !isWithin(t.placed, whole)).map((t) => t.id), off };
}

/** Of several things the one whose outline all others lie in: together they are what is between it and them. Null when there is none. */
export function boundaryOf(things: readonly { readonly id: string; readonly placed: PlacedItem }[]): string | null {
  if (things.length < 2) return null;
  const size = (p: PlacedItem) => (boxOf(p).x1 - boxOf(p).x0) * (boxOf(p).y1 - boxOf(p).y0);
  const outer = things.reduce((m, t) => (size(t.placed) > size(m.placed) ? t : m));
  const region = filledBy(outer.placed);
  return region.length && things.every((t) => t === outer || liesInside(t.placed, region)) ? outer.id : null;
}

/** Whether two straight lines cross. */
function meet(ax: number, ay: number, bx: number, by: number, cx: number, cy: number, dx: number, dy: number): boolean {
  const side = (px: number, py: number, qx: number, qy: number, x: number, y: number) => (qx - px) * (y - py) - (qy - py) * (x - px);
  return side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) < 0 && side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) < 0;
}
