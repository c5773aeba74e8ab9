import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { deepest } from './clashes';

export const shank: Check = {
  id: 'shank',
  name: 'Within the cutting length',
  run: (input) => [
    ...deepest(
      input,
      'shank',
      (c, _n, name) =>
        `"${name}" is deeper than its cutter's cutting length: what is above the edges meets ${lengthText(c.depth, input.job.unit, 2)} of material. Take a longer cutter or less depth.`,
    ),
    ...deepest(
      input,
      'rub',
      (c, _n, name) =>
        `"${name}" goes deeper than its cutter's cutting length: the shank, as thick as the cutter, rubs on ${lengthText(c.depth, input.job.unit, 2)} of wall. Take a longer cutter, one with a thinner shank, or less depth.`,
    ),
  ],
};
