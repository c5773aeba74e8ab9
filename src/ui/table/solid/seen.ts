/** Part of the face of a blank, mm. */
export interface SeenPart {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
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
export function partSeen({ from, way, right, up, tan, aspect }: Sight): SeenPart {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const u of [-tan * aspect, tan * aspect])
    for (const v of [-tan, tan]) {
      // A way that does not come down to the face goes on for ever.
      const t = -from.z / (u * right.z + v * up.z - way.z);
      if (!(t > 0) || !Number.isFinite(t)) return { x0: -Infinity, y0: -Infinity, x1: Infinity, y1: Infinity };
      const x = from.x + t * (u * right.x + v * up.x - way.x);
      const y = from.y + t * (u * right.y + v * up.y - way.y);
      x0 = Math.min(x0, x);
      x1 = Math.max(x1, x);
      y0 = Math.min(y0, y);
      y1 = Math.max(y1, y);
    }
  return { x0, y0, x1, y1 };
}
