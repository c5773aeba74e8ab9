import { z } from 'zod';
import { cutterShape, positive } from '../shape';

export const drill = cutterShape({
  id: 'drill',
  name: 'Drill',
  schema: z.object({ diameter: positive, includedAngle: z.number().gt(1).lte(180) }),
  defaults: { diameter: 3, includedAngle: 118 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter', min: 0.05, max: 50 },
    { kind: 'number', key: 'includedAngle', label: 'Point angle', unit: '°', min: 60, max: 180 },
  ],
  profile: (s, rho) => (rho > s.diameter / 2 ? Infinity : s.includedAngle >= 180 ? 0 : rho / Math.tan(((s.includedAngle / 2) * Math.PI) / 180)),
  radiusAt: (s, h) => (s.includedAngle >= 180 ? s.diameter / 2 : Math.min(s.diameter / 2, h * Math.tan(((s.includedAngle / 2) * Math.PI) / 180))),
  form: (s) => ({ form: 'general', radius: s.diameter / 2 }),
  radius: (s) => s.diameter / 2,
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'drill', diameter: s.diameter, includedAngle: s.includedAngle }),
  problem: () => null,
});
