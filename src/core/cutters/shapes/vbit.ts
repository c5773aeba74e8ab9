import { z } from 'zod';
import { cutterShape, positive } from '../shape';

const half = (included: number) => ((included / 2) * Math.PI) / 180;

/** Named by its included angle; `tipDiameter` is the flat at its point. */
export const vbit = cutterShape({
  id: 'v',
  name: 'V-bit',
  schema: z.object({ diameter: positive, includedAngle: z.number().gt(1).lt(179), tipDiameter: z.number().min(0) }),
  defaults: { diameter: 12, includedAngle: 60, tipDiameter: 0 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter', min: 0.1, max: 100 },
    { kind: 'number', key: 'includedAngle', label: 'Included angle', unit: '°', min: 2, max: 178 },
    { kind: 'length', key: 'tipDiameter', label: 'Tip flat', min: 0, max: 20 },
  ],
  profile: (s, rho) => (rho > s.diameter / 2 ? Infinity : Math.max(0, (rho - s.tipDiameter / 2) / Math.tan(half(s.includedAngle)))),
  radiusAt: (s, h) => Math.min(s.diameter / 2, s.tipDiameter / 2 + h * Math.tan(half(s.includedAngle))),
  form: (s) => ({ form: 'cone', radius: s.diameter / 2, tip: s.tipDiameter / 2, tan: Math.tan(half(s.includedAngle)) }),
  radius: (s) => s.diameter / 2,
  plunges: true,
  turns: true,
  label: (s, length) => `${+s.includedAngle.toFixed(2)}° ${length(s.diameter)}`,
  setup: (s) => ({ shape: 'v', diameter: s.diameter, includedAngle: s.includedAngle, tipDiameter: s.tipDiameter }),
  problem: (s) => (s.tipDiameter >= s.diameter ? 'The tip flat is as wide as the cutter.' : null),
});
