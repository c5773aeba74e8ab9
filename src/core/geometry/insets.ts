import { hashFloats, memo, sizedMemo } from './hash';
import { AxisError, axisOf, type Axis } from './medial/axis';
import { makeBranches, type Branches } from './medial/branches';
import { InsetError, insetOf } from './medial/inset';
import { cornersOf, fromLocal, toLocal } from './local';
import { UNITS_PER_MM } from './places';
import { append } from '../units/append';
import { components, distinct, offset, type Region } from './region';

/** Axes are kept by the look of their outlines: what has not changed, or only its place, is not worked out again. */
const keptAxes = memo<Axis>(4000);

/** The medial axis of one component, from the kept ones if it was asked for before, wherever it lay. Throws AxisError. */
export function axisFor(component: Region): Axis {
  const at = toLocal(component);
  if (!at.exact) return keptAxes(hashFloats(component), () => axisOf(component));
  try {
    return movedAxis(
      keptAxes(`local ${hashFloats(at.loops)}`, () => axisOf(fromLocal(at.loops, 0, 0))),
      at.x / UNITS_PER_MM,
      at.y / UNITS_PER_MM,
    );
  } catch (e) {
    if (!(e instanceof AxisError)) throw e;
    throw new AxisError(e.x + at.x / UNITS_PER_MM, e.y + at.y / UNITS_PER_MM, e.detail);
  }
}

const movedAxis = ({ sites, trace }: Axis, x: number, y: number): Axis => ({
  sites: { ...sites, originX: sites.originX + x, originY: sites.originY + y },
  trace,
});

const aboutOrigin = ({ sites, trace }: Axis): Axis => ({ sites: { ...sites, originX: 0, originY: 0 }, trace });
const names = new WeakMap<Axis['trace'], number>();
let named = 0;
/** A name for what is read off an axis, wherever that lies. */
function nameOf({ trace }: Axis): number {
  let n = names.get(trace);
  if (n === undefined) names.set(trace, (n = ++named));
  return n;
}
const moved = (points: Float64Array, stride: number, { sites }: Axis): Float64Array => {
  const out = points.slice();
  for (let i = 0; i < out.length; i += stride) {
    out[i] += sites.originX;
    out[i + 1] += sites.originY;
  }
  return out;
};

/** So many corners of insets are kept: some 40 MB. */
const MOST_CORNERS = 2e6;
const keptInsets = sizedMemo<Region>(MOST_CORNERS, cornersOf);
/** An inset on the grid, so that what is worked out of it is known again too. The axis' own origin lies on it. */
const insetFor = (axis: Axis, distance: number, tolerance: number): Region =>
  keptInsets(`${nameOf(axis)} ${distance} ${tolerance}`, () =>
    insetOf(aboutOrigin(axis), distance, tolerance)
      .map((l) => distinct(l.map((v) => Math.round(v * UNITS_PER_MM) / UNITS_PER_MM)))
      .filter((l) => l.length >= 6),
  ).map((l) => moved(l, 2, axis));

const MOST_SAMPLES = 3e6;
const keptBranches = sizedMemo<Branches>(MOST_SAMPLES, (b) => b.samples.length / 3);
/** The branches of a component's axis (see medial/branches.ts), from the kept ones if they were asked for before. Throws AxisError. */
export function branchesFor(component: Region, tolerance: number, prune = tolerance): Branches {
  const axis = axisFor(component);
  const b = keptBranches(`${nameOf(axis)} ${tolerance} ${prune}`, () =>
    makeBranches(aboutOrigin(axis), tolerance, prune),
  );
  return { ...b, samples: moved(b.samples, 3, axis), plunges: moved(b.plunges, 3, axis) };
}

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
            append(out, insetFor(axis, distance, tolerance));
            continue;
          }
        } catch (e) {
          if (!(e instanceof InsetError)) throw e;
        }
        append(out, offset(part, -distance, tolerance));
      }
      return out;
    },
  };
}
