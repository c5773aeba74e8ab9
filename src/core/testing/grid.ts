/**
 * The tests' own machine over a whole grid: every node of a rectangle, not a scatter. Like `independent.ts` it
 * shares nothing with the planner, the writer, the parser or the proof. Frame: blank, mm, Z 0 at the top face.
 */
import { leastOver, lowestFirst, widthAt, type TestCutter, type TestMove } from './independent';

type Place = TestMove['a'];

export interface TestGrid {
  cols: number;
  rows: number;
  cell: number;
  x0: number;
  y0: number;
  /** Row 0 at the lowest y. */
  z: Float64Array;
}

type Loops = readonly Float64Array[];

/** A grid over the loops and `margin` mm around them. */
export function gridOver(loops: Loops, cell: number, margin: number): TestGrid {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const l of loops)
    for (let i = 0; i < l.length; i += 2) {
      x0 = Math.min(x0, l[i]);
      x1 = Math.max(x1, l[i]);
      y0 = Math.min(y0, l[i + 1]);
      y1 = Math.max(y1, l[i + 1]);
    }
  const cols = Math.ceil((x1 - x0 + 2 * margin) / cell) + 1;
  const rows = Math.ceil((y1 - y0 + 2 * margin) / cell) + 1;
  return { cols, rows, cell, x0: x0 - margin, y0: y0 - margin, z: new Float64Array(cols * rows) };
}

/** Range of node indices between two coordinates. */
const between = (from: number, to: number, origin: number, cell: number, count: number): [number, number] => [
  Math.max(0, Math.ceil((from - origin) / cell)),
  Math.min(count - 1, Math.floor((to - origin) / cell)),
];

/** Cuts moves out of the grid: every node takes the least of z(t) + profile(distance) over each move. */
export function cutGrid(g: TestGrid, moves: readonly TestMove[], cutters: Record<number, TestCutter>): void {
  for (const m of lowestFirst(moves)) {
    const cutter = cutters[m.tool];
    if (!cutter) throw new Error(`The program cuts with tool ${m.tool}.`);
    // In pieces: the boxes around them stay small, and the least over all pieces is the least over the move.
    const pieces = Math.max(1, Math.ceil(Math.hypot(m.b[0] - m.a[0], m.b[1] - m.a[1]) / 1.5));
    for (let k = 0; k < pieces; k++) {
      const at = (f: number): Place => [
        m.a[0] + (m.b[0] - m.a[0]) * f,
        m.a[1] + (m.b[1] - m.a[1]) * f,
        m.a[2] + (m.b[2] - m.a[2]) * f,
      ];
      cutPiece(g, at(k / pieces), at((k + 1) / pieces), cutter);
    }
  }
}

function cutPiece(g: TestGrid, a: Place, b: Place, cutter: TestCutter): void {
  const low = Math.min(a[2], b[2]);
  if (low >= 0) return;
  const R = widthAt(cutter, low);
  const least = leastOver({ a, b }, cutter, low, R);
  const [c0, c1] = between(Math.min(a[0], b[0]) - R, Math.max(a[0], b[0]) + R, g.x0, g.cell, g.cols);
  const [r0, r1] = between(Math.min(a[1], b[1]) - R, Math.max(a[1], b[1]) + R, g.y0, g.cell, g.rows);
  for (let r = r0; r <= r1; r++)
    for (let c = c0, i = r * g.cols + c0; c <= c1; c++, i++)
      if (low < g.z[i]) g.z[i] = least(g.x0 + c * g.cell, g.y0 + r * g.cell, g.z[i]);
}

/**
 * Exact distances of all nodes to the outline, inside (even-odd) positive, cut off at `band` mm: every piece
 * of every segment is held against every node around it.
 */
