import { noBox, orNull, widen, type Bounds } from './box';

/** A closed outline: x, y interleaved in mm without a repeated last point. */
export type Loop = Float64Array;

/** Bounds of loops or lines; null when there is no point. */
export function boundsOf(loops: readonly Loop[]): Bounds | null {
  const b = noBox();
  for (const loop of loops) for (let i = 0; i < loop.length; i += 2) widen(b, loop[i], loop[i + 1]);
  return orNull(b);
}

const boxes = new WeakMap<Loop, Bounds>();

/** The box of a loop, kept with it: loops are not changed once they are made. */
export function boxOfLoop(loop: Loop): Bounds {
  let b = boxes.get(loop);
  if (!b) boxes.set(loop, (b = boundsOf([loop]) ?? noBox()));
  return b;
}

/** A loop without points that repeat the one before: the algebra's offsets leave such. */
export function distinct(loop: Loop): Loop {
  const n = loop.length;
  const same = (i: number, j: number) => loop[i] === loop[j] && loop[i + 1] === loop[j + 1];
  let repeats = 0;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) if (same(i, j)) repeats++;
  if (!repeats) return loop;
  const out: number[] = [];
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) if (!same(i, j)) out.push(loop[i], loop[i + 1]);
  return Float64Array.from(out);
}

/** A loop as an open line that ends where it begins. */
export function roundOnce(loop: Loop): Float64Array {
  const out = new Float64Array(loop.length + 2);
  out.set(loop);
  out.set(loop.subarray(0, 2), loop.length);
  return out;
}
