import { z } from 'zod';
import { circlePath } from '../../geometry/path';
import { centredBox } from '../box';
import { itemKind } from '../kind';

/** What lies between two circles about one centre. */
export const ring = itemKind({
  id: 'ring',
  name: 'Ring',
  schema: z.object({ diameter: z.number().min(0.01).max(1e5), band: z.number().min(0.01).max(1e5) }),
  fields: [
    { kind: 'length', key: 'diameter', label: 'Outer diameter' },
    { kind: 'length', key: 'band', label: 'Width of the band' },
  ],
  defaults: { diameter: 60, band: 6 },
  shape(v) {
    const inner = v.diameter / 2 - v.band;
    return {
      paths: [circlePath(0, 0, v.diameter / 2), ...(inner > 1e-6 ? [circlePath(0, 0, inner)] : [])],
      fill: 'evenodd',
      remarks: [],
      box: centredBox(v.diameter / 2),
    };
  },
  scaled: (v, sx, sy) => ({ diameter: v.diameter * Math.sqrt(sx * sy), band: v.band * Math.sqrt(sx * sy) }),
  title: () => 'Ring',
});
