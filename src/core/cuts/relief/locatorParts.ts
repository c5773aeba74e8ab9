import { heightOf, widthOf } from '../../cutters/form';
import { derived } from '../../geometry/hash';
import { locationKernel } from '../../kernels/locationKernel';
import { roundness, SIDE, type LocatorData } from './locatorData';

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
  /** So many blocks to each side walls can be met. */
  readonly reach: number;
  /** Between nodes no location lies higher by more than this, mm. */
  readonly bend: number;
}

const kernels = derived<Float32Array, ReturnType<typeof locationKernel>>();

export function partsOf({ blocks, located, form, tolerance }: LocatorData): LocatorParts {
  const { f, top, lowest } = blocks;
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
  // Over the surface no cutter stands lower than it is there: what of the cutter is higher than all of the surface is not met.
  const low = { ...form, radius: Math.min(radius, widthOf(form, top - lowest) + cell) };
  const over = kernels(f.z, '', () => locationKernel(f, 1))?.(low) ?? null;
  return {
    edges,
    row:
      over &&
      ((r) => {
        if (Atomics.load(located.have, r)) return;
        located.z.set(over.row(r), r * cols);
        Atomics.store(located.have, r, 1);
      }),
    reach: Math.ceil(low.radius / cell / SIDE) + 1,
    bend: Math.min(tolerance, (cell * cell) / (4 * roundness(form))),
  };
}
