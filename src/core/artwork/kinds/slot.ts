import { z } from 'zod';
import type { Path } from '../../geometry/path';
import { itemKind } from '../kind';

/** A slot with round ends; `length` is measured over all. */
export const slot = itemKind({
  id: 'slot',
  name: 'Slot',
  schema: z.object({ length: z.number().min(0.01).max(1e5), width: z.number().min(0.01).max(1e5) }),
  fields: [
    { kind: 'length', key: 'length', label: 'Length over all' },
    { kind: 'length', key: 'width', label: 'Width' },
  ],
  defaults: { length: 40, width: 8 },
  shape(v) {
    const r = v.width / 2;
    const h = Math.max(0, v.length / 2 - r);
    const segments: Path['segments'] = [{ k: 'arc', x: h, y: r, cx: h, cy: 0, ccw: true }];
    if (h > 0) segments.push({ k: 'line', x: -h, y: r });
    segments.push({ k: 'arc', x: -h, y: -r, cx: -h, cy: 0, ccw: true });
    if (h > 0) segments.push({ k: 'line', x: h, y: -r });
    return {
      paths: [{ x: h, y: -r, segments, closed: true }],
      fill: 'nonzero',
      remarks: [],
      box: { x0: -h - r, y0: -r, x1: h + r, y1: r },
    };
  },
  scaled: (v, sx, sy) => ({ length: v.length * sx, width: v.width * sy }),
  title: () => 'Slot',
});
