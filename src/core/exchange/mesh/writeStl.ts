import type { Mesh } from '../../relief/mesh';
import type { ClosedMesh } from './body';

/** A closed mesh as a binary STL file, mm. */
export const writeStl = ({ points, triangles }: ClosedMesh, title: string): Uint8Array<ArrayBuffer> =>
  stl(triangles.length / 3, title, (i) => points[3 * triangles[Math.floor(i / 3)] + (i % 3)]);

/** A bag of triangles as a binary STL file, in its own unit. */
export const stlOfMesh = ({ corners }: Mesh, title: string): Uint8Array<ArrayBuffer> =>
  stl(corners.length / 9, title, (i) => corners[i]);

/** `at` gives the coordinates of corners one after the other, nine for each triangle. */
function stl(count: number, title: string, at: (i: number) => number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < Math.min(80, title.length); i++) bytes[i] = title.charCodeAt(i) & 127;
  view.setUint32(80, count, true);
  const corners = new Float64Array(9);
  for (let t = 0, to = 84; t < count; t++, to += 50) {
    for (let k = 0; k < 9; k++) corners[k] = at(9 * t + k);
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = corners;
    const [ux, uy, uz, vx, vy, vz] = [bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az];
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const l = Math.hypot(n[0], n[1], n[2]) || 1;
    for (let k = 0; k < 3; k++) view.setFloat32(to + 4 * k, n[k] / l, true);
    for (let k = 0; k < 9; k++) view.setFloat32(to + 12 + 4 * k, corners[k], true);
  }
  return bytes;
}
