import { z } from 'zod';
import { flatForm } from '../form';
import { cutterShape, positive } from '../shape';

export const flat = cutterShape({
  id: 'flat',
  name: 'Flat end mill',
  schema: z.object({ diameter: positive }),
  defaults: { diameter: 6 },
  fields: [{ kind: 'length', key: 'diameter', label: 'Diameter', min: 0.05, max: 100 }],
  form: (s) => flatForm(s.diameter / 2),
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'flat', diameter: s.diameter }),
  problem: () => null,
});
