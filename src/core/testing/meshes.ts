import type { Mesh } from '../relief/mesh';

type Corner = readonly [number, number, number];

/** A mesh of triangles by their corners. */
export const meshOf = (triangles: readonly (readonly Corner[])[]): Mesh => ({
  corners: Float32Array.from(triangles.flat(2)),
});

/** A surface over a square from (0, 0) to (size, size), its heights at n x n squares of two triangles each. */
export function surfaceMesh(size: number, n: number, height: (x: number, y: number) => number): Mesh {
  const at = (i: number, j: number): Corner => [(i * size) / n, (j * size) / n, height((i * size) / n, (j * size) / n)];
  const out: Corner[][] = [];
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++)
      out.push([at(i, j), at(i + 1, j), at(i + 1, j + 1)], [at(i, j), at(i + 1, j + 1), at(i, j + 1)]);
  return meshOf(out);
}

/** A closed box. */
export function boxMesh(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): Mesh {
  const v = (k: number): Corner => [k & 1 ? x1 : x0, k & 2 ? y1 : y0, k & 4 ? z1 : z0];
  const face = (a: number, b: number, c: number, d: number) => [
    [v(a), v(b), v(c)],
    [v(a), v(c), v(d)],
  ];
  return meshOf([
    ...face(0, 2, 3, 1),
    ...face(4, 5, 7, 6),
    ...face(0, 1, 5, 4),
    ...face(2, 6, 7, 3),
    ...face(0, 4, 6, 2),
    ...face(1, 3, 7, 5),
  ]);
}

/** A mesh as a binary STL file. */
export function stlOf({ corners }: Mesh): Uint8Array {
  const count = corners.length / 9;
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, count, true);
  for (let t = 0; t < count; t++)
    for (let k = 0; k < 9; k++) view.setFloat32(84 + 50 * t + 12 + 4 * k, corners[9 * t + k], true);
  return bytes;
}

/** The volume that a closed mesh holds: the tetrahedra from the origin to its faces, with their signs. */
export function volumeOf({ corners: c }: Mesh): number {
  let sum = 0;
  for (let i = 0; i < c.length; i += 9)
    sum +=
      c[i] * (c[i + 4] * c[i + 8] - c[i + 5] * c[i + 7]) -
      c[i + 1] * (c[i + 3] * c[i + 8] - c[i + 5] * c[i + 6]) +
      c[i + 2] * (c[i + 3] * c[i + 7] - c[i + 4] * c[i + 6]);
  return sum / 6;
}
