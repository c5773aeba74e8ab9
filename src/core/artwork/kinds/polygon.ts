import { z } from 'zod';
import { roundedPath } from '../../geometry/corners';
import { centredBox } from '../box';
import { itemKind } from '../kind';

/** A regular polygon, one side level at the bottom; `radius` reaches its corners. */
export const polygon = itemKind({
  id: 'polygon',
  name: 'Polygon',
  schema: z.object({
    sides: z.number().int().min(3).max(200),
    radius: z.number().min(0.01).max(1e5),
    rounding: z.number().min(0).max(1e5),
  }),
  fields: [
    { kind: 'number', key: 'sides', label: 'Sides', whole: true },
    { kind: 'length', key: 'radius', label: 'Radius to the corners' },
    { kind: 'length', key: 'rounding', label: 'Rounding of corners' },
  ],
  defaults: { sides: 6, radius: 30, rounding: 0 },
  shape(v) {
    const corners = Array.from({ length: v.sides }, (_, i) => {
      const a = -Math.PI / 2 + (Math.PI * (2 * i + 1)) / v.sides;
      return { x: v.radius * Math.cos(a), y: v.radius * Math.sin(a) };
    });
    return { paths: [roundedPath(corners, v.rounding)], fill: 'nonzero', remarks: [], box: centredBox(v.radius) };
  },
  scaled: (v, sx, sy) => ({ ...v, radius: v.radius * Math.sqrt(sx * sy), rounding: v.rounding * Math.sqrt(sx * sy) }),
  title: () => 'Polygon',
});
