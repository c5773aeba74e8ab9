/** What all workers of the pool hold together, bytes. */
const TOGETHER = 512 * 2 ** 20;

/** So many moves hold more than any ballast. */
const MANY = 1e6;

/** Held by what is global: of a variable that nobody reads, a bundler leaves nothing. */
const held = globalThis as { ballast?: ArrayBuffer };

/**
 * Has this worker, one of so many, hold memory that nobody ever touches: the system gives none of its pages out, but the collector
 * counts it. It goes by how much has come since it ran last, memory of arrays included, in relation to what is held. With the little
 * that a small job holds, the fields of every other proof bring it about; and each time the compiled code of all functions that no
 * object holds just then, those that were made for one run, is let go with them, so that the next run begins slowly again. Work on
 * many moves holds enough by itself, and has a better use for the room: the ballast is let go for it.
 */
export function holdBallast(workers: number, moves = 0): void {
  if (moves > MANY) return void delete held.ballast;
  try {
    held.ballast ??= new ArrayBuffer(Math.floor(TOGETHER / workers));
  } catch {
    // Where there is no room for it, all goes on as it is.
  }
}
