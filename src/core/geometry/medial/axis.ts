import { components, type Region } from '../region';
import { makeSites, type Sites } from './sites';
import { IncompleteGraph, traceAxis, type MedialGraph } from './medialGraph';

/** The medial axis of one connected region, in local coordinates about the sites' origin. */
export interface Axis {
  readonly sites: Sites;
  readonly trace: MedialGraph;
}

/** The steps (mm) by which corners are nudged into general position, tried in turn. All below 1e-6 mm. */
const NUDGES = [1e-8, 1e-8, 3e-8, 3e-8, 1e-7, 1e-7, 3e-7, 3e-7];

/** Raised when no attempt gave a complete diagram; names the place. */
export class AxisError extends Error {
  constructor(
    readonly x: number,
    readonly y: number,
    readonly detail: string,
  ) {
    super(`no medial axis at ${x.toFixed(4)}, ${y.toFixed(4)}: ${detail}`);
    this.name = 'AxisError';
  }
}

/** The medial axis of one component (outer loop and holes, normalised). Throws AxisError. */
export function axisOf(component: Region): Axis {
  let last: IncompleteGraph | null = null;
  let touching: Region | null = null;
  for (let i = 0; i < NUDGES.length; i++) {
    try {
      // From the second try on, corners that touch a segment split it: both sides then meet in one point.
      const sites = makeSites(i === 0 ? component : (touching ??= splitTouches(component)), NUDGES[i], i);
      return { sites, trace: traceAxis(sites) };
    } catch (e) {
      if (!(e instanceof IncompleteGraph)) throw e;
      last = e;
    }
  }
  throw new AxisError(last!.x, last!.y, last!.reason);
}

/** Within this distance (mm) a corner counts as lying on a segment: one unit of the integer grid. */
const TOUCH = 1e-5;

/** Puts every corner that lies on a segment of the outline into that segment. */
function splitTouches(component: Region): Region {
  const points = component.flatMap((l) =>
    Array.from({ length: l.length / 2 }, (_, i) => ({ x: l[2 * i], y: l[2 * i + 1] })),
  );
  points.sort((a, b) => a.x - b.x);
  const from = (x: number) => {
    let lo = 0;
    let hi = points.length;
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (points[mid].x < x) lo = mid + 1;
      else hi = mid;
    }
    return lo;
  };
  return component.map((l) => {
    const out: number[] = [];
    for (let i = 0; i < l.length; i += 2) {
      const j = (i + 2) % l.length;
      const ax = l[i];
      const ay = l[i + 1];
      const ex = l[j] - ax;
      const ey = l[j + 1] - ay;
      const length = Math.hypot(ex, ey);
      out.push(ax, ay);
      const on: { x: number; y: number; t: number }[] = [];
      for (
        let k = from(Math.min(ax, l[j]) - TOUCH);
        k < points.length && points[k].x <= Math.max(ax, l[j]) + TOUCH;
        k++
      ) {
        const p = points[k];
        const t = ((p.x - ax) * ex + (p.y - ay) * ey) / length;
        if (t > TOUCH && t < length - TOUCH && Math.abs((p.x - ax) * ey - (p.y - ay) * ex) <= TOUCH * length)
          on.push({ ...p, t });
      }
      on.sort((a, b) => a.t - b.t);
      for (const p of on) if (p.x !== out[out.length - 2] || p.y !== out[out.length - 1]) out.push(p.x, p.y);
    }
    return Float64Array.from(out);
  });
}

/** The medial axes of a region, one per connected component. */
export const medialAxis = (region: Region): Axis[] => components(region).map(axisOf);
