/** Boxes along the axes: the one home of what is asked of them. Hot loops of grids and trees keep theirs in flat arrays. */
export interface Bounds {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}
type Box = Readonly<Bounds>;

/** A box that holds nothing yet: x0 above x1. */
export const noBox = (): Bounds => ({ x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity });

/** Makes a box as wide as it must be to hold a point. */
export function widen(b: Bounds, x: number, y: number): void {
  if (x < b.x0) b.x0 = x;
  if (x > b.x1) b.x1 = x;
  if (y < b.y0) b.y0 = y;
  if (y > b.y1) b.y1 = y;
}

/** The box, or null where it holds nothing. */
export const orNull = (b: Bounds): Bounds | null => (b.x0 <= b.x1 ? b : null);

/** The box round two boxes. */
export const joined = (a: Box, b: Box): Bounds => ({
  x0: Math.min(a.x0, b.x0),
  y0: Math.min(a.y0, b.y0),
  x1: Math.max(a.x1, b.x1),
  y1: Math.max(a.y1, b.y1),
});

/** The box with so much more to every side. */
export const grownBox = (b: Box, by: number): Bounds => ({
  x0: b.x0 - by,
  y0: b.y0 - by,
  x1: b.x1 + by,
  y1: b.y1 + by,
});

/** Whether two boxes have a point in common. */
export const boxesMeet = (a: Box, b: Box): boolean => a.x0 <= b.x1 && a.x1 >= b.x0 && a.y0 <= b.y1 && a.y1 >= b.y0;

/** Whether a box holds another one whole. */
export const boxHolds = (a: Box, b: Box): boolean => a.x0 <= b.x0 && a.x1 >= b.x1 && a.y0 <= b.y0 && a.y1 >= b.y1;

/** Whether a point lies in a box, or on its edge. */
export const inBox = (b: Box, x: number, y: number): boolean => x >= b.x0 && x <= b.x1 && y >= b.y0 && y <= b.y1;
