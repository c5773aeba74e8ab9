import { placementOf } from '../artwork/item';
import { nearest, simplify } from '../artwork/nodes';
import { radiusOf, type Cutter } from '../cutters/cutter';
import { bringCutters, finerThan } from '../cutters/library';
import { PROMISED } from '../cuts/budget';
import { freshCut } from '../cuts/fresh';
import { kindOf } from '../cuts/registry';
import { placeSchema } from '../cuts/relief/place';
import { inverse, type Path } from '../geometry/path';
import { freeName } from '../job/allSetups';
import type { Cut, OneSetup } from '../job/job';

/** Something that can be done about a finding with one press. `place`: where the finding is, mm, blank's frame. */
export interface Mend {
  readonly words: string;
  apply(
    job: OneSetup,
    cutId: string | null,
    place: { readonly x: number | null; readonly y: number | null },
    library: readonly Cutter[],
    freshId: () => string,
  ): void;
  /** Whether it does more when it is done again: then it waits until what it mends has been looked at anew. */
  readonly twice?: true;
  /** Why it cannot be done, and what to do instead; null where it can. */
  lacks?(job: OneSetup, cutId: string | null, library: readonly Cutter[]): string | null;
}

/** Diameter (mm) of the end mill that is proposed for a floor: the nearest to it that there is. */
const USUAL_MILL = 3;

/** Outlines this near to a place (mm) are those that it speaks of. */
const BESIDE = 0.5;

/** Shapes that smooth where a wider one is too wide. */
const FINE = ['ball', 'taperedBall', 'cone'];
/** Shapes that a finishing begins with. */
const ROUND = ['ball', 'taperedBall'];

/** The kind that smooths what a roughing leaves. */
const SMOOTH = 'reliefFinish';

/** Cutters that are at hand: those of the job, and of the library those that it has not. */
const atHand = (job: OneSetup, library: readonly Cutter[]): Cutter[] => [
  ...job.cutters,
  ...library.filter((c) => !job.cutters.some((q) => q.id === c.id)),
];

/** What would follow the finest cutter in the list of a cut, and the list with it. */
function finerFor(job: OneSetup, cut: Cut, library: readonly Cutter[]) {
  const list = kindOf(cut.kind).cutters(cut.values);
  const finer = finerThan(
    job.cutters.filter((c) => list.includes(c.id)),
    atHand(job, library).filter((c) => FINE.includes(c.shape)),
  );
  return finer && { finer, values: { ...cut.values, cutters: [...list, finer.id] } };
}

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
    apply(job, cutId, _place, library) {
      const cut = job.cuts.find((c) => c.id === cutId);
      const off = (c: Cutter) => Math.abs(2 * radiusOf(c) - USUAL_MILL);
      const mill = [...job.cutters, ...library].filter((c) => c.shape === 'flat').sort((a, b) => off(a) - off(b))[0];
      if (!cut || !mill) return;
      bringCutters(job, [mill.id], library);
      const limit = (cut.values.limit as number | null) ?? Math.round(10 * Math.min(job.blank.thickness / 2, 3)) / 10;
      cut.values = { ...cut.values, limit, endMills: [mill.id] };
    },
  },
  finer: {
    words: 'Add a finer cutter',
    twice: true,
    lacks(job, cutId, library) {
      const cut = job.cuts.find((c) => c.id === cutId);
      const longer = cut && finerFor(job, cut, library);
      if (!cut) return null;
      if (!longer) return 'No ball nose, tapered ball or cone of this job or of the library is finer.';
      return kindOf(cut.kind).schema.safeParse(longer.values).success
        ? null
        : 'Its list holds as many cutters as it may: take one out first.';
    },
    apply(job, cutId, _place, library) {
      const cut = job.cuts.find((c) => c.id === cutId);
      const longer = cut && finerFor(job, cut, library);
      if (!longer) return;
      bringCutters(job, [longer.finer.id], library);
      cut.values = longer.values;
    },
  },
  smooth: {
    words: 'Add a relief finishing',
    twice: true,
    lacks: (job, _cutId, library) =>
      atHand(job, library).some((c) => ROUND.includes(c.shape))
        ? null
        : 'Neither this job nor the library has a ball nose or a tapered ball for it.',
    apply(job, cutId, _place, library, freshId) {
      const i = job.cuts.findIndex((c) => c.id === cutId);
      if (i < 0) return;
      const { items, values: there } = job.cuts[i];
      const name = freeName(kindOf(SMOOTH).name, job.cuts);
      const values = freshCut(SMOOTH, job.blank, job.unit, atHand(job, library));
      // Where the roughing goes.
      for (const key of [...Object.keys(placeSchema), 'startDepth']) values[key] = there[key];
      bringCutters(job, kindOf(SMOOTH).cutters(values), library);
      const cut = { id: freshId(), name, kind: SMOOTH, enabled: true, items: [...items], values, overrides: {} };
      job.cuts.splice(i + 1, 0, cut);
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
