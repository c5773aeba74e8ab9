import { memo } from '../geometry/hash';
import type { HeightField } from './field';

/*
 * Parts of a field: where it has changed in one place, what is worked out node by node from what lies round each is worked out anew
 * there alone.
 *
 *     +------------------------+
 *     |   +-------- part ---+  |      part:    what is looked at
 *     |   |   +-- anew --+  |  |      anew:    as far as the changes are felt
 *     |   |   |  change  |  |  |
 *     |   |   +----------+  |  |      both lie `reach` beside what they hold
 *     |   +-----------------+  |
 *     +------------------------+
 */

/** Nodes of a field: columns from `c0` to before `c1`, rows likewise. */
interface Nodes {
  readonly c0: number;
  readonly c1: number;
  readonly r0: number;
  readonly r1: number;
}

/** A part that is more than so much of a surface is as good as all of it. */
const MOSTLY = 0.6;

/** The part of a surface that lies within a box and so far beside it, mm; the surface itself where that is most of it. */
export function windowOf(
  f: HeightField,
  box: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number },
  beside: number,
): HeightField {
  const [c0, c1] = [box.x0 - beside - f.x0, box.x1 + beside - f.x0].map((x) => x / f.cell);
  const [r0, r1] = [box.y0 - beside - f.y0, box.y1 + beside - f.y0].map((y) => y / f.cell);
  const nodes = {
    c0: Math.max(0, Math.floor(c0) - 1),
    c1: Math.min(f.cols, Math.ceil(c1) + 2),
    r0: Math.max(0, Math.floor(r0) - 1),
    r1: Math.min(f.rows, Math.ceil(r1) + 2),
  };
  return isPart(f, nodes) ? partOf(f, nodes) : f;
}

function isPart(f: HeightField, { c0, c1, r0, r1 }: Nodes): boolean {
  const [cols, rows] = [c1 - c0, r1 - r0];
  return cols >= 2 && rows >= 2 && cols * rows <= MOSTLY * f.z.length;
}

function partOf(f: HeightField, { c0, c1, r0, r1 }: Nodes): HeightField {
  const [cols, rows] = [c1 - c0, r1 - r0];
  const z = new Float32Array(cols * rows);
  for (let r = 0; r < rows; r++) z.set(f.z.subarray((r0 + r) * f.cols + c0, (r0 + r) * f.cols + c1), r * cols);
  return { ...f, cols, rows, x0: f.x0 + c0 * f.cell, y0: f.y0 + r0 * f.cell, z };
}

/** Heights bit by bit, so that what is empty is as empty as before. */
export const bitsOf = ({ z }: HeightField): Int32Array => new Int32Array(z.buffer, z.byteOffset, z.length);

/**
 * The nodes of a field that differ from those of another over the same grid, or do not lie above a height or are empty; null where none
 * do.
 */
function changedNodes(was: HeightField, now: HeightField, above: number): Nodes | null {
  const [a, b] = [bitsOf(was), bitsOf(now)];
  const { z } = now;
  const all = above === -Infinity;
  const same = (i: number) => a[i] === b[i] && (all || z[i] > above);
  let [c0, c1, r0, r1] = [now.cols, 0, now.rows, 0];
  for (let r = 0; r < now.rows; r++) {
    const from = r * now.cols;
    let first = 0;
    while (first < now.cols && same(from + first)) first++;
    if (first === now.cols) continue;
    let last = now.cols - 1;
    while (same(from + last)) last--;
    if (first < c0) c0 = first;
    if (last >= c1) c1 = last + 1;
    if (r < r0) r0 = r;
    r1 = r + 1;
  }
  return r1 ? { c0, c1, r0, r1 } : null;
}

const grown = (f: HeightField, n: Nodes, by: number): Nodes => ({
  c0: Math.max(0, n.c0 - by),
  c1: Math.min(f.cols, n.c1 + by),
  r0: Math.max(0, n.r0 - by),
  r1: Math.min(f.rows, n.r1 + by),
});

interface Known {
  readonly field: HeightField;
  readonly reach: number;
  readonly least: number;
  readonly made: Float32Array;
}

/**
 * Numbers for the nodes of fields, each made of what lies no further than `reach` mm from its node (at most as far as that of the field
 * that was there before, if that was more). `key`: all that they depend on beside the heights. Of `held` fields what was made last is
 * kept; where a field differs from it in one place only, that place is made anew. `least`: what lies above it does not depend on it.
 */
export function aroundChanges(held: number) {
  const kept = memo<{ last: Known | null }>(held);
  return (
    f: HeightField,
    key: string,
    reach: number,
    make: (f: HeightField) => Float32Array,
    least = -Infinity,
  ): Float32Array => {
    const known = kept(`${key} ${[f.cols, f.rows, f.cell, f.x0, f.y0].join()}`, () => ({ last: null }));
    const made = known.last ? anew(known.last, f, reach, make, least) : make(f);
    known.last = { field: f, reach, least, made };
    return made;
  };
}

function anew(
  last: Known,
  f: HeightField,
  reach: number,
  make: (f: HeightField) => Float32Array,
  least: number,
): Float32Array {
  const changed = changedNodes(last.field, f, least === last.least ? -Infinity : Math.max(least, last.least));
  if (!changed) return last.made;
  const by = Math.ceil(Math.max(reach, last.reach) / f.cell) + 1;
  const felt = grown(f, changed, by);
  const whole = grown(f, felt, by);
  if (!isPart(f, whole)) return make(f);
  const part = make(partOf(f, whole));
  const out = last.made.slice();
  const cols = whole.c1 - whole.c0;
  for (let r = felt.r0; r < felt.r1; r++) {
    const from = (r - whole.r0) * cols - whole.c0;
    out.set(part.subarray(from + felt.c0, from + felt.c1), r * f.cols + felt.c0);
  }
  return out;
}
