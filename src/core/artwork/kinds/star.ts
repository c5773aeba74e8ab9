import { z } from 'zod';
import { roundedPath } from '../../geometry/corners';
import { centredBox } from '../box';
import { itemKind } from '../kind';

/** A star with one point up; `inner` is the radius of the notches as a share of the outer one. */
export const star = itemKind({
  id: 'star',
  name: 'Star',
  schema: z.object({
    points: z.number().int().min(3).max(200),
    radius: z.number().min(0.01).max(1e5),
    inner: z.number().min(1).max(99),
    rounding: z.number().min(0).max(1e5),
  }),
  fields: [
    { kind: 'number', key: 'points', label: 'Points', whole: true },
    { kind: 'length', key: 'radius', label: 'Radius to the points' },
    { kind: 'number', key: 'inner', label: 'Notches at', unit: '%' },
    { kind: 'length', key: 'rounding', label: 'Rounding of corners' },
  ],
  defaults: { points: 5, radius: 30, inner: 45, rounding: 0 },
  shape(v) {
    const corners = Array.from({ length: 2 * v.points }, (_, i) => {
      const a = Math.PI / 2 + (Math.PI * i) / v.points;
      const r = i % 2 ? (v.radius * v.inner) / 100 : v.radius;
      return { x: r * Math.cos(a), y: r * Math.sin(a) };
    });
    return { paths: [roundedPath(corners, v.rounding)], fill: 'nonzero', remarks: [], box: centredBox(v.radius) };
  },
  scaled: (v, sx, sy) => ({ ...v, radius: v.radius * Math.sqrt(sx * sy), rounding: v.rounding * Math.sqrt(sx * sy) }),
  title: () => 'Star',
});
