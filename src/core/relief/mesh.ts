/** A mesh as a bag of triangles: nine coordinates each, x y z of its three corners, in whatever unit its file has. */
export interface Mesh {
  readonly corners: Float32Array;
}

/** Lowest and highest coordinates along the three axes. */
export interface MeshBox {
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

export const trianglesOf = (m: Mesh): number => m.corners.length / 9;

export function boxOfMesh({ corners }: Mesh): MeshBox {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < corners.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const v = corners[i + k];
      if (v < low[k]) low[k] = v;
      if (v > high[k]) high[k] = v;
    }
  return { low, high };
}

/** Which of the mesh's own directions looks up when it lies on the blank. */
export const upSides = ['z+', 'z-', 'y+', 'y-', 'x+', 'x-'] as const;
export type UpSide = (typeof upSides)[number];

/** Rotations (no mirrors: determinant 1) that bring a side up: for each new axis, which old one, and its sense. */
const STANDING: Readonly<Record<UpSide, readonly [from: number, sense: number][]>> = {
  'z+': [
    [0, 1],
    [1, 1],
    [2, 1],
  ],
  'z-': [
    [0, 1],
    [1, -1],
    [2, -1],
  ],
  'y+': [
    [0, 1],
    [2, -1],
    [1, 1],
  ],
  'y-': [
    [0, 1],
    [2, 1],
    [1, -1],
  ],
  'x+': [
    [1, 1],
    [2, 1],
    [0, 1],
  ],
  'x-': [
    [1, 1],
    [2, -1],
    [0, -1],
  ],
};

/** How a mesh stands: a side that looks up, then tipped about X and about Y, then turned about Z; degrees, anticlockwise as seen from the axis. */
export interface Standing {
  readonly up: UpSide;
  readonly tipX: number;
  readonly tipY: number;
  readonly turn: number;
}

/** Cosine and sine of degrees: of quarter turns to the last bit. */
function turnOf(degrees: number): readonly [cos: number, sin: number] {
  const quarter = Math.round(degrees / 90);
  if (degrees === 90 * quarter) return QUARTERS[((quarter % 4) + 4) % 4];
  const a = (degrees * Math.PI) / 180;
  return [Math.cos(a), Math.sin(a)];
}
const QUARTERS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/** A mesh as it stands. */
export function stood({ corners }: Mesh, { up, tipX, tipY, turn }: Standing): Mesh {
  const [[ax, sx], [ay, sy], [az, sz]] = STANDING[up];
  const [cx, nx] = turnOf(tipX);
  const [cy, ny] = turnOf(tipY);
  const [cz, nz] = turnOf(turn);
  const out = new Float32Array(corners.length);
  for (let i = 0; i < corners.length; i += 3) {
    const x = sx * corners[i + ax];
    const y = sy * corners[i + ay];
    const z = sz * corners[i + az];
    // About X, about Y, about Z.
    const y1 = cx * y - nx * z;
    const z1 = nx * y + cx * z;
    const x2 = cy * x + ny * z1;
    out[i] = cz * x2 - nz * y1;
    out[i + 1] = nz * x2 + cz * y1;
    out[i + 2] = cy * z1 - ny * x;
  }
  return { corners: out };
}

/** How wide, deep and high something is, along X, Y and Z. */
export type Sizes = readonly [number, number, number];
export function standingSize(m: Mesh, standing: Standing): Sizes {
  const { low, high } = boxOfMesh(stood(m, standing));
  return [high[0] - low[0], high[1] - low[1], high[2] - low[2]];
}

/**
 * Sizes of a mesh that stands otherwise than before, mm, so that it keeps its shape: `was` are those that it had where its own
 * were `from`, and are `to` now. What is turned about Z alone keeps its rise; of what is stood up otherwise, a rise that was
 * made shallow does not say how shallow another would be meant: it gets that of its width and height.
 */
export function sizesTurned(
  was: Sizes,
  from: Sizes,
  to: Sizes,
  turned: { readonly aboutZ: boolean; readonly quarters: number | null },
): Sizes {
  const by = (k: 0 | 1 | 2) => (from[k] > 0 ? was[k] / from[k] : 1);
  const [x, y, z] = [by(0), by(1), by(2)];
  if (turned.aboutZ && turned.quarters !== null) return turned.quarters % 2 ? [to[0] * y, to[1] * x, was[2]] : was;
  const level = Math.sqrt(x * y);
  return [to[0] * level, to[1] * level, to[2] * (turned.aboutZ ? z : level)];
}

/** Where a mesh lies and how large it is there, mm: its box has this middle and these sizes, and begins at height 0. */
export interface MeshPlace {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly rise: number;
}

/** A mesh brought to its place. An axis along which it has no extent is only moved. */
export function placed(m: Mesh, to: MeshPlace): Mesh {
  const { low, high } = boxOfMesh(m);
  const scale = (k: number, size: number) => (high[k] > low[k] ? size / (high[k] - low[k]) : 1);
  const [fx, fy, fz] = [scale(0, to.width), scale(1, to.height), scale(2, to.rise)];
  const [mx, my] = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
  const out = new Float32Array(m.corners.length);
  for (let i = 0; i < out.length; i += 3) {
    out[i] = to.x + (m.corners[i] - mx) * fx;
    out[i + 1] = to.y + (m.corners[i + 1] - my) * fy;
    out[i + 2] = (m.corners[i + 2] - low[2]) * fz;
  }
  return { corners: out };
}
