import { arcSweep, flatten, type Path } from '../geometry/path';
import { nearestShare } from '../geometry/straight';
import type { PlacedItem } from './item';

export interface Caught {
  readonly x: number;
  readonly y: number;
  /** In words, for the maker to read: what was caught. */
  readonly what: string;
}

/** A line across the whole table that things are brought to: upright at an x, or level at a y. */
export interface GuideLine {
  readonly axis: 'x' | 'y';
  readonly at: number;
}

interface Candidate extends Caught {
  /** Lower comes first among what is in reach. */
  readonly rank: number;
}

/**
 * The point that a pointer at (x, y) catches within `reach` mm: nodes, middles of segments, centres of arcs and of items,
 * crossings of outlines and of guides, tangents from the point before, then any place on a guide or an outline, then the grid.
 * Null when nothing is near.
 */
export function catchPoint(
  items: readonly PlacedItem[],
  x: number,
  y: number,
  reach: number,
  grid: number | null,
  more: { readonly from?: { readonly x: number; readonly y: number }; readonly guides?: readonly GuideLine[] } = {},
): Caught | null {
  let best: Candidate | null = null;
  let bestScore = Infinity;
  const offer = (px: number, py: number, what: string, rank: number) => {
    const d = Math.hypot(px - x, py - y);
    // A better kind wins even when it is a little farther away.
    const score = d + rank * reach * 0.35;
    if (d <= reach && score < bestScore) {
      bestScore = score;
      best = { x: px, y: py, what, rank };
    }
  };
  const near: Float64Array[] = [];
  for (const p of items) {
    const c = p.corners;
    offer((c[0].x + c[2].x) / 2, (c[0].y + c[2].y) / 2, 'centre', 0.5);
    for (const path of p.paths) {
      walk(path, x, y, reach, offer, near);
      if (more.from) tangents(path, more.from, offer);
    }
  }
  for (const g of more.guides ?? []) {
    if (g.axis === 'x') offer(g.at, y, 'guide', 1.4);
    else offer(x, g.at, 'guide', 1.4);
    for (const h of more.guides ?? [])
      if (g.axis === 'x' && h.axis === 'y') offer(g.at, h.at, 'crossing of guides', 0.2);
  }
  for (let i = 0; i < near.length; i++) for (let j = i + 1; j < near.length; j++) crossing(near[i], near[j], offer);
  for (const s of near) {
    const t = nearestShare(s[0], s[1], s[2], s[3], x, y);
    offer(s[0] + (s[2] - s[0]) * t, s[1] + (s[3] - s[1]) * t, 'on the outline', 2);
  }
  if (grid) offer(Math.round(x / grid) * grid, Math.round(y / grid) * grid, 'grid', 2.5);
  const caught = best as Candidate | null;
  return caught && { x: caught.x, y: caught.y, what: caught.what };
}

/** Where a line from a point touches the arcs of a path. */
function tangents(
  path: Path,
  from: { readonly x: number; readonly y: number },
  offer: (x: number, y: number, what: string, rank: number) => void,
): void {
  let a = { x: path.x, y: path.y };
  for (const s of path.segments) {
    if (s.k === 'arc') {
      const r = Math.hypot(a.x - s.cx, a.y - s.cy);
      const d = Math.hypot(from.x - s.cx, from.y - s.cy);
      if (d > r * (1 + 1e-9)) {
        const to = Math.atan2(from.y - s.cy, from.x - s.cx);
        const side = Math.acos(r / d);
        const sweep = arcSweep(a.x, a.y, s.x, s.y, s.cx, s.cy, s.ccw);
        const a0 = Math.atan2(a.y - s.cy, a.x - s.cx);
        for (const t of [to - side, to + side]) {
          const turn = s.ccw ? t - a0 : a0 - t;
          const along = ((turn % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
          if (along <= Math.abs(sweep) + 1e-9) offer(s.cx + r * Math.cos(t), s.cy + r * Math.sin(t), 'tangent', 0.1);
        }
      }
    }
    a = s;
  }
}

function walk(
  path: Path,
  x: number,
  y: number,
  reach: number,
  offer: (x: number, y: number, what: string, rank: number) => void,
  near: Float64Array[],
): void {
  offer(path.x, path.y, path.closed ? 'node' : 'end', 0);
  let a = { x: path.x, y: path.y };
  path.segments.forEach((s, i) => {
    offer(s.x, s.y, !path.closed && i === path.segments.length - 1 ? 'end' : 'node', 0);
    if (s.k === 'line') {
      offer((a.x + s.x) / 2, (a.y + s.y) / 2, 'middle', 0.6);
      keep(near, a.x, a.y, s.x, s.y, x, y, reach);
    } else {
      if (s.k === 'arc') offer(s.cx, s.cy, 'centre', 0.5);
      const f = flatten({ x: a.x, y: a.y, segments: [s], closed: false }, reach / 20);
      for (let k = 2; k < f.length; k += 2) keep(near, f[k - 2], f[k - 1], f[k], f[k + 1], x, y, reach);
    }
    a = s;
  });
}

function keep(
  near: Float64Array[],
  ax: number,
  ay: number,
  bx: number,
  by: number,
  x: number,
  y: number,
  reach: number,
): void {
  if (near.length > 60) return;
  if (
    Math.min(ax, bx) > x + reach ||
    Math.max(ax, bx) < x - reach ||
    Math.min(ay, by) > y + reach ||
    Math.max(ay, by) < y - reach
  )
    return;
  near.push(Float64Array.of(ax, ay, bx, by));
}

function crossing(
  p: Float64Array,
  q: Float64Array,
  offer: (x: number, y: number, what: string, rank: number) => void,
): void {
  const d = (p[2] - p[0]) * (q[3] - q[1]) - (p[3] - p[1]) * (q[2] - q[0]);
  if (Math.abs(d) < 1e-12) return;
  const t = ((q[0] - p[0]) * (q[3] - q[1]) - (q[1] - p[1]) * (q[2] - q[0])) / d;
  const u = ((q[0] - p[0]) * (p[3] - p[1]) - (q[1] - p[1]) * (p[2] - p[0])) / d;
  if (t > 1e-6 && t < 1 - 1e-6 && u > 1e-6 && u < 1 - 1e-6)
    offer(p[0] + (p[2] - p[0]) * t, p[1] + (p[3] - p[1]) * t, 'crossing', 0.2);
}
