import { circlePath, reversePath, type Path, type Segment } from './path';
import { append } from '../units/append';
import { loopArea, type Loop, type Region } from './region';
import type { Point } from './segment';

/**
 * Curves through points: a chain of points becomes as few lines, arcs and cubics as stay within a tolerance of
 * every point and of every chord's middle. Corners stay; elsewhere pieces meet with a common tangent.
 *
 * Cubics are fitted by least squares with given end tangents and reparametrised by Newton's method (Schneider,
 * "An algorithm for automatically fitting digitized curves", Graphics Gems, 1990); pieces are made as long as
 * they can be by galloping instead of halving.
 */
export interface FitOptions {
  /** mm that a curve may lie away from the points. */
  readonly tolerance: number;
  /** Turn (degrees) from which a point counts as a corner whatever its neighbours do. */
  readonly corner?: number;
  /** Points to each side from which a tangent is taken: 1 for exact points, more for noisy ones. */
  readonly window?: number;
  /** Indices of points that are corners, when the caller knows them. */
  readonly corners?: readonly number[];
}

/** Loops of a region as closed paths. */
export const fitRegion = (region: Region, options: FitOptions): Path[] =>
  region.map((l) => fitLoop(l, options)).filter((p) => p !== null);

/** A loop (x, y interleaved, no repeated last point) as one closed path; null when it has fewer than three points. */
export function fitLoop(loop: Loop, options: FitOptions): Path | null {
  const n = loop.length / 2;
  if (n < 3) return null;
  const corners = options.corners ? [...options.corners] : cornersOf(loop, options.corner ?? 28);
  if (!corners.length) {
    const circle = wholeCircle(loop, options.tolerance);
    if (circle) return circle;
    // No corner: begin where the loop is straightest, which hides the joint best.
    const start = straightest(loop);
    const turned = rotate(loop, start);
    const pieces = fitSubpath(turned, n, true, options);
    return { x: turned[0], y: turned[1], segments: pieces, closed: true };
  }
  const first = corners[0];
  const turned = rotate(loop, first);
  const at = corners.map((c) => (c - first + n) % n).sort((a, b) => a - b);
  const segments: Segment[] = [];
  at.forEach((from, i) => {
    const to = i + 1 < at.length ? at[i + 1] : n;
    const part = new Float64Array(2 * (to - from + 1));
    for (let k = from; k <= to; k++) {
      part[2 * (k - from)] = turned[2 * (k % n)];
      part[2 * (k - from) + 1] = turned[2 * (k % n) + 1];
    }
    append(segments, fitSubpath(part, to - from, false, options));
  });
  return { x: turned[0], y: turned[1], segments, closed: true };
}

/** An open chain of points as segments after its first point; corners inside it are kept. */
export function fitLine(line: Float64Array, options: FitOptions): Segment[] {
  const n = line.length / 2;
  const inner = [0, ...(options.corners ?? []).filter((c) => c > 0 && c < n - 1), n - 1];
  return inner
    .slice(1)
    .flatMap((to, i) => fitSubpath(line.slice(2 * inner[i], 2 * to + 2), to - inner[i], false, options));
}

/** The circle through a loop's points (least squares after Kasa), when all lie on it within the tolerance. */
function wholeCircle(l: Loop, tolerance: number): Path | null {
  const n = l.length / 2;
  if (n < 8) return null;
  let mx = 0;
  let my = 0;
  for (let i = 0; i < n; i++) {
    mx += l[2 * i] / n;
    my += l[2 * i + 1] / n;
  }
  let suu = 0;
  let svv = 0;
  let suv = 0;
  let ru = 0;
  let rv = 0;
  for (let i = 0; i < n; i++) {
    const u = l[2 * i] - mx;
    const v = l[2 * i + 1] - my;
    suu += u * u;
    svv += v * v;
    suv += u * v;
    ru += u * (u * u + v * v);
    rv += v * (u * u + v * v);
  }
  const det = 2 * (suu * svv - suv * suv);
  if (Math.abs(det) < 1e-18) return null;
  const cx = mx + (ru * svv - rv * suv) / det;
  const cy = my + (rv * suu - ru * suv) / det;
  let r = 0;
  for (let i = 0; i < n; i++) r += Math.hypot(l[2 * i] - cx, l[2 * i + 1] - cy) / n;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    if (Math.abs(Math.hypot(l[2 * i] - cx, l[2 * i + 1] - cy) - r) > tolerance) return null;
    if (Math.abs(Math.hypot((l[2 * i] + l[2 * j]) / 2 - cx, (l[2 * i + 1] + l[2 * j + 1]) / 2 - cy) - r) > tolerance)
      return null;
  }
  const circle = circlePath(cx, cy, r);
  return loopArea(l) < 0 ? reversePath(circle) : circle;
}

