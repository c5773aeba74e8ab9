import { lendClearing, type SharedClearing } from './clearingHands';
import { lendWays, type SharedWays } from './followHands';
import { lendRows, type SharedForm } from './formHands';
import { lendHand, type Shared } from './hands';

/** Work that somebody has laid out for others to share, whatever it is. */
export type SharedWork = Shared | SharedForm | SharedWays | SharedClearing;

/** Helps with it. */
export function lendTo(work: SharedWork): void {
  if ('pieces' in work) lendWays(work);
  else if ('form' in work) lendRows(work);
  else if ('clearing' in work) lendClearing(work);
  else lendHand(work);
}
