import { lengthText } from '../../units/length';
import type { Check } from '../check';
import { deepestInRows } from '../buried';
import { nameOf } from './worst';

/** What was roughed before is uneven: so many times what a cutter may take is told where it is most of it, and where it is in places. */
const UNEVEN = { mostly: 2, inPlaces: 4 };

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
      const may = deepestInRows(cutter, preset.stepDown, preset.stepOver);
      const all = b.mostly > UNEVEN.mostly * may;
      if (!all && b.inPlaces <= UNEVEN.inPlaces * may) return [];
      const how = all
        ? `${long(b.mostly)} of material at once, in places ${long(b.most)}`
        : `up to ${long(b.most)} of material at once in some places`;
      const way = all ? 'Rough the relief before it' : 'Rough it with a smaller cutter as well';
      return [
        {
          check: 'buried',
          text: `"${nameOf(input, b.cutId)}" goes through ${how}: ${cutter.name} is set to take ${long(preset.stepDown)}. ${way}, or let it cut in layers.`,
          cutId: b.cutId,
          x: b.x,
          y: b.y,
        },
      ];
    });
  },
};
