import type { HeightField } from '../relief/field';
import { EDGE } from './envelope';

/**
 * Material removal by a ball, in closed form. The ball at s mm along a move of slope m stands over a node
 * that lies `along` and `across` of it at z(s) + R - sqrt(R^2 - across^2 - (s - along)^2): convex in s, lowest
 * at s* = along - sin(slope) sqrt(R^2 - across^2). So the lowest height over the whole move is
 *
 * - the ball at the start, where s* < 0;
 * - the inclined cylinder zs + m along + R - sqrt((R^2 - across^2)(1 + m^2)), where 0 <= s* <= length;
 * - the ball at the end, where s* > length.
 *
 * Each node that is visited gets the place clamped to the move, so parts may overlap and leave no cracks. Where moves
 * join, the ball between them need be set only in the wedge that neither cylinder covers, and the
 * ball at the end of a chain only in front of it. That last one waits until it is known that no move
 * follows: `settle` cuts it, and must be called before the field is read.
 *
 * A long move and its thousand pieces leave the same surface. Squared heights decide first, so a root is
 * taken only at nodes that are lowered. Heights in mm in the frame of the field; nothing is cut above `top`.
 */
export interface BallSweep {
  cut(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void;
  settle(): void;
}

/** By so much more than needed (mm) each part reaches: a node between two of them is looked at by both. */
const SPARE = 1e-6;

export function makeBallSweep(field: HeightField, radius: number, top: number, only: { readonly from: number; readonly to: number }): BallSweep {
  const { cols, cell, x0: fx, y0: fy, z } = field;
  const inv = 1 / cell;
  const full = radius;
  const sq = full * full;
  const widthAt = (low: number) => {
    const h = top - low;
    return h >= full ? full : Math.sqrt(h * (2 * full - h));
  };

  // Ends of a row, narrowed to the half-plane (node - centre) . (ux, uy) >= least. An array: numbers in a
  // closure would be boxed at every change.
  const span = new Float64Array(2);
  const narrow = (vy: number, ux: number, uy: number, least: number): void => {
    const need = least - vy * uy;
    if (ux > 1e-12) {
      if (need > span[0] * ux) span[0] = need / ux;
    } else if (ux < -1e-12) {
      if (need > span[1] * ux) span[1] = need / ux;
    } else if (need > 0) span[1] = -Infinity;
  };

  /**
   * The ball standing at (x, y, zt), over the nodes in front of the move along (ux, uy) that ends there and
   * behind the move along (px, py) that begins there.
   */
  const stamp = (x: number, y: number, zt: number, ux: number, uy: number, least: number, px: number, py: number, most: number): void => {
    if (zt >= top) return;
    const zz = z;
    const w0 = widthAt(zt) + EDGE;
    const rr = w0 * w0;
    const middle = zt + full;
    let r0 = Math.ceil((y - w0 - fy) * inv);
    let r1 = Math.floor((y + w0 - fy) * inv);
    if (r0 < only.from) r0 = only.from;
    if (r1 > only.to - 1) r1 = only.to - 1;
    for (let r = r0; r <= r1; r++) {
      const vy = fy + r * cell - y;
      const left = rr - vy * vy;
      if (left < 0) continue;
      const w = Math.sqrt(left);
      span[0] = -w;
      span[1] = w;
      narrow(vy, ux, uy, least - SPARE);
      narrow(vy, -px, -py, -most - SPARE);
      if (span[0] > span[1]) continue;
      let c0 = Math.ceil((x + span[0] - fx) * inv);
      let c1 = Math.floor((x + span[1] - fx) * inv);
      if (c0 < 0) c0 = 0;
      if (c1 > cols - 1) c1 = cols - 1;
      const q = sq - vy * vy;
      let vx = fx + c0 * cell - x;
      const end = r * cols + c1;
      for (let i = r * cols + c0; i <= end; i++) {
        const g = q - vx * vx;
        const gap = middle - zz[i];
        // A node on the very edge of a ball may come out a hair beyond it.
        if (gap <= 0 || gap * gap < g) zz[i] = g > 0 ? middle - Math.sqrt(g) : Math.min(zz[i], middle);
        vx += cell;
      }
    }
  };

  /** The inclined cylinder between the two ends. */
  const trough = (x0: number, y0: number, z0: number, ux: number, uy: number, len: number, m: number, low: number): void => {
    const zz = z;
    const w0 = widthAt(low) + EDGE;
    const stretch = Math.sqrt(1 + m * m);
    const lean = m / stretch;
    const from = (lean < 0 ? lean * full : 0) - SPARE;
    const to = len + (lean > 0 ? lean * full : 0) + SPARE;
    const square = stretch * stretch;
    const ya = y0 + (uy < 0 ? to : from) * uy;
    const yb = y0 + (uy < 0 ? from : to) * uy;
    const reach = w0 * (ux < 0 ? -ux : ux);
    let r0 = Math.ceil((ya - reach - fy) * inv);
    let r1 = Math.floor((yb + reach - fy) * inv);
    if (r0 < only.from) r0 = only.from;
    if (r1 > only.to - 1) r1 = only.to - 1;
    for (let r = r0; r <= r1; r++) {
      const vy = fy + r * cell - y0;
      let a = -Infinity;
      let b = Infinity;
      if (uy > 1e-12 || uy < -1e-12) {
        const mid = (vy * ux) / uy;
        const w = w0 / (uy < 0 ? -uy : uy);
        a = mid - w;
        b = mid + w;
      } else if (vy > w0 || vy < -w0) continue;
      if (ux > 1e-12 || ux < -1e-12) {
        const p = (from - vy * uy) / ux;
        const q = (to - vy * uy) / ux;
        const lo = p < q ? p : q;
        const hi = p < q ? q : p;
        if (lo > a) a = lo;
        if (hi < b) b = hi;
      } else if (vy * uy < from || vy * uy > to) continue;
      let c0 = Math.ceil((x0 + a - fx) * inv);
      let c1 = Math.floor((x0 + b - fx) * inv);
      if (c0 < 0) c0 = 0;
      if (c1 > cols - 1) c1 = cols - 1;
      const base = r * cols;
      let vx = fx + c0 * cell - x0;
      for (let c = c0; c <= c1; c++, vx += cell) {
        const across = vy * ux - vx * uy;
        const along = vx * ux + vy * uy;
        const q = sq - across * across;
        const was = zz[base + c];
        const gap = z0 + m * along + full - was;
        if (gap > 0 && gap * gap >= q * square) continue;
        const root = q > 0 ? Math.sqrt(q) : 0;
        const s = along - lean * root;
        if (s >= 0 && s <= len) {
          zz[base + c] = was + gap - root * stretch;
          continue;
        }
        // The place on the endless line lies beyond the move: the ball at its end, if that covers the node at all.
        const d = s < 0 ? along : along - len;
        const g = q - d * d;
        if (g < 0) continue;
        const zc = (s < 0 ? z0 : z0 + m * len) + full - Math.sqrt(g);
        if (zc < was) zz[base + c] = zc;
      }
    }
  };

  // The end of the chain that still has to be cut: x, y, z, the direction in which it was reached, and how far
  // behind it the ball is lowest.
  let waiting = false;
  const end = new Float64Array(6);
  const settle = () => {
    if (waiting) stamp(end[0], end[1], end[2], end[3], end[4], end[5], 0, 0, 0);
    waiting = false;
  };
  return {
    settle,
    cut(x0, y0, z0, x1, y1, z1) {
      const low = z0 < z1 ? z0 : z1;
      if (low >= top) return;
      const dx = x1 - x0;
      const dy = y1 - y0;
      const len = Math.sqrt(dx * dx + dy * dy);
      if (len < 1e-9) {
        settle();
        stamp(x1, y1, low, 0, 0, 0, 0, 0, 0);
        return;
      }
      const m = (z1 - z0) / len;
      const ux = dx / len;
      const uy = dy / len;
      const lean = (m / Math.sqrt(1 + m * m)) * full;
      const most = lean > 0 ? lean : 0;
      trough(x0, y0, z0, ux, uy, len, m, low);
      if (waiting && x0 === end[0] && y0 === end[1] && z0 === end[2]) stamp(x0, y0, z0, end[3], end[4], end[5], ux, uy, most);
      else {
        settle();
        stamp(x0, y0, z0, 0, 0, 0, ux, uy, most);
      }
      waiting = true;
      end[0] = x1;
      end[1] = y1;
      end[2] = z1;
      end[3] = ux;
      end[4] = uy;
      end[5] = lean < 0 ? lean : 0;
    },
  };
}
