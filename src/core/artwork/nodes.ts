import { fitLine, fitLoop } from '../geometry/fit';
import { flatten, type Path, type Segment } from '../geometry/path';
import { nearestShare } from '../geometry/straight';
import { pointOn, splitSegment } from '../geometry/segment';

/**
 * Editing paths node by node. Node 0 is where the path begins, node k the end of segment k - 1; a closed path ends
 * where it begins, so its last node is node 0 again and is not counted. All functions return new paths.
 */
export interface Node {
  readonly x: number;
  readonly y: number;
}

export const nodeCount = (p: Path): number => p.segments.length + (p.closed ? 0 : 1);
export const nodeAt = (p: Path, k: number): Node =>
  k === 0 ? { x: p.x, y: p.y } : { x: p.segments[k - 1].x, y: p.segments[k - 1].y };

/** Segments before and after a node, by index; -1 where there is none. */
export function beside(p: Path, k: number): { before: number; after: number } {
  const n = p.segments.length;
  return { before: k > 0 ? k - 1 : p.closed ? n - 1 : -1, after: k < n ? k : p.closed ? 0 : -1 };
}

const at = (p: Path, i: number): Node => (i === 0 ? p : p.segments[i - 1]);

/** An arc as cubics of at most a quarter turn would change the count of nodes; one that is edited becomes one cubic or line. */
function loosened(p: Path, i: number): Segment {
  const s = p.segments[i];
  if (s.k !== 'arc') return s;
  const a = at(p, i);
  const chord = flatten({ x: a.x, y: a.y, segments: [s], closed: false }, 0.01);
  const [fitted, ...more] = fitLine(chord, { tolerance: 0.02, window: 1 });
  return fitted && !more.length && fitted.k === 'cubic' ? fitted : { k: 'line', x: s.x, y: s.y };
}

/** Moves a node; handles beside it go along. */
export function moveNode(p: Path, k: number, x: number, y: number): Path {
  const old = nodeAt(p, k);
  const dx = x - old.x;
  const dy = y - old.y;
  const { before, after } = beside(p, k);
  const segments = p.segments.slice();
  if (before >= 0) {
    const s = loosened(p, before);
    segments[before] = s.k === 'cubic' ? { ...s, x, y, x2: s.x2 + dx, y2: s.y2 + dy } : { k: 'line', x, y };
  }
  if (after >= 0) {
    const s = after === before ? segments[after] : loosened(p, after);
    segments[after] = s.k === 'cubic' ? { ...s, x1: s.x1 + dx, y1: s.y1 + dy } : s;
  }
  return k === 0 ? { ...p, x, y, segments } : { ...p, segments };
}

/** Moves a handle: `end` 1 is the one after the segment's start, 2 the one before its end. A smooth node keeps its other handle in line. */
export function moveHandle(p: Path, segment: number, end: 1 | 2, x: number, y: number, smooth: boolean): Path {
  const s = p.segments[segment];
  if (s.k !== 'cubic') return p;
  const segments = p.segments.slice();
  segments[segment] = end === 1 ? { ...s, x1: x, y1: y } : { ...s, x2: x, y2: y };
  if (smooth) {
    const n = p.segments.length;
    const node = end === 1 ? at(p, segment) : s;
    const other =
      end === 1
        ? segment > 0
          ? segment - 1
          : p.closed
            ? n - 1
            : -1
        : segment + 1 < n
          ? segment + 1
          : p.closed
            ? 0
            : -1;
    const o = other >= 0 ? segments[other] : null;
    if (o?.k === 'cubic' && other !== segment) {
      const d = Math.hypot(x - node.x, y - node.y);
      const kept = end === 1 ? Math.hypot(o.x2 - node.x, o.y2 - node.y) : Math.hypot(o.x1 - node.x, o.y1 - node.y);
      if (d > 1e-12) {
        const hx = node.x - ((x - node.x) / d) * kept;
        const hy = node.y - ((y - node.y) / d) * kept;
        segments[other] = end === 1 ? { ...o, x2: hx, y2: hy } : { ...o, x1: hx, y1: hy };
      }
    }
  }
  return { ...p, segments };
}

