import type { Onlooker } from '@/core/proof/cutting';
import { fillFrom, type HeightField } from '@/core/relief/field';
import { sharedHeights } from './hands';

/** What of a field is looked at: rows between two heights of y, mm. */
export type Seen = Pick<Onlooker, 'y0' | 'y1'>;

/** A field is shown anew after so long, ms: drawing it takes time from those who cut, and a slow driver draws it in full only at rest. */
const EACH = 2000;

/** Shows a field while it is being cut: coarse as it was shown at first, and as it will be in the bands that are ready. */
export function becoming(
  coarse: HeightField,
  seen: Seen,
  show: (field: HeightField) => void,
  now: () => number = () => performance.now(),
): Onlooker {
  let shown: HeightField | null = null;
  let told = now();
  return {
    ...seen,
    done(field, { from, to }) {
      if (!shown) {
        shown = { ...field, z: sharedHeights(field.z.length) };
        fillFrom(coarse, shown);
      }
      shown.z.set(field.z.subarray(from * field.cols, to * field.cols), from * field.cols);
      if (now() - told < EACH) return;
      told = now();
      // Another one each time: whoever shows it sees that there is more in it.
      show({ ...shown });
    },
  };
}
