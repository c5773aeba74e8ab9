import { flatForm } from '../../cutters/form';
import { locationsOver, NOTHING_LOCATED } from '../../kernels/location';
import { heightAt, type HeightField } from '../../relief/field';

/** The greatest of heights within a radius of each node, mm; NaN counts for nothing. */
export function spread(f: HeightField, radius: number): Float32Array {
  const over = locationsOver(f)(flatForm(Math.max(radius, f.cell)));
  const z = new Float32Array(f.z.length);
  for (let r = 0; r < f.rows; r++) z.set(over.row(r), r * f.cols);
  return z;
}

/** Highest and lowest of a surface within a radius of a place, mm; 0 where there is nothing of it. */
export function around(
  f: HeightField,
  radius: number,
): { high(x: number, y: number): number; low(x: number, y: number): number } {
  const of = (z: Float32Array): HeightField => ({ ...f, z: spread({ ...f, z }, radius) });
  const [high, low] = [of(f.z), of(f.z.map((h) => -h))];
  const at = (q: HeightField, x: number, y: number) => {
    const h = heightAt(q, x, y);
    return h > NOTHING_LOCATED ? h : 0;
  };
  return { high: (x, y) => at(high, x, y), low: (x, y) => -at(low, x, y) };
}
