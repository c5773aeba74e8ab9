import { z } from 'zod';
import { cutterShape, positive } from '../shape';

/** Named by its half angle, with a flat tip. */
export const cone = cutterShape({
  id: 'cone',
  name: 'Engraving cone',
  schema: z.object({ diameter: positive, halfAngle: z.number().gt(0.5).lt(89), tipDiameter: z.number().min(0) }),
  defaults: { diameter: 3.175, halfAngle: 15, tipDiameter: 0.2 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Shank end diameter', min: 0.1, max: 50 },
    { kind: 'number', key: 'halfAngle', label: 'Half angle', unit: '°', min: 1, max: 88 },
    { kind: 'length', key: 'tipDiameter', label: 'Tip width', min: 0, max: 20 },
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
