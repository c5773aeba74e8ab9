import { Zip, ZipDeflate } from 'fflate';
import { lengthOf, type Chunks } from '@/core/program/text';

/** A file as it is written, and under which name. */
export interface Written {
  readonly name: string;
  readonly chunks: Chunks;
}
/** Takes parts of a file in order. */
export type Sink = (part: Uint8Array<ArrayBuffer>) => void | Promise<void>;

/** So much is worked on in one go, bytes: some milliseconds where it is packed. */
const PART = 1 << 18;
/** The page gets its turn after so long, ms. */
const TURN = 8;

/** Parts of chunks, in memory that is not shared: what writes them takes no other. */
function* partsOf(chunks: Chunks): Generator<Uint8Array<ArrayBuffer>> {
  for (const c of chunks) for (let at = 0; at < c.length; at += PART) yield new Uint8Array(c.subarray(at, at + PART));
}

/**
 * Writes one file as it is, or several as a zip archive, part by part, so that nothing holds the page up and nobody holds all of
 * it at once. `progress` is told what share is written. Throws what the sink throws, and `signal`'s reason.
 */
export async function pour(
  files: readonly Written[],
  zipped: boolean,
  sink: Sink,
  signal?: AbortSignal,
  progress: (done: number) => void = () => {},
): Promise<void> {
  const total = files.reduce((n, f) => n + lengthOf(f.chunks), 0);
  let done = 0;
  let since = performance.now();
  const turn = async (bytes: number) => {
    signal?.throwIfAborted();
    done += bytes;
    progress(total ? done / total : 1);
    if (performance.now() - since < TURN) return;
    await new Promise((r) => setTimeout(r));
    since = performance.now();
  };
  if (!zipped) {
    for (const f of files)
      for (const part of partsOf(f.chunks)) {
        await sink(part);
        await turn(part.length);
      }
    return;
  }
  /** What the packer gave and nobody has taken yet. */
  let packed: Uint8Array<ArrayBuffer>[] = [];
  let failed: Error | null = null;
  const zip = new Zip((e, data) => {
    failed ??= e;
    if (data?.length) packed.push(data as Uint8Array<ArrayBuffer>);
  });
  const drain = async () => {
    if (failed) throw failed;
    const now = packed;
    packed = [];
    for (const part of now) await sink(part);
  };
  for (const f of files) {
    const entry = new ZipDeflate(f.name, { level: 6 });
    zip.add(entry);
    for (const part of partsOf(f.chunks)) {
      entry.push(part);
      await drain();
      await turn(part.length);
    }
    entry.push(new Uint8Array(), true);
    await drain();
  }
  zip.end();
  await drain();
}
