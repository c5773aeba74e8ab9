import { filled, heightAt, type HeightField } from '../../relief/field';

/** A body of more nodes is thinned out before it is written: each costs a hundred bytes, and programs that print choke on more. */
const MOST_NODES = 600_000;

/** The surface of a body: heights at crossings of lines, mm, row by row from the lowest y. */
export interface Body {
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly z: Float32Array;
  /** How far apart the lines are, but for the last ones. */
  readonly cell: number;
}

/** Lines from 0 to an end, a cell apart; the last one at the end itself. */
function linesTo(end: number, cell: number): Float64Array {
  const whole = Math.max(1, Math.ceil(end / cell - 1e-6));
  return Float64Array.from({ length: whole + 1 }, (_, k) => (k === whole ? end : k * cell));
}

/**
 * The body of a relief as it is handed on: as wide and as high as its blank, empty places at the top face, and thinned out so that
 * a file of it can be worked with. The blank may reach a part of a cell beyond the last nodes: there it goes on level.
 */
export function bodyOf(f: HeightField, width: number, height: number): Body {
  const whole = filled(f);
  const cell = Math.max(f.cell, Math.sqrt((width * height) / MOST_NODES));
  const [xs, ys] = [linesTo(width, cell), linesTo(height, cell)];
  const [right, top] = [f.x0 + (f.cols - 1) * f.cell, f.y0 + (f.rows - 1) * f.cell];
  const z = new Float32Array(xs.length * ys.length);
  for (let r = 0; r < ys.length; r++)
    for (let c = 0; c < xs.length; c++)
      z[r * xs.length + c] = heightAt(whole, Math.min(xs[c], right), Math.min(ys[r], top));
  return { xs, ys, z, cell };
}

/**
 * A body in a binary STL file: its surface, upright sides, and a level underside at `floor`, mm; nothing is left below the floor.
 * Closed. Corners in mm, the frame of the blank.
 *
 *        ._/\_.        surface: two triangles for each square of nodes
 *        |    |        sides
 *        '----'        underside: fanned out from its middle, so that each corner of the sides has its own
 */
export function writeStl({ xs, ys, z }: Body, floor: number, title: string): Uint8Array<ArrayBuffer> {
  const [cols, rows] = [xs.length, ys.length];
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
  const node = (c: number, r: number): Corner => [xs[c], ys[r], Math.max(floor, z[r * cols + c])];
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
  const middle: Corner = [xs[cols - 1] / 2, ys[rows - 1] / 2, floor];
  round.forEach((p, k) => {
    const q = round[(k + 1) % round.length];
    triangle(below(p), below(q), q);
    triangle(below(p), q, p);
    triangle(below(q), below(p), middle);
  });
  return bytes;
}
