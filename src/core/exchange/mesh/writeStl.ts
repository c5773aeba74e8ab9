import { fillFrom, filled, gridOf, type HeightField } from '../../relief/field';

/** A body of more nodes is thinned out before it is written: each costs a hundred bytes, and programs that print choke on more. */
const MOST_NODES = 600_000;

/**
 * The body of a relief as it is handed on: `filled` at the top face, on nodes so far apart that a file of it can be worked with.
 * Its `cell` says how far.
 */
export function bodyField(f: HeightField): HeightField {
  const whole = filled(f);
  const [w, h] = [(f.cols - 1) * f.cell, (f.rows - 1) * f.cell];
  const cell = Math.sqrt((w * h) / MOST_NODES);
  if (cell <= f.cell) return whole;
  const grid = gridOf(w, h, cell);
  const thin = { ...grid, x0: f.x0, y0: f.y0, z: new Float32Array(grid.cols * grid.rows) };
  fillFrom(whole, thin);
  return thin;
}

/**
 * A field without empty places as a closed body in a binary STL file: its surface, upright sides, and a level underside at
 * `floor`, mm; nothing is left below the floor. Corners in mm, the frame of the field.
 *
 *        ._/\_.        surface: two triangles for each square of nodes
 *        |    |        sides
 *        '----'        underside: fanned out from its middle, so that each corner of the sides has its own
 */
export function writeStl(f: HeightField, floor: number, title: string): Uint8Array<ArrayBuffer> {
  const { cols, rows } = f;
  const rim = 2 * (cols - 1) + 2 * (rows - 1);
  const count = 2 * (cols - 1) * (rows - 1) + 2 * rim + rim;
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < Math.min(80, title.length); i++) bytes[i] = title.charCodeAt(i) & 127;
  view.setUint32(80, count, true);
  let at = 84;
  type Corner = readonly [number, number, number];
  const triangle = (a: Corner, b: Corner, c: Corner) => {
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const l = Math.hypot(n[0], n[1], n[2]) || 1;
    for (const p of [[n[0] / l, n[1] / l, n[2] / l], a, b, c])
      for (const w of p) {
        view.setFloat32(at, w, true);
        at += 4;
      }
    at += 2;
  };
  const node = (c: number, r: number): Corner => {
    return [f.x0 + c * f.cell, f.y0 + r * f.cell, Math.max(floor, f.z[r * cols + c])];
  };
  for (let r = 0; r + 1 < rows; r++)
    for (let c = 0; c + 1 < cols; c++) {
      const [a, b, d, e] = [node(c, r), node(c + 1, r), node(c + 1, r + 1), node(c, r + 1)];
      triangle(a, b, d);
      triangle(a, d, e);
    }
  // Round the rim, anticlockwise seen from above.
  const round: Corner[] = [];
  for (let c = 0; c + 1 < cols; c++) round.push(node(c, 0));
  for (let r = 0; r + 1 < rows; r++) round.push(node(cols - 1, r));
  for (let c = cols - 1; c > 0; c--) round.push(node(c, rows - 1));
  for (let r = rows - 1; r > 0; r--) round.push(node(0, r));
  const below = (p: Corner): Corner => [p[0], p[1], floor];
  const middle: Corner = [f.x0 + ((cols - 1) * f.cell) / 2, f.y0 + ((rows - 1) * f.cell) / 2, floor];
  round.forEach((p, k) => {
    const q = round[(k + 1) % round.length];
    triangle(below(p), below(q), q);
    triangle(below(p), q, p);
    triangle(below(q), below(p), middle);
  });
  return bytes;
}
