import { flatForm, grownForm, heightOf, widthOf, type CutterForm } from '../../cutters/form';
import { contentKey, hashFloats } from '../../geometry/hash';
import { offset, type Region } from '../../geometry/region';
import { locationsOver, NOTHING_LOCATED } from '../../kernels/location';
import { heightAt, type HeightField } from '../../relief/field';
import { slopeAt } from '../../relief/steep';
import { aroundChanges } from '../../relief/window';
import { stillWanted } from '../../units/stillWanted';
import { reachOver } from './remembered';
import { SLACK } from './rough';
import { regionOver, standsOver } from './stands';
import type { Bounded } from './place';

/**
 * What a cutter leaves of a surface that it follows, its lowest point never lower than over the surface: the surface closed by the
 * cutter (J. Serra, "Image Analysis and Mathematical Morphology", 1982), by locations over nodes, and once more over those turned
 * over. Where it does not come nothing is said (Infinity). mm; `least`: it goes no lower than so; `allowance`: it keeps so far from it.
 */
export function closingBy(
  f: HeightField,
  form: CutterForm,
  b: Bounded,
  least: number,
  allowance = 0,
): { readonly left: HeightField; readonly stands: HeightField } {
  const { cols, rows } = f;
  const stands = standsOver(f, form, b, least, allowance);
  const turned = stands.z.map((h) => (h < 0 ? -h : NaN));
  const back = locationsOver({ ...f, z: turned })(form);
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++) {
    stillWanted(cols);
    const row = back.row(r);
    for (let c = 0; c < cols; c++) z[r * cols + c] = row[c] > NOTHING_LOCATED ? -row[c] : Infinity;
  }
  return { left: { ...f, z }, stands };
}

/**
 * How much higher than at its lowest place a cutter may stand half a step-over beside it or nearer, where it stands in a crease, in a
 * pit, or at the foot of a wall: no more than what its heights to both sides are above twice its own.
 */
function creases({ z, cols, rows, cell }: HeightField, step: number): Float32Array {
  const out = new Float32Array(z.length).fill(NaN);
  const far = step / 2 / cell;
  const n = Math.max(1, Math.ceil(far));
  for (let r = n; r < rows - n; r++)
    for (let c = n; c < cols - n; c++) {
      const i = r * cols + c;
      let most = 0;
      for (const d of [1, cols, cols + 1, cols - 1]) {
        let before = 0;
        for (let k = 1; k <= n; k++) {
          const bend = z[i - k * d] + z[i + k * d] - 2 * z[i];
          if (!(bend < Infinity)) break;
          // Half a step-over ends between two nodes.
          const there = k === n ? before + (bend - before) * (far - n + 1) : bend;
          if (there > most) most = there;
          before = bend;
        }
      }
      out[i] = most;
    }
  return out;
}

/** The greatest of heights within a radius of each node, mm; NaN counts for nothing. */
export function spread(f: HeightField, radius: number): Float32Array {
  const over = locationsOver(f)(flatForm(Math.max(radius, f.cell)));
  const z = new Float32Array(f.z.length);
  for (let r = 0; r < f.rows; r++) z.set(over.row(r), r * f.cols);
  return z;
}

/**
 * Most that ridges between rows so far apart are high on ground that slopes by so much for each mm: between two rounds, which lie
 * further apart on a slope than from above; or, where an edge runs down the slope, a stair.
 */
export const ridges = (form: CutterForm, step: number, slope: number): number => ridgesOf(form, step)(slope);

function ridgesOf(form: CutterForm, step: number): (slope: number) => number {
  const level = heightOf(form, Math.min(form.radius, step / 2));
  return (slope) => {
    const long = Math.sqrt(1 + slope * slope);
    const half = (step * long) / 2;
    const stair = step * slope + level;
    if (half >= form.ball) return stair;
    return Math.min(stair, (form.ball - Math.sqrt(form.ball * form.ball - half * half)) * long);
  };
}

