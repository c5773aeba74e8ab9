import type { Reason, Wanted } from '../cuts/wanted';
import type { HeightField } from '../relief/field';
import { thickness } from '../relief/thickness';
import { placesOf, TOLERANCE, type Place } from './places';

/** Wanted heights at the nodes of columns c0..c1 and rows r0..r1 of a grid, row by row; 0 where nothing is wanted. */
export interface Sampled {
  readonly c0: number;
  readonly c1: number;
  readonly r0: number;
  readonly r1: number;
  readonly heights: Float32Array;
}

/** Places where more stays, largest first, by why it does; their `height` is how much that is across the surface. */
export type KeptPlaces = Readonly<Record<Reason, readonly Place[]>>;
export const NOTHING_KEPT: KeptPlaces = { shape: [], boundary: [], rows: [], allowance: [], levels: [] };

/** What other cuts want at a node. */
const SMOOTHED = 1;
const SMOOTHED_LATER = 2;
const KEPT_LATER = 4;

/** Calls back for each node where a cut wants something, with what it wants. */
function eachWanted({ c0, c1, r0, r1, heights }: Sampled, cols: number, each: (i: number, s: number) => void): void {
  for (let r = r0, k = 0; r <= r1; r++)
    for (let c = c0; c <= c1; c++, k++) if (heights[k] < 0) each(r * cols + c, heights[k]);
}

/**
 * What cuts leave though all goes as it is meant to: where it is more than they mind, why, in the order of the cuts. What a later cut is
 * to take is left to that; of two that go over the same place the last is told, and one that smooths rather than one that does not.
 * `tooHigh`: nodes that stand higher than a cut may leave them are told elsewhere. `off`: zeros, one for each node; left so.
 */
export function keptOf(
  field: HeightField,
  cuts: readonly Wanted[],
  samples: readonly Sampled[],
  tooHigh: readonly ReadonlySet<number>[],
  off: Float32Array,
): KeptPlaces[] {
  const out = cuts.map(() => NOTHING_KEPT);
  if (!cuts.some((w) => w.kept)) return out;
  const { cols, cell, x0, y0, z } = field;
  const others = new Uint8Array(z.length);
  /** The lowest that a later cut wants. */
  const lower = new Float32Array(z.length);
  cuts.forEach((w, n) => {
    if (w.kept?.smooth) eachWanted(samples[n], cols, (i) => void (others[i] |= SMOOTHED));
  });
  for (let n = cuts.length - 1; n >= 0; n--) {
    const { kept } = cuts[n];
    if (kept) {
      const mine = kept.smooth ? SMOOTHED_LATER : SMOOTHED | KEPT_LATER;
      const found = new Map<Reason, { readonly nodes: number[]; readonly over: number[] }>();
      eachWanted(samples[n], cols, (i, s) => {
        const over = z[i] - s + kept.lift;
        if (!(over > kept.more) || others[i] & mine || lower[i] < s - TOLERANCE || tooHigh[n].has(i)) return;
        const [x, y] = [x0 + (i % cols) * cell, y0 + Math.floor(i / cols) * cell];
        // What an allowance leaves is as much on any slope.
        const even = kept.lift > 0 && over <= kept.lift + kept.more;
        const thick =
          even || !kept.smooth ? over : thickness(kept.smooth, x, y, z[i], over, Math.min(cell, 2 * kept.more) / 4);
        if (!(thick > kept.more)) return;
        const why = kept.why(x, y, over, thick);
        let list = found.get(why);
        if (!list) found.set(why, (list = { nodes: [], over: [] }));
        list.nodes.push(i);
        list.over.push(thick);
      });
      const told: Partial<Record<Reason, readonly Place[]>> = {};
      for (const [why, { nodes, over }] of found) {
        nodes.forEach((i, k) => void (off[i] = over[k]));
        told[why] = placesOf(off, field);
      }
      out[n] = { ...NOTHING_KEPT, ...told };
    }
    const later = kept ? KEPT_LATER | (kept.smooth ? SMOOTHED_LATER : 0) : 0;
    eachWanted(samples[n], cols, (i, s) => {
      others[i] |= later;
      if (s < lower[i]) lower[i] = s;
    });
  }
  return out;
}
