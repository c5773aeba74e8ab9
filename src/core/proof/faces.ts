import type { TurnedOver } from '../job/job';
import { flatField, heightAt, type HeightField } from '../relief/field';

/**
 * What a set-up leaves of a blank that is cut from both faces. Both fields are in the frame of the set-up:
 *
 *          up(x, y) <= 0: how deep the upper face is cut
 *     ────┐      ┌──────────  0
 *         └──────┘ web        web = thickness + up + down
 *     ─────────┐    ┌───────  -thickness
 *              └────┘ down(x, y) <= 0: how deep the lower face is cut
 */
export interface Faces {
  readonly up: HeightField;
  /** Null for a lower face that nothing was cut into. */
  readonly down: HeightField | null;
}

/** A blank as a set-up finds it, and the name of the set-up that has left it so. */
export interface Found {
  readonly faces: Faces;
  readonly from: string;
}

interface Size {
  readonly width: number;
  readonly height: number;
  readonly thickness: number;
}

/** Webs thinner than this (mm) are cut through: the rounding of programs and of fields. */
const NOTHING = 0.001;
/** A web between the faces that is thinner than this (mm) is told. */
export const THIN_WEB = 0.2;

/** A field over the same blank at nodes `cell` apart, read at places that `from` gives. */
function read(
  f: HeightField,
  size: Size,
  cell: number,
  from: (x: number, y: number) => readonly [number, number],
): HeightField {
  const out = flatField(size.width, size.height, cell);
  const [right, top] = [(f.cols - 1) * f.cell, (f.rows - 1) * f.cell];
  for (let r = 0; r < out.rows; r++)
    for (let c = 0; c < out.cols; c++) {
      const [x, y] = from(c * cell, r * cell);
      // A blank that is no whole number of cells ends a little beyond the last node.
      out.z[r * out.cols + c] = heightAt(f, Math.min(right, Math.max(0, x)), Math.min(top, Math.max(0, y)));
    }
  return out;
}

/**
 * A blank as the next set-up finds it, at nodes `cell` apart: turned over about X or Y, or as it lies. Where nothing is left
 * between the faces, both are at the other face.
 */
export function foundBy(left: Faces, turned: TurnedOver, size: Size, cell: number): Faces {
  const from = {
    none: (x: number, y: number) => [x, y] as const,
    x: (x: number, y: number) => [x, size.height - y] as const,
    y: (x: number, y: number) => [size.width - x, y] as const,
  }[turned];
  const one = read(left.up, size, cell, from);
  const other = left.down && read(left.down, size, cell, from);
  const [up, down] = turned === 'none' ? [one, other] : [other ?? flatField(size.width, size.height, cell), one];
  for (let i = 0; i < up.z.length; i++) {
    if (size.thickness + up.z[i] + (down?.z[i] ?? 0) > NOTHING) continue;
    up.z[i] = -size.thickness;
    if (down) down.z[i] = -size.thickness;
  }
  return { up, down };
}

/** Where the cuts of both faces come near each other or meet. */
export interface Webs {
  /** The thinnest web that is left under what this set-up has cut, mm; negative by as much as the cuts overlap. Where it is. */
  readonly thinnest: number;
  readonly x: number;
  readonly y: number;
  /** Area over which the cuts meet, mm2. */
  readonly met: number;
}

/**
 * Looks at what stays between the faces, where a set-up has cut (`field`) into a blank that it `found` cut from below. Places
 * that were open already, or that it cuts through the whole blank, have no web. Null where nothing lies over each other.
 */
export function websOf(found: Faces, field: HeightField, thickness: number): Webs | null {
  const { down, up } = found;
  if (!down) return null;
  let thinnest = Infinity;
  let at = 0;
  let nodes = 0;
  for (let i = 0; i < field.z.length; i++) {
    const below = down.z[i];
    const above = field.z[i];
    if (below >= 0 || above >= up.z[i] || below <= NOTHING - thickness || above <= NOTHING - thickness) continue;
    const web = thickness + above + below;
    if (web <= NOTHING) nodes++;
    if (web >= thinnest) continue;
    thinnest = web;
    at = i;
  }
  if (thinnest === Infinity) return null;
  return {
    thinnest,
    x: field.x0 + (at % field.cols) * field.cell,
    y: field.y0 + Math.floor(at / field.cols) * field.cell,
    met: nodes * field.cell * field.cell,
  };
}