/** Whether both handles of a node lie in one line through it. */
export function isSmooth(p: Path, k: number): boolean {
  const { before, after } = beside(p, k);
  if (before < 0 || after < 0) return false;
  const [a, b] = [p.segments[before], p.segments[after]];
  if (a.k !== 'cubic' || b.k !== 'cubic') return false;
  const n = nodeAt(p, k);
  const [ux, uy, vx, vy] = [n.x - a.x2, n.y - a.y2, b.x1 - n.x, b.y1 - n.y];
  return (
    Math.abs(ux * vy - uy * vx) < 1e-6 * (Math.hypot(ux, uy) * Math.hypot(vx, vy) + 1e-12) && ux * vx + uy * vy > 0
  );
}

/** Adds a node on a segment without changing what is drawn. */
export function addNode(p: Path, segment: number, t: number): Path {
  const [a, b] = splitSegment(at(p, segment), p.segments[segment], t);
  return { ...p, segments: [...p.segments.slice(0, segment), a, b, ...p.segments.slice(segment + 1)] };
}

/** Takes a node away; what was on both sides becomes one piece. Null when too little is left. */
export function deleteNode(p: Path, k: number): Path | null {
  if (nodeCount(p) <= (p.closed ? 3 : 2)) return null;
  const { before, after } = beside(p, k);
  if (before < 0) {
    const [first, ...rest] = p.segments;
    return { ...p, x: first.x, y: first.y, segments: rest };
  }
  if (after < 0) return { ...p, segments: p.segments.slice(0, -1) };
  const [a, b] = [loosened(p, before), loosened(p, after)];
  const from = at(p, before);
  const joined: Segment =
    a.k === 'cubic' || b.k === 'cubic'
      ? {
          k: 'cubic',
          x1: a.k === 'cubic' ? a.x1 : from.x + (a.x - from.x) / 3,
          y1: a.k === 'cubic' ? a.y1 : from.y + (a.y - from.y) / 3,
          x2: b.k === 'cubic' ? b.x2 : b.x + (a.x - b.x) / 3,
          y2: b.k === 'cubic' ? b.y2 : b.y + (a.y - b.y) / 3,
          x: b.x,
          y: b.y,
        }
      : { k: 'line', x: b.x, y: b.y };
  const segments = p.segments.slice();
  if (k === 0) {
    // The first node of a closed path: it begins at the next one instead.
    segments[before] = joined;
    segments.splice(after, 1);
    return { ...p, x: joined.x, y: joined.y, segments };
  }
  segments[before] = joined;
  segments.splice(after, 1);
  return { ...p, segments };
}

/** Makes a node smooth (handles in line with its neighbours) or a corner (handles drawn in to a third of straight sides). */
export function setSmooth(p: Path, k: number, smooth: boolean): Path {
  const { before, after } = beside(p, k);
  if (before < 0 || after < 0) return p;
  const node = nodeAt(p, k);
  const a = at(p, before);
  const b = p.segments[after];
  const segments = p.segments.slice();
  const l0 = Math.hypot(node.x - a.x, node.y - a.y);
  const l1 = Math.hypot(b.x - node.x, b.y - node.y);
  if (!smooth) {
    const [s0, s1] = [loosened(p, before), loosened(p, after)];
    if (s0.k === 'cubic')
      segments[before] = { ...s0, x2: node.x + (a.x - node.x) / 3, y2: node.y + (a.y - node.y) / 3 };
    if (s1.k === 'cubic') segments[after] = { ...s1, x1: node.x + (b.x - node.x) / 3, y1: node.y + (b.y - node.y) / 3 };
    return { ...p, segments };
  }
  const d = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const [ux, uy] = [(b.x - a.x) / d, (b.y - a.y) / d];
  const curve = (i: number): Segment & { k: 'cubic' } => {
    const s = loosened(p, i);
    const from = at(p, i);
    return s.k === 'cubic'
      ? s
      : {
          k: 'cubic',
          x1: from.x + (s.x - from.x) / 3,
          y1: from.y + (s.y - from.y) / 3,
          x2: s.x + (from.x - s.x) / 3,
          y2: s.y + (from.y - s.y) / 3,
          x: s.x,
          y: s.y,
        };
  };
  segments[before] = { ...curve(before), x2: node.x - (ux * l0) / 3, y2: node.y - (uy * l0) / 3 };
  segments[after] = {
    ...(after === before ? (segments[after] as Segment & { k: 'cubic' }) : curve(after)),
    x1: node.x + (ux * l1) / 3,
    y1: node.y + (uy * l1) / 3,
  };
  return { ...p, segments };
}

