import { boundsOf, type Bounds, type Loop } from '../geometry/region';
import type { FormKind } from './form';
import type { Grid } from './field';

/** What lies so near to the edge lies on it, mm. */
const EDGE = 0.001;

/**
 * Round all that a form with a frame may lie in, or what it is drawn by, where it is made of outlines or lies along lines, mm; null for
 * one that is everywhere, or nowhere by itself.
 */
export function extentOf(kind: FormKind, values: unknown, drawn: () => readonly Loop[]): Bounds | null {
  if (kind.repeats?.(values)) return null;
  if (!kind.frame) return kind.ofOutlines || kind.alongLines ? boundsOf(drawn()) : null;
  const { x, y, width, height, turn } = kind.frame(values);
  const t = ((turn ?? 0) * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(t)), Math.abs(Math.sin(t))];
  const [dx, dy] = [(width * c + height * s) / 2, (width * s + height * c) / 2];
  return { x0: x - dx, y0: y - dy, x1: x + dx, y1: y + dy };
}

/**
 * What is to be said of a form that is cut off at the edge of the blank, whose heights over the nodes of the blank are `z` (NaN where
 * it is empty); null where nothing is. A frame may reach further than what is in it: that is cut off where nodes at the edge
 * are filled. `bounded`: it counts within outlines alone, and may be larger than these.
 */
export function beyondBlank(
  extent: Bounds | null,
  z: Float32Array,
  { cols, rows, cell, x0, y0 }: Grid,
  bounded = false,
): string | null {
  if (!extent) return null;
  const [x1, y1] = [x0 + (cols - 1) * cell, y0 + (rows - 1) * cell];
  if (extent.x0 > x1 || extent.x1 < x0 || extent.y0 > y1 || extent.y1 < y0)
    return 'Lies off the blank: nothing of it is carved. Move it onto the blank.';
  if (bounded) return null;
  const filled = (c: number, r: number) => z[r * cols + c] === z[r * cols + c];
  const across = (c: number) => Array.from({ length: rows }, (_, r) => r).some((r) => filled(c, r));
  const along = (r: number) => Array.from({ length: cols }, (_, c) => c).some((c) => filled(c, r));
  const cut =
    (extent.x0 < x0 - EDGE && across(0)) ||
    (extent.x1 > x1 + EDGE && across(cols - 1)) ||
    (extent.y0 < y0 - EDGE && along(0)) ||
    (extent.y1 > y1 + EDGE && along(rows - 1));
  return cut ? 'Reaches beyond the blank: what lies there is not carved. Move it, or make it smaller.' : null;
}
