import { cuttingLength, radiusAt, radiusOf, type Cutter } from '../../cutters/cutter';
import { lengthText } from '../../units/length';
import { chordsOf, extentOf } from '../../motion/extent';
import type { Check, Finding } from '../check';
import { nameOf } from './worst';

/** The cutter, or what holds it, within a clamp: every move that is lower than a clamp's top, rapid or not. Clamps stand on the face. */
export const clamps: Check = {
  id: 'clamps',
  name: 'Keeps clear of the clamps',
  run: (input) => {
    const out: Finding[] = [];
    const boxes = input.job.clamps;
    if (!boxes.length) return out;
    const told = new Set<string>();
    for (const p of input.programs)
      for (const s of p.sections) {
        const cutter = input.tools.get(s.tool);
        const { all } = extentOf(s.motion);
        const widest = cutter ? Math.max(radiusOf(cutter), cutter.shankDiameter / 2) : 0;
        const near = (k: (typeof boxes)[number]) =>
          all.z0 < k.height &&
          all.x1 > k.x0 - widest &&
          all.x0 < k.x1 + widest &&
          all.y1 > k.y0 - widest &&
          all.y0 < k.y1 + widest;
        if (!boxes.some(near)) continue;
        const m = chordsOf(s.motion);
        for (let i = 1; i < m.count; i++)
          boxes.forEach((k, n) => {
            const low = Math.min(m.z[i], m.z[i - 1]);
            if (low >= k.height || told.has(`${s.cutId}/${n}`)) return;
            // As wide as the cutter, or what holds it, is at the height of the clamp's top.
            const r = cutter ? widthAt(cutter, k.height - low) : 0;
            if (!meets(m.x[i - 1], m.y[i - 1], m.x[i], m.y[i], k.x0 - r, k.y0 - r, k.x1 + r, k.y1 + r)) return;
            told.add(`${s.cutId}/${n}`);
            out.push({
              check: 'clamps',
              text: `"${nameOf(input, s.cutId)}" runs into clamp ${n + 1}, which is ${lengthText(k.height, input.job.unit)} high. Move the clamp, or raise the safe height under Blank.`,
              cutId: s.cutId,
              x: (k.x0 + k.x1) / 2,
              y: (k.y0 + k.y1) / 2,
            });
          });
      }
    return out;
  },
};

/** Largest radius of a cutter up to a height above its tip: its own outline, and above its cutting edges its shank. */
const widthAt = (c: Cutter, height: number): number =>
  Math.max(radiusAt(c, height), height > cuttingLength(c) ? Math.max(radiusOf(c), c.shankDiameter / 2) : 0);

/** Whether a stretch of line enters a box (clipping by its four sides, Liang and Barsky 1984). */
function meets(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): boolean {
  let t0 = 0;
  let t1 = 1;
  for (const [p, q] of [
    [ax - bx, ax - x0],
    [bx - ax, x1 - ax],
    [ay - by, ay - y0],
    [by - ay, y1 - ay],
  ]) {
    if (p === 0) {
      if (q < 0) return false;
    } else if (p < 0) t0 = Math.max(t0, q / p);
    else t1 = Math.min(t1, q / p);
    if (t0 > t1) return false;
  }
  return true;
}
