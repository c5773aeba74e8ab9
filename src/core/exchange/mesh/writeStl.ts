import type { ClosedMesh } from './body';

/** A closed mesh as a binary STL file, mm. */
export function writeStl({ points, triangles }: ClosedMesh, title: string): Uint8Array<ArrayBuffer> {
  const count = triangles.length / 3;
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < Math.min(80, title.length); i++) bytes[i] = title.charCodeAt(i) & 127;
  view.setUint32(80, count, true);
  const corners = new Float64Array(9);
  for (let t = 0, at = 84; t < count; t++, at += 50) {
    for (let k = 0; k < 9; k++) corners[k] = points[3 * triangles[3 * t + Math.floor(k / 3)] + (k % 3)];
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = corners;
    const [ux, uy, uz, vx, vy, vz] = [bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az];
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const l = Math.hypot(n[0], n[1], n[2]) || 1;
    for (let k = 0; k < 3; k++) view.setFloat32(at + 4 * k, n[k] / l, true);
    for (let k = 0; k < 9; k++) view.setFloat32(at + 12 + 4 * k, corners[k], true);
  }
  return bytes;
}
