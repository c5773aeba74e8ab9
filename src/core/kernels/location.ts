import type { CutterForm } from '../cutters/form';
import type { HeightField } from '../relief/field';
import { locationKernel } from './locationKernel';
import { outlineOver } from './outline';

/**
 * Cutter location: how low a cutter may stand over places of a surface without cutting into it at any node of it, the surface
 * dilated by the outline of the cutter. Over node p
 *
 *     z(p) = max { surface(q) - outline(|q - p|) : q within the cutter's radius of p }
 *
 * The greatest over nodes, to the last bit of a single float whoever works it out. Beyond its nodes, and where it is empty (NaN), the
 * surface is nothing: lower than `NOTHING_LOCATED` where there is nothing else.
 */
export const NOTHING_LOCATED = -1e8;

export interface Locations {
  /** Places in a row: over each `step`-th column, from the first on. */
  readonly count: number;
  /** Heights of the cutter's lowest point over the places of a row of nodes, mm; overwritten by the next call. */
  row(r: number): Float32Array;
}

/**
 * Finds locations over a surface at each `step`-th column (1 to 64), for one cutter after another: by the kernel where this machine
 * has it. The surface must not be changed meanwhile.
 */
export function locationsOver(surface: HeightField, step = 1): (form: CutterForm) => Locations {
  if (!(Number.isInteger(step) && step >= 1 && step <= 64)) throw new RangeError(`No step of columns: ${step}`);
  const kernel = locationKernel(surface, step);
  let slow: ((form: CutterForm) => Locations) | null = null;
  return (form) => kernel?.(form) ?? (slow ??= prunedLocations(surface, step))(form);
}

/** Nodes to a side of a block whose greatest height is known. */
const SIDE = 8;

/** Nodes from a place to a block, along one axis; the place is so many nodes from the beginning of its own block. */
const away = (blocks: number, place: number): number =>
  Math.max(0, blocks * SIDE - place, place - (blocks * SIDE + SIDE - 1));

/** A block beside that of a place: by how many blocks, and the least height of the outline over it. */
interface Beside {
  readonly bx: number;
  readonly by: number;
  readonly least: number;
}

/**
 * In TypeScript: blocks of nodes in the order of the least height that the outline has over them, as long as any can hold what is
 * higher than what was found. It begins where the place before was met.
 */
export function prunedLocations(surface: HeightField, step: number): (form: CutterForm) => Locations {
  const { cols, rows, z, cell } = surface;
  const [across, up] = [Math.ceil(cols / SIDE), Math.ceil(rows / SIDE)];
  const tops = new Float32Array(across * up).fill(-Infinity);
  let top = -Infinity;
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < cols; c++) {
      const h = z[r * cols + c];
      const b = Math.floor(r / SIDE) * across + Math.floor(c / SIDE);
      if (h > tops[b]) tops[b] = h;
      if (h > top) top = h;
    }
  return (form) => {
    const { k, reach, heights } = outlineOver(form, cell);
    const at = (di: number, dj: number) => heights[Math.abs(dj) * (k + 1) + Math.abs(di)];
    const lists: (Beside[] | undefined)[] = [];
    const besides = (px: number, py: number): Beside[] => {
      const out: Beside[] = [];
      const blocks = Math.ceil(k / SIDE);
      for (let by = -blocks; by <= blocks; by++)
        for (let bx = -blocks; bx <= blocks; bx++) {
          // The outline rises outwards: it is least over the node that is nearest to the place.
          const [di, dj] = [away(bx, px), away(by, py)];
          const least = di <= k && dj <= k ? at(di, dj) : Infinity;
          if (least < Infinity) out.push({ bx, by, least });
        }
      return out.sort((a, b) => a.least - b.least);
    };
    const count = Math.ceil(cols / step);
    const out = new Float32Array(count);
    return {
      count,
      row(r) {
        const [py, by0] = [r % SIDE, Math.floor(r / SIDE)];
        let [mx, my] = [0, r];
        for (let i = 0; i < count; i++) {
          const x = i * step;
          const [px, bx0] = [x % SIDE, Math.floor(x / SIDE)];
          let best = z[r * cols + x];
          if (best !== best) best = -Infinity;
          if (Math.abs(mx - x) <= k && Math.abs(my - r) <= k) {
            const met = Math.fround(z[my * cols + mx] - at(mx - x, my - r));
            if (met > best) best = met;
          }
          for (const { bx, by, least } of (lists[py * SIDE + px] ??= besides(px, py))) {
            if (Math.fround(top - least) <= best) break;
            const [cx, cy] = [bx0 + bx, by0 + by];
            if (cx < 0 || cy < 0 || cx >= across || cy >= up) continue;
            if (Math.fround(tops[cy * across + cx] - least) <= best) continue;
            for (let y = cy * SIDE; y < Math.min(rows, cy * SIDE + SIDE); y++) {
              const dj = Math.abs(y - r);
              if (dj > k) continue;
              const line = dj * (k + 1);
              const from = Math.max(cx * SIDE, x - reach[dj]);
              const to = Math.min(cols - 1, cx * SIDE + SIDE - 1, x + reach[dj]);
              for (let c = from; c <= to; c++) {
                const h = Math.fround(z[y * cols + c] - heights[line + Math.abs(c - x)]);
                if (h > best) [best, mx, my] = [h, c, y];
              }
            }
          }
          out[i] = best;
        }
        return out;
      },
    };
  };
}
