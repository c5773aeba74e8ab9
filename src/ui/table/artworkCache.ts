import type { PlacedItem } from '@/core/artwork/item';
import type { Shape } from '@/core/artwork/kind';
import { boxesMeet, noBox, widen, type Bounds } from '@/core/geometry/box';
import { pathOf } from './outlinePath';
import { SlicedPicture, type Ctx } from './slicedPicture';
import type { Viewport } from './viewport';

/** Artwork of one look: ink, and a fill rule when it is filled. */
export interface Batch {
  readonly ink: string;
  readonly fill: CanvasFillRule | null;
  readonly items: readonly PlacedItem[];
}

/** Items of one look that are stroked in one go. */
const SHEAF = 96;
/** Below so many segments artwork is simply drawn; above, a picture of it is kept. */
const SMALL = 6000;

interface Sheaf {
  readonly items: readonly PlacedItem[];
  readonly path: Path2D;
  readonly box: Readonly<Bounds>;
}
const sheaves = new WeakMap<PlacedItem, Sheaf>();

/** The outlines of some items as one path, kept until one of them changes. */
function sheafOf(items: readonly PlacedItem[]): Sheaf {
  const kept = sheaves.get(items[0]);
  if (kept && kept.items.length === items.length && kept.items.every((p, i) => p === items[i])) return kept;
  const path = new Path2D();
  const box = noBox();
  for (const p of items) {
    path.addPath(pathOf(p));
    for (const c of p.corners) widen(box, c.x, c.y);
  }
  const made: Sheaf = { items, path, box };
  sheaves.set(items[0], made);
  return made;
}

const facts = new WeakMap<Shape, { closed: boolean; segments: number }>();
/** Whether all outlines of an item are closed, and how many segments they have: counted once. */
export function factsOf({ shape }: PlacedItem): { closed: boolean; segments: number } {
  let f = facts.get(shape);
  if (!f) {
    const { paths } = shape;
    f = { closed: paths.every((q) => q.closed), segments: paths.reduce((n, q) => n + q.segments.length, 0) };
    facts.set(shape, f);
  }
  return f;
}

function* steps(ctx: Ctx, width: number, height: number, v: Viewport, batches: readonly Batch[]): Generator<void> {
  const px = 1 / v.k;
  const seen = { x0: -v.ox * px, y0: (v.oy - height) * px, x1: (width - v.ox) * px, y1: v.oy * px };
  for (const b of batches)
    for (let i = 0; i < b.items.length; i += SHEAF) {
      const s = sheafOf(b.items.slice(i, i + SHEAF));
      if (!boxesMeet(s.box, seen)) continue;
      ctx.fillStyle = ctx.strokeStyle = b.ink;
      ctx.lineWidth = px;
      if (b.fill) {
        ctx.globalAlpha = 0.1;
        ctx.fill(s.path, b.fill);
        ctx.globalAlpha = 1;
      }
      ctx.stroke(s.path);
      yield;
    }
}

const sameBatches = (a: readonly Batch[], b: readonly Batch[]): boolean =>
  a === b ||
  (a.length === b.length &&
    a.every(
      (x, i) =>
        x.ink === b[i].ink &&
        x.fill === b[i].fill &&
        x.items.length === b[i].items.length &&
        x.items.every((p, k) => p === b[i].items[k]),
    ));

const counted = new WeakMap<readonly Batch[], number>();
function segmentsOf(batches: readonly Batch[]): number {
  let n = counted.get(batches);
  if (n === undefined)
    counted.set(batches, (n = batches.reduce((s, b) => s + b.items.reduce((m, p) => m + factsOf(p).segments, 0), 0)));
  return n;
}

/** A picture of artwork. */
export const artworkPicture = (): SlicedPicture<readonly Batch[]> =>
  new SlicedPicture({ small: (b) => segmentsOf(b) < SMALL, same: sameBatches, steps });
