import { toSegment } from '../geometry/straight';
import { isArc, RAPID, sweepOf, type Motion } from '../motion/motion';
import { BOX, SHEAF, sheavesOf } from '../motion/sheaves';
import { lineOf, type PlacedProgram } from './placed';

/** A move of a program as it lies on the table: x, y interleaved, arcs as chords; mm, blank's frame. */
export interface LineOnTable {
  readonly file: string;
  /** Line of the program text, from 1. */
  readonly line: number;
  readonly points: Float64Array;
  /** Height at the end of the move. */
  readonly z: number;
  readonly rapid: boolean;
  readonly cutId: string | null;
}

function pointsOf(m: Motion, i: number): Float64Array {
  if (!isArc(m.kind[i])) return Float64Array.of(m.x[i - 1], m.y[i - 1], m.x[i], m.y[i]);
  const sweep = sweepOf(m, i) * (m.kind[i] === 3 ? -1 : 1);
  const r = Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]);
  const a = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
  const n = 48;
  return Float64Array.from({ length: 2 * (n + 1) }, (_, k) =>
    k % 2 ? m.cy[i] + r * Math.sin(a + (sweep * (k - 1)) / 2 / n) : m.cx[i] + r * Math.cos(a + (sweep * k) / 2 / n),
  );
}

/** Where the move of a line of a program lies; the next move below where the line itself moves nothing. */
export function lineOnTable(programs: readonly PlacedProgram[], file: string, line: number): LineOnTable | null {
  const p = programs.find((q) => q.file === file);
  for (const s of p?.sections ?? []) {
    const n = s.line.length;
    if (!n || lineOf(s, n - 1) < line) continue;
    // Lines grow with the moves: halving finds the first that is not above.
    let [a, b] = [1, n];
    while (a < b) {
      const mid = (a + b) >> 1;
      if (lineOf(s, mid) < line) a = mid + 1;
      else b = mid;
    }
    if (a >= n) continue;
    return {
      file,
      line: lineOf(s, a),
      points: pointsOf(s.motion, a),
      z: s.motion.z[a],
      rapid: s.motion.kind[a] === RAPID,
      cutId: s.cutId,
    };
  }
  return null;
}

/** The line whose move runs nearest to a point of the table, cutting moves before rapid ones; null when none is within `reach` mm. */
export function lineNear(programs: readonly PlacedProgram[], x: number, y: number, reach: number): LineOnTable | null {
  let best: { p: PlacedProgram; s: PlacedProgram['sections'][number]; i: number } | null = null;
  let least = reach;
  for (const p of programs)
    for (const s of p.sections) {
      const m = s.motion;
      const { boxes } = sheavesOf(m);
      for (let i = 1; i < m.count; i++) {
        if (i === 1 || i % SHEAF === 0) {
          const [x0, y0, x1, y1] = boxes.subarray(BOX * Math.floor(i / SHEAF));
          if (Math.hypot(Math.max(x0 - x, x - x1, 0), Math.max(y0 - y, y - y1, 0)) >= least) {
            // Nothing of this sheaf comes nearer than what is found already.
            i = SHEAF * (Math.floor(i / SHEAF) + 1) - 1;
            continue;
          }
        }
        if (m.kind[i] === RAPID) continue;
        let d: number;
        if (isArc(m.kind[i])) {
          const pts = pointsOf(m, i);
          d = Infinity;
          if (Math.abs(Math.hypot(x - m.cx[i], y - m.cy[i]) - Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i])) < least)
            for (let k = 0; k + 3 < pts.length; k += 2)
              d = Math.min(d, toSegment(pts[k], pts[k + 1], pts[k + 2], pts[k + 3], x, y));
        } else d = toSegment(m.x[i - 1], m.y[i - 1], m.x[i], m.y[i], x, y);
        if (d < least) {
          least = d;
          best = { p, s, i };
        }
      }
    }
  if (!best) return null;
  const { p, s, i } = best;
  return {
    file: p.file,
    line: lineOf(s, i),
    points: pointsOf(s.motion, i),
    z: s.motion.z[i],
    rapid: false,
    cutId: s.cutId,
  };
}
