import { shippedLibrary } from '../cutters/library';
import { newBlank } from '../job/job';
import { getAt } from '../units/fields';
import { roundInches } from '../units/round';
import { freshCut } from './fresh';
import { cutKinds } from './registry';

const library = shippedLibrary();

it.each(cutKinds.map((k) => [k.id, k] as const))(
  'a new cut of the kind %s is valid in both units, with cutters and round lengths of the unit',
  (id, k) => {
    for (const unit of ['mm', 'in'] as const) {
      const values = freshCut(id, newBlank(unit), unit, library);
      expect(k.schema.safeParse(values).error?.issues ?? []).toEqual([]);
      for (const c of k.cutters(values)) {
        const cutter = library.find((q) => q.id === c)!;
        if (library.some((q) => q.shape === cutter.shape && q.unit === unit)) expect(cutter.unit).toBe(unit);
      }
      for (const f of k.fields) {
        const v = f.kind === 'length' ? getAt(values, f.key) : null;
        if (unit === 'in' && typeof v === 'number') expect(roundInches(v)).toBeCloseTo(v, 9);
      }
    }
  },
);
