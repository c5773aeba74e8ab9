import { heightAt, type HeightField } from './field';

/** A unit vector towards the light. */
export type Light = readonly [number, number, number];

/** Light from the upper left, above. */
const LIGHT: Light = [-0.48, 0.48, 0.735];

/** Light from a direction, degrees from +X towards +Y, so many degrees above the ground. */
export function lightFrom(from: number, high: number): Light {
  const [a, b] = [(from * Math.PI) / 180, (high * Math.PI) / 180];
  return [Math.cos(a) * Math.cos(b), Math.sin(a) * Math.cos(b), Math.sin(b)];
}

/** Under a light that stands lower than this (its Z) level ground is darker than under a higher one. */
const LOW = 0.5;

/**
 * A height field as seen from straight above, lit (hillshading by the surface's normal): for each of
 * `cols` x `rows` points, row 0 at the top, how bright it is, 0..1. Lower places are a little darker, so that floors part from
 * faces of the same slope. `deep` is the depth, mm, of the darkest.
 */
export function shade(f: HeightField, cols: number, rows: number, deep: number, light: Light = LIGHT): Float32Array {
  const level = Math.max(LOW, light[2]);
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
      const lit = Math.max(0, (-gx * light[0] - gy * light[1] + light[2]) / Math.sqrt(1 + gx * gx + gy * gy));
      const deeper = deep > 0 ? Math.min(1, Math.max(0, -z[r * cols + c]! / deep)) : 0;
      out[r * cols + c] = Math.min(1, (0.25 + 0.75 * (lit / level)) * (1 - 0.35 * deeper));
    }
  }
  return out;
}
