import { z } from 'zod';
import type { Path, Segment } from '../../geometry/path';
import { itemKind } from '../kind';

const length = z.number().min(0.01).max(1e5);

/** Corners are square, rounded (convex quarter), chamfered, or scooped (concave quarter about the corner). */
export const rectangle = itemKind({
  id: 'rectangle',
  name: 'Rectangle',
  schema: z.object({
    width: length,
    height: length,
    corner: z.enum(['square', 'round', 'chamfer', 'scoop']),
    radius: z.number().min(0).max(1e5),
  }),
  fields: [
    { kind: 'length', key: 'width', label: 'Width' },
    { kind: 'length', key: 'height', label: 'Height' },
    {
      kind: 'choice',
      key: 'corner',
      label: 'Corners',
      options: [
        { value: 'square', label: 'Square' },
        { value: 'round', label: 'Rounded' },
        { value: 'chamfer', label: 'Chamfered' },
        { value: 'scoop', label: 'Scooped' },
      ],
    },
    {
      kind: 'length',
      key: 'radius',
      label: 'Corner radius',
      hint: 'Above 0 rounds them',
      when: (v) => v.corner !== 'chamfer',
    },
    {
      kind: 'length',
      key: 'radius',
      label: 'Chamfer',
      hint: 'Along each side',
      when: (v) => v.corner === 'chamfer',
    },
  ],
  defaults: { width: 80, height: 50, corner: 'square' as const, radius: 0 },
  // Most rectangles are borders: a new one keeps a margin to the blank's edges.
  fresh({ width, height }) {
    const margin = 0.07 * Math.min(width, height);
    const step = margin > 5 ? 5 : margin > 1 ? 1 : 0.1;
    const m = Math.max(step, Math.round(margin / step) * step);
    return { width: width - 2 * m, height: height - 2 * m };
  },
  // Corners without a size are square, and square corners have none: either of the two that is changed brings the other along.
  changed(v, before) {
    if (v.corner !== before.corner)
      return {
        ...v,
        radius: v.corner === 'square' ? 0 : v.radius || Math.round(10 * 0.12 * Math.min(v.width, v.height)) / 10,
      };
    if (v.radius !== before.radius)
      return {
        ...v,
        corner: v.radius === 0 ? ('square' as const) : v.corner === 'square' ? ('round' as const) : v.corner,
      };
    return v;
  },
  shape(v) {
    const w = v.width / 2;
    const h = v.height / 2;
    const r = v.corner === 'square' ? 0 : Math.min(v.radius, w, h);
    const box = { x0: -w, y0: -h, x1: w, y1: h };
    const segments: Segment[] = [];
    // Corners counter-clockwise from the lower right: entry point, exit point, the corner, the round centre.
    const corners = [
      [w - r, -h, w, -h + r, w, -h, w - r, -h + r],
      [w, h - r, w - r, h, w, h, w - r, h - r],
      [-w + r, h, -w, h - r, -w, h, -w + r, h - r],
      [-w, -h + r, -w + r, -h, -w, -h, -w + r, -h + r],
    ];
    const start = { x: -w + r, y: -h };
    let at = start;
    for (const [ix, iy, ox, oy, cx, cy, mx, my] of corners) {
      if (Math.abs(ix - at.x) > 1e-12 || Math.abs(iy - at.y) > 1e-12) segments.push({ k: 'line', x: ix, y: iy });
      if (r > 0) {
        if (v.corner === 'chamfer') segments.push({ k: 'line', x: ox, y: oy });
        else if (v.corner === 'round') segments.push({ k: 'arc', x: ox, y: oy, cx: mx, cy: my, ccw: true });
        else segments.push({ k: 'arc', x: ox, y: oy, cx, cy, ccw: false });
      }
      at = { x: ox, y: oy };
    }
    const path: Path = { ...start, segments, closed: true };
    return { paths: [path], fill: 'nonzero', remarks: [], box };
  },
  scaled: (v, sx, sy) => ({ ...v, width: v.width * sx, height: v.height * sy }),
  title: () => 'Rectangle',
});
