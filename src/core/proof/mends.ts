import { placementOf } from '../artwork/item';
import { nearest, simplify } from '../artwork/nodes';
import { radiusOf, type Cutter } from '../cutters/cutter';
import { PROMISED } from '../cuts/budget';
import { inverse, type Path } from '../geometry/path';
import type { OneSetup } from '../job/job';

/** Something that can be done about a finding with one press. `place`: where the finding is, mm, blank's frame. */
export interface Mend {
  readonly words: string;
  apply(
    job: OneSetup,
    cutId: string | null,
    place: { readonly x: number | null; readonly y: number | null },
    library?: readonly Cutter[],
  ): void;
}

/** Diameter (mm) of the end mill that is proposed for a floor: the nearest to it that there is. */
const USUAL_MILL = 3;

/** Outlines this near to a place (mm) are those that it speaks of. */
const BESIDE = 0.5;

/** Mends by the name that a finding gives. A new one is one entry. */
export const mends: Readonly<Record<string, Mend>> = {
  last: {
    words: 'Move it to the end',
    apply(job, cutId) {
      const i = job.cuts.findIndex((c) => c.id === cutId);
      if (i >= 0) job.cuts.push(...job.cuts.splice(i, 1));
    },
  },
  'end-mill': {
    words: 'Add an end mill',
    apply(job, cutId, _place, library = []) {
      const cut = job.cuts.find((c) => c.id === cutId);
      const off = (c: Cutter) => Math.abs(2 * radiusOf(c) - USUAL_MILL);
      const mill = [...job.cutters, ...library].filter((c) => c.shape === 'flat').sort((a, b) => off(a) - off(b))[0];
      if (!cut || !mill) return;
      if (!job.cutters.some((c) => c.id === mill.id)) job.cutters.push(structuredClone(mill));
      const limit = (cut.values.limit as number | null) ?? Math.round(10 * Math.min(job.blank.thickness / 2, 3)) / 10;
      cut.values = { ...cut.values, limit, endMills: [mill.id] };
    },
  },
  simplify: {
    words: 'Simplify here',
    apply(job, cutId, { x, y }) {
      const items = job.cuts.find((c) => c.id === cutId)?.items ?? [];
      if (x === null || y === null) return;
      for (const item of job.items) {
        if (item.kind !== 'drawing' || !items.includes(item.id)) continue;
        const m = inverse(placementOf(item));
        const [px, py] = [m.a * x + m.c * y + m.e, m.b * x + m.d * y + m.f];
        const values = item.values as { paths: Path[] };
        // No farther than what is promised of the cut anyway.
        values.paths = values.paths.map((p) => (nearest(p, px, py).distance < BESIDE ? simplify(p, PROMISED) : p));
      }
    },
  },
};
