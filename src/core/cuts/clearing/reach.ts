import { insetsOf } from '../../geometry/insets';
import { intersect, offset, regionArea, simplifyRegion, subtract, type Region } from '../../geometry/region';

/** Reach is told to within this, mm: it is for choosing cutters and for going over corners again, not for walls. */
const REACH_TOLERANCE = 0.004;

/** What a disc of radius r can clear inside a region (its opening), and what stays out of its reach. */
export function reachOf(region: Region, r: number): { reached: Region; left: Region; area: number } {
  const coarse = simplifyRegion(region, REACH_TOLERANCE / 2);
  const reached = offset(insetsOf(coarse).at(r, REACH_TOLERANCE), r, REACH_TOLERANCE);
  return { reached, ...restOf(coarse, reached) };
}

/** What of a region lies outside of what was reached, without the hair-thin rims that tolerances leave along its outline. */
export function restOf(region: Region, reached: Region): { left: Region; area: number } {
  const rest = subtract(region, reached);
  // An opening by a hair removes the rims.
  const hair = 3 * REACH_TOLERANCE;
  const wide = offset(rest, -hair, REACH_TOLERANCE);
  const left = wide.length ? intersect(rest, offset(wide, hair * 1.5, REACH_TOLERANCE)) : [];
  return { left, area: Math.max(0, regionArea(left)) };
}
