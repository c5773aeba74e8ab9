import type { CutterForm } from '../cutters/form';
import type { HeightField } from '../relief/field';
import { makeChainSweep, type ChainSweep } from './chainSweep';
import { EDGE, TOP } from './envelope';
import type { Rows } from './removal';
import { Spans } from './spans';

/**
 * Material removal by a cone with a level tip (V-bits, engraving cutters, diamonds without a round), in closed form, for moves
 * that are less steep than its side: K = |slope| / rise < 1 (see ./envelope.ts). On the endless line the side is lowest
 *
 *      k |across| downhill of the node's foot,   k = K / sqrt(1 - K^2),
 *
 * and stands there at z(along) + |across| rise sqrt(1 - K^2) - core rise. Nothing on the move is lower than that: most nodes are
 * done with by one comparison, and no root is taken where that place lies on the move.
 */
export function makeConeSweep(field: HeightField, { radius: full, core, rise }: CutterForm, only: Rows): ChainSweep {
  const { cols, cell, x0: fx, y0: fy, z } = field;
  const spans = new Spans(field, only);
  const core2 = core * core;
  const full2 = (full + EDGE) * (full + EDGE);
  const widthAt = (low: number) => Math.min(full, core + (TOP - low) / rise) + EDGE;
  const downhill = (m: number): number => {
    const K = (m < 0 ? -m : m) / rise;
    return K / Math.sqrt(1 - K * K);
  };
  return makeChainSweep({
    shift: (m, low) => (m === 0 ? 0 : (m < 0 ? -1 : 1) * Math.max(downhill(m) * widthAt(low), core)),
    stand(x, y, zt, ux, uy, least, px, py, most) {
      if (zt >= TOP) return;
      spans.disc(x, y, widthAt(zt), ux, uy, least, px, py, most);
      const { rows, end } = spans;
      const zz = z;
      for (let k = 0; k < end; k += 3) {
        const r = rows[k];
        const vy = fy + r * cell - y;
        const vy2 = vy * vy;
        let vx = fx + rows[k + 1] * cell - x;
        const last = r * cols + rows[k + 2];
        for (let i = r * cols + rows[k + 1]; i <= last; i++, vx += cell) {
          const was = zz[i];
          if (was <= zt) continue;
          const rho2 = vx * vx + vy2;
          const free = core + (was - zt) / rise;
          if (rho2 < free * free) zz[i] = rho2 > core2 ? zt + (Math.sqrt(rho2) - core) * rise : zt;
        }
      }
    },
    strip(x0, y0, z0, ux, uy, len, m, low, from, to) {
      const K = (m < 0 ? -m : m) / rise;
      const flank = rise * Math.sqrt(1 - K * K);
      const way = m > 0 ? -downhill(m) : downhill(m);
      const foot = z0 - core * rise;
      spans.strip(x0, y0, ux, uy, from, to, widthAt(low));
      const { rows, end } = spans;
      const zz = z;
      for (let k = 0; k < end; k += 3) {
        const r = rows[k];
        const vy = fy + r * cell - y0;
        let vx = fx + rows[k + 1] * cell - x0;
        const last = r * cols + rows[k + 2];
        for (let i = r * cols + rows[k + 1]; i <= last; i++, vx += cell) {
          const was = zz[i];
          if (was <= low) continue;
          const t = vy * ux - vx * uy;
          const across = t < 0 ? -t : t;
          const along = vx * ux + vy * uy;
          const lowest = foot + m * along + across * flank;
          if (lowest >= was) continue;
          const h2 = across * across;
          let d = across * way;
          let s = along + d;
          if (s >= 0 && s <= len && h2 + d * d >= core2 && h2 + d * d <= full2) {
            zz[i] = lowest;
            continue;
          }
          // Under the tip the lowest place is where its rim comes over the node; beyond the move it is the move's end.
          if (h2 + d * d < core2) s = along + (m > 0 ? -1 : m < 0 ? 1 : 0) * Math.sqrt(core2 - h2);
          if (s < 0) s = 0;
          else if (s > len) s = len;
          d = s - along;
          let rho2 = h2 + d * d;
          if (rho2 > full2) {
            // The place is not covered: the nearest that is.
            if (h2 > full2) continue;
            const w = Math.sqrt(full2 - h2);
            s = d > 0 ? along + w : along - w;
            if (s < 0 || s > len) continue;
            rho2 = full2;
          }
          const zc = z0 + m * s + (rho2 > core2 ? (Math.sqrt(rho2) - core) * rise : 0);
          if (zc < was) zz[i] = zc;
        }
      }
    },
  });
}
