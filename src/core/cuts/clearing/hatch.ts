import { clearWay } from '../../geometry/lines';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { contains, type Region } from '../../geometry/region';

/**
 * Parallel lines over a region, `step` mm apart at `degrees` from X, as x0, y0, x1, y1 in rows from one side to the
 * other; rows lie on a grid through the origin, so that neighbouring regions agree. Even-odd crossings of each row with the
 * outline (scan line).
 */
export function hatchRows(region: Region, degrees: number, step: number): Float64Array[][] {
  const c = Math.cos((degrees * Math.PI) / 180);
  const s = Math.sin((degrees * Math.PI) / 180);
  let low = Infinity;
  let high = -Infinity;
  const loops = region.map((l) => {
    const out = new Float64Array(l.length);
    for (let i = 0; i < l.length; i += 2) {
      out[i] = c * l[i] + s * l[i + 1];
      out[i + 1] = -s * l[i] + c * l[i + 1];
      low = Math.min(low, out[i + 1]);
      high = Math.max(high, out[i + 1]);
    }
    return out;
  });
  if (!(high > low)) return [];
  // A hair off the grid, so that rows never run along an edge that lies on it.
  const shift = 1e-7;
  const first = Math.ceil((low - shift) / step);
  const last = Math.floor((high - shift) / step);
  if (last - first > 200000) throw new RangeError('The lines are too close together for an area of this size.');
  const crossings: number[][] = Array.from({ length: Math.max(0, last - first + 1) }, () => []);
  for (const l of loops)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      const [ax, ay, bx, by] =
        l[j + 1] < l[i + 1] ? [l[j], l[j + 1], l[i], l[i + 1]] : [l[i], l[i + 1], l[j], l[j + 1]];
      const k0 = Math.max(first, Math.ceil((ay - shift) / step));
      for (let k = k0; k <= last && k * step + shift < by; k++)
        crossings[k - first].push(ax + ((bx - ax) * (k * step + shift - ay)) / (by - ay));
    }
  return crossings.map((xs, k) => {
    xs.sort((a, b) => a - b);
    const y = (first + k) * step + shift;
    const row: Float64Array[] = [];
    for (let i = 0; i + 1 < xs.length; i += 2)
      if (xs[i + 1] - xs[i] > 1e-6)
        row.push(Float64Array.of(c * xs[i] - s * y, s * xs[i] + c * y, c * xs[i + 1] - s * y, s * xs[i + 1] + c * y));
    return row;
  });
}

/** Rows joined to lines that run to and fro, wherever the straight way from one row to the next stays inside `free`. */
export function zigzags(rows: readonly Float64Array[][], free: Region, most: number): Float64Array[] {
  const out: Float64Array[] = [];
  const edge = makeSegmentIndex(free);
  /** Rows end on the outline: a way from one to the next that bridges a bay meets it nowhere else. */
  const bridges = (x: number, y: number) => !contains(free, x, y) && edge.distance(x, y) > 1e-4;
  const used = rows.map((r) => r.map(() => false));
  for (let k = 0; k < rows.length; k++)
    for (let i = 0; i < rows[k].length; i++) {
      if (used[k][i]) continue;
      const line: number[] = [...rows[k][i]];
      used[k][i] = true;
      for (let row = k + 1; row < rows.length; row++) {
        const x = line[line.length - 2];
        const y = line[line.length - 1];
        let best = -1;
        let turned = false;
        let least = most;
        rows[row].forEach((q, n) => {
          if (used[row][n]) return;
          for (const t of [false, true]) {
            const d = Math.hypot(q[t ? 2 : 0] - x, q[t ? 3 : 1] - y);
            if (d < least) {
              least = d;
              best = n;
              turned = t;
            }
          }
        });
        if (best < 0) break;
        const q = rows[row][best];
        const [qx, qy] = [q[turned ? 2 : 0], q[turned ? 3 : 1]];
        if (bridges((x + qx) / 2, (y + qy) / 2) || !clearWay(free, x, y, qx, qy)) break;
        used[row][best] = true;
        if (turned) line.push(q[2], q[3], q[0], q[1]);
        else line.push(q[0], q[1], q[2], q[3]);
      }
      out.push(Float64Array.from(line));
    }
  return out;
}
