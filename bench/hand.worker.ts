/** A thread that helps `bench:long` with cutting. */
import { parentPort } from 'node:worker_threads';
import { lendHand, type Shared } from '../src/compute/hands';

parentPort!.on('message', (shared: Shared) => lendHand(shared));
parentPort!.postMessage('ready');