function rotate(loop: Loop, start: number): Float64Array {
  const out = new Float64Array(loop.length);
  out.set(loop.subarray(2 * start));
  out.set(loop.subarray(0, 2 * start), loop.length - 2 * start);
  return out;
}

const turnAt = (l: Loop, i: number): number => {
  const n = l.length / 2;
  const a = (i + n - 1) % n;
  const b = (i + 1) % n;
  const ux = l[2 * i] - l[2 * a];
  const uy = l[2 * i + 1] - l[2 * a + 1];
  const vx = l[2 * b] - l[2 * i];
  const vy = l[2 * b + 1] - l[2 * i + 1];
  return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
};

/** Points where a loop turns sharply: beyond the angle, or far more than both neighbours do. */
function cornersOf(l: Loop, degrees: number): number[] {
  const n = l.length / 2;
  const turns = Float64Array.from({ length: n }, (_, i) => turnAt(l, i));
  const limit = (degrees * Math.PI) / 180;
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    const beside = Math.max(turns[(i + n - 1) % n], turns[(i + 1) % n]);
    if (turns[i] > limit || (turns[i] > 0.05 && turns[i] > 3 * beside)) out.push(i);
  }
  return out;
}

function straightest(l: Loop): number {
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < l.length / 2; i++) {
    const t = turnAt(l, i);
    if (t < least) {
      least = t;
      best = i;
    }
  }
  return best;
}

/** Pieces over points 0..last of a chain (for a closed one, point `last` is point 0 again). */
function fitSubpath(p: Float64Array, last: number, closed: boolean, o: FitOptions): Segment[] {
  const n = p.length / 2;
  const w = o.window ?? 1;
  const X = (i: number) => p[2 * (i % n)];
  const Y = (i: number) => p[2 * (i % n) + 1];
  const tangent = (i: number): Point => {
    const lo = closed ? i - w + n : Math.max(0, i - w);
    const hi = closed ? i + w + n : Math.min(last, i + w);
    const c = closed ? i + n : i;
    if (lo === c || hi === c) {
      // At an end: the tangent there of the parabola through three points.
      const s = lo === c ? 1 : -1;
      const far = Math.min(2 * w, last);
      const near = Math.max(1, far >> 1);
      const d1 = { x: X(i + s * near) - X(i), y: Y(i + s * near) - Y(i) };
      const d2 = { x: X(i + s * far) - X(i), y: Y(i + s * far) - Y(i) };
      const l1 = Math.hypot(d1.x, d1.y);
      const l2 = Math.hypot(d2.x, d2.y);
      // A chain that doubles back may come to the same place again.
      if (l1 === 0) return unit(s * d2.x, s * d2.y);
      if (far === near || l2 <= l1 * 1.0001) return unit(s * d1.x, s * d1.y);
      return unit(s * ((d1.x / l1) * l2 - (d2.x / l2) * l1), s * ((d1.y / l1) * l2 - (d2.y / l2) * l1));
    }
    const ax = X(c) - X(lo);
    const ay = Y(c) - Y(lo);
    const bx = X(hi) - X(c);
    const by = Y(hi) - Y(c);
    const la = Math.hypot(ax, ay) || 1e-12;
    const lb = Math.hypot(bx, by) || 1e-12;
    return unit((ax / la) * lb + (bx / lb) * la, (ay / la) * lb + (by / lb) * la);
  };
  const out: Segment[] = [];
  let from = 0;
  while (from < last) {
    const reach = (fits: (to: number) => Segment | null): { to: number; segment: Segment | null } => {
      let good = from;
      let segment: Segment | null = null;
      let step = 1;
      let bad = last + 1;
      for (;;) {
        const to = Math.min(last, good + step);
        if (to === good || to >= bad) break;
        const s = fits(to);
        if (s) {
          good = to;
          segment = s;
          step *= 2;
          if (good === last) break;
        } else {
          bad = to;
          break;
        }
      }
      while (bad - good > 1) {
        const mid = (good + bad) >> 1;
        const s = fits(mid);
        if (s) {
          good = mid;
          segment = s;
        } else bad = mid;
      }
      return { to: good, segment };
    };
    const line = reach((to) => (lineFits(X, Y, from, to, o.tolerance) ? { k: 'line', x: X(to), y: Y(to) } : null));
    const arc = line.to === last ? line : reach((to) => arcWithin(X, Y, from, to, o.tolerance, closed));
    const t0 = tangent(from);
    const cubic =
      line.to === last || arc.to === last
        ? line
        : reach((to) =>
            to - from < 2
              ? { k: 'line', x: X(to), y: Y(to) }
              : cubicWithin(X, Y, from, to, t0, tangent(to), o.tolerance),
          );
    // The simplest piece that goes (almost) as far as any.
    const best =
      line.to >= cubic.to && line.to >= arc.to
        ? line
        : arc.to >= cubic.to && arc.to - from >= 3
          ? arc
          : cubic.to > line.to
            ? cubic
            : line;
    out.push(best.segment ?? { k: 'line', x: X(from + 1), y: Y(from + 1) });
    from = Math.max(best.to, from + 1);
  }
  return out;
}

