import { isArc, moveLength, RAPID, type Motion } from './motion';

/** Moves of one sheaf. */
export const SHEAF = 1024;

/**
 * The moves of a motion by the thousand, and where each thousand of them lies, so that who looks for something near a place or a
 * line, or draws what is seen, passes over most of a long motion unseen. Sheaf b holds moves b SHEAF .. (b + 1) SHEAF - 1, and
 * begins where the move before its first one ends.
 */
export interface Sheaves {
  readonly count: number;
  /** Of each sheaf the least x and y, greatest x and y, and least z, mm; arcs lie inside with their whole circle. */
  readonly boxes: Float64Array;
  /** Length of all moves that are not rapid, mm. */
  readonly length: number;
}

/** Numbers of a box. */
export const BOX = 5;

const known = new WeakMap<Motion, Sheaves>();

/** Found out once for a motion; sheaf by sheaf, since of a million moves it takes longer than a page may be kept from drawing. */
export function* findSheaves(m: Motion): Generator<void, Sheaves> {
  const kept = known.get(m);
  if (kept) return kept;
  const count = Math.ceil(m.count / SHEAF);
  const boxes = new Float64Array(BOX * count);
  let length = 0;
  for (let b = 0; b < count; b++) {
    let [x0, y0, x1, y1, z0] = [Infinity, Infinity, -Infinity, -Infinity, Infinity];
    const end = Math.min(m.count, (b + 1) * SHEAF);
    for (let i = Math.max(0, b * SHEAF - 1); i < end; i++) {
      const [x, y, z] = [m.x[i], m.y[i], m.z[i]];
      if (x < x0) x0 = x;
      if (x > x1) x1 = x;
      if (y < y0) y0 = y;
      if (y > y1) y1 = y;
      if (z < z0) z0 = z;
      if (i < b * SHEAF || i === 0) continue;
      if (m.kind[i] !== RAPID) length += moveLength(m, i);
      if (!isArc(m.kind[i])) continue;
      const r = Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]);
      x0 = Math.min(x0, m.cx[i] - r);
      x1 = Math.max(x1, m.cx[i] + r);
      y0 = Math.min(y0, m.cy[i] - r);
      y1 = Math.max(y1, m.cy[i] + r);
    }
    boxes.set([x0, y0, x1, y1, z0], BOX * b);
    yield;
  }
  const found = { count, boxes, length };
  known.set(m, found);
  return found;
}

export function sheavesOf(m: Motion): Sheaves {
  const finding = findSheaves(m);
  for (;;) {
    const { done, value } = finding.next();
    if (done) return value;
  }
}
