import type { Check } from '../check';

/** Less than this (mm2) is the rounding of corners, not a place. */
const SPECK = 0.05;

export const unreached: Check = {
  id: 'unreached',
  name: 'Everything is reached',
  run: ({ job, plans }) =>
    job.cuts
      .filter((c) => c.enabled && (plans.get(c.id)?.unreached.area ?? 0) > SPECK)
      .map((c) => {
        const u = plans.get(c.id)!.unreached;
        const at = u.region[0];
        const n = u.region.length;
        return { check: 'unreached', text: `"${c.name}" leaves ${u.area.toFixed(2)} mm\u00b2 at ${n} ${n === 1 ? 'place' : 'places'} that its cutter cannot enter. Take a smaller cutter.`, cutId: c.id, x: at ? at[0] : null, y: at ? at[1] : null };
      }),
};
