import type { HeightField } from '../relief/field';
import { makeChainSweep, type ChainSweep } from './chainSweep';
import { EDGE, TOP } from './envelope';
import type { Rows } from './removal';

/**
 * Material removal by a ball, in closed form. The ball at s mm along a move of slope m stands over a node
 * that lies `along` and `across` of it at z(s) + R - sqrt(R^2 - across^2 - (s - along)^2): convex in s, lowest
 * at s* = along - sin(slope) sqrt(R^2 - across^2). So the lowest height over the whole move is
 *
 * - the ball at the start, where s* < 0;
 * - the inclined cylinder zs + m along + R - sqrt((R^2 - across^2)(1 + m^2)), where 0 <= s* <= length;
 * - the ball at the end, where s* > length.
 *
 * Squared heights decide first, so a root is taken only at nodes that are lowered. Many rows have few nodes here: each is found
 * where it is cut.
 */
export function makeBallSweep(field: HeightField, radius: number, only: Rows): ChainSweep {
  const { cols, cell, x0: fx, y0: fy, z } = field;
  const inv = 1 / cell;
  const full = radius;
  const sq = full * full;
  const widthAt = (low: number) => {
    const h = TOP - low;
    return (h >= full ? full : Math.sqrt(h * (2 * full - h))) + EDGE;
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
  const stand = (
    x: number,
    y: number,
    zt: number,
    ux: number,
    uy: number,
    least: number,
    px: number,
    py: number,
    most: number,
  ): void => {
    if (zt >= TOP) return;
    const zz = z;
    const w0 = widthAt(zt);
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
      narrow(vy, ux, uy, least);
      narrow(vy, -px, -py, -most);
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
  const strip = (
    x0: number,
    y0: number,
    z0: number,
    ux: number,
    uy: number,
    len: number,
    m: number,
    low: number,
    from: number,
    to: number,
  ): void => {
    const zz = z;
    const w0 = widthAt(low);
    const stretch = Math.sqrt(1 + m * m);
    const lean = m / stretch;
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

  return makeChainSweep({ shift: (m) => (m / Math.sqrt(1 + m * m)) * full, stand, strip });
}
