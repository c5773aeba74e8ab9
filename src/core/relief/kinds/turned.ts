import { z } from 'zod';
import { choices } from '../../units/fields';
import { formKind } from '../form';

const schema = z.object({
  about: z.enum(['middle', 'height']),
  height: z.number().min(-300).max(300),
  mirror: z.enum(['none', 'x', 'y']),
});

/**
 * Turns all that lies under it from male to female or back: what stood above a level stands as far below it. A cast comes out of
 * its mould mirrored, so the mould is mirrored as well where the casting is to be as it was drawn.
 */
export const turned = formKind({
  id: 'turned',
  name: 'Turned over',
  summary: 'Makes a mould of what lies under it: what rises sinks, and is mirrored if wanted.',
  schema,
  adjusts: true,
  fields: [
    {
      kind: 'choice',
      key: 'about',
      label: 'About',
      options: choices({ middle: 'Half of its height', height: 'A height' }),
    },
    {
      kind: 'length',
      key: 'height',
      label: 'Height',
      hint: 'Above the base of the stack',
      when: (v) => v.about === 'height',
    },
    {
      kind: 'choice',
      key: 'mirror',
      label: 'Mirrored',
      options: choices({ none: 'No', x: 'Left to right', y: 'Bottom to top' }),
    },
  ],
  defaults: { about: 'middle', height: 0, mirror: 'x' },
  higher: (v, by) => ({ ...v, height: v.height * by }),
  evaluate(v, { grid: { cols, rows }, under }) {
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i < under.length; i++) {
      const h = under[i];
      if (h < low) low = h;
      if (h > high) high = h;
    }
    const twice = v.about === 'height' ? 2 * v.height : high >= low ? low + high : 0;
    const out = new Float32Array(under.length);
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < cols; c++) {
        const from = (v.mirror === 'y' ? rows - 1 - r : r) * cols + (v.mirror === 'x' ? cols - 1 - c : c);
        out[r * cols + c] = twice - under[from];
      }
    return { z: out, remark: '' };
  },
});
