import type { ReliefFile } from '@/core/pipeline/reliefShelf';
import { Brought } from './brought';
import { sharedCopy } from './shared';

const files = new Brought<ReliefFile>();
/** Tells of the files of this thread that reliefs are made of, and of every later one. */
export const onReliefFiles: typeof files.on = (tell) => files.on(tell);

export const reliefFile = (id: string): ReliefFile | null => files.of(id);
export const isReliefFileHere = (id: string): boolean => files.has(id);

/** Brings files to whoever shapes reliefs; their bytes pass between threads without being copied again. */
export function bringReliefFiles(more: Readonly<Record<string, ReliefFile>>): void {
  files.bring(
    Object.fromEntries(
      Object.entries(more)
        .filter(([id]) => !files.has(id))
        .map(([id, f]) => [id, { ...f, bytes: f.bytes.buffer instanceof ArrayBuffer ? sharedCopy(f.bytes) : f.bytes }]),
    ),
  );
}
