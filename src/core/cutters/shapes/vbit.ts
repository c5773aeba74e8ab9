import { z } from 'zod';
import { cutterShape } from '../shape';

/** Named by its included angle; `tipDiameter` is the flat at its point. */
export const vbit = cutterShape({
  id: 'v',
  name: 'V-bit',
  schema: z.object({
    diameter: z.number().min(0.1).max(100),
    includedAngle: z.number().min(2).max(178),
    tipDiameter: z.number().min(0).max(20),
  }),
  defaults: { diameter: 12, includedAngle: 60, tipDiameter: 0 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter' },
    { kind: 'number', key: 'includedAngle', label: 'Included angle', unit: '°' },
    { kind: 'length', key: 'tipDiameter', label: 'Tip flat' },
  ],
  form: (s) => ({
    radius: s.diameter / 2,
    core: s.tipDiameter / 2,
    ball: 0,
    rise: 1 / Math.tan((s.includedAngle * Math.PI) / 360),
  }),
  plunges: true,
  turns: true,
  label: (s, length) => `${+s.includedAngle.toFixed(2)}° ${length(s.diameter)}`,
  setup: (s) => ({ shape: 'v', diameter: s.diameter, includedAngle: s.includedAngle, tipDiameter: s.tipDiameter }),
  problem: (s) => (s.tipDiameter >= s.diameter ? 'The tip flat is as wide as the cutter.' : null),
});
