interface Point {
  readonly x: number;
  readonly y: number;
}

/** So much of the plan is left between the grips on opposite sides, pixels: what is small can still be seen, and taken and moved. */
export const ROOM = 44;

/**
 * Where the corner grips of a frame stand: on its corners, or so far outside them that no side is shorter than `ROOM`.
 *
 *     o-----o-----o
 *     o   [47]    o      the frame of what is picked, and the grips around it
 *     o-----o-----o
 *
 * `corners` in pixels of the plan (Y down), the lower left one first and the upper left one last; `degrees` is how far the frame
 * is turned anticlockwise.
 */
export function gripFrame(corners: readonly Point[], degrees: number): Point[] {
  const t = (degrees * Math.PI) / 180;
  const [a, b, , d] = corners;
  const wide = Math.max(0, (ROOM - Math.hypot(b.x - a.x, b.y - a.y)) / 2);
  const high = Math.max(0, (ROOM - Math.hypot(d.x - a.x, d.y - a.y)) / 2);
  return corners.map(({ x, y }, k) => {
    const u = k === 1 || k === 2 ? wide : -wide;
    const v = k >= 2 ? high : -high;
    return { x: x + u * Math.cos(t) - v * Math.sin(t), y: y - u * Math.sin(t) - v * Math.cos(t) };
  });
}
