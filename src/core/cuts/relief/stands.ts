import { grownForm, type CutterForm } from '../../cutters/form';
import { makeInside } from '../../geometry/inside';
import { contours } from '../../geometry/levels/contours';
import { loopArea, normalise, type Region } from '../../geometry/region';
import { locationsOver, NOTHING_LOCATED } from '../../kernels/location';
import type { HeightField } from '../../relief/field';
import { stillWanted } from '../../units/stillWanted';
import type { Bounded } from './place';

/** How low a cutter may stand over the nodes of a surface whatever its boundary, keeping an allowance and no lower than `least`. */
export function standsFree(f: HeightField, form: CutterForm, allowance: number, least: number): HeightField {
  const over = locationsOver(f)(grownForm(form, allowance));
  const z = new Float32Array(f.z.length);
  for (let r = 0; r < f.rows; r++) {
    stillWanted(f.cols);
    const row = over.row(r);
    for (let c = 0; c < f.cols; c++)
      z[r * f.cols + c] = Math.max(least, row[c] > NOTHING_LOCATED ? row[c] + allowance : least);
  }
  return { ...f, z };
}

/** The same within its boundary; Infinity where it may not come. */
export function standsWithin(free: HeightField, b: Bounded): HeightField {
  const inside = makeInside(b.centres);
  const z = free.z.slice();
  for (let r = 0, i = 0; r < free.rows; r++) {
    stillWanted(free.cols);
    const y = free.y0 + r * free.cell;
    for (let c = 0; c < free.cols; c++, i++) {
      const x = free.x0 + c * free.cell;
      z[i] = inside(x, y) ? Math.max(z[i], b.wall(x, y)) : Infinity;
    }
  }
  return { ...free, z };
}

/** How low a cutter may stand over nodes of a surface, keeping an allowance; Infinity where it may not come. */
export const standsOver = (
  f: HeightField,
  form: CutterForm,
  b: Bounded,
  least: number,
  allowance: number,
): HeightField => standsWithin(standsFree(f, form, allowance, least), b);

/** Where heights, between nodes too, are not below a level; empty nodes (NaN) are. */
export const regionOver = (z: Float32Array, grid: HeightField, level = 0): Region =>
  normalise(linesOver(z, grid, level), 'nonzero');

/** The lines round that, as they come. */
export function linesOver(z: Float32Array, { cols, rows, cell, x0, y0 }: HeightField, level = 0): Float64Array[] {
  const loops = contours(z, cols, rows, level, -Infinity).map((l) => {
    // Rows count upwards here: what ran round the inside the one way runs the other way round.
    const out = new Float64Array(l.length);
    for (let i = 0; i < l.length; i += 2) {
      out[i] = x0 + (l[l.length - 2 - i] - 0.5) * cell;
      out[i + 1] = y0 + (l[l.length - 1 - i] - 0.5) * cell;
    }
    return withoutEven(out);
  });
  return loops.filter((l) => Math.abs(loopArea(l)) > 1e-9);
}

/** A loop without those points of which `drop` says so, from where the one before, the point, and the next lie in it. */
function without(l: Float64Array, drop: (before: number, at: number, next: number) => boolean): Float64Array {
  const n = l.length;
  const out = new Float64Array(n);
  let count = 0;
  for (let i = 0; i < n; i += 2)
    if (!drop((i + n - 2) % n, i, (i + 2) % n)) {
      out[count++] = l[i];
      out[count++] = l[i + 1];
    }
  return out.slice(0, count);
}

/**
 * A loop without points that lie on one line with their neighbours along x or y, as all along the rim of a field do. Those that come
 * twice go first: a corner that does would lie on one line with itself along both.
 */
function withoutEven(loop: Float64Array): Float64Array {
  const l = without(loop, (before, at) => loop[at] === loop[before] && loop[at + 1] === loop[before + 1]);
  const even = (a: number, b: number, c: number) => l[b] === l[a] && l[b] === l[c];
  return without(l, (a, b, c) => even(a, b, c) || even(a + 1, b + 1, c + 1));
}
