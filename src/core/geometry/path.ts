import { noBox, orNull, widen, type Bounds } from './box';

/**
 * Paths of lines, circular arcs and cubics, kept exact until they are flattened for a use.
 * Points in mm. An arc is given by its end point and centre; `ccw` tells its sense.
 */
export type Segment =
  | { k: 'line'; x: number; y: number }
  | { k: 'arc'; x: number; y: number; cx: number; cy: number; ccw: boolean }
  | { k: 'cubic'; x1: number; y1: number; x2: number; y2: number; x: number; y: number };

export interface Path {
  x: number;
  y: number;
  segments: Segment[];
  closed: boolean;
}

/** A closed path whose last side is written out, where it was left to be understood. */
export function sealed(path: Path): Path {
  const last = path.segments[path.segments.length - 1];
  if (!path.closed || !last || Math.hypot(last.x - path.x, last.y - path.y) <= 1e-9) return path;
  return { ...path, segments: [...path.segments, { k: 'line', x: path.x, y: path.y }] };
}

/** A circle as two half turns, counter-clockwise. */
export const circlePath = (cx: number, cy: number, r: number): Path => ({
  x: cx + r,
  y: cy,
  segments: [
    { k: 'arc', x: cx - r, y: cy, cx, cy, ccw: true },
    { k: 'arc', x: cx + r, y: cy, cx, cy, ccw: true },
  ],
  closed: true,
});

/** x' = a x + c y + e, y' = b x + d y + f. */
export interface Affine {
  a: number;
  b: number;
  c: number;
  d: number;
  e: number;
  f: number;
}

export const identity: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** The map that undoes another. */
export const inverse = (m: Affine): Affine => {
  const d = m.a * m.d - m.b * m.c;
  return {
    a: m.d / d,
    b: -m.b / d,
    c: -m.c / d,
    d: m.a / d,
    e: (m.c * m.f - m.d * m.e) / d,
    f: (m.b * m.e - m.a * m.f) / d,
  };
};

/** The map that does `first`, then `then`. */
export const compose = (then: Affine, first: Affine): Affine => ({
  a: then.a * first.a + then.c * first.b,
  b: then.b * first.a + then.d * first.b,
  c: then.a * first.c + then.c * first.d,
  d: then.b * first.c + then.d * first.d,
  e: then.a * first.e + then.c * first.f + then.e,
  f: then.b * first.e + then.d * first.f + then.f,
});

/** Scale about the origin, then turn by degrees counter-clockwise, then move. */
export function placement(x: number, y: number, degrees: number, sx = 1, sy = sx): Affine {
  const t = (degrees * Math.PI) / 180;
  // Quarter turns stay exact.
  const cos = degrees % 180 === 90 || degrees % 180 === -90 ? 0 : Math.cos(t);
  const sin = degrees % 180 === 0 ? 0 : Math.sin(t);
  return { a: cos * sx, b: sin * sx, c: -sin * sy, d: cos * sy, e: x, f: y };
}

const mapX = (m: Affine, x: number, y: number) => m.a * x + m.c * y + m.e;
const mapY = (m: Affine, x: number, y: number) => m.b * x + m.d * y + m.f;

/** Moves a path. Arcs survive similarities; under an uneven scale they become cubics. */
export function transformPath(path: Path, m: Affine): Path {
  const even =
    Math.abs(m.a * m.a + m.b * m.b - m.c * m.c - m.d * m.d) < 1e-12 && Math.abs(m.a * m.c + m.b * m.d) < 1e-12;
  const flip = m.a * m.d - m.b * m.c < 0;
  const source = even ? path : arcsToCubics(path);
  const segments = source.segments.map((s): Segment => {
    const x = mapX(m, s.x, s.y);
    const y = mapY(m, s.x, s.y);
    if (s.k === 'line') return { k: 'line', x, y };
    if (s.k === 'arc') return { k: 'arc', x, y, cx: mapX(m, s.cx, s.cy), cy: mapY(m, s.cx, s.cy), ccw: s.ccw !== flip };
    return {
      k: 'cubic',
      x1: mapX(m, s.x1, s.y1),
      y1: mapY(m, s.x1, s.y1),
      x2: mapX(m, s.x2, s.y2),
      y2: mapY(m, s.x2, s.y2),
      x,
      y,
    };
  });
  return { x: mapX(m, source.x, source.y), y: mapY(m, source.x, source.y), segments, closed: source.closed };
}

