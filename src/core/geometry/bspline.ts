import type { Path, Segment } from './path';
import type { Point } from './segment';

/**
 * A B-spline curve to a path: degree up to 3 without weights exactly, as cubics, by inserting knots until every
 * span is a Bezier curve (Boehm, "Inserting new knots into B-spline curves", 1980); others as chords that stay
 * within `tolerance` mm. Null when knots and points do not fit each other.
 */
export function splinePath(
  degree: number,
  knots: readonly number[],
  points: readonly Point[],
  weights: readonly number[] | null,
  tolerance: number,
): Path | null {
  const n = points.length;
  if (degree < 1 || degree > 10 || n < degree + 1 || knots.length !== n + degree + 1 || !knots.every(Number.isFinite))
    return null;
  for (let i = 1; i < knots.length; i++) if (knots[i] < knots[i - 1]) return null;
  const rational = weights !== null && weights.length === n && weights.some((w) => Math.abs(w - weights[0]) > 1e-12);
  if (degree > 3 || rational) return sampled(degree, knots, points, rational ? weights : null, tolerance);
  const u = knots.slice();
  const p = points.map((q) => ({ ...q }));
  // Raise every inner knot within the curve's range, and its ends, to full multiplicity.
  const insert = (t: number) => {
    let k = degree;
    while (k < u.length - degree - 2 && u[k + 1] <= t) k++;
    const next: Point[] = [];
    for (let i = 0; i <= p.length; i++) {
      if (i <= k - degree) next.push(p[i]);
      else if (i > k) next.push(p[i - 1]);
      else {
        const a = u[i + degree] > u[i] ? (t - u[i]) / (u[i + degree] - u[i]) : 0;
        next.push({ x: p[i - 1].x + (p[i].x - p[i - 1].x) * a, y: p[i - 1].y + (p[i].y - p[i - 1].y) * a });
      }
    }
    p.splice(0, p.length, ...next);
    u.splice(k + 1, 0, t);
  };
  const from = knots[degree];
  const to = knots[n];
  const count = (t: number) => u.filter((v) => v === t).length;
  for (const t of [...new Set(knots.filter((v) => v >= from && v <= to))])
    for (let have = count(t); have < degree; have++) insert(t);
  // The Bezier spans begin where the first knot of the range has its full multiplicity.
  const first = u.lastIndexOf(from) - degree;
  const spans = [...new Set(u.filter((v) => v >= from && v <= to))].length - 1;
  const start = p[first];
  if (!start || !p[first + spans * degree]) return null;
  const segments: Segment[] = [];
  for (let s = 0; s < spans; s++) {
    const at = (i: number) => p[first + s * degree + i];
    if (degree === 1) segments.push({ k: 'line', ...at(1) });
    else if (degree === 2) {
      const [a, b, c] = [at(0), at(1), at(2)];
      segments.push({
        k: 'cubic',
        x1: a.x + (2 / 3) * (b.x - a.x),
        y1: a.y + (2 / 3) * (b.y - a.y),
        x2: c.x + (2 / 3) * (b.x - c.x),
        y2: c.y + (2 / 3) * (b.y - c.y),
        x: c.x,
        y: c.y,
      });
    } else segments.push({ k: 'cubic', x1: at(1).x, y1: at(1).y, x2: at(2).x, y2: at(2).y, x: at(3).x, y: at(3).y });
  }
  return { x: start.x, y: start.y, segments, closed: false };
}

/** De Boor's algorithm at t. */
export function splinePoint(
  degree: number,
  knots: readonly number[],
  points: readonly Point[],
  weights: readonly number[] | null,
  t: number,
): Point {
  let k = degree;
  while (k < points.length - 1 && knots[k + 1] <= t) k++;
  const d = Array.from({ length: degree + 1 }, (_, j) => {
    const i = j + k - degree;
    const w = weights ? weights[i] : 1;
    return { x: points[i].x * w, y: points[i].y * w, w };
  });
  for (let r = 1; r <= degree; r++)
    for (let j = degree; j >= r; j--) {
      const i = j + k - degree;
      const span = knots[i + degree - r + 1] - knots[i];
      const a = span > 0 ? (t - knots[i]) / span : 0;
      d[j] = {
        x: d[j - 1].x + (d[j].x - d[j - 1].x) * a,
        y: d[j - 1].y + (d[j].y - d[j - 1].y) * a,
        w: d[j - 1].w + (d[j].w - d[j - 1].w) * a,
      };
    }
  return { x: d[degree].x / d[degree].w, y: d[degree].y / d[degree].w };
}

function sampled(
  degree: number,
  knots: readonly number[],
  points: readonly Point[],
  weights: readonly number[] | null,
  tolerance: number,
): Path {
  const from = knots[degree];
  const to = knots[points.length];
  const at = (t: number) => splinePoint(degree, knots, points, weights, t);
  const start = at(from);
  const segments: Segment[] = [];
  const halve = (t0: number, a: Point, t1: number, b: Point, depth: number): void => {
    const tm = (t0 + t1) / 2;
    const m = at(tm);
    const l = Math.hypot(b.x - a.x, b.y - a.y);
    const off =
      l > 0 ? Math.abs((b.x - a.x) * (m.y - a.y) - (b.y - a.y) * (m.x - a.x)) / l : Math.hypot(m.x - a.x, m.y - a.y);
    if (depth < 4 || (off > tolerance / 2 && depth < 16)) {
      halve(t0, a, tm, m, depth + 1);
      halve(tm, m, t1, b, depth + 1);
    } else segments.push({ k: 'line', ...b });
  };
  const inner = [...new Set(knots.filter((t) => t > from && t < to)), to];
  let t0 = from;
  let a = start;
  for (const t1 of inner) {
    const b = at(t1);
    halve(t0, a, t1, b, 0);
    t0 = t1;
    a = b;
  }
  return { ...start, segments, closed: false };
}
