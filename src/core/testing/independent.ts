/**
 * A machine written for the tests alone. It shares nothing with the planner, the writer, the parser or
 * the proof: its own reader of program text, its own removal by golden section over each move.
 */
export interface TestMove {
  tool: number;
  rapid: boolean;
  a: [number, number, number];
  b: [number, number, number];
}

/** Reads G0-G3 lines of a metric or inch program into straight moves; arcs as chords that stand off no more than `sagitta` mm. */
export function readMoves(text: string, sagitta = 0.0003): TestMove[] {
  const moves: TestMove[] = [];
  let at: [number, number, number] | null = null;
  let mode = 0;
  let tool = 0;
  let unit = 1;
  for (const raw of text.split('\n')) {
    const line = raw.replace(/\([^)]*\)/g, '').trim();
    if (!line) continue;
    const words = new Map<string, number>();
    for (const w of line.matchAll(/([A-Z])\s*(-?[\d.]+)/g)) {
      const v = Number(w[2]);
      if (w[1] === 'G') {
        if (v <= 3) mode = v;
        if (v === 20) unit = 25.4;
        if (v === 21) unit = 1;
      } else words.set(w[1], v);
    }
    if (words.has('T')) tool = words.get('T')!;
    if (!['X', 'Y', 'Z', 'I', 'J'].some((k) => words.has(k))) continue;
    const from = at ?? [0, 0, 1e3];
    const to = (['X', 'Y', 'Z'] as const).map((k, i) => (words.has(k) ? words.get(k)! * unit : from[i])) as [
      number,
      number,
      number,
    ];
    if (mode <= 1) moves.push({ tool, rapid: mode === 0, a: from, b: to });
    else {
      const cx = from[0] + (words.get('I') ?? 0) * unit;
      const cy = from[1] + (words.get('J') ?? 0) * unit;
      const r = Math.hypot(from[0] - cx, from[1] - cy);
      let turn = Math.atan2(to[1] - cy, to[0] - cx) - Math.atan2(from[1] - cy, from[0] - cx);
      if (mode === 3 && turn <= 1e-9) turn += 2 * Math.PI;
      if (mode === 2 && turn >= -1e-9) turn -= 2 * Math.PI;
      const n = Math.max(2, Math.ceil(Math.abs(turn) / Math.sqrt((8 * sagitta) / Math.max(r, 0.01))));
      const start = Math.atan2(from[1] - cy, from[0] - cx);
      let p = from;
      for (let k = 1; k <= n; k++) {
        const q: [number, number, number] =
          k === n
            ? to
            : [
                cx + r * Math.cos(start + (turn * k) / n),
                cy + r * Math.sin(start + (turn * k) / n),
                from[2] + ((to[2] - from[2]) * k) / n,
              ];
        moves.push({ tool, rapid: false, a: p, b: q });
        p = q;
      }
    }
    at = to;
  }
  return moves;
}

/** Height of a cutter above its tip at a distance from its axis; Infinity beyond its radius. Must be convex. */
export interface TestCutter {
  radius: number;
  profile: (rho: number) => number;
}

