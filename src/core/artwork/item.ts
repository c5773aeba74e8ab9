import { z } from 'zod';
import { flatten, placement, transformPath, type Path } from '../geometry/path';
import { boundsOf, normalise, type Bounds, type Region } from '../geometry/region';
import type { ArtworkContext } from './kind';
import { itemKindOf } from './registry';

/** One piece of artwork: the values of its kind, its place (mm, blank's frame) and turn (degrees, counter-clockwise). */
export const itemSchema = z
  .object({
    id: z.string().min(1),
    name: z.string(),
    kind: z.string(),
    visible: z.boolean(),
    x: z.number().finite(),
    y: z.number().finite(),
    angle: z.number().finite(),
    values: z.record(z.string(), z.unknown()),
  })
  .superRefine((item, ctx) => {
    try {
      const r = itemKindOf(item.kind).schema.safeParse(item.values);
      if (!r.success) for (const i of r.error.issues) ctx.addIssue({ code: 'custom', path: ['values', ...i.path], message: i.message });
    } catch (e) {
      ctx.addIssue({ code: 'custom', path: ['kind'], message: (e as Error).message });
    }
  });
export type Item = z.infer<typeof itemSchema>;

export interface PlacedItem {
  readonly paths: Path[];
  readonly remarks: string[];
  /** Corners of the item's own box, turned and placed: lower left, lower right, upper right, upper left. */
  readonly corners: readonly { x: number; y: number }[];
}

/** The exact outlines of an item in the blank's frame. */
export function placeItem(item: Item, c: ArtworkContext): PlacedItem {
  const shape = itemKindOf(item.kind).shape(item.values, c);
  const m = placement(item.x, item.y, item.angle);
  const { x0, y0, x1, y1 } = shape.box;
  const at = (x: number, y: number) => ({ x: m.a * x + m.c * y + m.e, y: m.b * x + m.d * y + m.f });
  return {
    paths: shape.paths.map((p) => transformPath(p, m)),
    remarks: shape.remarks,
    corners: [at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)],
  };
}

/** The filled region of an item, flattened to `tolerance` mm. */
export function itemRegion(item: Item, c: ArtworkContext, tolerance: number): Region {
  const fill = itemKindOf(item.kind).shape(item.values, c).fill;
  return normalise(
    placeItem(item, c).paths.map((p) => flatten(p, tolerance)),
    fill,
  );
}

/** Several items as one region. Nested items make holes: a ring is picked as its outer and inner outline. */
export function regionOf(items: readonly Item[], c: ArtworkContext, tolerance: number): Region {
  if (items.length === 1) return itemRegion(items[0], c, tolerance);
  const all: Region = [];
  for (const i of items) all.push(...itemRegion(i, c, tolerance));
  return normalise(all, 'evenodd');
}

/** Bounds of what an item draws; its box where it draws nothing. */
export function itemBounds(p: PlacedItem): Bounds {
  const b = boundsOf(p.paths.map((q) => flatten(q, 0.05)));
  return b ?? boundsOf([Float64Array.from(p.corners.flatMap((q) => [q.x, q.y]))])!;
}

