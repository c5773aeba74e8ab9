import { z } from 'zod';
import { formKind } from '../form';

const schema = z.object({
  height: z.number().min(-300).max(300),
  /** Rise along X and along Y, degrees. */
  alongX: z.number().min(-60).max(60),
  alongY: z.number().min(-60).max(60),
});

/** A plane under everything: level, or tilted about the middle of the blank. */
export const ground = formKind({
  id: 'ground',
  name: 'Ground',
  summary: 'A level or tilted plane, over the whole blank or inside outlines.',
  schema,
  fields: [
    { kind: 'length', key: 'height', label: 'Height' },
    { kind: 'number', key: 'alongX', label: 'Tilt along X', unit: '\u00b0' },
    { kind: 'number', key: 'alongY', label: 'Tilt along Y', unit: '\u00b0' },
  ],
  defaults: { height: 0, alongX: 0, alongY: 0 },
  evaluate(v, { grid: g }) {
    const [sx, sy] = [Math.tan((v.alongX * Math.PI) / 180), Math.tan((v.alongY * Math.PI) / 180)];
    const [mx, my] = [((g.cols - 1) * g.cell) / 2, ((g.rows - 1) * g.cell) / 2];
    const z = new Float32Array(g.cols * g.rows);
    for (let r = 0; r < g.rows; r++)
      for (let c = 0; c < g.cols; c++) z[r * g.cols + c] = v.height + (c * g.cell - mx) * sx + (r * g.cell - my) * sy;
    return { z, remark: '' };
  },
});
