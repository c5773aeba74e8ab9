import Flatbush from 'flatbush';
import type { Item, PlacedItem } from '@/core/artwork/item';
import type { Bounds } from '@/core/geometry/region';
import { pathOf } from './outlinePath';

let probe: CanvasRenderingContext2D | null = null;

type Corners = PlacedItem['corners'];
const area = (c: Corners) => Math.abs((c[1].x - c[0].x) * (c[3].y - c[0].y) - (c[1].y - c[0].y) * (c[3].x - c[0].x));

function inside(c: Corners, x: number, y: number): boolean {
  return c.every((a, i) => {
    const b = c[(i + 1) % 4];
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) >= 0;
  });
}

/** Finds items by place: an R-tree over their boxes, so that thousands of them are asked as quickly as ten. */
export class PickIndex {
  private made: Flatbush | null | undefined;
  private readonly entries: { id: string; placed: PlacedItem }[] = [];

  constructor(
    private readonly items: () => readonly Item[],
    private readonly placed: ReadonlyMap<string, PlacedItem>,
  ) {}

  /** Makes ready what the first press would wait for. */
  warm(): void {
    void this.tree;
  }

  /** Made when it is first asked: while things are dragged, no one asks. */
  private get tree(): Flatbush | null {
    if (this.made === undefined) this.made = this.make(this.items(), this.placed);
    return this.made;
  }

  private make(items: readonly Item[], placed: ReadonlyMap<string, PlacedItem>): Flatbush | null {
    for (const i of items) {
      const p = placed.get(i.id);
      if (p) this.entries.push({ id: i.id, placed: p });
    }
    const tree = this.entries.length ? new Flatbush(this.entries.length) : null;
    for (const { placed: p } of this.entries) {
      const xs = p.corners.map((c) => c.x);
      const ys = p.corners.map((c) => c.y);
      tree!.add(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys));
    }
    tree?.finish();
    return tree;
  }

  /** The item at a point: one whose outline is within `reach` mm first, else the smallest whose box holds the point. */
  at(x: number, y: number, reach: number): string | null {
    const tree = this.tree;
    if (!tree) return null;
    probe ??= document.createElement('canvas').getContext('2d')!;
    probe.lineWidth = 2 * reach;
    let best: { id: string; score: number } | null = null;
    // In the order of drawing: what lies on top wins among equals.
    for (const k of tree.search(x - reach, y - reach, x + reach, y + reach).sort((a, b) => a - b)) {
      const { id, placed: p } = this.entries[k];
      const near = probe.isPointInStroke(pathOf(p), x, y);
      if (!near && !inside(p.corners, x, y)) continue;
      const score = area(p.corners) * (near ? 1e-6 : 1);
      if (!best || score <= best.score) best = { id, score };
    }
    return best?.id ?? null;
  }

  /** What lies around a point. */
  near(x: number, y: number, reach: number): PlacedItem[] {
    return this.around({ x0: x - reach, y0: y - reach, x1: x + reach, y1: y + reach }).map((e) => e.placed);
  }

  /** What reaches into a rectangle. */
  around(b: Bounds): { id: string; placed: PlacedItem }[] {
    return (this.tree?.search(b.x0, b.y0, b.x1, b.y1) ?? []).map((k) => this.entries[k]);
  }

  /** Items whose boxes lie wholly inside a rectangle. */
  within(x0: number, y0: number, x1: number, y1: number): string[] {
    const [a, b, c, d] = [Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1)];
    return (this.tree?.search(a, b, c, d) ?? []).filter((k) => this.entries[k].placed.corners.every((q) => q.x >= a && q.x <= c && q.y >= b && q.y <= d)).map((k) => this.entries[k].id);
  }
}
