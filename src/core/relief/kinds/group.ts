import { z } from 'zod';
import { formKind, nowhere } from '../form';

/** Forms that are laid on each other by themselves, and then meet what lies under them as one. */
export const group = formKind({
  id: 'group',
  name: 'Group',
  summary: 'Holds forms: moved, masked, weakened and left out as one.',
  schema: z.object({}),
  holds: true,
  fields: [],
  defaults: {},
  evaluate: (_, { grid, members }) =>
    members ? { z: members, remark: '' } : nowhere(grid, 'It holds nothing that counts. Drag forms under its row.'),
});
