import { z } from 'zod';
import { boundsOfPaths, flatten, placement, transformPath, type Affine, type Path } from '../geometry/path';
import { boundsOf, normalise, type Bounds, type Fill, type Region } from '../geometry/region';
import type { ArtworkContext, Drawn, Shape } from './kind';
import { itemKindOf } from './registry';
import { append } from '../units/append';
import { valuesAreSound } from '../units/issues';

/** One piece of artwork: the values of its kind, its place (mm, blank's frame) and turn (degrees, counter-clockwise). */
export const itemSchema = z
  .object({
    id: z.string().min(1),
    name: z.string(),
    kind: z.string(),
    visible: z.boolean(),
    // Within a kilometre of the blank.
    x: z.number().min(-1e6).max(1e6),
    y: z.number().min(-1e6).max(1e6),
    angle: z.number().min(-1e6).max(1e6),
    /** Mirrored left to right before its turn. */
    mirror: z.boolean(),
    /** Id of the layer it lies on. */
    layer: z.string(),
    /** Id of the innermost group it belongs to. */
    group: z.string().nullable(),
    values: z.record(z.string(), z.unknown()),
  })
  .superRefine((item, ctx) => {
    try {
      valuesAreSound(item.values, itemKindOf(item.kind), ctx);
    } catch (e) {
      ctx.addIssue({ code: 'custom', path: ['kind'], message: (e as Error).message });
    }
  });
export type Item = z.infer<typeof itemSchema>;

const byIds = new WeakMap<readonly Item[], ReadonlyMap<string, Item>>();
/** Items by their ids; looked through once as long as the list lives. */
export function itemsById(items: readonly Item[]): ReadonlyMap<string, Item> {
  let by = byIds.get(items);
  if (!by) byIds.set(items, (by = new Map(items.map((i) => [i.id, i]))));
  return by;
}

/** An item with what is not said of it. */
export const newItem = (i: Pick<Item, 'id' | 'name' | 'kind' | 'values'> & Partial<Item>): Item => ({
  visible: true,
  x: 0,
  y: 0,
  angle: 0,
  mirror: false,
  layer: FIRST_LAYER,
  group: null,
  ...i,
});

/** The layer that every job begins with. */
export const FIRST_LAYER = 'layer-1';

export const placementOf = (item: Pick<Item, 'x' | 'y' | 'angle' | 'mirror'>): Affine =>
  placement(item.x, item.y, item.angle, item.mirror ? -1 : 1, 1);

export interface PlacedItem {
  /** What it is drawn from; its sizes are the same wherever it is placed. */
  readonly values: Item['values'];
  /** What it draws about its own origin, and the place that it has. */
  readonly shape: Shape;
  readonly at: Affine;
  /** The exact outlines in the blank's frame, worked out when they are asked for first. */
  readonly paths: Path[];
  readonly fill: Fill;
  readonly remarks: string[];
  /** Corners of the item's own box, turned and placed: lower left, lower right, upper right, upper left. */
  readonly corners: readonly { x: number; y: number }[];
}

/** What stands for an item that cannot be drawn: nothing, in its place, and why. */
export const undrawn = (item: Item): PlacedItem =>
  placeShape(item, {
    paths: [],
    fill: 'nonzero',
    remarks: ['This cannot be drawn with these values. Change the last of them, undo, or delete it.'],
    box: { x0: 0, y0: 0, x1: 0, y1: 0 },
  });

/** What a kind draws with some values, about the item's own origin. */
export const shapeWith = (kind: string, values: unknown, c: ArtworkContext): Shape =>
  itemKindOf(kind).shape(values, c, (other: Drawn) => shapeWith(other.kind, other.values, c));

/** An item that draws a shape, in the blank's frame. */
export function placeShape(item: Pick<Item, 'values' | 'x' | 'y' | 'angle' | 'mirror'>, shape: Shape): PlacedItem {
  const m = placementOf(item);
  const { y0, y1 } = shape.box;
  const [x0, x1] = item.mirror ? [shape.box.x1, shape.box.x0] : [shape.box.x0, shape.box.x1];
  const at = (x: number, y: number) => ({ x: m.a * x + m.c * y + m.e, y: m.b * x + m.d * y + m.f });
  let paths: Path[] | null = null;
  return {
    values: item.values,
    shape,
    at: m,
    get paths() {
      return (paths ??= shape.paths.map((p) => transformPath(p, m)));
    },
    fill: shape.fill,
    remarks: shape.remarks,
    corners: [at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)],
  };
}

/** The exact outlines of an item in the blank's frame. */
export const placeItem = (item: Item, c: ArtworkContext): PlacedItem =>
  placeShape(item, shapeWith(item.kind, item.values, c));

/** The filled region of an item (its closed outlines), flattened to `tolerance` mm. */
export function itemRegion(item: Item, c: ArtworkContext, tolerance: number): Region {
  const { paths, fill } = placeItem(item, c);
  return normalise(
    paths.filter((p) => p.closed).map((p) => flatten(p, tolerance)),
    fill,
  );
}

/** Several items as one region. Nested items make holes: a ring is picked as its outer and inner outline. */
export function regionOf(items: readonly Item[], c: ArtworkContext, tolerance: number): Region {
  if (items.length === 1) return itemRegion(items[0], c, tolerance);
  const all: Region = [];
  for (const i of items) append(all, itemRegion(i, c, tolerance));
  return normalise(all, 'evenodd');
}

const boundsOfShapes = new WeakMap<Shape, Bounds | null>();
/** Bounds of what a shape draws about its own origin, kept with it. */
function boundsOfShape(shape: Shape): Bounds | null {
  let b = boundsOfShapes.get(shape);
  if (b === undefined) boundsOfShapes.set(shape, (b = boundsOfPaths(shape.paths)));
  return b;
}

/** Bounds of what an item draws; its box where it draws nothing. */
export function itemBounds(p: PlacedItem): Bounds {
  const { a, b, c, d, e, f } = p.at;
  // What is not turned lies in the same box, elsewhere and perhaps mirrored.
  const upright = b === 0 && c === 0 ? boundsOfShape(p.shape) : null;
  if (upright) {
    const [xs, ys] = [
      [a * upright.x0 + e, a * upright.x1 + e],
      [d * upright.y0 + f, d * upright.y1 + f],
    ];
    return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
  }
  return boundsOfPaths(p.paths) ?? boundsOf([Float64Array.from(p.corners.flatMap((q) => [q.x, q.y]))])!;
}

/** The lines and outlines of several items one by one, flattened to `tolerance` mm. */
export function linesOf(
  items: readonly Item[],
  c: ArtworkContext,
  tolerance: number,
): { points: Float64Array; closed: boolean }[] {
  return items
    .flatMap((i) => placeItem(i, c).paths.map((p) => ({ points: flatten(p, tolerance), closed: p.closed })))
    .filter((l) => l.points.length >= 4);
}
