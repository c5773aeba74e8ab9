import type { Item, PlacedItem } from '@/core/artwork/item';
import { outlineOf } from './drawPlan';

let probe: CanvasRenderingContext2D | null = null;

const area = (c: readonly { x: number; y: number }[]) => Math.abs((c[1].x - c[0].x) * (c[3].y - c[0].y) - (c[1].y - c[0].y) * (c[3].x - c[0].x));

function inside(c: readonly { x: number; y: number }[], x: number, y: number): boolean {
  return c.every((a, i) => {
    const b = c[(i + 1) % 4];
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) >= 0;
  });
}

/** The item at a point: one whose outline is within `reach` mm first, else the smallest whose box holds the point. */
export function itemAt(items: readonly Item[], placed: ReadonlyMap<string, PlacedItem>, x: number, y: number, reach: number): string | null {
  probe ??= document.createElement('canvas').getContext('2d')!;
  probe.lineWidth = 2 * reach;
  let best: { id: string; score: number } | null = null;
  for (const i of items) {
    const p = placed.get(i.id);
    if (!p || !i.visible) continue;
    const near = probe.isPointInStroke(outlineOf(p), x, y);
    if (!near && !inside(p.corners, x, y)) continue;
    const score = area(p.corners) * (near ? 1e-6 : 1);
    if (!best || score <= best.score) best = { id: i.id, score };
  }
  return best?.id ?? null;
}

/** Items whose boxes lie wholly inside a rectangle. */
export const itemsIn = (items: readonly Item[], placed: ReadonlyMap<string, PlacedItem>, x0: number, y0: number, x1: number, y1: number): string[] =>
  items.filter((i) => i.visible && placed.get(i.id)?.corners.every((c) => c.x >= Math.min(x0, x1) && c.x <= Math.max(x0, x1) && c.y >= Math.min(y0, y1) && c.y <= Math.max(y0, y1))).map((i) => i.id);
