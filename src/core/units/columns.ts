/**
 * Columns of numbers that pass between threads without being copied: longer ones lie in shared memory from the start, where the
 * machine has any. They are written once, by whoever makes them, and only read from then on.
 */
const SHARES = typeof SharedArrayBuffer !== 'undefined';

/** Shorter columns are copied in less time than it takes to share them. */
const LONG = 4096;

type Column = Float64Array | Float32Array | Int32Array | Uint8Array;

const room = (bytes: number, length: number): ArrayBuffer | SharedArrayBuffer =>
  SHARES && length >= LONG ? new SharedArrayBuffer(bytes) : new ArrayBuffer(bytes);

type Ctor<T extends Column> = new (b: ArrayBuffer | SharedArrayBuffer) => T;

/** Room for so many, noughts at first. */
export const column = <T extends Column>(of: Ctor<T> & { readonly BYTES_PER_ELEMENT: number }, n: number): T =>
  new of(room(n * of.BYTES_PER_ELEMENT, n));

/**
 * The first `n` of a column that was made with room for more, and whose first `n` are written no more: the same memory where
 * it is shared and mostly used (what was never written takes none), a copy where not.
 */
export const used = <T extends Column>(from: T, n: number): T =>
  !(from.buffer instanceof ArrayBuffer) && 2 * n >= from.length ? (from.subarray(0, n) as T) : taken(from, n);

/** The first `n` of a column, as a column of their own. */
export function taken<T extends Column>(from: T, n: number): T {
  const size = from.BYTES_PER_ELEMENT;
  const out = new (from.constructor as new (b: ArrayBuffer | SharedArrayBuffer) => T)(room(n * size, n));
  out.set(from.subarray(0, n) as never);
  return out;
}

/** A column with the same added to each of its numbers. */
export function shifted(from: Float64Array, by: number): Float64Array {
  if (by === 0) return from;
  const out: Float64Array<ArrayBufferLike> = new Float64Array(room(8 * from.length, from.length));
  for (let i = 0; i < from.length; i++) out[i] = from[i] + by;
  return out;
}

/** Up to so many noughts are made ahead. */
const AHEAD = 1e6;
let none: Float64Array<ArrayBufferLike> = new Float64Array(0);
/** So many noughts. All who ask for them read the same ones, in shared memory where there is any: they are never copied. */
export function noughts(n: number): Float64Array {
  if (n > none.length) {
    const length = Math.max(n, Math.min(2 * n, AHEAD));
    none = new Float64Array(SHARES ? new SharedArrayBuffer(8 * length) : new ArrayBuffer(8 * length));
  }
  return none.subarray(0, n) as Float64Array;
}
