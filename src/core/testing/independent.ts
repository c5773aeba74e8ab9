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

/** Reads G0-G3 lines of a metric or inch program into straight moves; arcs as chords of sagitta below 0.0005 mm. */
export function readMoves(text: string): TestMove[] {
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
    const to = (['X', 'Y', 'Z'] as const).map((k, i) => (words.has(k) ? words.get(k)! * unit : from[i])) as [number, number, number];
    if (mode <= 1) moves.push({ tool, rapid: mode === 0, a: from, b: to });
    else {
      const cx = from[0] + (words.get('I') ?? 0) * unit;
      const cy = from[1] + (words.get('J') ?? 0) * unit;
      const r = Math.hypot(from[0] - cx, from[1] - cy);
      let turn = Math.atan2(to[1] - cy, to[0] - cx) - Math.atan2(from[1] - cy, from[0] - cx);
      if (mode === 3 && turn <= 1e-9) turn += 2 * Math.PI;
      if (mode === 2 && turn >= -1e-9) turn -= 2 * Math.PI;
      const n = Math.max(2, Math.ceil(Math.abs(turn) / Math.sqrt((8 * 0.0005) / Math.max(r, 0.01))));
      const start = Math.atan2(from[1] - cy, from[0] - cx);
      let p = from;
      for (let k = 1; k <= n; k++) {
        const q: [number, number, number] = k === n ? to : [cx + r * Math.cos(start + (turn * k) / n), cy + r * Math.sin(start + (turn * k) / n), from[2] + ((to[2] - from[2]) * k) / n];
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
  return { radius: diameter / 2, profile: (rho) => (rho > diameter / 2 + 1e-9 ? Infinity : Math.max(0, (rho - tipDiameter / 2) * per)) };
};
export const testFlat = (diameter: number): TestCutter => ({ radius: diameter / 2, profile: (rho) => (rho > diameter / 2 ? Infinity : 0) });

export interface Grid {
  x0: number;
  y0: number;
  cell: number;
  cols: number;
  rows: number;
  z: Float64Array;
}

export function testGrid(x0: number, y0: number, x1: number, y1: number, cell: number): Grid {
  const cols = Math.ceil((x1 - x0) / cell) + 1;
  const rows = Math.ceil((y1 - y0) / cell) + 1;
  return { x0, y0, cell, cols, rows, z: new Float64Array(cols * rows) };
}

/** Cuts moves out of the grid: each node takes the least of z(t) + profile(distance) over each move. */
export function cutOut(g: Grid, moves: readonly TestMove[], cutters: Record<number, TestCutter>): void {
  for (const m of moves) {
    const cutter = cutters[m.tool];
    if (!cutter) throw new Error(`The program calls tool ${m.tool}.`);
    const low = Math.min(m.a[2], m.b[2]);
    if (low >= 0) continue;
    // No wider than where the cutter leaves the material.
    let R = cutter.radius;
    if (cutter.profile(R * 0.999) > -low) {
      let lo = 0;
      let hi = R;
      for (let i = 0; i < 40; i++) {
        const mid = (lo + hi) / 2;
        if (cutter.profile(mid) > -low) hi = mid;
        else lo = mid;
      }
      R = hi;
    }
    const [ax, ay, az] = m.a;
    const ex = m.b[0] - ax;
    const ey = m.b[1] - ay;
    const ez = m.b[2] - az;
    const ll = ex * ex + ey * ey;
    const c0 = Math.max(0, Math.ceil((Math.min(ax, m.b[0]) - R - g.x0) / g.cell));
    const c1 = Math.min(g.cols - 1, Math.floor((Math.max(ax, m.b[0]) + R - g.x0) / g.cell));
    const r0 = Math.max(0, Math.ceil((Math.min(ay, m.b[1]) - R - g.y0) / g.cell));
    const r1 = Math.min(g.rows - 1, Math.floor((Math.max(ay, m.b[1]) + R - g.y0) / g.cell));
    for (let r = r0; r <= r1; r++)
      for (let c = c0; c <= c1; c++) {
        const i = r * g.cols + c;
        const px = g.x0 + c * g.cell - ax;
        const py = g.y0 + r * g.cell - ay;
        let t = ll > 0 ? (px * ex + py * ey) / ll : 0;
        t = t < 0 ? 0 : t > 1 ? 1 : t;
        const near = Math.hypot(px - t * ex, py - t * ey);
        if (near > R) continue;
        // Nothing along the move can be lower than its lowest tip under the nearest distance.
        if (low + cutter.profile(near) >= g.z[i]) continue;
        const at = (s: number) => az + ez * s + cutter.profile(Math.hypot(px - s * ex, py - s * ey));
        let best = Math.min(at(t), at(0), at(1));
        if (ez !== 0 && ll > 0) {
          const w = Math.sqrt(Math.max(0, R * R - near * near) / ll) + 1e-12;
          let a = Math.max(0, t - w);
          let b = Math.min(1, t + w);
          for (let k = 0; k < 48; k++) {
            const p = a + (b - a) * 0.382;
            const q = a + (b - a) * 0.618;
            if (at(p) < at(q)) b = q;
            else a = p;
          }
          best = Math.min(best, at((a + b) / 2), at(Math.max(0, t - w)), at(Math.min(1, t + w)));
        }
        if (ll === 0) best = low + cutter.profile(near);
        if (best < g.z[i]) g.z[i] = best;
      }
  }
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

/** Inside by crossing number (even-odd), from scratch. */
export function bruteInside(loops: readonly Float64Array[], x: number, y: number): boolean {
  let inside = false;
  for (const l of loops)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
      if (l[i + 1] > y !== l[j + 1] > y && x < ((l[j] - l[i]) * (y - l[i + 1])) / (l[j + 1] - l[i + 1]) + l[i]) inside = !inside;
  return inside;
}

/** Signed distance map of loops on a grid: exact per node, found by spreading each segment over its surroundings. */
export function depthMap(loops: readonly Float64Array[], g: Grid, most: number): Float64Array {
  const d = new Float64Array(g.cols * g.rows).fill(most);
  for (const l of loops)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      const ax = l[j];
      const ay = l[j + 1];
      const ex = l[i] - ax;
      const ey = l[i + 1] - ay;
      const q = ex * ex + ey * ey;
      const c0 = Math.max(0, Math.ceil((Math.min(ax, l[i]) - most - g.x0) / g.cell));
      const c1 = Math.min(g.cols - 1, Math.floor((Math.max(ax, l[i]) + most - g.x0) / g.cell));
      const r0 = Math.max(0, Math.ceil((Math.min(ay, l[i + 1]) - most - g.y0) / g.cell));
      const r1 = Math.min(g.rows - 1, Math.floor((Math.max(ay, l[i + 1]) + most - g.y0) / g.cell));
      for (let r = r0; r <= r1; r++)
        for (let c = c0; c <= c1; c++) {
          const x = g.x0 + c * g.cell - ax;
          const y = g.y0 + r * g.cell - ay;
          let t = q > 0 ? (x * ex + y * ey) / q : 0;
          t = t < 0 ? 0 : t > 1 ? 1 : t;
          const dd = Math.sqrt((x - t * ex) ** 2 + (y - t * ey) ** 2);
          const k = r * g.cols + c;
          if (dd < d[k]) d[k] = dd;
        }
    }
  // Rows are filled between crossings: inside positive, outside negative.
  for (let r = 0; r < g.rows; r++) {
    const y = g.y0 + r * g.cell;
    const xs: number[] = [];
    for (const l of loops)
      for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
        if (l[i + 1] > y !== l[j + 1] > y) xs.push(((l[j] - l[i]) * (y - l[i + 1])) / (l[j + 1] - l[i + 1]) + l[i]);
    xs.sort((a, b) => a - b);
    let k = 0;
    for (let c = 0; c < g.cols; c++) {
      const x = g.x0 + c * g.cell;
      while (k < xs.length && xs[k] <= x) k++;
      if (k % 2 === 0) d[r * g.cols + c] *= -1;
    }
  }
  return d;
}