/** Places where what was left stands more than so much above the surface, mm, and `grow` mm round them. */
export function standingOver(f: HeightField, left: HeightField, most: number, grow: number): Region {
  const over = new Float32Array(f.z.length);
  for (let i = 0; i < over.length; i++) {
    const d = left.z[i] - f.z[i] - most;
    over[i] = d === d ? Math.min(1, Math.max(-1, d / Math.max(most, 1e-6))) : -1;
  }
  const region = regionOver(over, f);
  return region.length && grow > 0 ? offset(region, grow, 0.01) : region;
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

/** One of several cutters that go over a surface one after the other. */
export interface Pass {
  readonly form: CutterForm;
  readonly place: Bounded;
  readonly step: number;
  /** It goes only where the one before has left more than so much, mm. */
  readonly spare?: number;
}

/** Highest of the nodes round a place, of heights that are worked out when they are asked for first. */
function highestBeside(f: HeightField, make: () => Float32Array): (x: number, y: number) => number {
  let made: Float32Array | null = null;
  return (x, y) => {
    made ??= make();
    const c = Math.min(f.cols - 2, Math.max(0, Math.floor((x - f.x0) / f.cell)));
    const r = Math.min(f.rows - 2, Math.max(0, Math.floor((y - f.y0) / f.cell)));
    const i = r * f.cols + c;
    return Math.max(made[i], made[i + 1], made[i + f.cols], made[i + f.cols + 1]);
  };
}

/** What was left of so many surfaces last is known. */
const HELD = 4;

/** All that what is left depends on, beside the surface and what a pass has besides. */
const keyOf = (passes: readonly Pass[], least: number, allowance: number): string =>
  contentKey([
    passes.map(({ form, place, ...others }) => ({
      form,
      ...others,
      centres: hashFloats([...place.centres, ...place.walls]),
    })),
    least,
    allowance,
  ]);

/** How far from a node lies all that what is left there depends on, mm: as far as cutters are met, and then as far as they are wide. */
const reachOf = (f: HeightField, passes: readonly Pass[], least: number, allowance: number): number =>
  Math.max(
    ...passes.map(
      ({ form, step }) =>
        reachOver(f, grownForm(form, allowance)) + Math.min(form.radius, widthOf(form, -least)) + step,
    ),
  ) +
  4 * f.cell;

/** Highest that is left at a place, by what passes leave over all of a surface; where it has changed, that is worked out anew. */
function leftBy<P extends Pass>(
  leave: (f: HeightField, passes: readonly P[], least: number, allowance: number) => Float32Array,
): (f: HeightField, passes: readonly P[], least: number, allowance: number) => (x: number, y: number) => number {
  const anew = aroundChanges(HELD);
  return (f, passes, least, allowance) =>
    highestBeside(f, () =>
      anew(f, keyOf(passes, least, allowance), reachOf(f, passes, least, allowance), (part) =>
        leave(part, passes, least, allowance),
      ),
    );
}

/** The same where cutters have gone over it in rows. */
export const leftOver = leftBy(leftByRows);

function leftByRows(f: HeightField, passes: readonly Pass[], least: number, allowance: number): Float32Array {
  const all = new Float32Array(f.z.length).fill(Infinity);
  for (const { form, place, step, spare } of passes) {
    const { left, stands } = closingBy(f, form, place, least, allowance);
    // Rows that pass a crease beside its bottom leave more there, as far as the cutter reaches from it.
    const creased = spread(
      { ...f, z: creases(stands, step) },
      Math.min(form.radius, widthOf(form, -least)) + 2 * f.cell,
    );
    const ridge = ridgesOf(form, step);
    for (let r = 0, i = 0; r < f.rows; r++) {
      stillWanted(f.cols);
      for (let c = 0; c < f.cols; c++, i++) {
        // Beside what rises steeply the ground may be level: the cutter climbs from row to row all the same.
        const slope = Math.max(slopeAt(f, c, r) || 0, slopeAt(left, c, r) || 0);
        const mine = left.z[i] + ridge(slope) + (creased[i] > 0 ? creased[i] : 0);
        // What it does not go over is what the one before has left.
        if (mine < all[i]) all[i] = spare && all[i] - f.z[i] <= 2 * spare ? all[i] : mine;
      }
    }
  }
  return all;
}

/** The greatest of each node and those round it: where there is room for no more than a node there is hardly room. */
function widest({ z, cols, rows }: HeightField): Float32Array {
  const out = new Float32Array(z.length).fill(Infinity);
  for (let r = 1; r < rows - 1; r++)
    for (let c = 1, i = r * cols + 1; c < cols - 1; c++, i++) {
      let most = z[i];
      for (let j = i - cols; j <= i + cols; j += cols) most = Math.max(most, z[j - 1], z[j], z[j + 1]);
      out[i] = most;
    }
  return out;
}

interface LevelPass extends Pass {
  readonly levels: readonly number[];
}

/** The same where cutters have gone over it level by level. */
export const terraces = leftBy(leftByLevels);

function leftByLevels(f: HeightField, passes: readonly LevelPass[], least: number, allowance: number): Float32Array {
  const all = new Float32Array(f.z.length).fill(Infinity);
  for (const { form, place, step, levels } of passes) {
    const stands = standsOver(f, form, place, least, allowance);
    // A cutter stands on the lowest level that is not below where it, and it a node further to each side, may stand.
    const turned = widest(stands).map((h) => {
      const level = levels.findLast((z) => z >= h - SLACK);
      return level === undefined ? NaN : -level;
    });
    const back = locationsOver({ ...f, z: turned })(form);
    const ridge = heightOf(form, Math.min(form.radius, step / 2));
    for (let r = 0; r < f.rows; r++) {
      stillWanted(f.cols);
      const row = back.row(r);
      for (let c = 0, i = r * f.cols; c < f.cols; c++, i++)
        if (row[c] > NOTHING_LOCATED) all[i] = Math.min(all[i], -row[c] + ridge);
    }
  }
  return all;
}
