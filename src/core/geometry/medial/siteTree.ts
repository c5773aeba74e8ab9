import { stillWanted } from '../../units/stillWanted';
import type { Sites } from './sites';

/**
 * A box tree over the segments of a region in boundary order.
 *
 * Level 0 holds the box of every LEAF consecutive segments, each level above the boxes of FAN
 * consecutive boxes below; `levelStart[l]` is the first box of level l. A box is four numbers in
 * `boxes`: minX, minY, maxX, maxY. Boundary order needs no sorting and keeps boxes tight.
 *
 * Each box also has a rectangle that lies along its chain, six numbers in `slabs`: a unit normal into the region, square to
 * the chain's chord; the largest and the least offset of the chain along it; its least and largest place along the chord.
 * On a finely divided curve upright boxes overlap every ball that touches it somewhere, while these miss all but the nearest.
 */
export const LEAF = 4;
export const FAN = 4;

export interface SiteTree {
  readonly boxes: Float64Array;
  readonly slabs: Float64Array;
  readonly levelStart: Int32Array;
  readonly levels: number;
}

export function makeSiteTree(s: Sites): SiteTree {
  const counts = [Math.ceil(s.count / LEAF)];
  while (counts[counts.length - 1] > 1) counts.push(Math.ceil(counts[counts.length - 1] / FAN));
  const levelStart = new Int32Array(counts.length + 1);
  counts.forEach((c, l) => (levelStart[l + 1] = levelStart[l] + c));
  const boxes = new Float64Array(4 * levelStart[counts.length]);
  for (let b = 0; b < counts[0]; b++) {
    stillWanted();
    let x0 = Infinity;
    let y0 = Infinity;
    let x1 = -Infinity;
    let y1 = -Infinity;
    for (let i = b * LEAF; i < Math.min(s.count, (b + 1) * LEAF); i++) {
      const j = s.next[i];
      x0 = Math.min(x0, s.ax[i], s.ax[j]);
      y0 = Math.min(y0, s.ay[i], s.ay[j]);
      x1 = Math.max(x1, s.ax[i], s.ax[j]);
      y1 = Math.max(y1, s.ay[i], s.ay[j]);
    }
    boxes.set([x0, y0, x1, y1], 4 * b);
  }
  for (let l = 1; l < counts.length; l++) {
    for (let b = 0; b < counts[l]; b++) {
      const out = 4 * (levelStart[l] + b);
      boxes.set([Infinity, Infinity, -Infinity, -Infinity], out);
      for (let c = b * FAN; c < Math.min(counts[l - 1], (b + 1) * FAN); c++) {
        const at = 4 * (levelStart[l - 1] + c);
        boxes[out] = Math.min(boxes[out], boxes[at]);
        boxes[out + 1] = Math.min(boxes[out + 1], boxes[at + 1]);
        boxes[out + 2] = Math.max(boxes[out + 2], boxes[at + 2]);
        boxes[out + 3] = Math.max(boxes[out + 3], boxes[at + 3]);
      }
    }
  }
  const slabs = new Float64Array(6 * levelStart[counts.length]);
  for (let l = 0, span = LEAF; l < counts.length; l++, span *= FAN) {
    for (let b = 0; b < counts[l]; b++) {
      const first = b * span;
      const last = Math.min(s.count, first + span) - 1;
      const end = s.next[last];
      const ex = s.ax[end] - s.ax[first];
      const ey = s.ay[end] - s.ay[first];
      const chord = Math.sqrt(ex * ex + ey * ey);
      const nx = chord > 0 ? -ey / chord : 0;
      const ny = chord > 0 ? ex / chord : 1;
      let most = -Infinity;
      let least = Infinity;
      let lo = Infinity;
      let hi = -Infinity;
      for (let i = first; i <= last; i++) {
        for (let k = 0; k < 2; k++) {
          const j = k ? s.next[i] : i;
          const across = nx * s.ax[j] + ny * s.ay[j];
          const along = ny * s.ax[j] - nx * s.ay[j];
          if (across > most) most = across;
          if (across < least) least = across;
          if (along < lo) lo = along;
          if (along > hi) hi = along;
        }
      }
      slabs.set([nx, ny, most, least, lo, hi], 6 * (levelStart[l] + b));
    }
  }
  return { boxes, slabs, levelStart, levels: counts.length };
}
