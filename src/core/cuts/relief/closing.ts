import { grownForm, heightOf, widthOf, type CutterForm } from '../../cutters/form';
import { contentKey, hashFloats } from '../../geometry/hash';
import { locationsOver, NOTHING_LOCATED } from '../../kernels/location';
import { heightAt, type HeightField } from '../../relief/field';
import { slopeAt } from '../../relief/steep';
import { aroundChanges } from '../../relief/window';
import { stillWanted } from '../../units/stillWanted';
import { leavesAt, takenAt } from './finer';
import { reachOver } from './remembered';
import { SLACK } from './rough';
import { spread } from './spread';
import { standsFree, standsOver, standsWithin } from './stands';
import { levelStep, steepGround, steepReach } from './steepGround';
import type { Bounded } from './place';

/** The greatest of what heights so many nodes to both sides (`d`: from one to the next), or fewer, are above twice that of a node. */
function bendAt(z: Float32Array, i: number, d: number, far: number): number {
  const n = Math.max(1, Math.ceil(far));
  let most = 0;
  let before = 0;
  for (let k = 1; k <= n; k++) {
    const bend = z[i - k * d] + z[i + k * d] - 2 * z[i];
    if (!(bend < Infinity)) break;
    // It ends between two nodes.
    const there = k === n ? before + (bend - before) * (far - n + 1) : bend;
    if (there > most) most = there;
    before = bend;
  }
  return most;
}

/**
 * How much higher than at its lowest place a cutter may stand so far beside it or nearer (mm, or that of each node), where it stands in
 * a crease, in a pit, or at the foot of a wall: no more than what its heights to both sides are above twice its own.
 */
