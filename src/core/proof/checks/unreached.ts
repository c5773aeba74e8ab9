import { loopArea, type Region } from '../../geometry/region';
import type { Check } from '../check';

/** A smaller place (mm2) is the rounding that a fine tip leaves in a corner; only many of them together are worth a word. */
const SPECK = 0.02;
const MANY_SPECKS = 0.5;

const matters = (u: { readonly area: number; readonly region: Region }): boolean =>
  u.area > MANY_SPECKS || u.region.some((l) => loopArea(l) > SPECK);

export const unreached: Check = {
  id: 'unreached',
  name: 'Everything is reached',
  run: ({ job, plans }) =>
    job.cuts
      .filter((c) => c.enabled && plans.has(c.id) && matters(plans.get(c.id)!.unreached))
      .map((c) => {
        const u = plans.get(c.id)!.unreached;
        const at = u.region.reduce((best, l) => (loopArea(l) > loopArea(best) ? l : best), u.region[0]);
        const n = u.region.length;
        return {
          check: 'unreached',
          text: `"${c.name}" leaves ${u.area.toFixed(2)} mm\u00b2 at ${n} ${n === 1 ? 'place' : 'places'} that its cutter cannot enter. Take a smaller cutter.`,
          cutId: c.id,
          x: at ? at[0] : null,
          y: at ? at[1] : null,
        };
      }),
};
