/** A thread that helps benches with cutting and shaping. */
import { parentPort } from 'node:worker_threads';
import { lendWays, type SharedWays } from '../src/compute/followHands';
import { lendRows, type SharedForm } from '../src/compute/formHands';
import { lendHand, type Shared } from '../src/compute/hands';

parentPort!.on('message', (work: Shared | SharedForm | SharedWays) =>
  'pieces' in work ? lendWays(work) : 'form' in work ? lendRows(work) : lendHand(work),
);
parentPort!.postMessage('ready');