function creases({ z, cols, rows, cell }: HeightField, beside: number | Float32Array): Float32Array {
  const out = new Float32Array(z.length).fill(NaN);
  const farAt = typeof beside === 'number' ? () => beside / cell : (i: number) => beside[i] / cell;
  for (let r = 1, i = cols; r < rows - 1; r++) {
    stillWanted(cols);
    for (let c = 0; c < cols; c++, i++) {
      const far = farAt(i);
      const n = Math.max(1, Math.ceil(far));
      if (!(c >= n && c < cols - n && r >= n && r < rows - n)) continue;
      let most = 0;
      for (const d of [1, cols, cols + 1, cols - 1]) most = Math.max(most, bendAt(z, i, d, far));
      out[i] = most;
    }
  }
  return out;
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

/**
 * The same between level lines that lie so far apart up and down, where the cutter climbs by `least` for each mm or more: `across` of
 * them as far apart along the slope as they may be, 2 where the highest lies below what is left.
 */
function terracesOf(form: CutterForm, apart: number, least: number, across: number): (slope: number) => number {
  return (slope) => {
    const run = (across * apart) / Math.max(slope, least);
    const half = Math.hypot(run, across * apart) / 2;
    const stair = across * apart + heightOf(form, Math.min(form.radius, run / 2));
    if (half >= form.ball) return stair;
    return Math.min(stair, (form.ball - Math.sqrt(form.ball * form.ball - half * half)) * Math.sqrt(1 + slope * slope));
  };
}

/**
 * Most that stays above what a cutter leaves where it stands at a node, of rows that cross rows: of two that cross, those count that run
 * more nearly up the slope and across the crease.
 */
function crossed(f: HeightField, form: CutterForm, step: number): Float32Array {
  const { z, cols, rows, cell } = f;
  const out = new Float32Array(z.length).fill(NaN);
  const far = step / 2 / cell;
  const n = Math.max(1, Math.ceil(far));
  const level = heightOf(form, Math.min(form.radius, step / 2));
  const { radius, ball } = form;
  /** Where rows end side by side at the foot of a wall, a round stays between them. */
  const across = step / 2 < radius ? radius - Math.sqrt(radius * radius - (step * step) / 4) : step;
  const along = (i: number, d: number, slope: number): number => {
    const h = z[i];
    const long = d === 1 || d === cols ? cell : Math.SQRT2 * cell;
    const rise = Math.max(Math.abs(z[i - d] - h), Math.abs(z[i + d] - h)) / long;
    const half = (step / 2) * Math.sqrt(1 + rise * rise);
    const stair = step * rise + level + across * slope;
    const ridge =
      half < ball
        ? Math.min(stair, (ball - Math.sqrt(ball * ball - half * half)) * Math.sqrt(1 + slope * slope))
        : stair;
    return ridge + bendAt(z, i, d, far);
  };
  for (let r = n; r < rows - n; r++) {
    stillWanted(cols);
    for (let c = n; c < cols - n; c++) {
      const i = r * cols + c;
      if (!(z[i] < Infinity)) continue;
      const slope = slopeAt(f, c, r);
      const upright = Math.min(along(i, 1, slope), along(i, cols, slope));
      const diagonal = Math.min(along(i, cols + 1, slope), along(i, cols - 1, slope));
      out[i] = Math.max(upright, diagonal);
    }
  }
  return out;
}

/** One of several cutters that go over a surface one after the other. */
export interface Pass {
  readonly form: CutterForm;
  readonly place: Bounded;
  readonly step: number;
  /** It goes only where it would take more than so much of what the ones before have left, mm. */
  readonly spare?: number;
  /** Where it climbs by more than so much for each mm it goes along level lines; null or not said: in rows everywhere. */
  readonly climb?: number | null;
}

/**
 * Highest that is left at a place, of heights at nodes that are worked out when they are asked for first: no higher than at the highest
 * node round it, nor further above the surface than at any of them.
 */
function highestBeside(f: HeightField, make: () => Float32Array): (x: number, y: number) => number {
  let made: Float32Array | null = null;
  return (x, y) => {
    made ??= make();
    const c = Math.min(f.cols - 2, Math.max(0, Math.floor((x - f.x0) / f.cell)));
    const r = Math.min(f.rows - 2, Math.max(0, Math.floor((y - f.y0) / f.cell)));
    const i = r * f.cols + c;
    const j = i + f.cols;
    const highest = Math.max(made[i], made[i + 1], made[j], made[j + 1]);
    const most = Math.max(made[i] - f.z[i], made[i + 1] - f.z[i + 1], made[j] - f.z[j], made[j + 1] - f.z[j + 1]);
    const over = heightAt(f, x, y) + most;
    // Beside what is empty there is no surface.
    return over < highest ? over : highest;
  };
}

/** What was left of so many surfaces last is known. */
const HELD = 4;

/** All that what is left depends on, beside the surface, the lowest that a cutter goes, and what a pass has besides. */
const keyOf = (passes: readonly Pass[], least: number, allowance: number): string =>
  contentKey([
    passes.map(({ form, place, ...others }) => ({
      form,
      ...others,
      centres: hashFloats([...place.centres, ...place.walls]),
    })),
    Math.ceil(-least),
    allowance,
  ]);

/** How far a cutter reaches from its middle below the face, mm: rounded, so that it is the same when the lowest place has changed a little. */
const widestOf = (form: CutterForm, least: number): number => Math.min(form.radius, widthOf(form, Math.ceil(-least)));

/** How far from a node lies all that what is left there depends on, mm: as far as cutters are met, and then as far as they are wide. */
const reachOf = (f: HeightField, passes: readonly Pass[], least: number, allowance: number): number =>
  Math.max(
    ...passes.map(
      ({ form, step, climb }) =>
        reachOver(f, grownForm(form, allowance)) + widestOf(form, least) + (climb ? steepReach(f, step) : step),
    ),
  ) +
  // As far it is looked for what would be taken across.
  Math.max(...passes.map(({ spare = 0 }) => 2 * spare)) +
  4 * f.cell;

/** Highest that is left at a place, by what passes leave over all of a surface; where it has changed, that is worked out anew. */
function leftBy<P extends Pass>(
  leave: (f: HeightField, passes: readonly P[], least: number, allowance: number) => Float32Array,
): (f: HeightField, passes: readonly P[], least: number, allowance: number) => (x: number, y: number) => number {
  const anew = aroundChanges(HELD);
  return (f, passes, least, allowance) =>
    highestBeside(f, () =>
      anew(
        f,
        keyOf(passes, least, allowance),
        reachOf(f, passes, least, allowance),
        (part) => leave(part, passes, least, allowance),
        // Nothing that lies higher than where it may go is held up by that.
        least - allowance,
      ),
    );
}

/** The same where cutters have gone over it in rows, and along level lines where it is steep. */
export const leftOver = leftBy(leftByWays);

/** A way of going over some of the places where a cutter may stand. */
interface Way {
  /** How low it stands where it goes that way; Infinity elsewhere. */
  readonly stands: Float32Array;
  /** How much higher than it may stand it does at the bottom of a crease; NaN elsewhere. */
  readonly creased: Float32Array;
  /** Most that ridges are high on ground of a slope; null where they are told of with the creases. */
  readonly ridge: ((slope: number) => number) | null;
}

/** A cutter goes over everything in rows; or in rows, in rows that cross rows, and along level lines. */
function waysOf(f: HeightField, { form, place, step, climb }: Pass, least: number, allowance: number): Way[] {
  const free = standsFree(f, form, allowance, least);
  const stands = standsWithin(free, place);
  const creased = creases(stands, step / 2);
  if (!climb) return [{ stands: stands.z, creased, ridge: ridgesOf(form, step) }];
  const { levels, narrow } = steepGround(free, climb, step);
  const apart = levelStep(step, climb);
  /** No further from a place is one of the two lines it lies between. */
  const beside = new Float32Array(free.z.length);
  for (let r = 0, i = 0; r < f.rows; r++)
    for (let c = 0; c < f.cols; c++, i++) beside[i] = apart / Math.max(slopeAt(free, c, r), climb / 2);
  const between = creases(stands, beside);
  // A line turns off between two nodes at the bottom of a valley.
  const turns = creases(stands, f.cell);
  const crests = creases({ ...stands, z: stands.z.map((h) => -h) }, step / 2);
  const rounds = crossed(stands, form, step);
  const top = (i: number) => crests[i] > (climb * step) / 2;
  const where = (stood: (i: number) => boolean): Float32Array => stands.z.map((h, i) => (stood(i) ? h : Infinity));
  const alone = (i: number) => levels[i] < 0 && narrow[i] < 0;
  return [
    { stands: where(alone), creased: creased.map((h, i) => (alone(i) ? h : NaN)), ridge: ridgesOf(form, step) },
    { stands: where((i) => narrow[i] > 0), creased: rounds.map((h, i) => (narrow[i] > 0 ? h : NaN)), ridge: null },
    ...[false, true].map((highest) => ({
      stands: where((i) => levels[i] > 0 && top(i) === highest),
      creased: between.map((h, i) => (levels[i] > 0 ? Math.min(h, apart) + turns[i] / 4 : NaN)),
      ridge: terracesOf(form, apart, climb / 2, highest ? 2 : 1),
    })),
  ];
}

/** Heights that differ by less are the same, mm. */
const SAME = 1e-5;

/** What is left at nodes: all of it, and what would be if cutters stood wherever they may (`shape`). */
interface Left {
  readonly all: Float32Array;
  readonly shape: Float32Array;
}
const nothingTaken = ({ z }: HeightField): Left => ({
  all: new Float32Array(z.length).fill(Infinity),
  shape: new Float32Array(z.length).fill(Infinity),
});

/** What a cutter leaves in one of several ways of going, or in the only one: it becomes the least of that and what it was. */
function leastOf({ all, shape }: Left, f: HeightField, form: CutterForm, w: Way, one: boolean, reach: number): void {
  const left = leavesAt(f, form, w.stands);
  // Rows that pass a crease beside its bottom leave more there, as far as the cutter reaches from it.
  const creased = spread({ ...f, z: w.creased }, reach);
  if (!one && w.ridge) {
    // What is cut from elsewhere stays where it is when the cutter stands higher in creases.
    const raised = w.stands.map((h, i) => h + (w.creased[i] || 0));
    leavesAt(f, form, raised).z.forEach((h, i) => {
      if (h - left.z[i] < SAME) creased[i] = 0;
    });
  }
  for (let r = 0, i = 0; r < f.rows; r++) {
    stillWanted(f.cols);
    for (let c = 0; c < f.cols; c++, i++) {
      if (!(left.z[i] < Infinity)) continue;
      // Beside what rises steeply the ground may be level: the cutter climbs from row to row all the same.
      const slope = w.ridge ? Math.max(slopeAt(f, c, r) || 0, slopeAt(left, c, r) || 0) : 0;
      const mine = left.z[i] + (w.ridge ? w.ridge(slope) : 0) + (creased[i] > 0 ? creased[i] : 0);
      if (mine < all[i]) all[i] = mine;
      if (left.z[i] < shape[i]) shape[i] = left.z[i];
    }
  }
}

/**
 * What is left after one cutter more: what it does not go over, where it would take no more than its share off what the shapes of those
 * before have left, stays. It surely goes where it would take twice that.
 */
function takeLower(was: Left, mine: Left, f: HeightField, spare = 0): void {
  const taken = spare ? takenAt(f, was.shape, mine.shape, 2 * spare) : null;
  const { all, shape } = was;
  for (let i = 0; i < all.length; i++) {
    if (mine.all[i] < all[i] && !(taken && !taken[i])) all[i] = mine.all[i];
    if (mine.shape[i] < shape[i]) shape[i] = mine.shape[i];
  }
}

function leftByWays(f: HeightField, passes: readonly Pass[], least: number, allowance: number): Float32Array {
  const left = nothingTaken(f);
  for (const pass of passes) {
    const { form, spare } = pass;
    const reach = widestOf(form, least) + 2 * f.cell;
    const ways = waysOf(f, pass, least, allowance);
    const mine = nothingTaken(f);
    for (const w of ways) leastOf(mine, f, form, w, ways.length === 1, reach);
    takeLower(left, mine, f, spare);
  }
  return left.all;
}

/** What the shapes of cutters alone leave, `standing` so low, beyond the edge of the surface too: no ridges, and creases to their bottom. */
function leftByShape(
  f: HeightField,
  passes: readonly Pass[],
  least: number,
  allowance: number,
  standing: (wide: HeightField, form: CutterForm, place: Bounded) => HeightField,
): Float32Array {
  const by = Math.ceil(Math.max(...passes.map(({ form }) => widestOf(form, least))) / f.cell) + 1;
  const wide = widened(f, by);
  const left = nothingTaken(wide);
  for (const { form, place, spare } of passes) {
    const { z } = leavesAt(wide, form, standing(wide, form, place).z);
    takeLower(left, { all: z, shape: z }, wide, spare);
  }
  return f.z.map((_, i) => left.all[(Math.floor(i / f.cols) + by) * wide.cols + (i % f.cols) + by]);
}

/** Highest that the shapes of cutters leave at a place: as far as each may go, and if each might go anywhere. */
export const shapeLeaves = leftBy<Pass>((f, passes, least, allowance) =>
  leftByShape(f, passes, least, allowance, (wide, form, place) => standsOver(wide, form, place, least, allowance)),
);
export const freeShapeLeaves = leftBy<Pass>((f, passes, least, allowance) =>
  leftByShape(f, passes, least, allowance, (wide, form) => standsFree(wide, form, allowance, least)),
);

/** A surface with so many empty nodes all round. */
function widened(f: HeightField, by: number): HeightField {
  const [cols, rows] = [f.cols + 2 * by, f.rows + 2 * by];
  const z = new Float32Array(cols * rows).fill(NaN);
  for (let r = 0; r < f.rows; r++) z.set(f.z.subarray(r * f.cols, (r + 1) * f.cols), (r + by) * cols + by);
  return { ...f, cols, rows, x0: f.x0 - by * f.cell, y0: f.y0 - by * f.cell, z };
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
