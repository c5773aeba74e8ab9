import type { HeightField } from '../relief/field';

/** What differs beyond this height (mm) is told. */
export const TOLERANCE = 0.02;
/** Connected places smaller than this (mm2), and no larger than one node, are the rounding of corners. */
const SPECK = 0.02;

/** A connected place where proof and wanted surface differ. */
export interface Place {
  readonly x: number;
  readonly y: number;
  /** mm2. */
  readonly area: number;
  /** Most by which it stands too high or lies too low, mm; x, y are there. */
  readonly height: number;
}

/**
 * Connected nodes (by sides and corners) as places, largest first; single nodes of a fine field are none. `over`: by how much each node
 * stands too high or lies too low, mm; 0 where nothing is amiss. It is used up.
 */
export function placesOf(over: Float32Array, { cols, rows, cell, x0, y0 }: HeightField): Place[] {
  const out: Place[] = [];
  const list: number[] = [];
  for (let first = 0; first < over.length; first++) {
    if (!over[first]) continue;
    let worst = first;
    let height = over[first];
    over[first] = 0;
    list.length = 0;
    list.push(first);
    for (let n = 0; n < list.length; n++) {
      const i = list[n];
      const c = i % cols;
      const r = (i - c) / cols;
      for (let q = Math.max(0, r - 1); q <= Math.min(rows - 1, r + 1); q++)
        for (let p = Math.max(0, c - 1); p <= Math.min(cols - 1, c + 1); p++) {
          const k = q * cols + p;
          if (!over[k]) continue;
          if (over[k] > height) [worst, height] = [k, over[k]];
          over[k] = 0;
          list.push(k);
        }
    }
    const area = list.length * cell * cell;
    if (list.length > 1 || area >= SPECK)
      out.push({ x: x0 + (worst % cols) * cell, y: y0 + Math.floor(worst / cols) * cell, area, height });
  }
  return out.sort((a, b) => b.area - a.area);
}
