import { components, type Region } from '../region';
import { makeSites, type Sites } from './sites';
import { IncompleteTrace, traceAxis, type Trace } from './trace';

/** The medial axis of one connected region, in local coordinates about the sites' origin. */
export interface Axis {
  readonly sites: Sites;
  readonly trace: Trace;
}

/** The steps (mm) by which corners are nudged into general position, tried in turn. All below 1e-6 mm. */
const NUDGES = [1e-8, 1e-8, 3e-8, 3e-8, 1e-7, 1e-7, 3e-7, 3e-7];

/** Raised when no attempt gave a complete diagram; names the place. */
export class AxisError extends Error {
  constructor(
    readonly x: number,
    readonly y: number,
    detail: string,
  ) {
    super(`The outline near X ${x.toFixed(3)} Y ${y.toFixed(3)} is too tangled for an exact V-carve (${detail}). Simplify it there.`);
    this.name = 'AxisError';
  }
}

/** The medial axis of one component (outer loop and holes, normalised). Throws AxisError. */
export function axisOf(component: Region): Axis {
  let last: IncompleteTrace | null = null;
  for (let i = 0; i < NUDGES.length; i++) {
    try {
      const sites = makeSites(component, NUDGES[i], i);
      return { sites, trace: traceAxis(sites) };
    } catch (e) {
      if (!(e instanceof IncompleteTrace)) throw e;
      last = e;
    }
  }
  throw new AxisError(last!.x, last!.y, last!.reason);
}

/** The medial axes of a region, one per connected component. */
export const medialAxis = (region: Region): Axis[] => components(region).map(axisOf);
