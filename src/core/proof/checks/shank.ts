import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { deepest } from './clashes';

export const shank: Check = {
  id: 'shank',
  name: 'Within the cutting length',
  run: (input) => deepest(input, 'shank', (c, _n, name) => `"${name}" is deeper than its cutter's cutting length: what is above the edges meets ${lengthText(c.depth, input.job.unit, 2)} of material. Take a longer cutter or less depth.`),
};
