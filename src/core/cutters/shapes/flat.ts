import { z } from 'zod';
import { cutterShape, positive } from '../shape';

export const flat = cutterShape({
  id: 'flat',
  name: 'Flat end mill',
  schema: z.object({ diameter: positive }),
  defaults: { diameter: 6 },
  fields: [{ kind: 'length', key: 'diameter', label: 'Diameter', min: 0.05, max: 100 }],
  profile: (s, rho) => (rho <= s.diameter / 2 ? 0 : Infinity),
  radiusAt: (s) => s.diameter / 2,
  form: (s) => ({ form: 'flat', radius: s.diameter / 2 }),
  radius: (s) => s.diameter / 2,
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'flat', diameter: s.diameter }),
  problem: () => null,
});
