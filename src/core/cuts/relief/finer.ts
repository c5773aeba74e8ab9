import type { CutterForm } from '../../cutters/form';
import type { Region } from '../../geometry/region';
import { locationsOver, NOTHING_LOCATED } from '../../kernels/location';
import { heightAt, type HeightField } from '../../relief/field';
import { thickness } from '../../relief/thickness';
import { stillWanted } from '../../units/stillWanted';
import type { Bounded } from './place';
import { spread } from './spread';
import { regionOver, standsOver } from './stands';

/* Of several cutters that follow a surface each finer one goes where it would take more than so much of what those before have left. */

/** What a cutter leaves of a surface where it stands at such heights over its nodes; where it does not come nothing is said (Infinity). */
export function leavesAt(f: HeightField, form: CutterForm, stands: Float32Array): HeightField {
  const { cols, rows } = f;
  const turned = stands.map((h) => (h < 0 ? -h : NaN));
  const back = locationsOver({ ...f, z: turned })(form);
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++) {
    stillWanted(cols);
    const row = back.row(r);
    for (let c = 0; c < cols; c++) z[r * cols + c] = row[c] > NOTHING_LOCATED ? -row[c] : Infinity;
  }
  return { ...f, z };
}

/** How a cutter goes over a surface: how low it stands over nodes (Infinity where it may not come), and what that leaves at them. */
export interface Closed {
  readonly form: CutterForm;
  readonly stands: HeightField;
  readonly left: HeightField;
}

/**
 * What a cutter leaves of a surface that it follows, its lowest point never lower than over the surface: the surface closed by the
 * cutter (J. Serra, "Image Analysis and Mathematical Morphology", 1982), by locations over nodes, and once more over those turned
 * over. Where it does not come nothing is said (Infinity). mm; `least`: it goes no lower than so; `allowance`: it keeps so far from it.
 */
export function closingBy(f: HeightField, form: CutterForm, b: Bounded, least: number, allowance = 0): Closed {
  const stands = standsOver(f, form, b, least, allowance);
  const left = leavesAt(f, form, stands.z);
  // Where the surface is empty nothing stays.
  return { form, stands, left: { ...left, z: left.z.map((h, i) => (f.z[i] === f.z[i] ? h : NaN)) } };
}

/** Nodes where a cutter that leaves less would take more than so much, mm: across what it leaves, not up and down. */
export function takenAt(f: HeightField, before: Float32Array, after: Float32Array, most: number): Uint8Array {
  const { cols, cell, x0, y0 } = f;
  const there: HeightField = { ...f, z: after.map((h) => (h < Infinity ? h : NaN)) };
  const surface = (x: number, y: number): number => heightAt(there, x, y);
  const out = new Uint8Array(before.length);
  // No more has to be known than that it is more.
  const far = most * (1 + 1e-6);
  const step = Math.min(cell, 2 * most) / 4;
  for (let i = 0; i < out.length; i++) {
    if (i % cols === 0) stillWanted(cols);
    if (!(before[i] - there.z[i] > far)) continue;
    const [x, y] = [x0 + (i % cols) * cell, y0 + Math.floor(i / cols) * cell];
    if (thickness(surface, x, y, before[i], far, step) > most) out[i] = 1;
  }
  return out;
}

/**
 * Where a cutter has to stand to take all that it would take more than so much of, mm (across what it leaves), and `grow` mm round that.
 * `left`: what is left before it, over the nodes of what it would leave.
 *
 *     where it stands over what is thick enough  ___
 *                                               |   |   lower than that it takes something
 *     where it stands when it follows the surface --'
 */
export function standingOver(
  { form, stands, left: mine }: Closed,
  left: HeightField,
  most: number,
  grow: number,
): Region {
  const taken = takenAt(mine, left.z, mine.z, most);
  const back = locationsOver({ ...left, z: left.z.map((h, i) => (taken[i] ? Math.min(h, 0) : NaN)) })(form);
  const over = new Float32Array(stands.z.length).fill(-1);
  for (let r = 0, i = 0; r < stands.rows; r++) {
    stillWanted(stands.cols);
    const row = back.row(r);
    for (let c = 0; c < stands.cols; c++, i++)
      if (row[c] > NOTHING_LOCATED && stands.z[i] < Infinity)
        over[i] = Math.min(1, Math.max(-1, (row[c] - stands.z[i]) / most - 1));
  }
  return regionOver(spread({ ...stands, z: over }, grow), stands);
}
