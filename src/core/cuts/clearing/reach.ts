import type { Footprint } from './contours';
import { insetsOf } from '../../geometry/insets';
import { cornersOf, keptAnywhere, movedLoops } from '../../geometry/local';
import {
  boundsOf,
  boxesMeet,
  boxOfLoop,
  components,
  intersect,
  offset,
  regionArea,
  simplifyRegion,
  subtract,
  type Bounds,
  type Region,
} from '../../geometry/region';

/** Reach is told to within this, mm: it is for choosing cutters and for going over corners again, not for walls. */
const REACH_TOLERANCE = 0.008;

/** What cutters have gone over: its loops, which may overlap, and the same a hair wider (`widened`), worked out by whoever knows how. */
export interface Swept {
  readonly wide: Region;
  /** Those of the loops as they are that may lie in a box. */
  loops(within: Bounds): Region;
}

/** By how much the wider loops of what is swept are wider, mm: rims along the outline that are thinner than this come from tolerances. */
export const HAIR = 2 * REACH_TOLERANCE;

/** Loops as what is swept. */
export const sweptBy = (loops: Region, wide = offset(loops, HAIR, REACH_TOLERANCE)): Swept => ({
  wide,
  loops: (b) => loops.filter((l) => boxesMeet(boxOfLoop(l), b)),
});

interface PartReach {
  readonly reached: Region;
  readonly wide: Region;
  readonly left: Region;
}
/** So many corners of what was reached are kept: some 30 MB. */
const MOST_CORNERS = 1.5e6;
const kept = keptAnywhere<PartReach>(MOST_CORNERS, (k) => cornersOf(k.reached) + cornersOf(k.wide) + cornersOf(k.left));

/**
 * What a cutter of radius r can clear inside a region (its opening), and what stays out of its reach. A cutter with a round rim
 * leaves a level floor only within `floorRadius` of where its axis can go. Part by part: no disc inside of one reaches another.
 */
export function reachOf(region: Region, r: number, floorRadius = r): Reach {
  const parts = components(region).map((loops): PartReach => {
    const { value, x, y } = kept(`${r} ${floorRadius}`, loops, (part) => {
      // Where the inset bends inwards every node makes the offset cross itself: as few as the tolerance allows.
      const way = simplifyRegion(insetsOf(part).at(r, REACH_TOLERANCE), REACH_TOLERANCE / 2);
      const reached = offset(way, floorRadius, REACH_TOLERANCE);
      const wide = offset(way, floorRadius + HAIR, REACH_TOLERANCE);
      return { reached, wide, left: restOf(simplifyRegion(part, REACH_TOLERANCE / 2), sweptBy(reached, wide)).left };
    });
    return {
      reached: movedLoops(value.reached, x, y),
      wide: movedLoops(value.wide, x, y),
      left: movedLoops(value.left, x, y),
    };
  });
  const [reached, wide, left] = [
    parts.flatMap((p) => p.reached),
    parts.flatMap((p) => p.wide),
    parts.flatMap((p) => p.left),
  ];
  return { reached, swept: sweptBy(reached, wide), left, area: areaOf(left) };
}

/** Area of what is left, mm2: rounding makes it no less than nothing. */
const areaOf = (left: Region): number => Math.max(0, regionArea(left));

/** What of a region lies outside of what was swept, without the hair-thin rims that tolerances leave along its outline. */
export function restOf(region: Region, { wide, loops }: Swept): { left: Region; area: number } {
  const left = eachPart(region, wide, (part, here) => {
    if (!here.length) return part;
    const beyond = subtract(part, here);
    if (!beyond.length) return [];
    // What stands clear of the rims, and the hair that was taken off it.
    const whole = intersect(offset(beyond, 1.5 * HAIR, REACH_TOLERANCE), part);
    return whole.length ? subtract(whole, loops(boundsOf(whole)!)) : [];
  });
  return { left, area: areaOf(left) };
}

export interface Reach {
  readonly reached: Region;
  readonly swept: Swept;
  readonly left: Region;
  readonly area: number;
}

/** What several cutters leave of a floor, one after the other: after the first, after the first two... `reaches` are those of their whole discs. */
export function leftBy(region: Region, cutters: readonly Footprint[], reaches: readonly Reach[]): Region[] {
  // What a disc reaches, every smaller one reaches: only round rims leave something that a later cutter does not.
  if (!cutters.some((c) => c.floorRadius < c.radius)) return reaches.map((r) => r.left);
  let left = region;
  return cutters.map(
    (c, i) =>
      (left = restOf(
        left,
        c.floorRadius < c.radius ? reachOf(region, c.radius, c.floorRadius).swept : reaches[i].swept,
      ).left),
  );
}

/** What of a region is not in another, part by part. */
export const without = (region: Region, other: Region): Region => eachPart(region, other, subtract);

/** What of a region is in another too, part by part. */
export const within = (region: Region, other: Region): Region =>
  eachPart(region, other, (part, here) => (here.length ? intersect(part, here) : []));

/** Works on each connected part of a region with those loops of another that lie about it. */
function eachPart(region: Region, other: Region, work: (part: Region, here: Region) => Region): Region {
  return components(region).flatMap((part) =>
    work(
      part,
      other.filter((l) => boxesMeet(boxOfLoop(l), boxOfLoop(part[0]))),
    ),
  );
}
