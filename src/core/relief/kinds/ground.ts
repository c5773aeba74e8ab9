import { z } from 'zod';
import { stillWanted } from '../../units/stillWanted';
import { formKind } from '../form';
import { profiles } from '../profiles';

const schema = z.object({
  height: z.number().min(-300).max(300),
  /** Rise along X and along Y, degrees. */
  alongX: z.number().min(-60).max(60),
  alongY: z.number().min(-60).max(60),
  /** How far the middle of the blank stands over its corners, mm, as a part of a sphere; below zero a hollow. */
  dome: z.number().min(-300).max(300),
});

/** What lies under everything: level, tilted about the middle of the blank, or domed over it. */
export const ground = formKind({
  id: 'ground',
  name: 'Ground',
  summary: 'Level, tilted or domed ground, over the whole blank or inside outlines.',
  schema,
  fields: [
    { kind: 'length', key: 'height', label: 'Height' },
    { kind: 'number', key: 'alongX', label: 'Tilt along X', unit: '\u00b0' },
    { kind: 'number', key: 'alongY', label: 'Tilt along Y', unit: '\u00b0' },
    { kind: 'length', key: 'dome', label: 'Dome over the corners' },
  ],
  defaults: { height: 0, alongX: 0, alongY: 0, dome: 0 },
  evaluate(v, { grid: g }) {
    const [sx, sy] = [Math.tan((v.alongX * Math.PI) / 180), Math.tan((v.alongY * Math.PI) / 180)];
    const [mx, my] = [((g.cols - 1) * g.cell) / 2, ((g.rows - 1) * g.cell) / 2];
    const corner = Math.hypot(mx, my);
    const rise = Math.abs(v.dome);
    const dome = (dx: number, dy: number) =>
      v.dome === 0 ? 0 : Math.sign(v.dome) * profiles.bow.at(Math.hypot(dx, dy) / corner, corner, rise);
    const z = new Float32Array(g.cols * g.rows);
    for (let r = 0; r < g.rows; r++) {
      stillWanted(g.cols);
      for (let c = 0; c < g.cols; c++) {
        const [dx, dy] = [c * g.cell - mx, r * g.cell - my];
        z[r * g.cols + c] = v.height + dx * sx + dy * sy + dome(dx, dy);
      }
    }
    return { z, remark: '' };
  },
});
