import { heightAt, type HeightField } from './field';

/** Light from the upper left, above: a unit vector. */
const LIGHT = [-0.48, 0.48, 0.735] as const;

/**
 * A height field as seen from straight above, lit from the upper left (hillshading by the surface's normal): for each of
 * `cols` x `rows` points, row 0 at the top, how bright it is, 0..1. Lower places are a little darker, so that floors part from
 * faces of the same slope. `deep` is the depth, mm, of the darkest.
 */
export function shade(f: HeightField, cols: number, rows: number, deep: number): Float32Array {
  const out = new Float32Array(cols * rows);
  const [w, h] = [(f.cols - 1) * f.cell, (f.rows - 1) * f.cell];
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++)
      z[r * cols + c] = heightAt(f, f.x0 + ((c + 0.5) / cols) * w, f.y0 + (1 - (r + 0.5) / rows) * h);
  // Slopes are taken over a cell at least: within one the surface is bilinear, and its facets would show.
  const step = Math.max(f.cell, w / cols, h / rows);
  const [nx, ny] = [Math.max(1, Math.round((step / w) * cols * 0.5)), Math.max(1, Math.round((step / h) * rows * 0.5))];
  for (let r = 0; r < rows; r++) {
    const [up, down] = [Math.max(0, r - ny), Math.min(rows - 1, r + ny)];
    const dy = (down - up) * (h / rows) || 1;
    for (let c = 0; c < cols; c++) {
      const [left, right] = [Math.max(0, c - nx), Math.min(cols - 1, c + nx)];
      const dx = (right - left) * (w / cols) || 1;
      const gx = (z[r * cols + right]! - z[r * cols + left]!) / dx;
      const gy = (z[up * cols + c]! - z[down * cols + c]!) / dy;
      const lit = Math.max(0, (-gx * LIGHT[0] - gy * LIGHT[1] + LIGHT[2]) / Math.sqrt(1 + gx * gx + gy * gy));
      const deeper = deep > 0 ? Math.min(1, Math.max(0, -z[r * cols + c]! / deep)) : 0;
      out[r * cols + c] = Math.min(1, (0.25 + 0.75 * (lit / LIGHT[2])) * (1 - 0.35 * deeper));
    }
  }
  return out;
}
