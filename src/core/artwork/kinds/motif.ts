import { z } from 'zod';
import { boundsOfPaths, transformPath } from '../../geometry/path';
import { itemKind } from '../kind';
import { motifOf, motifPaths } from '../motifs/motifs';

/** One of Mirvak's motifs at a width and height of its own. */
export const motif = itemKind({
  id: 'motif',
  name: 'Motif',
  schema: z.object({
    motif: z.string(),
    width: z.number().min(0.1).max(1e5),
    height: z.number().min(0.1).max(1e5),
  }),
  fields: [
    { kind: 'motif', key: 'motif', label: 'Motif' },
    { kind: 'length', key: 'width', label: 'Width' },
    { kind: 'length', key: 'height', label: 'Height' },
  ],
  defaults: { motif: 'heron', width: 50, height: 51.6 },
  shape(v) {
    const paths = motifPaths(v.motif);
    const b = boundsOfPaths(paths);
    const box = { x0: -v.width / 2, y0: -v.height / 2, x1: v.width / 2, y1: v.height / 2 };
    if (!b)
      return { paths: [], fill: 'nonzero', remarks: [`There is no motif "${v.motif}" here; choose another.`], box };
    const a = v.width / (b.x1 - b.x0);
    const d = v.height / (b.y1 - b.y0);
    return {
      paths: paths.map((p) =>
        transformPath(p, { a, b: 0, c: 0, d, e: (-a * (b.x0 + b.x1)) / 2, f: (-d * (b.y0 + b.y1)) / 2 }),
      ),
      fill: 'nonzero',
      remarks: [],
      box,
    };
  },
  scaled: (v, sx, sy) => ({ ...v, width: v.width * sx, height: v.height * sy }),
  // Another motif keeps its own proportions at the same larger side.
  changed(v, before) {
    if (v.motif === before.motif) return v;
    const b = boundsOfPaths(motifPaths(v.motif));
    if (!b) return v;
    const k = Math.max(v.width, v.height) / Math.max(b.x1 - b.x0, b.y1 - b.y0);
    return { ...v, width: (b.x1 - b.x0) * k, height: (b.y1 - b.y0) * k };
  },
  title: (v) => motifOf(v.motif)?.name ?? 'Motif',
});
