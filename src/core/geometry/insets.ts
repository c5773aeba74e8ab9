import { hashFloats, memo } from './hash';
import { AxisError, axisOf, type Axis } from './medial/axis';
import { InsetError, insetOf } from './medial/inset';
import { components, offset, type Region } from './region';

/** Axes are kept by the content of their outlines: what has not changed is not worked out again. */
const keptAxes = memo<Axis>(4000);

/** The medial axis of one component, from the kept ones if it was asked for before. Throws AxisError. */
export const axisFor = (component: Region): Axis => keptAxes(hashFloats(component), () => axisOf(component));

/** Insets of a region by any distance. Exact by way of the medial axis; integer offsets where that fails. */
export interface Insets {
  at(distance: number, tolerance: number): Region;
}

export function insetsOf(region: Region): Insets {
  const parts = components(region).map((part) => {
    try {
      return { part, axis: axisFor(part) };
    } catch (e) {
      if (!(e instanceof AxisError)) throw e;
      return { part, axis: null };
    }
  });
  return {
    at(distance, tolerance) {
      if (distance <= 0) return region;
      const out: Region = [];
      for (const { part, axis } of parts) {
        try {
          if (axis) {
            out.push(...insetOf(axis, distance, tolerance));
            continue;
          }
        } catch (e) {
          if (!(e instanceof InsetError)) throw e;
        }
        out.push(...offset(part, -distance, tolerance));
      }
      return out;
    },
  };
}
