/** Rows of the face between two heights of y, mm. */
export interface SeenRows {
  readonly y0: number;
  readonly y1: number;
}

interface Vector {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** Where a camera stands, mm, the directions of its view (unit vectors, as of `axesOf`), and how wide that is. */
export interface Sight {
  readonly from: Vector;
  /** From what is looked at to the camera. */
  readonly way: Vector;
  readonly right: Vector;
  readonly up: Vector;
  /** Tangent of half the angle from the lower to the upper edge, and width over height. */
  readonly tan: number;
  readonly aspect: number;
}

/** Which part of the face of a blank (z = 0) is seen; without end where the horizon is. */
export function rowsSeen({ from, way, right, up, tan, aspect }: Sight): SeenRows {
  let [y0, y1] = [Infinity, -Infinity];
  for (const u of [-tan * aspect, tan * aspect])
    for (const v of [-tan, tan]) {
      // A way that does not come down to the face goes on for ever.
      const t = -from.z / (u * right.z + v * up.z - way.z);
      if (!(t > 0) || !Number.isFinite(t)) return { y0: -Infinity, y1: Infinity };
      const y = from.y + t * (u * right.y + v * up.y - way.y);
      y0 = Math.min(y0, y);
      y1 = Math.max(y1, y);
    }
  return { y0, y1 };
}
