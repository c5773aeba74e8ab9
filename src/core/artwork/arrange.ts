import type { Bounds } from '../geometry/region';
import type { Item } from './item';

/** What aligning and distributing look at: an item and the box of what it draws. mm. */
export interface Boxed {
  readonly id: string;
  readonly box: Bounds;
}
export interface Shift {
  readonly id: string;
  readonly dx: number;
  readonly dy: number;
}

export const alignments = ['left', 'centre', 'right', 'bottom', 'middle', 'top'] as const;
export type Alignment = (typeof alignments)[number];

const lineOf = (b: Bounds, a: Alignment): number =>
  ({ left: b.x0, centre: (b.x0 + b.x1) / 2, right: b.x1, bottom: b.y0, middle: (b.y0 + b.y1) / 2, top: b.y1 })[a];
const isAcross = (a: Alignment) => a === 'left' || a === 'centre' || a === 'right';

/** Moves that bring an edge or middle of every box onto that of `to`. */
export const align = (boxes: readonly Boxed[], a: Alignment, to: Bounds): Shift[] =>
  boxes.map(({ id, box }) => {
    const d = lineOf(to, a) - lineOf(box, a);
    return isAcross(a) ? { id, dx: d, dy: 0 } : { id, dx: 0, dy: d };
  });

/** Moves that make the gaps between neighbours equal; the outermost two stay where they are. */
export function distribute(boxes: readonly Boxed[], axis: 'x' | 'y'): Shift[] {
  const lo = (b: Bounds) => (axis === 'x' ? b.x0 : b.y0);
  const hi = (b: Bounds) => (axis === 'x' ? b.x1 : b.y1);
  const order = [...boxes].sort((p, q) => lo(p.box) + hi(p.box) - lo(q.box) - hi(q.box));
  if (order.length < 3) return [];
  const first = order[0].box;
  const last = order[order.length - 1].box;
  const inner = order.reduce((s, b) => s + hi(b.box) - lo(b.box), 0);
  const gap = (hi(last) - lo(first) - inner) / (order.length - 1);
  let at = lo(first);
  return order.map(({ id, box }) => {
    const d = at - lo(box);
    at += hi(box) - lo(box) + gap;
    return axis === 'x' ? { id, dx: d, dy: 0 } : { id, dx: 0, dy: d };
  });
}

export const around = (boxes: readonly Bounds[]): Bounds | null =>
  boxes.length
    ? boxes.reduce((a, b) => ({
        x0: Math.min(a.x0, b.x0),
        y0: Math.min(a.y0, b.y0),
        x1: Math.max(a.x1, b.x1),
        y1: Math.max(a.y1, b.y1),
      }))
    : null;

/** Places of copies in columns and rows, the original's own left out; steps in mm. */
export function rowPlaces(cols: number, rows: number, stepX: number, stepY: number): { dx: number; dy: number }[] {
  const out: { dx: number; dy: number }[] = [];
  for (let r = 0; r < rows; r++) for (let c = 0; c < cols; c++) if (r || c) out.push({ dx: c * stepX, dy: r * stepY });
  return out;
}

/**
 * An item's place among `count` copies evenly round a point, each turned with its place or left upright; the first
 * is the item itself. `sweep` degrees, 360 for a whole ring.
 */
export function ringPlaces(
  item: Pick<Item, 'x' | 'y' | 'angle'>,
  count: number,
  cx: number,
  cy: number,
  sweep: number,
  turn: boolean,
): { x: number; y: number; angle: number }[] {
  const whole = Math.abs(Math.abs(sweep) - 360) < 1e-9;
  const step = sweep / Math.max(1, whole ? count : count - 1);
  return Array.from({ length: count }, (_, k) => {
    const t = (k * step * Math.PI) / 180;
    const dx = item.x - cx;
    const dy = item.y - cy;
    return {
      x: cx + dx * Math.cos(t) - dy * Math.sin(t),
      y: cy + dx * Math.sin(t) + dy * Math.cos(t),
      angle: turn ? wrap(item.angle + k * step) : item.angle,
    };
  });
}

/** An item mirrored in an upright or level line through a point. */
export function mirrored<T extends Pick<Item, 'x' | 'y' | 'angle' | 'mirror'>>(
  item: T,
  axis: 'upright' | 'level',
  cx: number,
  cy: number,
): T {
  // Mirroring in a level line is mirroring in an upright one and half a turn.
  return axis === 'upright'
    ? { ...item, x: 2 * cx - item.x, angle: wrap(-item.angle), mirror: !item.mirror }
    : { ...item, y: 2 * cy - item.y, angle: wrap(180 - item.angle), mirror: !item.mirror };
}

/** An item turned about a point, degrees counter-clockwise. */
export function turnedAbout<T extends Pick<Item, 'x' | 'y' | 'angle'>>(
  item: T,
  degrees: number,
  cx: number,
  cy: number,
): T {
  const [p] = ringPlaces(item, 1, cx, cy, 0, true);
  const t = (degrees * Math.PI) / 180;
  const dx = p.x - cx;
  const dy = p.y - cy;
  return {
    ...item,
    x: cx + dx * Math.cos(t) - dy * Math.sin(t),
    y: cy + dx * Math.sin(t) + dy * Math.cos(t),
    angle: wrap(item.angle + degrees),
  };
}

/** Degrees within -180 (left out) and 180. */
export const wrap = (a: number): number => {
  const r = ((a % 360) + 360) % 360;
  return r > 180 ? r - 360 : r;
};
