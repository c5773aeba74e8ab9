import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { deepestInRows } from '../buried';
import { nameOf } from './worst';

/** What was roughed before is uneven: so many times what a cutter may take is told. */
const UNEVEN = 2;

/** Cutters that go through much more at once than their speeds are for: a finish without a roughing. */
export const buried: Check = {
  id: 'buried',
  name: 'No cutter is buried',
  late: true,
  run(input) {
    const { unit } = input.job;
    const long = (mm: number) => lengthText(mm, unit, unit === 'mm' ? 2 : 3);
    return (input.buried ?? []).flatMap((b) => {
      const { cutter, preset } = b;
      if (b.mostly <= UNEVEN * deepestInRows(cutter, preset.stepDown, preset.stepOver)) return [];
      return [
        {
          check: 'buried',
          text: `"${nameOf(input, b.cutId)}" goes through ${long(b.mostly)} of material at once, in places ${long(b.most)}: ${cutter.name} is set to take ${long(preset.stepDown)}. Rough the relief before it, or let it cut in layers.`,
          cutId: b.cutId,
          x: b.x,
          y: b.y,
        },
      ];
    });
  },
};
