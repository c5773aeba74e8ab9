import { makeArcLengthPath } from '../geometry/arcLengthPath';
import { reversePath, type Path, type Segment } from '../geometry/path';
import { partOf, pointOn, type Point } from '../geometry/segment';
import { beside, nodeAt } from './nodes';

/** What is made of a picked corner: an arc of a radius that runs into both sides, or a straight cut so far from it. */
export type CornerWork = 'round' | 'chamfer';

const at = (p: Path, i: number): Point => (i === 0 ? p : p.segments[i - 1]);

/** A side of the corner as it leaves it: t 0 at the corner. */
interface Side {
  readonly from: Point;
  readonly segment: Segment;
}
const place = (s: Side, t: number): Point => pointOn(s.from, s.segment, t);
function direction(s: Side, t: number): Point {
  const h = 1e-6;
  const [a, b] = [place(s, Math.max(0, t - h)), place(s, Math.min(1, t + h))];
  const d = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  return { x: (b.x - a.x) / d, y: (b.y - a.y) / d };
}

/** t at a length along a side; null beyond its end. */
function along(s: Side, length: number): number | null {
  const whole = makeArcLengthPath({ ...s.from, segments: [s.segment], closed: false }).length;
  if (length > whole * (1 + 1e-9)) return null;
  let lo = 0;
  let hi = 1;
  for (let i = 0; i < 50; i++) {
    const mid = (lo + hi) / 2;
    if (
      makeArcLengthPath({ ...s.from, segments: [partOf(s.from, s.segment, 0, mid).segment], closed: false }).length <
      length
    )
      lo = mid;
    else hi = mid;
  }
  return (lo + hi) / 2;
}

/**
 * Rounds or chamfers one corner. The arc's centre is where the two sides, moved inwards by the radius, meet: found by
 * Newton's method, exact for lines and arcs. Null when the sides are too short or do not form a corner.
 */
export function workCorner(p: Path, k: number, how: CornerWork, size: number): Path | null {
  const { before, after } = beside(p, k);
  if (before < 0 || after < 0 || before === after || !(size > 0)) return null;
  const corner = nodeAt(p, k);
  const back = reversePath({ ...at(p, before), segments: [p.segments[before]], closed: false });
  const a: Side = { from: corner, segment: back.segments[0] };
  const b: Side = { from: corner, segment: p.segments[after] };
  const [u, v] = [direction(a, 0), direction(b, 0)];
  const turn = u.x * v.y - u.y * v.x;
  const cos = u.x * v.x + u.y * v.y;
  if (Math.abs(turn) < 1e-6) return null;
  let ta: number | null;
  let tb: number | null;
  let centre: Point | null = null;
  if (how === 'chamfer') {
    ta = along(a, size);
    tb = along(b, size);
  } else {
    // Left of side b lies the inside when the corner turns left as seen from a to b.
    const sign = Math.sign(turn);
    const offA = (t: number): Point => {
      const [q, d] = [place(a, t), direction(a, t)];
      return { x: q.x - sign * d.y * size, y: q.y + sign * d.x * size };
    };
    const offB = (t: number): Point => {
      const [q, d] = [place(b, t), direction(b, t)];
      return { x: q.x + sign * d.y * size, y: q.y - sign * d.x * size };
    };
    // Straight sides touch the arc at r / tan(half the angle between them) from the corner.
    const tangent = size / Math.tan(Math.acos(Math.max(-1, Math.min(1, cos))) / 2);
    let s = along(a, tangent) ?? 0.9;
    let t = along(b, tangent) ?? 0.9;
    const h = 1e-5;
    for (let i = 0; i < 40; i++) {
      const [ca, cb] = [offA(s), offB(t)];
      const [rx, ry] = [ca.x - cb.x, ca.y - cb.y];
      if (Math.hypot(rx, ry) < 1e-11) break;
      const [da, db] = [offA(s + (s > 0.5 ? -h : h)), offB(t + (t > 0.5 ? -h : h))];
      const [ha, hb] = [s > 0.5 ? -h : h, t > 0.5 ? -h : h];
      const [ax, ay, bx, by] = [(da.x - ca.x) / ha, (da.y - ca.y) / ha, -(db.x - cb.x) / hb, -(db.y - cb.y) / hb];
      const det = ax * by - ay * bx;
      if (Math.abs(det) < 1e-14) return null;
      s -= (rx * by - ry * bx) / det;
      t -= (ax * ry - ay * rx) / det;
      if (s < -0.5 || s > 1.5 || t < -0.5 || t > 1.5) return null;
      s = Math.min(1, Math.max(0, s));
      t = Math.min(1, Math.max(0, t));
    }
    const [ca, cb] = [offA(s), offB(t)];
    if (Math.hypot(ca.x - cb.x, ca.y - cb.y) > 1e-7) return null;
    [ta, tb, centre] = [s, t, ca];
  }
  if (ta === null || tb === null || ta <= 0 || tb <= 0) return null;
  const pa = place(a, ta);
  const pb = place(b, tb);
  const first = partOf(at(p, before), p.segments[before], 0, 1 - ta).segment;
  const last = tb >= 1 ? null : partOf(corner, p.segments[after], tb, 1).segment;
  const middle: Segment = centre
    ? { k: 'arc', x: pb.x, y: pb.y, cx: centre.x, cy: centre.y, ccw: turn < 0 }
    : { k: 'line', x: pb.x, y: pb.y };
  const segments = p.segments.slice();
  const head = ta >= 1 ? [] : [{ ...first, x: pa.x, y: pa.y }];
  if (k === 0) {
    // The corner where a closed path begins: it begins where the last side then ends.
    segments[before] = head[0] ?? segments[before];
    const ends = head.length ? segments : segments.slice(0, before);
    return { ...p, x: pa.x, y: pa.y, segments: [middle, ...(last ? [last] : []), ...ends.slice(after + 1)] };
  }
  segments.splice(before, 2, ...head, middle, ...(last ? [last] : []));
  return { ...p, segments };
}
