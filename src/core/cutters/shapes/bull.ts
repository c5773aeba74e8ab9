import { z } from 'zod';
import { cutterShape } from '../shape';

export const bull = cutterShape({
  id: 'bull',
  name: 'Bull nose',
  schema: z.object({ diameter: z.number().min(0.05).max(100), cornerRadius: z.number().min(0.01).max(50) }),
  defaults: { diameter: 6, cornerRadius: 1 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter' },
    { kind: 'length', key: 'cornerRadius', label: 'Corner radius' },
  ],
  form: (s) => ({
    radius: s.diameter / 2,
    core: s.diameter / 2 - s.cornerRadius,
    ball: s.cornerRadius,
    rise: Infinity,
  }),
  plunges: true,
  turns: true,
  label: (s, length) => `${length(s.diameter)}, corner ${length(s.cornerRadius)}`,
  setup: (s) => ({ shape: 'bull', diameter: s.diameter, cornerRadius: s.cornerRadius }),
  problem: (s) => (s.cornerRadius > s.diameter / 2 ? 'The corner radius is larger than half the diameter.' : null),
});
