/** A closed outline: x, y interleaved in mm without a repeated last point. */
export type Loop = Float64Array;

export interface Bounds {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Bounds of loops or lines; null when there is no point. */
export function boundsOf(loops: readonly Loop[]): Bounds | null {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const loop of loops)
    for (let i = 0; i < loop.length; i += 2) {
      if (loop[i] < x0) x0 = loop[i];
      if (loop[i] > x1) x1 = loop[i];
      if (loop[i + 1] < y0) y0 = loop[i + 1];
      if (loop[i + 1] > y1) y1 = loop[i + 1];
    }
  return x0 <= x1 ? { x0, y0, x1, y1 } : null;
}

/** Whether two boxes have a point in common. */
export const boxesMeet = (a: Bounds, b: Bounds): boolean =>
  a.x0 <= b.x1 && a.x1 >= b.x0 && a.y0 <= b.y1 && a.y1 >= b.y0;

const boxes = new WeakMap<Loop, Bounds>();

/** The box of a loop, kept with it: loops are not changed once they are made. */
export function boxOfLoop(loop: Loop): Bounds {
  let b = boxes.get(loop);
  if (!b) boxes.set(loop, (b = boundsOf([loop]) ?? { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity }));
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
