import { heightOf, type CutterForm } from '../cutters/form';

/** Heights of an outline over nodes: of each row dj from 0 on, as far as the cutter covers it. */
export interface Outline {
  /** Rows and columns that are covered, to each side of the middle. */
  readonly k: number;
  /** Last column covered in row dj. */
  readonly reach: Int32Array;
  /** Height over column di of row dj, at dj (k + 1) + di; Infinity beyond the cutter. */
  readonly heights: Float32Array;
}

/** A node so little beyond the edge (mm) is covered: rather too high than cut into. */
const EDGE = 1e-9;

export function outlineOver(form: CutterForm, cell: number): Outline {
  const k = Math.floor((form.radius + EDGE) / cell);
  const reach = new Int32Array(k + 1).fill(-1);
  const heights = new Float32Array((k + 1) * (k + 1)).fill(Infinity);
  for (let dj = 0; dj <= k; dj++)
    for (let di = 0; di <= k; di++) {
      const rho = cell * Math.sqrt(di * di + dj * dj);
      if (rho > form.radius + EDGE) break;
      reach[dj] = di;
      heights[dj * (k + 1) + di] = heightOf(form, Math.min(rho, form.radius));
    }
  return { k, reach, heights };
}
