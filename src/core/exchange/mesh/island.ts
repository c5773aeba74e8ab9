import { sparser, type HeightField } from '../../relief/field';
import { MOST_NODES, type ClosedMesh } from './body';

/**
 * What stands on a level back as a closed mesh: where its heights come down to `floor`, mm, its face meets the back, and beyond
 * that there is none of it. Each triangle of the face has its own below, turned over; where both would lie in the back there is
 * neither, and at the rim of the field a wall stands between them.
 *
 *          __/\__
 *         /      \        corners at the floor belong to face and back alike
 *        .________.
 *
 * Corners in mm, from (0, 0, 0) up, `times` as large as the field; one of many nodes is thinned out. `cell`: how far apart they lie.
 */
export function islandMesh(field: HeightField, floor: number, times = 1): { mesh: ClosedMesh; cell: number } {
  const { cols, rows, cell: own, z } = sparser(field, MOST_NODES);
  const cell = own * times;
  const n = cols * rows;
  const up = (i: number) => (z[i] - floor) * times;
  const stands = (i: number) => up(i) > 0;
  // Corners that are met, as they are met: of the face, and of the back below them.
  const faceOf = new Int32Array(n).fill(-1);
  const backOf = new Int32Array(n).fill(-1);
  const points: number[] = [];
  const corner = (i: number, h: number): number =>
    points.push((i % cols) * cell, Math.floor(i / cols) * cell, h) / 3 - 1;
  const back = (i: number) => (backOf[i] < 0 ? (backOf[i] = corner(i, 0)) : backOf[i]);
  const face = (i: number) => (!stands(i) ? back(i) : faceOf[i] < 0 ? (faceOf[i] = corner(i, up(i))) : faceOf[i]);
  const triangles: number[] = [];
  const pair = (a: number, b: number, c: number) => {
    if (!stands(a) && !stands(b) && !stands(c)) return;
    triangles.push(face(a), face(b), face(c), back(c), back(b), back(a));
  };
  /** Along the rim of the field, anticlockwise. */
  const wall = (a: number, b: number) => {
    if (stands(b)) triangles.push(back(a), back(b), face(b));
    if (stands(a)) triangles.push(back(a), face(b), face(a));
  };
  for (let r = 0; r + 1 < rows; r++)
    for (let c = 0; c + 1 < cols; c++) {
      const i = r * cols + c;
      pair(i, i + 1, i + cols + 1);
      pair(i, i + cols + 1, i + cols);
    }
  const last = n - cols;
  for (let c = 0; c + 1 < cols; c++) {
    wall(c, c + 1);
    wall(last + c + 1, last + c);
  }
  for (let r = 0; r + 1 < rows; r++) {
    wall((r + 1) * cols - 1, (r + 2) * cols - 1);
    wall((r + 1) * cols, r * cols);
  }
  return { mesh: { points: Float64Array.from(points), triangles: Uint32Array.from(triangles) }, cell };
}
