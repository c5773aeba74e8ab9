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

/** Several inlays in one face, on the same nodes: the highest of what was joined at each. */
export function joinedAll(all: readonly Joined[]): HeightField | null {
  if (all.length < 2) return all[0]?.field ?? null;
  const { field } = all[0];
  const z = field.z.slice();
  for (const { field: f } of all.slice(1)) for (let i = 0; i < z.length; i++) if (f.z[i] > z[i]) z[i] = f.z[i];
  return { ...field, z };
}
