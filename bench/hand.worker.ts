/** A thread that helps benches with cutting, shaping, ways and floors. */
import { parentPort } from 'node:worker_threads';
import { lendTo } from '../src/compute/lending';

parentPort!.on('message', lendTo);
parentPort!.postMessage('ready');
