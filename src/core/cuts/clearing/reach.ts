import type { Footprint } from './contours';
import { insetsOf } from '../../geometry/insets';
import { boundsOf, components, intersect, offset, regionArea, simplifyRegion, subtract, type Region } from '../../geometry/region';

/** Reach is told to within this, mm: it is for choosing cutters and for going over corners again, not for walls. */
const REACH_TOLERANCE = 0.008;
/** Rims along the outline that are thinner than this come from tolerances. */
const HAIR = 2 * REACH_TOLERANCE;

/**
 * What a cutter of radius r can clear inside a region (its opening), and what stays out of its reach. A cutter with a round rim
 * leaves a level floor only within `floorRadius` of where its axis can go.
 */
export function reachOf(region: Region, r: number, floorRadius = r): Reach {
  // Part by part: what one part's sweep crosses grows with everything that lies beside it.
  const parts = components(region);
  // Where the inset bends inwards every node makes the offset cross itself: as few as the tolerance allows.
  const reached = parts.flatMap((part) => offset(simplifyRegion(insetsOf(part).at(r, REACH_TOLERANCE), REACH_TOLERANCE / 2), floorRadius, REACH_TOLERANCE));
  return { reached, ...restOf(parts.flatMap((part) => simplifyRegion(part, REACH_TOLERANCE / 2)), reached) };
}

/** What of a region lies outside of what was reached, without the hair-thin rims that tolerances leave along its outline. */
export function restOf(region: Region, reached: Region): { left: Region; area: number } {
  const left = eachPart(region, reached, (part, here) => {
    const beyond = here.length ? subtract(part, offset(here, HAIR, REACH_TOLERANCE)) : part;
    // What stands clear of the rims, and the hair that was taken off it.
    return beyond.length && here.length ? subtract(intersect(offset(beyond, 1.5 * HAIR, REACH_TOLERANCE), part), here) : beyond;
  });
  return { left, area: Math.max(0, regionArea(left)) };
}

export interface Reach {
  readonly reached: Region;
  readonly left: Region;
  readonly area: number;
}

/** What several cutters leave of a floor, one after the other: after the first, after the first two... `reaches` are those of their whole discs. */
export function leftBy(region: Region, cutters: readonly Footprint[], reaches: readonly Reach[]): Region[] {
  // What a disc reaches, every smaller one reaches: only round rims leave something that a later cutter does not.
  if (!cutters.some((c) => c.floorRadius < c.radius)) return reaches.map((r) => r.left);
  let left = region;
  return cutters.map((c, i) => (left = restOf(left, c.floorRadius < c.radius ? reachOf(region, c.radius, c.floorRadius).reached : reaches[i].reached).left));
}

/** What of a region is not in another, part by part. */
export const without = (region: Region, other: Region): Region => eachPart(region, other, subtract);

/** Works on each connected part of a region with those loops of another that lie about it. */
function eachPart(region: Region, other: Region, work: (part: Region, here: Region) => Region): Region {
  const boxes = other.map((l) => boundsOf([l])!);
  return components(region).flatMap((part) => {
    const b = boundsOf(part)!;
    return work(
      part,
      other.filter((_, i) => boxes[i].x0 <= b.x1 && boxes[i].x1 >= b.x0 && boxes[i].y0 <= b.y1 && boxes[i].y1 >= b.y0),
    );
  });
}
