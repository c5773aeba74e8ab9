import { z } from 'zod';
import { circlePath, transformPath } from '../../geometry/path';
import { itemKind } from '../kind';

const length = z.number().min(0.01).max(1e5);

export const ellipse = itemKind({
  id: 'ellipse',
  name: 'Ellipse',
  schema: z.object({ width: length, height: length }),
  fields: [
    { kind: 'length', key: 'width', label: 'Width' },
    { kind: 'length', key: 'height', label: 'Height' },
  ],
  defaults: { width: 60, height: 60 },
  shape(v) {
    const box = { x0: -v.width / 2, y0: -v.height / 2, x1: v.width / 2, y1: v.height / 2 };
    return {
      paths: [transformPath(circlePath(0, 0, 0.5), { a: v.width, b: 0, c: 0, d: v.height, e: 0, f: 0 })],
      fill: 'nonzero',
      remarks: [],
      box,
    };
  },
  scaled: (v, sx, sy) => ({ width: v.width * sx, height: v.height * sy }),
  title: (v) => (v.width === v.height ? 'Circle' : 'Ellipse'),
});
