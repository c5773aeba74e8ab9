/** A thread that helps benches with cutting and shaping. */
import { parentPort } from 'node:worker_threads';
import { lendRows, type SharedForm } from '../src/compute/formHands';
import { lendHand, type Shared } from '../src/compute/hands';

parentPort!.on('message', (work: Shared | SharedForm) => ('form' in work ? lendRows(work) : lendHand(work)));
parentPort!.postMessage('ready');
