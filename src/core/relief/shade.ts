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
  const step = Math.max(f.cell, w / cols, h / rows);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const x = f.x0 + ((c + 0.5) / cols) * w;
      const y = f.y0 + (1 - (r + 0.5) / rows) * h;
      const at = (dx: number, dy: number) =>
        heightAt(f, Math.min(f.x0 + w, Math.max(f.x0, x + dx)), Math.min(f.y0 + h, Math.max(f.y0, y + dy)));
      const gx = (at(step / 2, 0) - at(-step / 2, 0)) / step;
      const gy = (at(0, step / 2) - at(0, -step / 2)) / step;
      const lit = Math.max(0, (-gx * LIGHT[0] - gy * LIGHT[1] + LIGHT[2]) / Math.sqrt(1 + gx * gx + gy * gy));
      const down = deep > 0 ? Math.min(1, Math.max(0, -at(0, 0) / deep)) : 0;
      out[r * cols + c] = Math.min(1, (0.25 + 0.75 * (lit / LIGHT[2])) * (1 - 0.35 * down));
    }
  return out;
}