/** Sweep of an arc in radians, positive counter-clockwise; a full turn when it ends where it starts. */
export function arcSweep(x0: number, y0: number, x1: number, y1: number, cx: number, cy: number, ccw: boolean): number {
  const full = 2 * Math.PI;
  let d = Math.atan2(y1 - cy, x1 - cx) - Math.atan2(y0 - cy, x0 - cx);
  if (ccw) {
    while (d <= 1e-12) d += full;
    while (d > full + 1e-12) d -= full;
  } else {
    while (d >= -1e-12) d -= full;
    while (d < -full - 1e-12) d += full;
  }
  return d;
}

export function arcsToCubics(path: Path): Path {
  let px = path.x;
  let py = path.y;
  const segments: Segment[] = [];
  for (const s of path.segments) {
    if (s.k === 'arc') {
      const sweep = arcSweep(px, py, s.x, s.y, s.cx, s.cy, s.ccw);
      const n = Math.ceil(Math.abs(sweep) / (Math.PI / 8));
      const step = sweep / n;
      const k = (4 / 3) * Math.tan(step / 4);
      let rx = px - s.cx;
      let ry = py - s.cy;
      for (let i = 1; i <= n; i++) {
        const c = Math.cos(step);
        const t = Math.sin(step);
        const qx = rx * c - ry * t;
        const qy = rx * t + ry * c;
        const end = i === n ? { x: s.x, y: s.y } : { x: s.cx + qx, y: s.cy + qy };
        segments.push({
          k: 'cubic',
          x1: s.cx + rx - k * ry,
          y1: s.cy + ry + k * rx,
          x2: s.cx + qx + k * qy,
          y2: s.cy + qy - k * qx,
          ...end,
        });
        rx = qx;
        ry = qy;
      }
    } else segments.push(s);
    px = s.x;
    py = s.y;
  }
  return { ...path, segments };
}

/** How many chords an arc of radius r takes so that none leaves it by more than `tolerance`, nor spans more than half a turn. */
export const arcChords = (sweep: number, r: number, tolerance: number): number =>
  Math.max(1, Math.ceil(Math.abs(sweep) / (r > tolerance ? 2 * Math.acos(1 - tolerance / r) : Math.PI / 2)));

/**
 * A path to points (x, y interleaved) whose chords stay within `tolerance` mm of it. Ends of segments
 * are kept exactly. A closed path has no repeated last point.
 *
 * Cubics use uniform steps from the second-difference bound (Wang's formula).
 */
export function flatten(path: Path, tolerance: number): Float64Array {
  const out: number[] = [path.x, path.y];
  let px = path.x;
  let py = path.y;
  for (const s of path.segments) {
    if (s.k === 'arc') {
      const r = Math.hypot(px - s.cx, py - s.cy);
      const sweep = arcSweep(px, py, s.x, s.y, s.cx, s.cy, s.ccw);
      const n = arcChords(sweep, r, tolerance);
      const a0 = Math.atan2(py - s.cy, px - s.cx);
      for (let i = 1; i < n; i++) {
        const a = a0 + (sweep * i) / n;
        out.push(s.cx + r * Math.cos(a), s.cy + r * Math.sin(a));
      }
    } else if (s.k === 'cubic') {
      const ax = px - 2 * s.x1 + s.x2;
      const ay = py - 2 * s.y1 + s.y2;
      const bx = s.x1 - 2 * s.x2 + s.x;
      const by = s.y1 - 2 * s.y2 + s.y;
      const bend = Math.sqrt(Math.max(ax * ax + ay * ay, bx * bx + by * by));
      const n = Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / tolerance)));
      for (let i = 1; i < n; i++) {
        const t = i / n;
        const u = 1 - t;
        const w0 = u * u * u;
        const w1 = 3 * u * u * t;
        const w2 = 3 * u * t * t;
        const w3 = t * t * t;
        out.push(w0 * px + w1 * s.x1 + w2 * s.x2 + w3 * s.x, w0 * py + w1 * s.y1 + w2 * s.y2 + w3 * s.y);
      }
    }
    out.push(s.x, s.y);
    px = s.x;
    py = s.y;
  }
  if (path.closed && out.length > 2 && Math.abs(px - path.x) < 1e-9 && Math.abs(py - path.y) < 1e-9) out.length -= 2;
  return Float64Array.from(out);
}

