import type { HeightField } from '../../relief/field';
import type { KeptRelief } from '../../relief/keptRelief';
import { reduced } from '../../relief/picture';
import { smallPicture } from '../../relief/small';
import { toBase64 } from '../../units/base64';
import { writeHeights } from './write';

/** With more nodes than so many it is thinned out: a library is kept in rows. */
const MOST_NODES = 1e6;
/** Pixels along the longer side of its small picture. */
const PIXELS = 124;

/** The part of a field where it is not empty; null where that is nowhere. */
function covered(f: HeightField): HeightField | null {
  let [left, right, low, high] = [f.cols, -1, -1, -1];
  for (let i = 0; i < f.z.length; i++) {
    if (f.z[i] !== f.z[i]) continue;
    const c = i % f.cols;
    left = Math.min(left, c);
    right = Math.max(right, c);
    if (low < 0) low = Math.floor(i / f.cols);
    high = Math.floor(i / f.cols);
  }
  if (right < 0) return null;
  const [cols, rows] = [right - left + 1, high - low + 1];
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++)
    z.set(f.z.subarray((low + r) * f.cols + left, (low + r) * f.cols + right + 1), r * cols);
  return { cols, rows, cell: f.cell, x0: f.x0 + left * f.cell, y0: f.y0 + low * f.cell, z };
}

/** A field as it is kept; null where it is empty. Each node is a pixel. */
export function keptOf(field: HeightField, id: string, name: string): KeptRelief | null {
  const whole = covered(field);
  if (!whole) return null;
  const by = Math.ceil(Math.sqrt((whole.cols * whole.rows) / MOST_NODES));
  const {
    width: cols,
    height: rows,
    light: z,
  } = reduced({ width: whole.cols, height: whole.rows, light: whole.z, greys: 65536 }, by);
  const f = { cols, rows, cell: whole.cell * by, x0: whole.x0, y0: whole.y0, z };
  const { bytes, lowest, highest } = writeHeights(f);
  const look = smallPicture(z, f, PIXELS);
  return {
    id,
    name,
    width: cols * f.cell,
    height: rows * f.cell,
    rise: highest - lowest,
    png: toBase64(bytes),
    look: { ...look, light: toBase64(look.light) },
  };
}
