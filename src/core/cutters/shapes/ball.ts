import { z } from 'zod';
import { cutterShape } from '../shape';

export const ball = cutterShape({
  id: 'ball',
  name: 'Ball nose',
  schema: z.object({ diameter: z.number().min(0.05).max(100) }),
  defaults: { diameter: 3 },
  fields: [{ kind: 'length', key: 'diameter', label: 'Diameter' }],
  form: (s) => ({ radius: s.diameter / 2, core: 0, ball: s.diameter / 2, rise: Infinity }),
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'ball', diameter: s.diameter }),
  problem: () => null,
});