export const testCone = (includedAngle: number, tipDiameter: number, diameter: number): TestCutter => {
  const per = 1 / Math.tan((includedAngle * Math.PI) / 360);
  return {
    radius: diameter / 2,
    profile: (rho) => (rho > diameter / 2 + 1e-9 ? Infinity : Math.max(0, (rho - tipDiameter / 2) * per)),
  };
};
/** Profiles of the other shapes, each from its own definition: a sphere, a sphere that passes into a cone, a disc with a rounded rim. */
export const testBall = (diameter: number): TestCutter => {
  const r = diameter / 2;
  return { radius: r, profile: (rho) => (rho > r ? Infinity : r - Math.sqrt(r * r - rho * rho)) };
};
export const testBull = (diameter: number, corner: number): TestCutter => {
  const r = diameter / 2;
  return {
    radius: r,
    profile: (rho) =>
      rho > r
        ? Infinity
        : rho <= r - corner
          ? 0
          : corner - Math.sqrt(Math.max(0, corner ** 2 - (rho - r + corner) ** 2)),
  };
};
export const testTapered = (diameter: number, tipRadius: number, halfAngleDegrees: number): TestCutter => {
  const a = (halfAngleDegrees * Math.PI) / 180;
  // The cone touches the sphere where the sphere's radius leans by the half angle.
  const rho0 = tipRadius * Math.cos(a);
  const h0 = tipRadius - tipRadius * Math.sin(a);
  return {
    radius: diameter / 2,
    profile: (rho) =>
      rho > diameter / 2
        ? Infinity
        : rho <= rho0
          ? tipRadius - Math.sqrt(tipRadius ** 2 - rho * rho)
          : h0 + (rho - rho0) / Math.tan(a),
  };
};
/** Any cutter of a library by the name of its shape and its values. */
export function testShape(shape: string, v: Record<string, number>): TestCutter {
  switch (shape) {
    case 'flat':
      return testFlat(v.diameter);
    case 'ball':
      return testBall(v.diameter);
    case 'bull':
      return testBull(v.diameter, v.cornerRadius);
    case 'v':
      return testCone(v.includedAngle, v.tipDiameter, v.diameter);
    case 'cone':
      return testCone(2 * v.halfAngle, v.tipDiameter, v.diameter);
    case 'taperedBall':
      return testTapered(v.diameter, v.tipRadius, v.halfAngle);
    case 'drag':
      return testTapered(v.diameter, v.tipRadius, v.includedAngle / 2);
    case 'drill':
      return v.includedAngle >= 180 ? testFlat(v.diameter) : testCone(v.includedAngle, 0, v.diameter);
    default:
      throw new Error(`The tests know no cutter called ${shape}.`);
  }
}
export const testFlat = (diameter: number): TestCutter => ({
  radius: diameter / 2,
  profile: (rho) => (rho > diameter / 2 ? Infinity : 0),
});

/** Points at which heights are followed, in order of x. */
export interface Cloud {
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
}

/** A seeded scatter over a rectangle, and as many points again within `near` mm of the outline. */
export function scatter(loops: readonly Float64Array[], count: number, margin: number, near: number, seed = 1): Cloud {
  let state = seed >>> 0;
  const random = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
  const all = loops.flatMap((l) => [...l]);
  const xs = all.filter((_, i) => i % 2 === 0);
  const ys = all.filter((_, i) => i % 2 === 1);
  const x0 = xs.reduce((m, v) => Math.min(m, v)) - margin;
  const x1 = xs.reduce((m, v) => Math.max(m, v)) + margin;
  const y0 = ys.reduce((m, v) => Math.min(m, v)) - margin;
  const y1 = ys.reduce((m, v) => Math.max(m, v)) + margin;
  const points: [number, number][] = [];
  for (let i = 0; i < count; i++) points.push([x0 + (x1 - x0) * random(), y0 + (y1 - y0) * random()]);
  for (let i = 0; i < count; i++) {
    const l = loops[Math.floor(random() * loops.length)];
    const k = 2 * Math.floor((random() * l.length) / 2);
    const j = (k + 2) % l.length;
    const f = random();
    points.push([
      l[k] + (l[j] - l[k]) * f + (random() - 0.5) * 2 * near,
      l[k + 1] + (l[j + 1] - l[k + 1]) * f + (random() - 0.5) * 2 * near,
    ]);
  }
  points.sort((p, q) => p[0] - q[0]);
  return {
    x: Float64Array.from(points, (p) => p[0]),
    y: Float64Array.from(points, (p) => p[1]),
    z: new Float64Array(points.length),
  };
}

const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Nobody asks for less than so much of a height, mm. */
const NOTHING = 1e-6;

/**
 * The least of a convex function between two places, ends included: golden section, until it can be no lower than what was seen by more
 * than a nanometre. Beyond two places it lies above the line through them. What is no lower than `seen` is not looked for.
 *
 *     a        p    q      b      where p is not higher than q: from a to p above the line through p and q,
 *      \ .              . /       from p to q above that through a and p
 *          ` o . . o '
 */
