import { z } from 'zod';
import { cutterShape, positive } from '../shape';

export const bull = cutterShape({
  id: 'bull',
  name: 'Bull nose',
  schema: z.object({ diameter: positive, cornerRadius: positive }),
  defaults: { diameter: 6, cornerRadius: 1 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter', min: 0.05, max: 100 },
    { kind: 'length', key: 'cornerRadius', label: 'Corner radius', min: 0.01, max: 50 },
  ],
  profile: (s, rho) => {
    const core = s.diameter / 2 - s.cornerRadius;
    if (rho > s.diameter / 2) return Infinity;
    const d = rho - core;
    return d <= 0 ? 0 : s.cornerRadius - Math.sqrt(Math.max(0, s.cornerRadius * s.cornerRadius - d * d));
  },
  radiusAt: (s, h) => {
    const core = s.diameter / 2 - s.cornerRadius;
    return h >= s.cornerRadius ? s.diameter / 2 : core + Math.sqrt(Math.max(0, h * (2 * s.cornerRadius - h)));
  },
  form: (s) => ({ form: 'general', radius: s.diameter / 2 }),
  radius: (s) => s.diameter / 2,
  plunges: true,
  turns: true,
  label: (s, length) => `${length(s.diameter)}, corner ${length(s.cornerRadius)}`,
  setup: (s) => ({ shape: 'bull', diameter: s.diameter, cornerRadius: s.cornerRadius }),
  problem: (s) => (s.cornerRadius > s.diameter / 2 ? 'The corner radius is larger than half the diameter.' : null),
});
