import { z } from 'zod';
import { flatForm } from '../form';
import { cutterShape } from '../shape';

export const flat = cutterShape({
  id: 'flat',
  name: 'Flat end mill',
  schema: z.object({ diameter: z.number().min(0.05).max(100) }),
  defaults: { diameter: 6 },
  fields: [{ kind: 'length', key: 'diameter', label: 'Diameter' }],
  form: (s) => flatForm(s.diameter / 2),
  plunges: true,
  turns: true,
  label: (s, length) => length(s.diameter),
  setup: (s) => ({ shape: 'flat', diameter: s.diameter }),
  problem: () => null,
});