const unit = (x: number, y: number): Point => {
  const l = Math.hypot(x, y) || 1;
  return { x: x / l, y: y / l };
};

type At = (i: number) => number;

function lineFits(X: At, Y: At, from: number, to: number, tolerance: number): boolean {
  const dx = X(to) - X(from);
  const dy = Y(to) - Y(from);
  const l = Math.hypot(dx, dy);
  if (!(l > 0)) return to - from < 2;
  // A straight side is not bent to take up the first steps of the round that follows it.
  let longest = 0;
  for (let i = from; i < to; i++) longest = Math.max(longest, Math.hypot(X(i + 1) - X(i), Y(i + 1) - Y(i)));
  if (longest > 0.7 * l) tolerance *= 0.02;
  for (let i = from + 1; i < to; i++) {
    const vx = X(i) - X(from);
    const vy = Y(i) - Y(from);
    const along = (vx * dx + vy * dy) / l;
    if (along < -tolerance || along > l + tolerance || Math.abs(vx * dy - vy * dx) > tolerance * l) return false;
  }
  return true;
}

/** An arc through both ends and, on average, the points between. */
function arcWithin(X: At, Y: At, from: number, to: number, tolerance: number, closed: boolean): Segment | null {
  if (to - from < 2) return { k: 'line', x: X(to), y: Y(to) };
  const x0 = X(from);
  const y0 = Y(from);
  const x1 = X(to);
  const y1 = Y(to);
  const dx = x1 - x0;
  const dy = y1 - y0;
  const l = Math.hypot(dx, dy);
  // A whole turn has no chord to hang on; half of it is found first, and the rest by the next piece.
  if (l < 1e-9 || (closed && l < 4 * tolerance)) return null;
  const nx = -dy / l;
  const ny = dx / l;
  // The centre lies on the chord's bisector, at h: each point gives |p|^2 - (l/2)^2 = 2 h v; h by least squares.
  let vv = 0;
  let vk = 0;
  for (let i = from + 1; i < to; i++) {
    const px = X(i) - (x0 + x1) / 2;
    const py = Y(i) - (y0 + y1) / 2;
    const v = px * nx + py * ny;
    vv += v * v;
    vk += v * (px * px + py * py - (l * l) / 4);
  }
  if (vv < 1e-18) return null;
  const h = vk / vv / 2;
  const r = Math.hypot(h, l / 2);
  if (!(r < 1e5)) return null;
  const cx = (x0 + x1) / 2 + h * nx;
  const cy = (y0 + y1) / 2 + h * ny;
  const a0 = Math.atan2(y0 - cy, x0 - cx);
  const mid = (from + to) >> 1;
  const ccw = (X(mid) - x0) * (y1 - Y(mid)) - (Y(mid) - y0) * (x1 - X(mid)) > 0;
  const turn = (x: number, y: number) => {
    let d = Math.atan2(y - cy, x - cx) - a0;
    if (!ccw) d = -d;
    while (d < -1e-9) d += 2 * Math.PI;
    return d;
  };
  const whole = turn(x1, y1);
  let before = 0;
  for (let i = from; i < to; i++) {
    const qx = X(i + 1);
    const qy = Y(i + 1);
    if (Math.abs(Math.hypot(qx - cx, qy - cy) - r) > tolerance) return null;
    const mx = (X(i) + qx) / 2;
    const my = (Y(i) + qy) / 2;
    if (Math.abs(Math.hypot(mx - cx, my - cy) - r) > tolerance) return null;
    const t = i + 1 === to ? whole : turn(qx, qy);
    if (t < before - 1e-6 || t > whole + 1e-6) return null;
    before = t;
  }
  return { k: 'arc', x: x1, y: y1, cx, cy, ccw };
}

