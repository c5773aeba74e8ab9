import { insetsOf } from '../../geometry/insets';
import type { Region } from '../../geometry/region';
import { clearWith, type Cleared, type ClearingOptions, type ClearingTool } from './clear';

/** A clearing as plain values: whoever is given it can do it. */
export interface ClearingWork {
  readonly tools: readonly ClearingTool[];
  readonly region: Region;
  /** How far cutters keep off the region's outline, mm. */
  readonly offset: number;
  readonly options: Omit<ClearingOptions, 'progress'>;
}

type Progress = ClearingOptions['progress'];

export const clearAll = ({ tools, region, offset, options }: ClearingWork, progress: Progress): Cleared =>
  clearWith(tools, insetsOf(region), offset, { ...options, progress });

/**
 * Whoever may do a clearing while something else is worked out: it is begun at once, where somebody is free. What comes back gives
 * what it came to: waits for those who are at it, and does it where nobody has begun. One that is not asked for is given up.
 */
export type ClearingHands = (work: ClearingWork) => (progress: Progress) => Cleared;
