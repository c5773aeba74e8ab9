import { z } from 'zod';
import { boundsOfPaths, compose, transformPath, type Affine } from '../../geometry/path';
import { pathSchema } from '../../geometry/pathSchema';
import { itemKind } from '../kind';

const scaling = (sx: number, sy: number): Affine => ({ a: sx, b: 0, c: 0, d: sy, e: 0, f: 0 });
const number = z.number().finite();

/** Of which picture, and of which colour of it, outlines were traced; `map` takes its pixels (Y up) to the outlines' own frame. */
export const tracedFromSchema = z.object({
  item: z.string(),
  colour: z.string(),
  map: z.object({ a: number, b: number, c: number, d: number, e: number, f: number }),
});
export type TracedFrom = z.infer<typeof tracedFromSchema>;

/** Free outlines and lines: drawn, imported, traced, or made from other items. Paths lie about the item's origin. */
export const drawing = itemKind({
  id: 'drawing',
  name: 'Drawing',
  offered: false,
  schema: z.object({
    paths: z.array(pathSchema).max(200000),
    fill: z.enum(['nonzero', 'evenodd']),
    traced: tracedFromSchema.optional(),
  }),
  fields: [
    {
      kind: 'choice',
      key: 'fill',
      label: 'Where outlines overlap',
      options: [
        { value: 'nonzero', label: 'Filled' },
        { value: 'evenodd', label: 'Open in turn' },
      ],
    },
  ],
  defaults: { paths: [], fill: 'nonzero' as const },
  shape(v) {
    return {
      paths: v.paths,
      fill: v.fill,
      remarks: [],
      box: boundsOfPaths(v.paths) ?? { x0: -1, y0: -1, x1: 1, y1: 1 },
    };
  },
  scaled: (v, sx, sy) => ({
    ...v,
    paths: v.paths.map((p) => transformPath(p, scaling(sx, sy))),
    ...(v.traced && { traced: { ...v.traced, map: compose(scaling(sx, sy), v.traced.map) } }),
  }),
  title: (v) => (v.paths.every((p) => p.closed) ? 'Drawing' : 'Lines'),
});
