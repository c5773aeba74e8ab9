const counts = new WeakMap<ArrayBufferView, ArrayBuffer>();

/**
 * Lets the collector of this window know of shared memory, which it does not count: with it go as many bytes that nobody touches
 * and that the system gives no page for. Else the fields of some hundred proofs that are long replaced lie there before it
 * looks, more than a gigabyte of them.
 */
export function counted(view: ArrayBufferView): void {
  if (typeof SharedArrayBuffer === 'undefined' || !(view.buffer instanceof SharedArrayBuffer) || counts.has(view))
    return;
  try {
    counts.set(view, new ArrayBuffer(view.byteLength));
  } catch {
    // No room is a reason to let go what is not needed, which the browser does by itself then.
  }
}
