/**
 * Corners of a traced loop. An anti-aliased corner comes back cut off over about a pixel, so straight lines are laid
 * through the points on either side, a little away from it; where they turn by more than the limit and more
 * than beside, the corner is put where they cross. It is left as it is where it would come to lie further than `most` from the
 * points, or where points that it replaces lie further than `within` from both lines.
 */
export interface Cornered {
  /** The loop with the cut-off points at corners replaced by the corner itself. */
  readonly points: Float64Array;
  /** Indices of corners in `points`. */
  readonly corners: number[];
}

/** Points nearer to a corner than this (pixels along the loop) are part of the cut. */
const CUT = 1.3;
/** The lines are laid through points up to this far from it. */
const ARM = 5.5;

export function findCorners(loop: Float64Array, degrees: number, { most = 2.5, within = Infinity } = {}): Cornered {
  const n = loop.length / 2;
  if (n < 8) return { points: loop, corners: [] };
  const s = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    s[i + 1] = s[i] + Math.hypot(loop[2 * j] - loop[2 * i], loop[2 * j + 1] - loop[2 * i + 1]);
  }
  const total = s[n];
  const arm = Math.min(ARM, total / 5);
  const limit = (degrees * Math.PI) / 180;
  const turns = new Float64Array(n);
  const lines: (Line | null)[][] = Array.from({ length: n }, () => []);
  for (let i = 0; i < n; i++) {
    const before = armLine(loop, s, i, -1, arm);
    const after = armLine(loop, s, i, 1, arm);
    lines[i] = [before, after];
    if (!before || !after) continue;
    const cross = before.dx * after.dy - before.dy * after.dx;
    const dot = before.dx * after.dx + before.dy * after.dy;
    // A round turn bends within its arms as well; what they bend by is not the corner's.
    turns[i] = Math.abs(Math.atan2(cross, dot)) - 1.5 * (before.bend + after.bend);
  }
  const corners: number[] = [];
  for (let i = 0; i < n; i++) {
    if (turns[i] < limit) continue;
    let peak = true;
    for (let k = 1; k < n / 2 && peak; k++) {
      const a = (i + k) % n;
      const b = (i - k + n) % n;
      const da = (s[a] - s[i] + total) % total;
      const db = (s[i] - s[b] + total) % total;
      if (da > arm * 0.6 && db > arm * 0.6) break;
      if ((da <= arm * 0.6 && turns[a] > turns[i]) || (db <= arm * 0.6 && turns[b] >= turns[i])) peak = false;
    }
    if (peak) corners.push(i);
  }
  if (!corners.length) return { points: loop, corners: [] };
  const drop = new Uint8Array(n);
  const at = new Map<number, { x: number; y: number }>();
  for (const i of corners) {
    const [a, b] = lines[i] as [Line, Line];
    const cross = a.dx * b.dy - a.dy * b.dx;
    const t = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / cross;
    const p = { x: a.x + a.dx * t, y: a.y + a.dy * t };
    // A sharp corner is cut off by about half a pixel over the tangent of half its angle. Lines that cross farther out
    // belong to a round tip: its own points serve better.
    const half = (Math.PI - Math.abs(Math.atan2(cross, a.dx * b.dx + a.dy * b.dy))) / 2;
    let far = Infinity;
    for (let k = -4; k <= 4; k++) {
      const q = (i + k + n) % n;
      far = Math.min(far, Math.hypot(p.x - loop[2 * q], p.y - loop[2 * q + 1]));
    }
    if (!(far < 0.5 / Math.tan(half) + 0.4) || far > most || !replaces(loop, s, i, a, b, within)) {
      at.set(i, { x: loop[2 * i], y: loop[2 * i + 1] });
      continue;
    }
    at.set(i, p);
    for (let k = 1; k < n / 4; k++) {
      const q = (i + k) % n;
      if ((s[q] - s[i] + total) % total > CUT) break;
      drop[q] = 1;
    }
    for (let k = 1; k < n / 4; k++) {
      const q = (i - k + n) % n;
      if ((s[i] - s[q] + total) % total > CUT) break;
      drop[q] = 1;
    }
  }
  const points: number[] = [];
  const found: number[] = [];
  for (let i = 0; i < n; i++) {
    const c = at.get(i);
    if (c) {
      found.push(points.length / 2);
      points.push(c.x, c.y);
    } else if (!drop[i]) points.push(loop[2 * i], loop[2 * i + 1]);
  }
  return points.length < 6 ? { points: loop, corners: [] } : { points: Float64Array.from(points), corners: found };
}

/** Whether all points that a corner would replace lie near one of its lines. */
function replaces(loop: Float64Array, s: Float64Array, i: number, a: Line, b: Line, within: number): boolean {
  if (within === Infinity) return true;
  const n = loop.length / 2;
  const total = s[n];
  const off = (l: Line, x: number, y: number) => Math.abs((x - l.x) * l.dy - (y - l.y) * l.dx);
  for (let k = -n / 4; k < n / 4; k++) {
    const q = (i + Math.round(k) + n) % n;
    const away = Math.min((s[q] - s[i] + total) % total, (s[i] - s[q] + total) % total);
    const [x, y] = [loop[2 * q], loop[2 * q + 1]];
    if (away <= CUT && Math.min(off(a, x, y), off(b, x, y)) > within) return false;
  }
  return true;
}

interface Line {
  x: number;
  y: number;
  dx: number;
  dy: number;
  /** Turn (radians) from the first to the second half of the arm. */
  bend: number;
}

/** The line through the points between CUT and `arm` along the loop on one side, running the loop's way. */
function armLine(loop: Float64Array, s: Float64Array, i: number, side: 1 | -1, arm: number): Line | null {
  const n = loop.length / 2;
  const total = s[n];
  const xs: number[] = [];
  const ys: number[] = [];
  for (let k = 1; k < n / 2; k++) {
    const q = (i + side * k + n) % n;
    const d = side > 0 ? (s[q] - s[i] + total) % total : (s[i] - s[q] + total) % total;
    if (d > arm) break;
    if (d < CUT) continue;
    xs.push(loop[2 * q]);
    ys.push(loop[2 * q + 1]);
  }
  const m = xs.length;
  if (m < 2) return null;
  const line = (from: number, to: number) => {
    let mx = 0;
    let my = 0;
    for (let k = from; k < to; k++) {
      mx += xs[k] / (to - from);
      my += ys[k] / (to - from);
    }
    let a = 0;
    let b = 0;
    let c = 0;
    for (let k = from; k < to; k++) {
      a += (xs[k] - mx) ** 2;
      b += (xs[k] - mx) * (ys[k] - my);
      c += (ys[k] - my) ** 2;
    }
    const t = Math.atan2(2 * b, a - c) / 2;
    let dx = Math.cos(t);
    let dy = Math.sin(t);
    const forward = side * (dx * (xs[to - 1] - xs[from]) + dy * (ys[to - 1] - ys[from]));
    if (forward < 0) {
      dx = -dx;
      dy = -dy;
    }
    return { x: mx, y: my, dx, dy };
  };
  const whole = line(0, m);
  let bend = 0;
  if (m >= 4) {
    const a = line(0, m >> 1);
    const b = line(m >> 1, m);
    bend = Math.abs(Math.atan2(a.dx * b.dy - a.dy * b.dx, a.dx * b.dx + a.dy * b.dy));
  }
  return { ...whole, bend: m >= 6 ? bend : bend * 0.5 };
}
