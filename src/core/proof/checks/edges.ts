import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { worstPerCut } from './worst';

/** Cutting with the cutter's axis outside the blank. */
export const edges: Check = {
  id: 'edges',
  name: 'Stays on the blank',
  run: (input) => {
    const { width, height } = input.job.blank;
    const allowed = (cutId: string | null) => (input.plans.get(cutId ?? '')?.overEdge ?? 0) + 0.001;
    return worstPerCut(input, 'edges', {
      measure: (x, y, z, cutId) => (z < -1e-6 ? Math.max(-x, x - width, -y, y - height) - allowed(cutId) : 0),
      may: ({ cutting: c }, cutId) => Math.max(-c.x0, c.x1 - width, -c.y0, c.y1 - height) > allowed(cutId),
      word: (d, name) =>
        `"${name}" cuts ${lengthText(d + 0.001, input.job.unit)} outside the blank. Move its artwork, or enter the real size under Blank.`,
    });
  },
};
