import { webAssembly } from '@/core/units/webAssembly';

type View = Float64Array | Float32Array | Int32Array | Uint8Array;

/** Smaller arrays are copied in less time than it takes to share them, bytes. */
const SMALL = 512;

/** A copy that passes between threads without being copied again, where the browser allows it. */
export function sharedCopy<T extends View>(view: T): T {
  if (typeof SharedArrayBuffer === 'undefined') return view.slice() as T;
  const copy = new (view.constructor as new (b: SharedArrayBuffer) => T)(new SharedArrayBuffer(view.byteLength));
  copy.set(view as never);
  return copy;
}

/** The same numbers in shared memory: those that lie there already, or a copy. */
export const sharedView = <T extends View>(view: T): T =>
  view.buffer instanceof ArrayBuffer ? sharedCopy(view) : view;

/** A plain value with all its longer arrays of numbers in shared memory: it goes from thread to thread in no time, whatever it holds. */
export function inShared<T>(v: T): T {
  if (typeof v !== 'object' || v === null) return v;
  if (ArrayBuffer.isView(v)) {
    const view = v as unknown as View;
    if (!(v.buffer instanceof ArrayBuffer)) return v;
    if (v.byteLength >= SMALL) return sharedCopy(view) as unknown as T;
    // A short one that lies in a large run of bytes would take all of it along.
    return v.byteLength === v.buffer.byteLength ? v : (view.slice() as unknown as T);
  }
  if (Array.isArray(v)) return v.map(inShared) as T;
  // A memory that threads share passes as it is.
  if (webAssembly() && v instanceof (webAssembly()!.Memory as never as { new (): object })) return v;
  return Object.fromEntries(Object.entries(v).map(([k, part]) => [k, inShared(part)])) as T;
}
