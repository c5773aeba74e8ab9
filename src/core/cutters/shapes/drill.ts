import { z } from 'zod';
import { flatForm } from '../form';
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
