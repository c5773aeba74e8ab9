import type { HeightField } from '../relief/field';
import type { Together } from './fit';

/** A sheet as closed dies leave it: both of its faces, seen from the side of the raised die. */
export interface PressedSheet {
  /** Its upper face: 0 where it lies on the face of the sunk die. */
  readonly field: HeightField;
  /** Its lower face as depths from the lowest place, at the same nodes. */
  readonly under: HeightField;
  /** From its upper face to its lowest place, mm. */
  readonly thickness: number;
}

/**
 * The sheet between a sunk die and what stands `high` mm on a raised one. Above it has the shape of the raised die, below that of the
 * sunk one; where these are further apart it hangs as thick as it is.
 *
 *      _______           ______       upper face
 *      _____  \_________/ _____       lower face: `sheet` below, or on the sunk die
 *           \___________/
 */
export function pressedSheet({ pocket, plugAt }: Together, high: number, sheet: number): PressedSheet {
  const { cols, rows, z } = pocket;
  const [top, bottom] = [new Float32Array(z.length), new Float32Array(z.length)];
  let lowest = 0;
  for (let r = 0, i = 0; r < rows; r++)
    for (let c = 0; c < cols; c++, i++) {
      // Beyond the raised die nothing presses it.
      const h = plugAt(c, r);
      top[i] = h === h ? -high - h : 0;
      bottom[i] = Math.max(z[i], top[i]) - sheet;
      lowest = Math.min(lowest, bottom[i]);
    }
  return {
    field: { ...pocket, z: top },
    under: { ...pocket, z: bottom.map((b) => lowest - b) },
    thickness: -lowest,
  };
}