/** Exact bounds of paths: ends, and where arcs and cubics stand level or upright. Null when there are none. */
export function boundsOfPaths(paths: readonly Path[]): Bounds | null {
  const box = noBox();
  const take = (x: number, y: number) => widen(box, x, y);
  for (const p of paths) {
    take(p.x, p.y);
    let px = p.x;
    let py = p.y;
    for (const s of p.segments) {
      take(s.x, s.y);
      if (s.k === 'arc') {
        const r = Math.hypot(px - s.cx, py - s.cy);
        const a0 = Math.atan2(py - s.cy, px - s.cx);
        const sweep = arcSweep(px, py, s.x, s.y, s.cx, s.cy, s.ccw);
        for (let q = 0; q < 4; q++) {
          // Turned on from the start, counter-clockwise, by 0 to a whole turn.
          const d = ((((q * Math.PI) / 2 - a0) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
          if (sweep > 0 ? d < sweep : d - 2 * Math.PI > sweep)
            take(
              s.cx + r * Math.round(Math.cos((q * Math.PI) / 2)),
              s.cy + r * Math.round(Math.sin((q * Math.PI) / 2)),
            );
        }
      } else if (s.k === 'cubic') {
        const at = (t: number, a: number, b: number, c: number, d: number) =>
          (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t * t * c + t ** 3 * d;
        for (const [a, b, c, d] of [
          [px, s.x1, s.x2, s.x],
          [py, s.y1, s.y2, s.y],
        ])
          for (const t of quadraticRoots(d - 3 * c + 3 * b - a, 2 * (c - 2 * b + a), b - a))
            if (t > 0 && t < 1) take(at(t, px, s.x1, s.x2, s.x), at(t, py, s.y1, s.y2, s.y));
      }
      px = s.x;
      py = s.y;
    }
  }
  return orNull(box);
}

function quadraticRoots(a: number, b: number, c: number): number[] {
  if (Math.abs(a) < 1e-14) return Math.abs(b) < 1e-14 ? [] : [-c / b];
  const d = b * b - 4 * a * c;
  if (d < 0) return [];
  const q = -(b + Math.sign(b || 1) * Math.sqrt(d)) / 2;
  return q === 0 ? [0] : [q / a, c / q];
}

/** The same path run the other way. */
export function reversePath(path: Path): Path {
  const points = [{ x: path.x, y: path.y }, ...path.segments];
  const last = points[points.length - 1];
  const segments = path.segments.map((s, i): Segment => {
    const { x, y } = points[i];
    if (s.k === 'line') return { k: 'line', x, y };
    if (s.k === 'arc') return { k: 'arc', x, y, cx: s.cx, cy: s.cy, ccw: !s.ccw };
    return { k: 'cubic', x1: s.x2, y1: s.y2, x2: s.x1, y2: s.y1, x, y };
  });
  return { x: last.x, y: last.y, segments: segments.reverse(), closed: path.closed };
}

/** SVG path data of paths with so many decimals; y is not flipped. */
export function pathData(paths: readonly Path[], decimals = 4): string {
  const factor = 10 ** decimals;
  const f = (v: number) => String(Math.round(v * factor) / factor);
  let d = '';
  for (const p of paths) {
    d += `M${f(p.x)} ${f(p.y)}`;
    let px = p.x;
    let py = p.y;
    for (const s of p.segments) {
      if (s.k === 'line') d += `L${f(s.x)} ${f(s.y)}`;
      else if (s.k === 'cubic') d += `C${f(s.x1)} ${f(s.y1)} ${f(s.x2)} ${f(s.y2)} ${f(s.x)} ${f(s.y)}`;
      else {
        const r = Math.hypot(px - s.cx, py - s.cy);
        const sweep = arcSweep(px, py, s.x, s.y, s.cx, s.cy, s.ccw);
        const flag = s.ccw ? 1 : 0;
        if (Math.abs(sweep) > 6.28) {
          d += `A${f(r)} ${f(r)} 0 0 ${flag} ${f(2 * s.cx - px)} ${f(2 * s.cy - py)}A${f(r)} ${f(r)} 0 0 ${flag} ${f(s.x)} ${f(s.y)}`;
        } else d += `A${f(r)} ${f(r)} 0 ${Math.abs(sweep) > Math.PI ? 1 : 0} ${flag} ${f(s.x)} ${f(s.y)}`;
      }
      px = s.x;
      py = s.y;
    }
    if (p.closed) d += 'Z';
  }
  return d;
}
