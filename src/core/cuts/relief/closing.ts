import { grownForm, heightOf, type CutterForm } from '../../cutters/form';
import { contours } from '../../geometry/levels/contours';
import { makeInside } from '../../geometry/inside';
import { loopArea, normalise, offset, type Region } from '../../geometry/region';
import { locationsOver, NOTHING_LOCATED } from '../../kernels/location';
import type { HeightField } from '../../relief/field';
import { slopeAt } from '../../relief/steep';
import { stillWanted } from '../../units/stillWanted';
import type { Bounded } from './place';

/** More nodes than so many are not looked at for what cutters leave. */
const MOST_NODES = 1e6;

/** A surface by fewer nodes, every so-manieth of both ways. */
export function sparser(f: HeightField, most = MOST_NODES): HeightField {
  const step = Math.ceil(Math.sqrt(f.z.length / most) - 1e-9);
  if (step <= 1) return f;
  const [cols, rows] = [Math.floor((f.cols - 1) / step) + 1, Math.floor((f.rows - 1) / step) + 1];
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++) for (let c = 0; c < cols; c++) z[r * cols + c] = f.z[r * step * f.cols + c * step];
  return { ...f, cols, rows, cell: f.cell * step, z };
}

/**
 * What a cutter leaves of a surface that it follows, its lowest point never lower than over the surface: the surface closed by the
 * cutter (J. Serra, "Image Analysis and Mathematical Morphology", 1982), by locations over nodes, and once more over those turned
 * over. Where it does not come nothing is said (Infinity). mm; `least`: it goes no lower than so; `allowance`: it keeps so far from it.
 */
export function closingBy(f: HeightField, form: CutterForm, b: Bounded, least: number, allowance = 0): HeightField {
  const { cols, rows, cell, x0, y0 } = f;
  const over = locationsOver(f)(grownForm(form, allowance));
  const inside = makeInside(b.centres);
  const turned = new Float32Array(cols * rows).fill(NaN);
  for (let r = 0; r < rows; r++) {
    stillWanted(cols);
    const row = over.row(r);
    const y = y0 + r * cell;
    for (let c = 0; c < cols; c++) {
      const x = x0 + c * cell;
      if (!inside(x, y)) continue;
      const z = Math.max(row[c] > NOTHING_LOCATED ? row[c] + allowance : -Infinity, b.wall(x, y), least);
      if (z < 0) turned[r * cols + c] = -z;
    }
  }
  const back = locationsOver({ ...f, z: turned })(form);
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++) {
    stillWanted(cols);
    const row = back.row(r);
    for (let c = 0; c < cols; c++) z[r * cols + c] = row[c] > NOTHING_LOCATED ? -row[c] : Infinity;
  }
  return { ...f, z };
}

/** Height of the ridges that rows so far apart leave on ground that slopes by so much for each mm. */
export function ridges(form: CutterForm, step: number, slope: number): number {
  // Across a slope the rows lie further apart on the ground than from above, and what stands between them is seen from above.
  const long = Math.sqrt(1 + slope * slope);
  const half = Math.min(form.radius, (step * long) / 2);
  return Math.min(heightOf(form, half) * long, step * (slope + 1) + heightOf(form, Math.min(form.radius, step / 2)));
}

/** Places where what was left stands more than so much above the surface, mm, and `grow` mm round them. */
export function standingOver(f: HeightField, left: HeightField, most: number, grow: number): Region {
  const over = new Float32Array(f.z.length);
  for (let i = 0; i < over.length; i++) {
    const d = left.z[i] - f.z[i] - most;
    over[i] = d === d ? Math.min(1, Math.max(-1, d / Math.max(most, 1e-6))) : -1;
  }
  const loops = contours(over, f.cols, f.rows, 0, -Infinity).map((l) => {
    // Rows count upwards here: what ran round the inside the one way runs the other way round.
    const out = new Float64Array(l.length);
    for (let i = 0; i < l.length; i += 2) {
      out[i] = f.x0 + (l[l.length - 2 - i] - 0.5) * f.cell;
      out[i + 1] = f.y0 + (l[l.length - 1 - i] - 0.5) * f.cell;
    }
    return out;
  });
  const region = normalise(
    loops.filter((l) => Math.abs(loopArea(l)) > 1e-9),
    'nonzero',
  );
  return region.length && grow > 0 ? offset(region, grow, 0.01) : region;
}

/** One of several cutters that go over a surface one after the other. */
export interface Pass {
  readonly form: CutterForm;
  readonly place: Bounded;
  readonly step: number;
  /** It goes only where the one before has left more than so much, mm. */
  readonly spare: number;
}

/** Highest that is left at a place when cutters have gone over a surface in rows; worked out when it is asked for first. */
export function leftOver(
  f: HeightField,
  passes: readonly Pass[],
  least: number,
  allowance: number,
): (x: number, y: number) => number {
  let made: Float32Array | null = null;
  const make = (): Float32Array => {
    const all = new Float32Array(f.z.length).fill(Infinity);
    for (const { form, place, step, spare } of passes) {
      const { z } = closingBy(f, form, place, least, allowance);
      for (let i = 0; i < all.length; i++) {
        const slope = slopeAt(f, i % f.cols, Math.floor(i / f.cols));
        const mine = z[i] + ridges(form, step, slope === slope ? slope : 0);
        // What it does not go over is what the one before has left.
        if (mine < all[i]) all[i] = spare && all[i] - f.z[i] <= 2 * spare ? all[i] : mine;
      }
    }
    return all;
  };
  return (x, y) => {
    made ??= make();
    const c = Math.min(f.cols - 2, Math.max(0, Math.floor((x - f.x0) / f.cell)));
    const r = Math.min(f.rows - 2, Math.max(0, Math.floor((y - f.y0) / f.cell)));
    const i = r * f.cols + c;
    return Math.max(made[i], made[i + 1], made[i + f.cols], made[i + f.cols + 1]);
  };
}
