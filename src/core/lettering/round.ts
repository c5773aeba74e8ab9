import { boundsOfPaths, flatten, placement, transformPath, circlePath, type Path } from '../geometry/path';
import { toSegment } from '../geometry/straight';

/** A circle or ellipse that letters run round: half its width and height, mm. */
export interface Oval {
  readonly rx: number;
  readonly ry: number;
}
/** On which side of it the letters stand, and whether their middle is at its top or bottom. They always read from left to right. */
export interface RoundPlace {
  readonly side: 'outside' | 'inside';
  readonly at: 'top' | 'bottom';
}

/** Between the letters and the outline, as a share of the cap height. */
const GAP = 0.3;
/** An outline counts as a circle when its radius varies by less than this share. */
const TRUE = 0.003;

/** The circle that closed paths are, or the largest of them: its middle and radius. Null where none is one. */
export function circleOf(paths: readonly Path[]): { x: number; y: number; r: number } | null {
  let best: { x: number; y: number; r: number } | null = null;
  for (const p of paths) {
    const b = p.closed ? boundsOfPaths([p]) : null;
    if (!b || !(b.x1 > b.x0)) continue;
    const x = (b.x0 + b.x1) / 2;
    const y = (b.y0 + b.y1) / 2;
    const r = (b.x1 - b.x0) / 2;
    // All the way round, not at its nodes alone: those of a square lie on a circle too.
    const l = flatten(p, r * TRUE * 0.2);
    let worst = Math.abs(b.y1 - b.y0 - 2 * r) / 2;
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
      for (const [px, py] of [
        [l[i], l[i + 1]],
        [(l[i] + l[j]) / 2, (l[i + 1] + l[j + 1]) / 2],
      ])
        worst = Math.max(worst, Math.abs(Math.hypot(px - x, py - y) - r));
    if (worst <= TRUE * r && (!best || r > best.r)) best = { x, y, r };
  }
  return best;
}

/**
 * Baseline values that set letters of a cap height round an oval about the origin.
 *
 *   outside, top      letters stand outwards, feet a gap off the outline
 *   inside, top       letters stand outwards, heads a gap off it
 *   outside, bottom   letters stand inwards, heads a gap off it
 *   inside, bottom    letters stand inwards, feet a gap off it
 */
export function roundBaseline({ rx, ry }: Oval, { side, at }: RoundPlace, capHeight: number): Record<string, unknown> {
  const gap = GAP * capHeight;
  const top = at === 'top';
  // How far the feet stand beyond the outline.
  const feet = side === 'outside' ? (top ? gap : gap + capHeight) : top ? -gap - capHeight : -gap;
  const rest = { align: 'centre', shift: 0, side: 'left', spacing: 'natural' };
  if (Math.abs(rx - ry) < 1e-6 * rx)
    return {
      ...rest,
      baseline: top ? 'outwards' : 'inwards',
      radius: Math.max(0.1, rx + feet),
      at: top ? 90 : 270,
      off: 0,
    };
  // An ellipse: its own curve, from the top clockwise (left is outside) or from the bottom counter-clockwise (left is inside).
  const unit = transformPath(circlePath(0, 0, 1), placement(0, 0, -90, top ? -1 : 1, 1));
  return {
    ...rest,
    baseline: 'curve',
    curve: transformPath(unit, { a: rx, b: 0, c: 0, d: ry, e: 0, f: 0 }),
    off: top ? feet : -feet,
  };
}

/**
 * A cap height with which a text goes round an oval: about a quarter of its radius, no more than what room there is outside
 * of it, and over no more than two fifths of its way round. `width`: of the text set straight with caps of 1 mm.
 */
export function capRound({ rx, ry }: Oval, width: number, room: number): number {
  const r = Math.min(rx, ry);
  const way = Math.PI * (rx + ry);
  const cap = Math.min(0.25 * r, Math.max(room / (1 + 2 * GAP), 0.08 * r), width > 0 ? (0.4 * way) / width : Infinity);
  return fullCap(cap);
}
/** In half millimetres, or hundredths where it is less than one. */
const fullCap = (cap: number): number =>
  cap >= 1 ? Math.floor(cap * 2) / 2 : Math.max(0.1, Math.round(cap * 100) / 100);

/** So much of an oval's width and height a box is at most whose corners it holds, and some room to them, as a share of both. */
const WITHIN = 0.8;

/** A cap height with which a straight text lies in the middle of an oval. `width`, `height`: of the text with caps of 1 mm. */
export const capWithin = ({ rx, ry }: Oval, width: number, height: number): number =>
  fullCap(WITHIN / Math.hypot(width / (2 * rx), height / (2 * ry)));

/**
 * How far out from an oval (about 0, 0, its axes along X and Y) other outlines stand at least, mm; those that lie inside it or
 * cross it are passed over. Round an ellipse it is never too much. Infinity where there are none.
 */
export function roomOutside({ rx, ry }: Oval, others: readonly Path[]): number {
  let slack = Infinity;
  for (const p of others) {
    const l = flatten(transformPath(p, { a: 1 / rx, b: 0, c: 0, d: 1 / ry, e: 0, f: 0 }), 0.001);
    let least = Infinity;
    for (let i = p.closed ? 0 : 2, j = p.closed ? l.length - 2 : 0; i < l.length; j = i, i += 2)
      least = Math.min(least, toSegment(l[j], l[j + 1], l[i], l[i + 1], 0, 0));
    if (least > 1 + 1e-9) slack = Math.min(slack, (least - 1) * Math.min(rx, ry));
  }
  return slack;
}
