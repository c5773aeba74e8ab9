import type { HeightField } from '../relief/field';
import type { Together } from './fit';

/** An inlay as it looks once it is glued and sanded down to the face: both materials in one face. */
export interface Joined {
  /** The face, with what stays open between both. */
  readonly field: HeightField;
  /** At each node how much of it is plug, 0 to 255. */
  readonly share: Uint8Array;
}

/**
 * Joins a plug that stands `deep` mm below the face; `inside`: nodes of the pocket at which it may be. `lean` as in FitOf. `top`:
 * height at which it ends, where that is below the face.
 */
export function joined({ pocket, plugAt }: Together, deep: number, lean: number, inside: Uint8Array, top = 0): Joined {
  const { cols, rows, cell, z: from } = pocket;
  const z = new Float32Array(from.length);
  const share = new Uint8Array(from.length);
  // Where a leaning wall passes the face is known more finely than by nodes.
  const slope = Math.tan(lean) / cell;
  for (let r = 0, i = 0; r < rows; r++)
    for (let c = 0; c < cols; c++, i++) {
      z[i] = from[i];
      if (!inside[i]) continue;
      const below = plugAt(c, r) + deep;
      const part = slope > 0 ? Math.min(1, Math.max(0, 0.5 + below * slope)) : below > 0 ? 1 : 0;
      share[i] = Math.round(255 * part);
      if (part > 0) z[i] = top;
    }
  return { field: { ...pocket, z }, share };
}

/**
 * Several inlays in one face: the highest of what was joined at each node of the first, and the shares of all on its nodes. Those
 * that were put together at others, since their blanks are of other sizes, are looked at where they are nearest.
 */
export function joinedAll(all: readonly Joined[]): { field: HeightField; shares: Uint8Array[] } | null {
  if (!all.length) return null;
  const [{ field, share }, ...others] = all;
  if (!others.length) return { field, shares: [share] };
  const z = field.z.slice();
  const shares = others.map(({ field: f, share: from }) => {
    const to = new Uint8Array(z.length);
    const near = (at: number, from0: number, most: number) =>
      Math.min(most - 1, Math.max(0, Math.round((at - from0) / f.cell)));
    const cols = Array.from({ length: field.cols }, (_, c) => near(field.x0 + c * field.cell, f.x0, f.cols));
    for (let r = 0, i = 0; r < field.rows; r++) {
      const row = near(field.y0 + r * field.cell, f.y0, f.rows) * f.cols;
      for (let c = 0; c < field.cols; c++, i++) {
        const k = row + cols[c];
        to[i] = from[k];
        if (f.z[k] > z[i]) z[i] = f.z[k];
      }
    }
    return to;
  });
  return { field: { ...field, z }, shares: [share, ...shares] };
}
