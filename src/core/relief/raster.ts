import { stillWanted } from '../units/stillWanted';
import type { Grid } from './field';
import type { Mesh } from './mesh';

/** Nodes that lie beside a triangle by no more than this part of a cell count as on it: neighbours leave no crack between them. */
const SLACK = 1e-6;

/**
 * The highest point of a mesh over each node of a grid, mm; NaN where the mesh is not. Exact: the plane of each triangle through
 * the node, not corners brought to nodes.
 *
 *          c                each row of nodes that meets the triangle
 *         / \  . . row      is covered between the two edges it crosses;
 *        /   \ . . row      heights along it are those of the plane
 *       a-----b
 *
 * Faces that stand upright cover no node of their own: the faces beside them have their edges.
 */
export function meshHeights({ corners }: Mesh, g: Grid): Float32Array {
  const out = new Float32Array(g.cols * g.rows).fill(NaN);
  const inv = 1 / g.cell;
  const { first = 0 } = g;
  for (let i = 0; i < corners.length; i += 9) {
    stillWanted();
    // In cells, from the first node.
    const ax = (corners[i] - g.x0) * inv;
    const ay = (corners[i + 1] - g.y0) * inv - first;
    const az = corners[i + 2];
    const bx = (corners[i + 3] - g.x0) * inv;
    const by = (corners[i + 4] - g.y0) * inv - first;
    const bz = corners[i + 5];
    const cx = (corners[i + 6] - g.x0) * inv;
    const cy = (corners[i + 7] - g.y0) * inv - first;
    const cz = corners[i + 8];
    const r0 = Math.max(0, Math.ceil(Math.min(ay, by, cy) - SLACK));
    const r1 = Math.min(g.rows - 1, Math.floor(Math.max(ay, by, cy) + SLACK));
    if (r0 > r1) continue;
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area === 0) continue;
    const gx = ((bz - az) * (cy - ay) - (cz - az) * (by - ay)) / area;
    const gy = ((cz - az) * (bx - ax) - (bz - az) * (cx - ax)) / area;
    const low = Math.min(az, bz, cz);
    const high = Math.max(az, bz, cz);
    for (let r = r0; r <= r1; r++) {
      // Where the row crosses the edges, and corners that lie on it.
      let xl = Infinity;
      let xr = -Infinity;
      for (let e = 0; e < 3; e++) {
        const px = e === 0 ? ax : e === 1 ? bx : cx;
        const py = e === 0 ? ay : e === 1 ? by : cy;
        const qx = e === 0 ? bx : e === 1 ? cx : ax;
        const qy = e === 0 ? by : e === 1 ? cy : ay;
        if (Math.abs(py - r) <= SLACK) {
          if (px < xl) xl = px;
          if (px > xr) xr = px;
        }
        if (py < r === qy < r) continue;
        const x = px + ((qx - px) * (r - py)) / (qy - py);
        if (x < xl) xl = x;
        if (x > xr) xr = x;
      }
      const c0 = Math.max(0, Math.ceil(xl - SLACK));
      const c1 = Math.min(g.cols - 1, Math.floor(xr + SLACK));
      const first = az + gy * (r - ay) - gx * ax;
      for (let c = c0; c <= c1; c++) {
        const z = first + gx * c;
        // A sliver's plane is steep: it does not leave its corners' heights.
        const h = z < low ? low : z > high ? high : z;
        const k = r * g.cols + c;
        if (!(out[k] >= h)) out[k] = h;
      }
    }
  }
  return out;
}
