import { staysInside } from '../../geometry/lines';
import type { Region } from '../../geometry/region';
import { fitMovesAnywhere } from '../../motion/fitMoves';
import type { MotionBuilder } from '../../motion/motion';
import { orderPieces } from '../../motion/order';
import { linkHeightOf, type CutBlank } from '../kind';
import type { Stroke } from './strokes';

/** How strokes are run: fitted within a tolerance; linked on the floor inside the rim where that is quicker than lifting. */
export interface Carving {
  readonly tolerance: number;
  readonly weight: number;
  readonly rim: Region;
  /** Minutes of lifting, going over and coming down again. */
  readonly lift: number;
}

/** Runs strokes in the order of the shortest way through the air. */
export function carve(
  b: MotionBuilder,
  strokes: Stroke[],
  blank: CutBlank,
  preset: { feed: number; plunge: number },
  o: Carving,
): void {
  const even = (s: Stroke) => s.length > 6 && s.every((z, i) => i % 3 !== 2 || z === s[2]);
  const order = orderPieces(
    strokes.map((s) => ({ inX: s[0], inY: s[1], outX: s[s.length - 3], outY: s[s.length - 2], reversible: even(s) })),
    b.count ? b.lastX : 0,
    b.count ? b.lastY : 0,
    { effort: 1 },
  );
  for (const { piece: k, reversed } of order) {
    const s = reversed ? turned(strokes[k]) : strokes[k];
    const way = b.count ? Math.hypot(s[0] - b.lastX, s[1] - b.lastY) : Infinity;
    const level = b.count > 0 && Math.abs(s[2] - b.lastZ) < 1e-6;
    if (level && way > 1e-6 && way / preset.feed < o.lift && staysInside(o.rim, b.lastX, b.lastY, s[0], s[1]))
      b.line(s[0], s[1], s[2], preset.feed);
    else if (!level || way > 1e-6) {
      const low = linkHeightOf(blank);
      b.lift(low);
      b.rapid(s[0], s[1], b.count ? low : blank.safeHeight);
      b.rapid(s[0], s[1], blank.clearance);
      if (Math.max(0, s[2]) + blank.approach < blank.clearance) b.rapid(s[0], s[1], Math.max(0, s[2]) + blank.approach);
      b.plunge(s[2], preset.plunge);
    }
    for (const { to, cx, cy, sweep } of fitMovesAnywhere(s, o.tolerance, o.weight)) {
      if (sweep === 0) b.line(s[3 * to], s[3 * to + 1], s[3 * to + 2], preset.feed);
      else b.arc(sweep > 0, s[3 * to], s[3 * to + 1], s[3 * to + 2], cx, cy, preset.feed);
    }
  }
}

function turned(s: Stroke): Stroke {
  const out = new Float64Array(s.length);
  for (let i = 0; i < s.length; i += 3) out.set(s.subarray(i, i + 3), s.length - 3 - i);
  return out;
}
