/**
 * What may go wrong between a relief and the moves over it, shared out, mm: where the cutter is met between nodes, where its way is
 * asked, and where moves leave out what lies nearly straight. They add up to no more than what is promised of relief.
 */
export interface ReliefShare {
  readonly locate: number;
  readonly sample: number;
  readonly merge: number;
}

/** What cuts over a relief promise, mm: of gouge. */
export const PROMISED_RELIEF = 0.005;

/** Merging has the most: it is what a controller has to chew. */
export const reliefShare = (total = PROMISED_RELIEF): ReliefShare => ({
  locate: 0.2 * total,
  sample: 0.2 * total,
  merge: 0.4 * total,
});
