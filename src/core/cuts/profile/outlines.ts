import {
  boundsOf,
  boxHolds,
  components,
  contains,
  loopArea,
  offset,
  type Loop,
  type Region,
} from '../../geometry/region';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { pointAt, type ArcPolyline } from '../../motion/arcPolyline';
import { lengthText } from '../../units/length';
import type { CutBlank, CutContext, Remark } from '../kind';

/** What is said of an outline that is too short for its tabs; `part` tells a piece that is wanted from waste. */
export function shortOf(
  { got, asked }: { got: number; asked: number },
  track: ArcPolyline,
  part: boolean,
  blank: CutBlank,
): Remark {
  const { x, y } = pointAt(track, 0);
  const long = lengthText(track.length, blank.unit ?? 'mm', 1);
  if (got > 0)
    return { level: 'note', text: `An outline of ${long} has room for ${got} of ${asked} holding tabs.`, x, y };
  if (!part)
    return {
      level: 'note',
      text: `An opening of ${long} is too short for a holding tab: what falls out of it is loose.`,
      x,
      y,
    };
  const text = `An outline of ${long} is too short for a holding tab: the part is cut free without one. Make the tabs shorter, or leave a skin.`;
  return { level: 'problem', text, x, y };
}

/** Where parts of a region lie in which a cutter that keeps off the outline finds no room. */
export function tooNarrow(region: Region, off: number): { x: number; y: number }[] {
  return components(region)
    .filter((part) => !offset(part, -off).length)
    .map((part) => {
      const b = boundsOf(part)!;
      return { x: (b.x0 + b.x1) / 2, y: (b.y0 + b.y1) / 2 };
    });
}

/** The smallest loop that holds loop i, if any. */
export function holderOf(loops: Region, i: number): number | undefined {
  const box = boundsOf([loops[i]])!;
  let best: number | undefined;
  loops.forEach((l: Loop, k) => {
    if (k === i || Math.abs(loopArea(l)) <= Math.abs(loopArea(loops[i]))) return;
    const q = boundsOf([l])!;
    if (!boxHolds(q, box) || !contains([l], loops[i][0], loops[i][1])) return;
    if (best === undefined || Math.abs(loopArea(l)) < Math.abs(loopArea(loops[best]))) best = k;
  });
  return best;
}

/** What speaks against a tab at a place: a clamp over it, or a part that is thinner there than the tab is long. */
export function badFor(
  region: Region,
  c: CutContext,
  v: { readonly side: string; readonly tabs: { readonly length: number } },
): (x: number, y: number) => number {
  const outline = makeSegmentIndex(region);
  const near = v.tabs.length;
  return (x, y) => {
    const clamped = c.blank.clamps?.some(
      (k) => x > k.x0 - near && x < k.x1 + near && y > k.y0 - near && y < k.y1 + near,
    )
      ? 4
      : 0;
    // The middle of a sound part: a point twice as deep inside as the tab is wide must still be inside.
    let dx = 0;
    let dy = 0;
    const d = outline.distance(x, y);
    for (let k = 0; k < 16; k++) {
      const a = (k * Math.PI) / 8;
      if (outline.distance(x + 0.5 * d * Math.cos(a), y + 0.5 * d * Math.sin(a)) < 0.52 * d) {
        dx += Math.cos(a);
        dy += Math.sin(a);
      }
    }
    const l = Math.hypot(dx, dy);
    if (l < 1e-6) return clamped;
    const deep = d + near;
    return clamped + (contains(region, x + (deep * dx) / l, y + (deep * dy) / l) === (v.side === 'outside') ? 0 : 2);
  };
}
