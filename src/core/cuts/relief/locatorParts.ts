import { heightOf } from '../../cutters/form';
import { derived } from '../../geometry/hash';
import { locationKernel } from '../../kernels/locationKernel';
import { metForm, roundness, type LocatorData } from './locatorData';

/** Round an edge it is asked at so many places, and at so many for each square root of a millimetre. */
export const PLACES = { least: 16, most: 720, per: 60 };

/** An edge of a cutter: of a flat tip, and where the cutter ends, unless it ends upright out of a round. */
export interface Edge {
  readonly high: number;
  /** In cells. */
  readonly radius: number;
  /** It is asked at so many places. */
  readonly count: number;
}

/** What both ways of asking (`./locatorScript.ts`, `./locatorKernel.ts`) make of a locator's data. */
export interface LocatorParts {
  readonly edges: readonly Edge[];
  /** Sees to it that locations over a row of nodes are there; null where they are not known. */
  readonly row: ((r: number) => void) | null;
  /** Between nodes no location lies higher by more than this, mm. */
  readonly bend: number;
}

const kernels = derived<Float32Array, ReturnType<typeof locationKernel>>();

export function partsOf({ blocks, located, form, tolerance }: LocatorData): LocatorParts {
  const { f } = blocks;
  const { cell, cols } = f;
  const { radius, core, ball, rise } = form;
  const edges = [
    ...(core > 0 && ball === 0 && core < radius ? [core] : []),
    ...(ball > 0 && rise === Infinity ? [] : [radius]),
  ].map((r) => {
    const count = Math.ceil(
      Math.min(PLACES.most, Math.max(PLACES.least, PLACES.per * Math.sqrt(2 * r), (2 * Math.PI * r) / cell)),
    );
    return { high: heightOf(form, r), radius: r / cell, count };
  });
  const over = kernels(f.z, '', () => locationKernel(f, 1))?.(metForm(form, blocks)) ?? null;
  return {
    edges,
    row:
      over &&
      ((r) => {
        if (Atomics.load(located.have, r)) return;
        located.z.set(over.row(r), r * cols);
        Atomics.store(located.have, r, 1);
      }),
    bend: Math.min(tolerance, (cell * cell) / (4 * roundness(form))),
  };
}