export function gridDistances(g: TestGrid, loops: Loops, band: number): Float64Array {
  const d2 = new Float64Array(g.cols * g.rows).fill(band * band);
  const crossings: number[][] = Array.from({ length: g.rows }, () => []);
  for (const l of loops)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [l[j], l[j + 1], l[i], l[i + 1]];
      // A row more on either side: which rows cross is decided below, not by the rounding of their numbers.
      const [s0, s1] = between(Math.min(ay, by) - g.cell, Math.max(ay, by) + g.cell, g.y0, g.cell, g.rows);
      for (let r = s0; r <= s1; r++) {
        const y = g.y0 + r * g.cell;
        if (by > y !== ay > y) crossings[r].push(((ax - bx) * (y - by)) / (ay - by) + bx);
      }
      const pieces = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / 1));
      for (let k = 0; k < pieces; k++) {
        const px = ax + ((bx - ax) * k) / pieces;
        const py = ay + ((by - ay) * k) / pieces;
        const ex = (bx - ax) / pieces;
        const ey = (by - ay) / pieces;
        const q = ex * ex + ey * ey;
        const [c0, c1] = between(Math.min(px, px + ex) - band, Math.max(px, px + ex) + band, g.x0, g.cell, g.cols);
        const [r0, r1] = between(Math.min(py, py + ey) - band, Math.max(py, py + ey) + band, g.y0, g.cell, g.rows);
        for (let r = r0; r <= r1; r++) {
          const vy = g.y0 + r * g.cell - py;
          for (let c = c0; c <= c1; c++) {
            const vx = g.x0 + c * g.cell - px;
            let t = q > 0 ? (vx * ex + vy * ey) / q : 0;
            t = t < 0 ? 0 : t > 1 ? 1 : t;
            const dx = vx - t * ex;
            const dy = vy - t * ey;
            const d = dx * dx + dy * dy;
            if (d < d2[r * g.cols + c]) d2[r * g.cols + c] = d;
          }
        }
      }
    }
  for (let r = 0; r < g.rows; r++) {
    const xs = crossings[r].sort((p, q) => p - q);
    let k = 0;
    for (let c = 0; c < g.cols; c++) {
      const x = g.x0 + c * g.cell;
      while (k < xs.length && xs[k] <= x) k++;
      const i = r * g.cols + c;
      d2[i] = Math.sqrt(d2[i]) * (k % 2 ? 1 : -1);
    }
  }
  return d2;
}

/**
 * Nodes that a disc of `radius` mm within the outline covers (the morphological opening), short of `spare` mm:
 * discs are set on every node that is a radius away from the outline. `cover` is the radius of the disc that is set there,
 * less than the radius for a cutter with a round rim.
 */
export function gridReach(g: TestGrid, d: Float64Array, radius: number, spare: number, cover = radius): Uint8Array {
  const out = new Uint8Array(d.length);
  const n = Math.max(0, Math.floor((cover - spare) / g.cell));
  const half = Int32Array.from({ length: 2 * n + 1 }, (_, k) =>
    Math.floor(Math.sqrt(Math.max(0, Math.max(0, cover - spare) ** 2 - ((k - n) * g.cell) ** 2)) / g.cell),
  );
  const centre = (i: number) => d[i] >= radius + 0.001;
  for (let r = 0; r < g.rows; r++)
    for (let c = 0; c < g.cols; c++) {
      const i = r * g.cols + c;
      if (!centre(i)) continue;
      out[i] = 1;
      // Only the rim of the centres reaches what is not a centre itself.
      const rim =
        c === 0 ||
        r === 0 ||
        c === g.cols - 1 ||
        r === g.rows - 1 ||
        !centre(i - 1) ||
        !centre(i + 1) ||
        !centre(i - g.cols) ||
        !centre(i + g.cols);
      if (!rim) continue;
      for (let k = -n; k <= n; k++) {
        const q = r + k;
        if (q < 0 || q >= g.rows) continue;
        const w = half[k + n];
        out.fill(1, q * g.cols + Math.max(0, c - w), q * g.cols + Math.min(g.cols - 1, c + w) + 1);
      }
    }
  return out;
}
