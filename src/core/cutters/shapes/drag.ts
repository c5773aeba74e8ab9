import { z } from 'zod';
import { cutterShape, positive } from '../shape';

/** A diamond that is drawn through the material with the spindle off. */
export const drag = cutterShape({
  id: 'drag',
  name: 'Drag diamond',
  schema: z.object({ diameter: positive, includedAngle: z.number().gt(1).lt(179), tipRadius: z.number().min(0), springRate: z.number().min(0).max(1000).optional() }),
  defaults: { diameter: 3, includedAngle: 120, tipRadius: 0.02 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter', min: 0.1, max: 20 },
    { kind: 'number', key: 'includedAngle', label: 'Included angle', unit: '°', min: 30, max: 178 },
    { kind: 'length', key: 'tipRadius', label: 'Tip radius', min: 0, max: 1 },
    { kind: 'number', key: 'springRate', label: 'Spring of the holder', unit: 'N/mm', min: 0, max: 1000, missing: 0, hint: '0 holds it firmly' },
  ],
  profile: (s, rho) => (rho > s.diameter / 2 ? Infinity : rho / Math.tan(((s.includedAngle / 2) * Math.PI) / 180)),
  radiusAt: (s, h) => Math.min(s.diameter / 2, h * Math.tan(((s.includedAngle / 2) * Math.PI) / 180)),
  form: (s) => ({ form: 'cone', radius: s.diameter / 2, tip: 0, tan: Math.tan(((s.includedAngle / 2) * Math.PI) / 180) }),
  radius: (s) => s.diameter / 2,
  plunges: true,
  turns: false,
  label: (s) => `${+s.includedAngle.toFixed(2)}°`,
  setup: (s) => ({ shape: 'drag', diameter: s.diameter, includedAngle: s.includedAngle, tipRadius: s.tipRadius, ...(s.springRate ? { springRate: s.springRate } : {}) }),
  problem: () => null,
});
