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

/** A mesh stood up on a side and turned about Z, degrees anticlockwise. */
export function stood({ corners }: Mesh, up: UpSide, turn: number): Mesh {
  const [[ax, sx], [ay, sy], [az, sz]] = STANDING[up];
  // Quarter turns come out to the last bit.
  const quarter = ((Math.round(turn / 90) % 4) + 4) % 4;
  const exact = turn === Math.round(turn / 90) * 90;
  const cos = exact ? [1, 0, -1, 0][quarter] : Math.cos((turn * Math.PI) / 180);
  const sin = exact ? [0, 1, 0, -1][quarter] : Math.sin((turn * Math.PI) / 180);
  const out = new Float32Array(corners.length);
  for (let i = 0; i < corners.length; i += 3) {
    const x = sx * corners[i + ax];
    const y = sy * corners[i + ay];
    out[i] = cos * x - sin * y;
    out[i + 1] = sin * x + cos * y;
    out[i + 2] = sz * corners[i + az];
  }
  return { corners: out };
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
