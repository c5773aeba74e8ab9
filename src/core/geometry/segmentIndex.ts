import { stillWanted } from '../units/stillWanted';
import { noBox } from './box';
import { boundsOf } from './loop';
import type { Region } from './region';
import { nearestShare } from './straight';

/**
 * Exact distance from points to the segments of a region's outline, by a uniform grid of buckets.
 * Built once, asked often. Distances in mm.
 */
export interface SegmentIndex {
  /** Distance to the nearest segment; looked for no further than `most`, beyond which any larger number may come back. */
  distance(x: number, y: number, most?: number): number;
  /** Which segment is the nearest; -1 where there is none. */
  nearest(x: number, y: number): number;
  /** Distance to one segment. */
  distanceTo(i: number, x: number, y: number): number;
  /** The place of a segment that is nearest to a point. */
  foot(i: number, x: number, y: number): { readonly x: number; readonly y: number };
}

export function makeSegmentIndex(region: Region): SegmentIndex {
  let count = 0;
  for (const l of region) count += l.length / 2;
  const s = new Float64Array(4 * count);
  const { x0, y0, x1, y1 } = boundsOf(region) ?? noBox();
  let k = 0;
  for (const l of region) {
    const n = l.length;
    for (let i = 0; i < n; i += 2) {
      const j = (i + 2) % n;
      s[k++] = l[i];
      s[k++] = l[i + 1];
      s[k++] = l[j];
      s[k++] = l[j + 1];
    }
  }
  const size = Math.max(1e-6, Math.sqrt(((x1 - x0 + 1e-3) * (y1 - y0 + 1e-3)) / Math.max(1, count)) * 1.5);
  const cols = Math.max(1, Math.min(4096, Math.ceil((x1 - x0) / size) + 1));
  const rows = Math.max(1, Math.min(4096, Math.ceil((y1 - y0) / size) + 1));
  const cell = Math.max((x1 - x0) / cols, (y1 - y0) / rows, 1e-6) * 1.0000001;
  const clampCol = (x: number) => Math.min(cols - 1, Math.max(0, Math.floor((x - x0) / cell)));
  const clampRow = (y: number) => Math.min(rows - 1, Math.max(0, Math.floor((y - y0) / cell)));
  // The segments of bucket q are held[first[q]] to held[first[q + 1] - 1]: counted first, then filled in from behind.
  const first = new Int32Array(cols * rows + 1);
  const eachBucket = (work: (q: number, i: number) => void) => {
    for (let i = 0; i < count; i++) {
      stillWanted();
      const c0 = clampCol(Math.min(s[4 * i], s[4 * i + 2]));
      const c1 = clampCol(Math.max(s[4 * i], s[4 * i + 2]));
      const r0 = clampRow(Math.min(s[4 * i + 1], s[4 * i + 3]));
      const r1 = clampRow(Math.max(s[4 * i + 1], s[4 * i + 3]));
      for (let r = r0; r <= r1; r++) for (let c = c0; c <= c1; c++) work(r * cols + c, i);
    }
  };
  eachBucket((q) => first[q]++);
  for (let q = 0, sum = 0; q <= cols * rows; q++) first[q] = sum += first[q];
  const held = new Int32Array(first[cols * rows]);
  eachBucket((q, i) => (held[--first[q]] = i));
  const toSegment = (i: number, x: number, y: number) => {
    const ax = s[4 * i];
    const ay = s[4 * i + 1];
    const ex = s[4 * i + 2] - ax;
    const ey = s[4 * i + 3] - ay;
    const l = ex * ex + ey * ey;
    let t = l > 0 ? ((x - ax) * ex + (y - ay) * ey) / l : 0;
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    const dx = x - ax - t * ex;
    const dy = y - ay - t * ey;
    return dx * dx + dy * dy;
  };
  let which = -1;
  const index: SegmentIndex = {
    nearest(x, y) {
      which = -1;
      index.distance(x, y);
      return which;
    },
    distanceTo: (i, x, y) => Math.sqrt(toSegment(i, x, y)),
    foot(i, x, y) {
      const t = nearestShare(s[4 * i], s[4 * i + 1], s[4 * i + 2], s[4 * i + 3], x, y);
      return { x: s[4 * i] + t * (s[4 * i + 2] - s[4 * i]), y: s[4 * i + 1] + t * (s[4 * i + 3] - s[4 * i + 1]) };
    },
    distance(x, y, most = Infinity) {
      // Wholly beyond: no bucket is asked.
      if (x < x0 - most || x > x1 + most || y < y0 - most || y > y1 + most) return Infinity;
      const c = clampCol(x);
      const r = clampRow(y);
      // How far the point is from its (clamped) bucket adds to what a ring of buckets guarantees.
      let best = Infinity;
      for (let ring = 0; ring <= Math.max(cols, rows); ring++) {
        const inner = (ring - 1) * cell;
        if (ring > 0 && (best < inner * inner || inner > most)) break;
        for (let rr = r - ring; rr <= r + ring; rr++) {
          if (rr < 0 || rr >= rows) continue;
          const edge = rr === r - ring || rr === r + ring;
          for (let cc = c - ring; cc <= c + ring; cc += edge || ring === 0 ? 1 : 2 * ring) {
            if (cc < 0 || cc >= cols) continue;
            const q = rr * cols + cc;
            for (let k = first[q]; k < first[q + 1]; k++) {
              const d = toSegment(held[k], x, y);
              if (d < best) {
                best = d;
                which = held[k];
              }
            }
          }
        }
      }
      return Math.sqrt(best);
    },
  };
  return index;
}