export function lowest(at: (s: number) => number, from: number, to: number, seen = Infinity): number {
  let a = from;
  let b = to;
  let za = at(from);
  let zb = at(to);
  // The least of all that was looked at: beyond a flat cutter's rim the function is infinite right beside its least.
  let least = Math.min(seen, za, zb);
  let p = b - (b - a) * GOLDEN;
  let q = a + (b - a) * GOLDEN;
  let zp = at(p);
  let zq = at(q);
  // 0.618^34 is 8e-8 of the way: under a nanometre, as steep as a cutter may be, for moves of some millimetres.
  for (let k = 0; k < 34; k++) {
    least = Math.min(least, zp, zq);
    if (zp < zq) {
      const below = Math.max(((zq - zp) * (p - a)) / (q - p), ((za - zp) * (q - p)) / (p - a));
      if (zp - below > least - NOTHING) break;
      b = q;
      zb = zq;
      q = p;
      zq = zp;
      p = b - (b - a) * GOLDEN;
      zp = at(p);
    } else {
      const below = Math.max(((zp - zq) * (b - q)) / (q - p), ((zb - zq) * (q - p)) / (b - q));
      if (zq - below > least - NOTHING) break;
      a = p;
      za = zp;
      p = q;
      zp = zq;
      q = a + (b - a) * GOLDEN;
      zq = at(q);
    }
  }
  return Math.min(least, zp, zq);
}

/** How far from its axis a cutter cuts whose tip is at `low`, the face being at 0. */
export function widthAt(cutter: TestCutter, low: number): number {
  if (low + cutter.profile(cutter.radius) <= 0) return cutter.radius;
  let inside = 0;
  let outside = cutter.radius;
  for (let k = 0; k < 50; k++) {
    const mid = (inside + outside) / 2;
    if (low + cutter.profile(mid) < 0) inside = mid;
    else outside = mid;
  }
  return outside;
}

/** A cloud's points in strips along X, each in order of x: numbers of points, and where each strip begins among them. */
interface Strips {
  readonly y0: number;
  readonly height: number;
  readonly points: Int32Array;
  readonly firsts: Int32Array;
}
/** So many points in a strip, about. */
const IN_STRIP = 60;
const strips = new WeakMap<Cloud, Strips>();

function stripsOf(g: Cloud): Strips {
  const kept = strips.get(g);
  if (kept) return kept;
  const y0 = g.y.reduce((m, v) => Math.min(m, v), Infinity);
  const y1 = g.y.reduce((m, v) => Math.max(m, v), -Infinity);
  const count = Math.max(1, Math.ceil(g.x.length / IN_STRIP));
  const height = Math.max(1e-9, (y1 - y0) / count);
  const strip = (i: number) => Math.min(count - 1, Math.floor((g.y[i] - y0) / height));
  const firsts = new Int32Array(count + 1);
  for (let i = 0; i < g.x.length; i++) firsts[strip(i) + 1]++;
  for (let k = 0; k < count; k++) firsts[k + 1] += firsts[k];
  const next = firsts.slice();
  const points = new Int32Array(g.x.length);
  for (let i = 0; i < g.x.length; i++) points[next[strip(i)]++] = i;
  const made = { y0, height, points, firsts };
  strips.set(g, made);
  return made;
}

const lowOf = (m: TestMove) => Math.min(m.a[2], m.b[2]);

/**
 * The moves that cut below the face, the lowest first. What is left is the least over all of them, in whatever order; where the
 * lowest have been, most others need not be looked at.
 */
export const lowestFirst = (moves: readonly TestMove[]): TestMove[] =>
  moves.filter((m) => lowOf(m) < 0).sort((m, n) => lowOf(m) - lowOf(n));

