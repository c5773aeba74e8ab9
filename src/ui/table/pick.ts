import Flatbush from 'flatbush';
import type { Item, PlacedItem } from '@/core/artwork/item';
import { boxOf, distanceTo, frameBox, isInside, isWithin, touches } from '@/core/artwork/picking';
import { kindOf } from '@/core/cuts/registry';
import type { Bounds } from '@/core/geometry/region';
import type { OneSetup } from '@/core/job/job';
import { pickable } from '@/ui/actions/edits';

/** Closed things whose shorter side is less than this on the screen (px), or that fill less than this share of the blank, are picked by their inside. */
const SMALL_PX = 36;
const SMALL_SHARE = 0.01;

/** Finds items by place: an R-tree over their boxes, so that thousands of them are asked as quickly as ten. */
export class PickIndex {
  private made: Flatbush | null | undefined;
  private readonly entries: { id: string; placed: PlacedItem; filled: boolean }[] = [];

  constructor(
    private readonly job: OneSetup,
    private readonly placed: ReadonlyMap<string, PlacedItem>,
  ) {}

  /** Makes ready what the first press would wait for. */
  warm(): void {
    void this.tree;
  }

  /** Made when it is first asked: while things are dragged, no one asks. */
  private get tree(): Flatbush | null {
    if (this.made === undefined) this.made = this.make(pickable(this.job), this.placed);
    return this.made;
  }

  private make(items: readonly Item[], placed: ReadonlyMap<string, PlacedItem>): Flatbush | null {
    const filled = new Set(this.job.cuts.filter((c) => kindOf(c.kind).fills).flatMap((c) => c.items));
    for (const i of items) {
      const p = placed.get(i.id);
      if (p) this.entries.push({ id: i.id, placed: p, filled: filled.has(i.id) });
    }
    const tree = this.entries.length ? new Flatbush(this.entries.length) : null;
    for (const { placed } of this.entries) {
      const b = frameBox(placed);
      tree!.add(b.x0, b.y0, b.x1, b.y1);
    }
    tree?.finish();
    return tree;
  }

  /**
   * The item at a point: one with a line within `reach` mm first (the nearest), else the smallest that holds the point and
   * whose inside counts: filled by a cut, small, a picture, or between the letters of a text. The inside of a frame is nobody's.
   * `px`: mm of a pixel.
   */
  at(x: number, y: number, reach: number, px: number): string | null {
    const tree = this.tree;
    if (!tree) return null;
    let near: { id: string; away: number } | null = null;
    let holds: { id: string; area: number } | null = null;
    const { width, height } = this.job.blank;
    // In the order of drawing: what lies on top wins among equals.
    for (const k of tree.search(x - reach, y - reach, x + reach, y + reach).sort((a, b) => a - b)) {
      const { id, placed: p, filled } = this.entries[k];
      const away = distanceTo(p, x, y);
      if (away <= reach && (!near || away <= near.away)) near = { id, away };
      const b = boxOf(p);
      const [w, h] = [b.x1 - b.x0, b.y1 - b.y0];
      const area = w * h;
      const counts = filled || Math.min(w, h) < SMALL_PX * px || area < SMALL_SHARE * width * height;
      const within = p.shape.meantWithin;
      const meant = within === undefined ? counts && isInside(p, x, y) : inFrame(p, x, y) && away <= within;
      if (meant && (!holds || area <= holds.area)) holds = { id, area };
    }
    return near?.id ?? holds?.id ?? null;
  }

  /** What lies around a point. */
  near(x: number, y: number, reach: number): PlacedItem[] {
    return this.around({ x0: x - reach, y0: y - reach, x1: x + reach, y1: y + reach }).map((e) => e.placed);
  }

  /** What reaches into a rectangle. */
  around(b: Bounds): { id: string; placed: PlacedItem }[] {
    return (this.tree?.search(b.x0, b.y0, b.x1, b.y1) ?? []).map((k) => this.entries[k]);
  }

  /** Items that lie wholly in a rectangle; those that it touches as well where `touching`. */
  inBox(x0: number, y0: number, x1: number, y1: number, touching: boolean): string[] {
    const b = { x0: Math.min(x0, x1), y0: Math.min(y0, y1), x1: Math.max(x0, x1), y1: Math.max(y0, y1) };
    return this.around(b)
      .filter((e) => isWithin(e.placed, b) || (touching && touches(e.placed, b)))
      .map((e) => e.id);
  }
}

/** Whether a point lies in the frame of an item. */
export function inFrame({ corners: c }: PlacedItem, x: number, y: number): boolean {
  return c.every((a, i) => {
    const b = c[(i + 1) % 4];
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) >= 0;
  });
}
