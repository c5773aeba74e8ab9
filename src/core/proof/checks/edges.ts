import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { worstPerCut } from './worst';

/** Cutting with the cutter's axis outside the blank. */
export const edges: Check = {
  id: 'edges',
  name: 'Stays on the blank',
  run: (input) => {
    const { width, height } = input.job.blank;
    return worstPerCut(
      input,
      'edges',
      (x, y, z, _tool, cutId) => (z < -1e-6 ? Math.max(-x, x - width, -y, y - height) - (input.plans.get(cutId ?? '')?.overEdge ?? 0) - 0.001 : 0),
      (d, name) => `"${name}" cuts ${lengthText(d + 0.001, input.job.unit)} outside the blank. Move its artwork, or enter the real size under Blank.`,
    );
  },
};
