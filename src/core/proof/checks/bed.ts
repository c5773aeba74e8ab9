import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { worstPerCut } from './worst';

/** Below the underside of the blank by more than the job allows. */
export const bed: Check = {
  id: 'bed',
  name: 'Stays within the spoilboard depth',
  run: (input) => {
    const floor = -input.job.blank.thickness - input.job.blank.intoBed;
    return worstPerCut(input, 'bed', {
      measure: (_x, _y, z) => floor - z - 0.001,
      may: ({ cutting }) => cutting.z0 < floor - 0.001,
      word: (d, name) =>
        `"${name}" goes ${lengthText(d + 0.001, input.job.unit)} deeper into the spoilboard than allowed. Lessen its depth, or allow more under Blank.`,
    });
  },
};
