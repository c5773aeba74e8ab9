import { stillWanted } from '../units/stillWanted';
import { noBox, type Bounds } from './box';
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

export const makeSegmentIndex = (region: Region): SegmentIndex => new Buckets(region);

class Buckets implements SegmentIndex {
  /** Segments, x0, y0, x1, y1 interleaved. */
  private readonly s: Float64Array;
  private readonly box: Readonly<Bounds>;
  private readonly cols: number;
  private readonly rows: number;
  private readonly cell: number;
  /** The segments of bucket q are held[first[q]] to held[first[q + 1] - 1]. */
  private readonly first: Int32Array;
  private readonly held: Int32Array;
  /** The nearest of the last place that was asked for. */
  private which = -1;

  constructor(region: Region) {
    let count = 0;
    for (const l of region) count += l.length / 2;
    const s = (this.s = new Float64Array(4 * count));
    const { x0, y0, x1, y1 } = (this.box = boundsOf(region) ?? noBox());
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
    const cols = (this.cols = Math.max(1, Math.min(4096, Math.ceil((x1 - x0) / size) + 1)));
    const rows = (this.rows = Math.max(1, Math.min(4096, Math.ceil((y1 - y0) / size) + 1)));
    this.cell = Math.max((x1 - x0) / cols, (y1 - y0) / rows, 1e-6) * 1.0000001;
    // Counted first, then filled in from behind.
    this.first = new Int32Array(cols * rows + 1);
    for (let i = 0; i < count; i++) this.eachBucket(i, null);
    for (let q = 0, sum = 0; q <= cols * rows; q++) this.first[q] = sum += this.first[q];
    this.held = new Int32Array(this.first[cols * rows]);
    for (let i = 0; i < count; i++) this.eachBucket(i, this.held);
  }

  private col(x: number): number {
    return Math.min(this.cols - 1, Math.max(0, Math.floor((x - this.box.x0) / this.cell)));
  }
  private row(y: number): number {
    return Math.min(this.rows - 1, Math.max(0, Math.floor((y - this.box.y0) / this.cell)));
  }

  /** Counts a segment in each of its buckets, or puts it into them. */
  private eachBucket(i: number, held: Int32Array | null): void {
    stillWanted();
    const { s, first, cols } = this;
    const c0 = this.col(Math.min(s[4 * i], s[4 * i + 2]));
    const c1 = this.col(Math.max(s[4 * i], s[4 * i + 2]));
    const r0 = this.row(Math.min(s[4 * i + 1], s[4 * i + 3]));
    const r1 = this.row(Math.max(s[4 * i + 1], s[4 * i + 3]));
    for (let r = r0; r <= r1; r++)
      for (let c = c0; c <= c1; c++)
        if (held) held[--first[r * cols + c]] = i;
        else first[r * cols + c]++;
  }

  private squareTo(i: number, x: number, y: number): number {
    const { s } = this;
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
  }

  nearest(x: number, y: number): number {
    // Of several that are equally near it is always the same one, whatever was asked before.
    this.which = -1;
    this.distance(x, y);
    return this.which;
  }

  distanceTo(i: number, x: number, y: number): number {
    return Math.sqrt(this.squareTo(i, x, y));
  }

  foot(i: number, x: number, y: number): { readonly x: number; readonly y: number } {
    const { s } = this;
    const t = nearestShare(s[4 * i], s[4 * i + 1], s[4 * i + 2], s[4 * i + 3], x, y);
    return { x: s[4 * i] + t * (s[4 * i + 2] - s[4 * i]), y: s[4 * i + 1] + t * (s[4 * i + 3] - s[4 * i + 1]) };
  }

  distance(x: number, y: number, most = Infinity): number {
    const { box, cols, rows, cell, first, held } = this;
    // Wholly beyond: no bucket is asked.
    if (x < box.x0 - most || x > box.x1 + most || y < box.y0 - most || y > box.y1 + most) return Infinity;
    const c = this.col(x);
    const r = this.row(y);
    // What was the nearest of the last place is seldom far from this one: most buckets lie further away and are left out.
    let best = this.which < 0 ? Infinity : this.squareTo(this.which, x, y);
    for (let ring = 0; ring <= Math.max(cols, rows); ring++) {
      // How far the point is from its (clamped) bucket adds to what a ring of buckets guarantees.
      const inner = (ring - 1) * cell;
      if (ring > 0 && (best < inner * inner || inner > most)) break;
      for (let rr = r - ring; rr <= r + ring; rr++) {
        if (rr < 0 || rr >= rows) continue;
        const dy = away(y - box.y0, rr * cell, cell);
        if (dy * dy > best) continue;
        const edge = rr === r - ring || rr === r + ring;
        for (let cc = c - ring; cc <= c + ring; cc += edge || ring === 0 ? 1 : 2 * ring) {
          if (cc < 0 || cc >= cols) continue;
          const dx = away(x - box.x0, cc * cell, cell);
          if (dx * dx + dy * dy > best) continue;
          const q = rr * cols + cc;
          for (let k = first[q]; k < first[q + 1]; k++) {
            const d = this.squareTo(held[k], x, y);
            if (d < best) {
              best = d;
              this.which = held[k];
            }
          }
        }
      }
    }
    return Math.sqrt(best);
  }
}

/** So much less than its width (share of it) a bucket is taken to be away: corners on its edge lie in it as rounding has it. */
const HAIR = 1e-6;
/** How far a number lies from those between `from` and so much more. */
function away(v: number, from: number, wide: number): number {
  const far = v < from ? from - v : v > from + wide ? v - from - wide : 0;
  return Math.max(0, far - HAIR * wide);
}