/** Cuts moves out of the cloud: each point takes the least of z(t) + profile(distance) over each move. */
export function cutOut(g: Cloud, moves: readonly TestMove[], cutters: Record<number, TestCutter>): void {
  const { y0, height, points, firsts } = stripsOf(g);
  const last = firsts.length - 2;
  const strip = (y: number) => Math.min(last, Math.max(0, Math.floor((y - y0) / height)));
  /** The first point of a strip that is not left of x. */
  const from = (k: number, x: number) => {
    let lo = firsts[k];
    let hi = firsts[k + 1];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (g.x[points[mid]] < x) lo = mid + 1;
      else hi = mid;
    }
    return lo;
  };
  for (const m of lowestFirst(moves)) {
    const low = lowOf(m);
    const cutter = cutters[m.tool];
    if (!cutter) throw new Error(`The program cuts with tool ${m.tool}.`);
    const R = widthAt(cutter, low);
    const least = leastOver(m, cutter, low, R);
    const left = Math.min(m.a[0], m.b[0]) - R;
    const right = Math.max(m.a[0], m.b[0]) + R;
    const upper = strip(Math.max(m.a[1], m.b[1]) + R);
    for (let k = strip(Math.min(m.a[1], m.b[1]) - R); k <= upper; k++)
      for (let n = from(k, left); n < firsts[k + 1] && g.x[points[n]] <= right; n++) {
        const i = points[n];
        if (low < g.z[i]) g.z[i] = least(g.x[i], g.y[i], g.z[i]);
      }
  }
}

/**
 * How low a move leaves a place (x, y) at least; `z` where it cannot be lower than that. `low` is the lowest tip of the move, and
 * the cutter cuts as far from its axis as `reach`.
 */
export function leastOver(
  { a, b }: Pick<TestMove, 'a' | 'b'>,
  cutter: TestCutter,
  low: number,
  reach: number,
): (x: number, y: number, z: number) => number {
  const [ax, ay, az] = a;
  const ex = b[0] - ax;
  const ey = b[1] - ay;
  const ez = b[2] - az;
  const ll = ex * ex + ey * ey;
  return (x, y, z) => {
    const px = x - ax;
    const py = y - ay;
    const foot = ll > 0 ? (px * ex + py * ey) / ll : 0;
    const t = foot < 0 ? 0 : foot > 1 ? 1 : foot;
    const near = Math.sqrt((px - t * ex) ** 2 + (py - t * ey) ** 2);
    // Nothing along the move can be lower than its lowest tip under the nearest distance.
    const under = near > reach ? Infinity : low + cutter.profile(near);
    if (under >= z) return z;
    // All of a level move is as low, and so is one straight down once it is there.
    if (ez === 0 || ll === 0) return under;
    const at = (s: number) => az + ez * s + cutter.profile(Math.sqrt((px - s * ex) ** 2 + (py - s * ey) ** 2));
    const best = Math.min(z, at(t), at(0), at(1));
    // Where the axis is within the radius of the point: about the foot on the whole line, not on the move.
    const w = Math.sqrt(Math.max(0, cutter.radius ** 2 - (px - foot * ex) ** 2 - (py - foot * ey) ** 2) / ll);
    return lowest(at, Math.max(0, foot - w), Math.min(1, foot + w), best);
  };
}

/** Distance from a point to closed loops' segments, by looking at every one. */
export function bruteDistance(loops: readonly Float64Array[], x: number, y: number): number {
  let best = Infinity;
  for (const l of loops)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      const ex = l[i] - l[j];
      const ey = l[i + 1] - l[j + 1];
      const q = ex * ex + ey * ey;
      let t = q > 0 ? ((x - l[j]) * ex + (y - l[j + 1]) * ey) / q : 0;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const d = (x - l[j] - t * ex) ** 2 + (y - l[j + 1] - t * ey) ** 2;
      if (d < best) best = d;
    }
  return Math.sqrt(best);
}

/** Distance from a point to an open line (x, y interleaved). */
export function distanceToLine(l: Float64Array, x: number, y: number): number {
  let best = Infinity;
  for (let i = 0; i + 3 < l.length; i += 2) best = Math.min(best, bruteDistance([l.slice(i, i + 4)], x, y));
  return best;
}

/** Inside by crossing number (even-odd), from scratch. */
export function bruteInside(loops: readonly Float64Array[], x: number, y: number): boolean {
  let inside = false;
  for (const l of loops)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
      if (l[i + 1] > y !== l[j + 1] > y && x < ((l[j] - l[i]) * (y - l[i + 1])) / (l[j + 1] - l[i + 1]) + l[i])
        inside = !inside;
  return inside;
}

/** Signed distances of a cloud's points to the outline: inside positive. */
export const depths = (loops: readonly Float64Array[], g: Cloud): Float64Array =>
  g.x.map((x, i) => bruteDistance(loops, x, g.y[i]) * (bruteInside(loops, x, g.y[i]) ? 1 : -1));
