import { z } from 'zod';
import { cutterShape } from '../shape';

/** Named by its half angle, with a flat tip. */
export const cone = cutterShape({
  id: 'cone',
  name: 'Engraving cone',
  schema: z.object({
    diameter: z.number().min(0.1).max(50),
    halfAngle: z.number().min(1).max(88),
    tipDiameter: z.number().min(0).max(20),
  }),
  defaults: { diameter: 3.175, halfAngle: 15, tipDiameter: 0.2 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Shank end diameter' },
    { kind: 'number', key: 'halfAngle', label: 'Half angle', unit: '°' },
    { kind: 'length', key: 'tipDiameter', label: 'Tip width' },
  ],
  form: (s) => ({
    radius: s.diameter / 2,
    core: s.tipDiameter / 2,
    ball: 0,
    rise: 1 / Math.tan((s.halfAngle * Math.PI) / 180),
  }),
  plunges: true,
  turns: true,
  label: (s, length) => `${+s.halfAngle.toFixed(2)}° half, tip ${length(s.tipDiameter)}`,
  setup: (s) => ({
    shape: 'v',
    diameter: s.diameter,
    includedAngle: 2 * s.halfAngle,
    halfAngle: s.halfAngle,
    tipDiameter: s.tipDiameter,
  }),
  problem: (s) => (s.tipDiameter >= s.diameter ? 'The tip is as wide as the cutter.' : null),
});
