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

/** A side no longer than that, mm, is none (a line has no height): there is nothing to scale. */
const THIN = 1e-6;

/**
 * By which factors a frame of a width and height is scaled whose grip on the side (gx, gy), each of -1, 0 and 1, was pulled so far, mm,
 * from the side that stays, along its width and its height. A corner keeps the ratio unless it is `free`; no frame is turned inside out.
 */
export function pulledBy(
  { gx, gy, w, h }: { readonly gx: number; readonly gy: number; readonly w: number; readonly h: number },
  along: number,
  across: number,
  free: boolean,
): { sx: number; sy: number } {
  const wide = gx !== 0 && w > THIN ? Math.max(0.02, along / w) : null;
  const high = gy !== 0 && h > THIN ? Math.max(0.02, across / h) : null;
  if (!gx || !gy || free) return { sx: wide ?? 1, sy: high ?? 1 };
  const both = Math.max(wide ?? 0, high ?? 0) || 1;
  return { sx: both, sy: both };
}
