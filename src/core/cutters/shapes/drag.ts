import { z } from 'zod';
import { tipFits, type CutterForm } from '../form';
import { cutterShape } from '../shape';

const form = (s: { diameter: number; tipRadius: number; includedAngle: number }): CutterForm => ({
  radius: s.diameter / 2,
  core: 0,
  ball: s.tipRadius,
  rise: 1 / Math.tan((s.includedAngle * Math.PI) / 360),
});

/** A diamond that is drawn through the material with the spindle off. */
export const drag = cutterShape({
  id: 'drag',
  name: 'Drag diamond',
  schema: z.object({
    diameter: z.number().min(0.1).max(20),
    includedAngle: z.number().min(30).max(178),
    tipRadius: z.number().min(0).max(1),
    springRate: z.number().min(0).max(1000).optional(),
  }),
  defaults: { diameter: 3, includedAngle: 120, tipRadius: 0.02 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter' },
    { kind: 'number', key: 'includedAngle', label: 'Included angle', unit: '°' },
    { kind: 'length', key: 'tipRadius', label: 'Tip radius' },
    {
      kind: 'number',
      key: 'springRate',
      label: 'Spring of the holder',
      unit: 'N/mm',
      missing: 0,
      hint: '0 holds it firmly',
    },
  ],
  form,
  plunges: true,
  turns: false,
  label: (s) => `${+s.includedAngle.toFixed(2)}°`,
  setup: (s) => ({
    shape: 'drag',
    diameter: s.diameter,
    includedAngle: s.includedAngle,
    tipRadius: s.tipRadius,
    ...(s.springRate ? { springRate: s.springRate } : {}),
  }),
  problem: (s) => (tipFits(form(s)) ? null : 'The tip radius does not fit into the diameter.'),
});
