import { MOST_COLLISIONS } from '../simulate';
import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { deepest } from './clashes';

export const rapids: Check = {
  id: 'rapids',
  name: 'No rapid through material',
  run: (input) =>
    deepest(
      input,
      'rapid',
      (c, n, name) =>
        `"${name}" moves at rapid rate ${lengthText(c.depth, input.job.unit, 2)} deep in material${n > 1 ? `, at ${n} places${n >= MOST_COLLISIONS ? ' or more' : ''}` : ''}. Raise the clearance height.`,
    ),
};
