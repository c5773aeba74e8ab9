import * as Comlink from 'comlink';
import type { ComputeApi } from './protocol';
import { WorkerHandle } from './workerHandle';

/** A place for a worker that computes. */
export type ComputeSeat = WorkerHandle<ComputeApi>;
export type ComputeApiRemote = Comlink.Remote<ComputeApi>;

type Init = ConstructorParameters<typeof WorkerHandle<ComputeApi>>[1];
type Options = ConstructorParameters<typeof WorkerHandle<ComputeApi>>[2];
export const computeSeat = (init: Init, options?: Options): ComputeSeat =>
  new WorkerHandle<ComputeApi>(
    () => new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }),
    init,
    options,
  );
