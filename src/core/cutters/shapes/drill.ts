import { z } from 'zod';
import { flatForm } from '../form';
import { cutterShape } from '../shape';

export const drill = cutterShape({
  id: 'drill',
  name: 'Drill',
  schema: z.object({ diameter: z.number().min(0.05).max(50), includedAngle: z.number().min(60).max(180) }),
  defaults: { diameter: 3, includedAngle: 118 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Diameter' },
    { kind: 'number', key: 'includedAngle', label: 'Point angle', unit: '°' },
  ],
  form: (s) =>
    s.includedAngle >= 180
      ? flatForm(s.diameter / 2)
      : { radius: s.diameter / 2, core: 0, ball: 0, rise: 1 / Math.tan((s.includedAngle * Math.PI) / 360) },
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'drill', diameter: s.diameter, includedAngle: s.includedAngle }),
  problem: () => null,
});
