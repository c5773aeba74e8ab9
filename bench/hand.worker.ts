/** A thread that helps benches with cutting and shaping. */
import { parentPort } from 'node:worker_threads';
import { lendClearing, type SharedClearing } from '../src/compute/clearingHands';
import { lendWays, type SharedWays } from '../src/compute/followHands';
import { lendRows, type SharedForm } from '../src/compute/formHands';
import { lendHand, type Shared } from '../src/compute/hands';

parentPort!.on('message', (work: Shared | SharedForm | SharedWays | SharedClearing) => {
  if ('pieces' in work) lendWays(work);
  else if ('form' in work) lendRows(work);
  else if ('clearing' in work) lendClearing(work);
  else lendHand(work);
});
parentPort!.postMessage('ready');
