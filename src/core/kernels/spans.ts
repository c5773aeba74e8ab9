import type { HeightField } from '../relief/field';
import type { Rows } from './removal';

/**
 * Nodes under a piece of a move, row by row: which columns of which rows. All rows are found before any node is looked at: each
 * is a chain of divisions and roots that do not depend on each other, and the loop over the nodes stays small.
 *
 *     disc                strip
 *        .-""-.            ______________
 *       |  o   |          /      w      /   between two places along the move,
 *        '-..-'          /-------------/    no further from it than w
 */
export class Spans {
  /** Row, first and last column of each, one after the other, up to `end`. */
  rows = new Int32Array(3 * 64);
  end = 0;
  private readonly inv: number;
  private readonly first: number;
  private readonly last: number;

  constructor(
    private readonly f: HeightField,
    only: Rows,
  ) {
    this.inv = 1 / f.cell;
    this.first = only.from;
    this.last = only.to - 1;
  }

  private ensureCapacity(rows: number): void {
    if (3 * rows > this.rows.length) this.rows = new Int32Array(6 * rows);
  }

  /** Puts the columns of a row from a to b (mm) at place k, if there are any; the place after it. */
  private put(k: number, r: number, a: number, b: number): number {
    const { x0, cols } = this.f;
    let c0 = Math.ceil((a - x0) * this.inv);
    let c1 = Math.floor((b - x0) * this.inv);
    if (c0 < 0) c0 = 0;
    if (c1 > cols - 1) c1 = cols - 1;
    if (c0 > c1) return k;
    this.rows[k] = r;
    this.rows[k + 1] = c0;
    this.rows[k + 2] = c1;
    return k + 3;
  }

  /** A disc of radius w about (x, y), of which (ux, uy) . v >= least and (px, py) . v <= most for the way v from its centre. */
  disc(
    x: number,
    y: number,
    w: number,
    ux: number,
    uy: number,
    least: number,
    px: number,
    py: number,
    most: number,
  ): void {
    const { y0: fy, cell } = this.f;
    const { inv } = this;
    let r0 = Math.ceil((y - w - fy) * inv);
    let r1 = Math.floor((y + w - fy) * inv);
    if (r0 < this.first) r0 = this.first;
    if (r1 > this.last) r1 = this.last;
    this.ensureCapacity(r1 - r0 + 1);
    const w2 = w * w;
    // Half-planes as places on a row: v >= p or v <= p, wherever they slant enough.
    const [sideU, sideP] = [ux > 1e-12 ? 1 : ux < -1e-12 ? -1 : 0, px > 1e-12 ? 1 : px < -1e-12 ? -1 : 0];
    let k = 0;
    for (let r = r0; r <= r1; r++) {
      const vy = fy + r * cell - y;
      const left = w2 - vy * vy;
      if (left < 0) continue;
      let b = Math.sqrt(left);
      let a = -b;
      const u = least - vy * uy;
      if (sideU > 0) {
        if (u > a * ux) a = u / ux;
      } else if (sideU < 0) {
        if (u > b * ux) b = u / ux;
      } else if (u > 0) continue;
      const p = most - vy * py;
      if (sideP > 0) {
        if (p < b * px) b = p / px;
      } else if (sideP < 0) {
        if (p < a * px) a = p / px;
      } else if (p < 0) continue;
      k = this.put(k, r, x + a, x + b);
    }
    this.end = k;
  }

  /** Between `from` and `to` along the direction (ux, uy) from (x, y), no further from that line than w. */
  strip(x: number, y: number, ux: number, uy: number, from: number, to: number, w: number): void {
    const { y0: fy, cell } = this.f;
    const { inv } = this;
    const reach = w * (ux < 0 ? -ux : ux);
    let r0 = Math.ceil((y + (uy < 0 ? to : from) * uy - reach - fy) * inv);
    let r1 = Math.floor((y + (uy < 0 ? from : to) * uy + reach - fy) * inv);
    if (r0 < this.first) r0 = this.first;
    if (r1 > this.last) r1 = this.last;
    this.ensureCapacity(r1 - r0 + 1);
    const slantX = ux > 1e-12 || ux < -1e-12;
    const slantY = uy > 1e-12 || uy < -1e-12;
    const half = slantY ? w / (uy < 0 ? -uy : uy) : 0;
    let k = 0;
    for (let r = r0; r <= r1; r++) {
      const vy = fy + r * cell - y;
      let a = -Infinity;
      let b = Infinity;
      if (slantY) {
        const mid = (vy * ux) / uy;
        a = mid - half;
        b = mid + half;
      } else if (vy > w || vy < -w) continue;
      if (slantX) {
        const p = (from - vy * uy) / ux;
        const q = (to - vy * uy) / ux;
        const lo = p < q ? p : q;
        const hi = p < q ? q : p;
        if (lo > a) a = lo;
        if (hi < b) b = hi;
      } else if (vy * uy < from || vy * uy > to) continue;
      k = this.put(k, r, x + a, x + b);
    }
    this.end = k;
  }
}
