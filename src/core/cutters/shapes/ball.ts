import { z } from 'zod';
import { cutterShape, positive } from '../shape';

export const ball = cutterShape({
  id: 'ball',
  name: 'Ball nose',
  schema: z.object({ diameter: positive }),
  defaults: { diameter: 3 },
  fields: [{ kind: 'length', key: 'diameter', label: 'Diameter', min: 0.05, max: 100 }],
  form: (s) => ({ radius: s.diameter / 2, core: 0, ball: s.diameter / 2, rise: Infinity }),
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'ball', diameter: s.diameter }),
  problem: () => null,
});
