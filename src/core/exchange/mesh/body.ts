import { filled, heightAt, type HeightField } from '../../relief/field';

/** A body of more nodes is thinned out before it is written: each costs a hundred bytes, and programs that print choke on more. */
export const MOST_NODES = 600_000;

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

/** Corners, x, y, z interleaved, and the corners of each triangle, anticlockwise seen from outside. */
export interface ClosedMesh {
  readonly points: Float64Array;
  readonly triangles: Uint32Array;
}

/**
 * A body as a closed mesh: its surface, upright sides, and a level underside at `floor`, mm; nothing is left below the floor.
 * Corners in mm, the frame of the blank.
 *
 *        ._/\_.        surface: two triangles for each square of nodes
 *        |    |        sides
 *        '----'        underside: fanned out from its middle, so that each corner of the sides has its own
 */
export function closedMesh({ xs, ys, z }: Body, floor: number): ClosedMesh {
  const [cols, rows] = [xs.length, ys.length];
  // Round the rim, anticlockwise seen from above.
  const rim: number[] = [];
  for (let c = 0; c + 1 < cols; c++) rim.push(c);
  for (let r = 0; r + 1 < rows; r++) rim.push(r * cols + cols - 1);
  for (let c = cols - 1; c > 0; c--) rim.push((rows - 1) * cols + c);
  for (let r = rows - 1; r > 0; r--) rim.push(r * cols);
  const points = new Float64Array(3 * (cols * rows + rim.length + 1));
  for (let i = 0; i < z.length; i++) points.set([xs[i % cols], ys[Math.floor(i / cols)], Math.max(floor, z[i])], 3 * i);
  const below = (k: number) => cols * rows + (k % rim.length);
  rim.forEach((i, k) => points.set([points[3 * i], points[3 * i + 1], floor], 3 * below(k)));
  const middle = cols * rows + rim.length;
  points.set([xs[cols - 1] / 2, ys[rows - 1] / 2, floor], 3 * middle);
  const triangles = new Uint32Array(3 * (2 * (cols - 1) * (rows - 1) + 3 * rim.length));
  let at = 0;
  const triangle = (a: number, b: number, c: number) => {
    triangles[at] = a;
    triangles[at + 1] = b;
    triangles[at + 2] = c;
    at += 3;
  };
  for (let r = 0; r + 1 < rows; r++)
    for (let c = 0; c + 1 < cols; c++) {
      const i = r * cols + c;
      triangle(i, i + 1, i + cols + 1);
      triangle(i, i + cols + 1, i + cols);
    }
  rim.forEach((p, k) => {
    const q = rim[(k + 1) % rim.length];
    triangle(below(k), below(k + 1), q);
    triangle(below(k), q, p);
    triangle(below(k + 1), below(k), middle);
  });
  return { points, triangles };
}
