import { z } from 'zod';
import { boundsOfPaths, transformPath } from '../../geometry/path';
import { pathSchema } from '../../geometry/pathSchema';
import { itemKind } from '../kind';

/** Free outlines and lines: drawn, imported, traced, or made from other items. Paths lie about the item's origin. */
export const drawing = itemKind({
  id: 'drawing',
  name: 'Drawing',
  offered: false,
  schema: z.object({ paths: z.array(pathSchema).max(200000), fill: z.enum(['nonzero', 'evenodd']) }),
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
    return { paths: v.paths, fill: v.fill, remarks: [], box: boundsOfPaths(v.paths) ?? { x0: -1, y0: -1, x1: 1, y1: 1 } };
  },
  scaled: (v, sx, sy) => ({ ...v, paths: v.paths.map((p) => transformPath(p, { a: sx, b: 0, c: 0, d: sy, e: 0, f: 0 })) }),
  title: (v) => (v.paths.every((p) => p.closed) ? 'Drawing' : 'Lines'),
});