/** A cubic with given end tangents (both along the way of the points), or null when it cannot keep the tolerance. */
function cubicWithin(X: At, Y: At, from: number, to: number, t0: Point, t1: Point, tolerance: number): Segment | null {
  const n = to - from;
  const x0 = X(from);
  const y0 = Y(from);
  const x3 = X(to);
  const y3 = Y(to);
  const u = new Float64Array(n + 1);
  for (let i = 1; i <= n; i++)
    u[i] = u[i - 1] + Math.hypot(X(from + i) - X(from + i - 1), Y(from + i) - Y(from + i - 1));
  const length = u[n];
  if (!(length > 0)) return null;
  for (let i = 1; i <= n; i++) u[i] /= length;
  let alpha = length / 3;
  let beta = length / 3;
  for (let round = 0; round < 5; round++) {
    let c00 = 0;
    let c01 = 0;
    let c11 = 0;
    let r0 = 0;
    let r1 = 0;
    for (let i = 1; i < n; i++) {
      const t = u[i];
      const s = 1 - t;
      const b0 = s * s * s;
      const b1 = 3 * s * s * t;
      const b2 = 3 * s * t * t;
      const b3 = t * t * t;
      const ax = t0.x * b1;
      const ay = t0.y * b1;
      const bx = -t1.x * b2;
      const by = -t1.y * b2;
      const dx = X(from + i) - (x0 * (b0 + b1) + x3 * (b2 + b3));
      const dy = Y(from + i) - (y0 * (b0 + b1) + y3 * (b2 + b3));
      c00 += ax * ax + ay * ay;
      c01 += ax * bx + ay * by;
      c11 += bx * bx + by * by;
      r0 += ax * dx + ay * dy;
      r1 += bx * dx + by * dy;
    }
    const det = c00 * c11 - c01 * c01;
    if (Math.abs(det) > 1e-12 * c00 * c11 && c00 > 0) {
      alpha = (r0 * c11 - r1 * c01) / det;
      beta = (c00 * r1 - c01 * r0) / det;
    }
    // Handles that turn back or run away stand for no curve that a maker would draw.
    if (!(alpha > 1e-3 * length) || !(beta > 1e-3 * length) || alpha > 1.5 * length || beta > 1.5 * length) {
      if (round) return null;
      alpha = beta = length / 3;
    }
    const x1 = x0 + alpha * t0.x;
    const y1 = y0 + alpha * t0.y;
    const x2 = x3 - beta * t1.x;
    const y2 = y3 - beta * t1.y;
    // Between two points the curve keeps to their chord.
    const betweenFits = () => {
      for (let i = 0; i < n; i++) {
        const ax = X(from + i);
        const ay = Y(from + i);
        const ex = X(from + i + 1) - ax;
        const ey = Y(from + i + 1) - ay;
        const l = Math.hypot(ex, ey);
        if (l < 4 * tolerance) continue;
        for (const f of [0.25, 0.5, 0.75]) {
          const t = u[i] + (u[i + 1] - u[i]) * f;
          const s = 1 - t;
          const qx = s * s * s * x0 + 3 * s * s * t * x1 + 3 * s * t * t * x2 + t * t * t * x3;
          const qy = s * s * s * y0 + 3 * s * s * t * y1 + 3 * s * t * t * y2 + t * t * t * y3;
          if (Math.abs((qx - ax) * ey - (qy - ay) * ex) > tolerance * l) return false;
        }
      }
      return true;
    };
    let worst = 0;
    for (let i = 1; i < n; i++) {
      const px = X(from + i);
      const py = Y(from + i);
      // One Newton step towards the foot of the point.
      const t = u[i];
      const s = 1 - t;
      const qx = s * s * s * x0 + 3 * s * s * t * x1 + 3 * s * t * t * x2 + t * t * t * x3;
      const qy = s * s * s * y0 + 3 * s * s * t * y1 + 3 * s * t * t * y2 + t * t * t * y3;
      const vx = 3 * (s * s * (x1 - x0) + 2 * s * t * (x2 - x1) + t * t * (x3 - x2));
      const vy = 3 * (s * s * (y1 - y0) + 2 * s * t * (y2 - y1) + t * t * (y3 - y2));
      const wx = 6 * (s * (x2 - 2 * x1 + x0) + t * (x3 - 2 * x2 + x1));
      const wy = 6 * (s * (y2 - 2 * y1 + y0) + t * (y3 - 2 * y2 + y1));
      const speed = vx * vx + vy * vy;
      const down = speed + (qx - px) * wx + (qy - py) * wy;
      const step = down > 1e-12 ? ((qx - px) * vx + (qy - py) * vy) / down : 0;
      u[i] = Math.min(1, Math.max(0, t - step));
      // Distance across the curve; what is along it is mended by the step.
      const across =
        speed > 0 ? Math.abs((qx - px) * vy - (qy - py) * vx) / Math.sqrt(speed) : Math.hypot(qx - px, qy - py);
      // What is no number fits nothing.
      if (!(across <= worst)) worst = across;
    }
    if (worst <= tolerance && round > 0 && betweenFits()) return { k: 'cubic', x1, y1, x2, y2, x: x3, y: y3 };
    if (worst > 60 * tolerance && round > 1) return null;
  }
  return null;
}
