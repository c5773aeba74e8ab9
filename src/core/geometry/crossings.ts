import { sealed, type Path, type Segment } from './path';
import { pointOn, type Point } from './segment';

/** A place where a path meets another one: segment and t on the path. */
export interface Crossing extends Point {
  readonly segment: number;
  readonly t: number;
}

/** Chords of a curved segment while looking for crossings; found places are then made exact by Newton's steps. */
const CHORDS = 24;

interface Chord {
  readonly a: Point;
  readonly s: Segment;
  readonly index: number;
  readonly t0: number;
  readonly t1: number;
  readonly p: Point;
  readonly q: Point;
}

function chordsOf(path: Path): Chord[] {
  const out: Chord[] = [];
  let a: Point = { x: path.x, y: path.y };
  sealed(path).segments.forEach((s, index) => {
    const n = s.k === 'line' ? 1 : CHORDS;
    let p: Point = a;
    for (let i = 0; i < n; i++) {
      const q = pointOn(a, s, (i + 1) / n);
      out.push({ a, s, index, t0: i / n, t1: (i + 1) / n, p, q });
      p = q;
    }
    a = { x: s.x, y: s.y };
  });
  return out;
}

/** Both t of a crossing of two segments, from a first guess; null when the steps do not settle. */
function refine(c: Chord, d: Chord, t: number, u: number): { t: number; u: number } | null {
  const h = 1e-6;
  const inside = (v: number) => Math.min(1, Math.max(0, v));
  for (let i = 0; i < 12; i++) {
    const p = pointOn(c.a, c.s, t);
    const q = pointOn(d.a, d.s, u);
    const [rx, ry] = [p.x - q.x, p.y - q.y];
    if (Math.hypot(rx, ry) < 1e-10) return { t, u };
    const slope = (e: Chord, at: number): Point => {
      const lo = Math.max(0, at - h);
      const hi = Math.min(1, at + h);
      const [m, n] = [pointOn(e.a, e.s, lo), pointOn(e.a, e.s, hi)];
      return { x: (n.x - m.x) / (hi - lo), y: (n.y - m.y) / (hi - lo) };
    };
    const [v, w] = [slope(c, t), slope(d, u)];
    const det = -v.x * w.y + v.y * w.x;
    if (Math.abs(det) < 1e-14) return null;
    t = inside(t - (-rx * w.y + ry * w.x) / det);
    u = inside(u + (v.x * -ry + v.y * rx) / det);
  }
  const p = pointOn(c.a, c.s, t);
  const q = pointOn(d.a, d.s, u);
  return Math.hypot(p.x - q.x, p.y - q.y) < 1e-6 ? { t, u } : null;
}

/** Where a path crosses or touches others, or itself, along it: sorted, each once. */
export function crossingsOf(path: Path, others: readonly Path[]): Crossing[] {
  const mine = chordsOf(path);
  const found: Crossing[] = [];
  const offer = (c: Chord, t: number) => {
    const p = pointOn(c.a, c.s, t);
    if (!found.some((f) => Math.hypot(f.x - p.x, f.y - p.y) < 1e-7 && Math.abs(f.segment + f.t - c.index - t) < 1e-3))
      found.push({ segment: c.index, t, x: p.x, y: p.y });
  };
  const meet = (c: Chord, d: Chord, own: boolean) => {
    const eps = 1e-9;
    if (
      Math.min(c.p.x, c.q.x) > Math.max(d.p.x, d.q.x) + eps ||
      Math.max(c.p.x, c.q.x) < Math.min(d.p.x, d.q.x) - eps ||
      Math.min(c.p.y, c.q.y) > Math.max(d.p.y, d.q.y) + eps ||
      Math.max(c.p.y, c.q.y) < Math.min(d.p.y, d.q.y) - eps
    )
      return;
    const [ex, ey, fx, fy] = [c.q.x - c.p.x, c.q.y - c.p.y, d.q.x - d.p.x, d.q.y - d.p.y];
    const det = ex * fy - ey * fx;
    if (Math.abs(det) < 1e-14) return;
    const t = ((d.p.x - c.p.x) * fy - (d.p.y - c.p.y) * fx) / det;
    const u = ((d.p.x - c.p.x) * ey - (d.p.y - c.p.y) * ex) / det;
    const slack = 1e-3;
    if (t < -slack || t > 1 + slack || u < -slack || u > 1 + slack) return;
    const r = refine(c, d, c.t0 + (c.t1 - c.t0) * t, d.t0 + (d.t1 - d.t0) * u);
    if (!r) return;
    // Neighbours on one path always meet at their common end.
    if (own && c.index === d.index && Math.abs(r.t - r.u) < 1e-4) return;
    if (own && Math.abs(r.t + c.index - r.u - d.index) < 1e-6) return;
    offer(c, r.t);
    if (own) offer(d, r.u);
  };
  for (const o of others) {
    const theirs = chordsOf(o);
    for (const c of mine) for (const d of theirs) meet(c, d, false);
  }
  const ends = mine.length;
  for (let i = 0; i < ends; i++)
    for (let j = i + 2; j < ends; j++) if (!(path.closed && i === 0 && j === ends - 1)) meet(mine[i], mine[j], true);
  return found.sort((a, b) => a.segment + a.t - b.segment - b.t);
}