/** Makes a segment straight, or a curve that starts out straight. */
export function setStraight(p: Path, segment: number, straight: boolean): Path {
  const s = p.segments[segment];
  const a = at(p, segment);
  const segments = p.segments.slice();
  segments[segment] = straight
    ? { k: 'line', x: s.x, y: s.y }
    : s.k === 'line'
      ? {
          k: 'cubic',
          x1: a.x + (s.x - a.x) / 3,
          y1: a.y + (s.y - a.y) / 3,
          x2: s.x + (a.x - s.x) / 3,
          y2: s.y + (a.y - s.y) / 3,
          x: s.x,
          y: s.y,
        }
      : s;
  return { ...p, segments };
}

/** The same loop begun at another node. */
export function startAt(p: Path, k: number): Path {
  if (!p.closed || k === 0) return p;
  return { ...p, ...nodeAt(p, k), segments: [...p.segments.slice(k), ...p.segments.slice(0, k)] };
}

/** Opens a closed path at a node, or parts an open one there. */
export function splitAt(p: Path, k: number): Path[] {
  if (p.closed) return [{ ...startAt(p, k), closed: false }];
  if (k === 0 || k === p.segments.length) return [p];
  return [
    { ...p, segments: p.segments.slice(0, k) },
    { ...p, ...nodeAt(p, k), segments: p.segments.slice(k) },
  ];
}

/** Closes an open path, by a straight side where its ends do not meet. */
export function close(p: Path): Path {
  if (p.closed) return p;
  const last = p.segments[p.segments.length - 1];
  const meets = Math.hypot(last.x - p.x, last.y - p.y) < 1e-9;
  return { ...p, closed: true, segments: meets ? p.segments : [...p.segments, { k: 'line', x: p.x, y: p.y }] };
}

/** Fewer nodes: curves fitted anew within `tolerance` mm of the path. */
export function simplify(p: Path, tolerance: number): Path {
  const points = flatten(p, Math.min(tolerance / 4, 0.01));
  if (p.closed) return fitLoop(points, { tolerance }) ?? p;
  return { ...p, segments: fitLine(points, { tolerance, corners: bends(points) }) };
}

/** Points of an open line where it turns by more than 28 degrees. */
function bends(l: Float64Array): number[] {
  const out: number[] = [];
  for (let i = 2; i + 3 < l.length; i += 2) {
    const [ux, uy, vx, vy] = [l[i] - l[i - 2], l[i + 1] - l[i - 1], l[i + 2] - l[i], l[i + 3] - l[i + 1]];
    if (Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) > 0.49) out.push(i / 2);
  }
  return out;
}

/** The segment of a path nearest to a point, where on it (0..1), and how far. */
export function nearest(
  p: Path,
  x: number,
  y: number,
): { segment: number; t: number; distance: number; x: number; y: number } {
  let best = { segment: 0, t: 0, distance: Infinity, x: p.x, y: p.y };
  p.segments.forEach((s, i) => {
    const a = at(p, i);
    const steps = s.k === 'line' ? 1 : 32;
    for (let k = 0; k < steps; k++) {
      const q0 = pointOn(a, s, k / steps);
      const q1 = pointOn(a, s, (k + 1) / steps);
      const f = nearestShare(q0.x, q0.y, q1.x, q1.y, x, y);
      const on = { x: q0.x + (q1.x - q0.x) * f, y: q0.y + (q1.y - q0.y) * f };
      const d = Math.hypot(on.x - x, on.y - y);
      if (d < best.distance) best = { segment: i, t: (k + f) / steps, distance: d, ...on };
    }
  });
  return best;
}
