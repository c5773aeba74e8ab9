import { z } from 'zod';
import { cutterShape, positive } from '../shape';

export const ball = cutterShape({
  id: 'ball',
  name: 'Ball nose',
  schema: z.object({ diameter: positive }),
  defaults: { diameter: 3 },
  fields: [{ kind: 'length', key: 'diameter', label: 'Diameter', min: 0.05, max: 100 }],
  profile: (s, rho) => {
    const r = s.diameter / 2;
    return rho <= r ? r - Math.sqrt(r * r - rho * rho) : Infinity;
  },
  radiusAt: (s, h) => {
    const r = s.diameter / 2;
    return h >= r ? r : Math.sqrt(Math.max(0, h * (2 * r - h)));
  },
  form: (s) => ({ form: 'ball', radius: s.diameter / 2 }),
  radius: (s) => s.diameter / 2,
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'ball', diameter: s.diameter }),
  problem: () => null,
});
