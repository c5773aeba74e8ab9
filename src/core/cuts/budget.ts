/**
 * What may go wrong between an outline and the moves along it, shared out, mm. A plan takes the shares of the steps it
 * goes through; along each of the two ways they add up to what is promised:
 *
 *     contours:  flatten + offset + arc                            = total
 *     axes:      the largest of flatten, sample and prune + merge  = total
 *
 * (Along an axis those three never meet: chords stand off in their middles, while samples and twigs do so about nodes, where
 * chords are exact.) Merging has the most: a controller has to chew what it leaves, and what is left to it must be well above
 * the ripple of the chords. Chords also stay below `prune`, or round ends would keep a spoke to every chord's corner.
 */
export interface Budget {
  /** Chords of the artwork's curves. */
  readonly flatten: number;
  /** Chords of round corners that an offset makes. */
  readonly offset: number;
  /** Lines and arcs through the points of a contour. */
  readonly arc: number;
  /** Chords along the curved parts of a medial axis. */
  readonly sample: number;
  /** What twigs of the axis may take away when they are left out. */
  readonly prune: number;
  /** Lines and arcs through the points of an axis. */
  readonly merge: number;
}

/** What flat cuts promise, mm: of gouge, and of what is left. */
export const PROMISED = 0.002;

export const budgetOf = (total = PROMISED): Budget => ({
  flatten: 0.2 * total,
  offset: 0.1 * total,
  arc: 0.7 * total,
  sample: 0.2 * total,
  prune: 0.3 * total,
  merge: 0.7 * total,
});

/** The same budget where what stands off sideways becomes `steepness` times as much in depth (1 / tan of a wall's lean). */
export const finer = (b: Budget, steepness: number): Budget => {
  const k = 1 / Math.max(1, steepness);
  return {
    flatten: k * b.flatten,
    offset: k * b.offset,
    arc: k * b.arc,
    sample: k * b.sample,
    prune: k * b.prune,
    merge: k * b.merge,
  };
};
