import { z } from 'zod';
import { tipFits, type CutterForm } from '../form';
import { cutterShape } from '../shape';

const form = (s: { diameter: number; tipRadius: number; halfAngle: number }): CutterForm => ({
  radius: s.diameter / 2,
  core: 0,
  ball: s.tipRadius,
  rise: 1 / Math.tan((s.halfAngle * Math.PI) / 180),
});

export const taperedBall = cutterShape({
  id: 'taperedBall',
  name: 'Tapered ball',
  schema: z.object({
    diameter: z.number().min(0.1).max(50),
    tipRadius: z.number().min(0.01).max(20),
    halfAngle: z.number().min(0.5).max(59),
  }),
  defaults: { diameter: 6, tipRadius: 0.5, halfAngle: 5 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Largest diameter' },
    { kind: 'length', key: 'tipRadius', label: 'Tip radius' },
    { kind: 'number', key: 'halfAngle', label: 'Half angle', unit: '°' },
  ],
  form,
  plunges: true,
  turns: true,
  label: (s, length) => `${+s.halfAngle.toFixed(2)}° half, tip R ${length(s.tipRadius)}`,
  setup: (s) => ({ shape: 'taperedBall', diameter: s.diameter, tipRadius: s.tipRadius, halfAngle: s.halfAngle }),
  problem: (s) => (tipFits(form(s)) ? null : 'The tip radius does not fit into the diameter.'),
});
