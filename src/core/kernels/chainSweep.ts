import { TOP } from './envelope';

/**
 * Moves that join, by a cutter for which what it leaves along a move is known in closed form. The lowest place over a node lies
 * on the move itself for a strip across it; before that strip it is the start, behind it the end:
 *
 *      ──── strip of move 1 ────┐ wedge ┌──── strip of move 2 ────
 *                               └ joint ┘
 *
 * Where moves join, the cutter standing between them need be set only in the wedge that neither strip covers, and the one at the
 * end of a chain only in front of it. That last one waits until it is known that no move follows: `settle` cuts it, and must be
 * called before the field is read.
 *
 * Each node that is visited gets the place clamped to the move, so parts may overlap and leave no cracks; a long move and its
 * thousand pieces leave the same surface. Heights in mm in the frame of the field.
 */
export interface ChainSweep {
  cut(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void;
  /** The square of how much a move may rise or fall a mm at most; steeper ones are not for it. Any where it does not say. */
  readonly steepest?: number;
  /**
   * Cuts straight moves from .. to - 1 of a way, each from the place before it, until one is too steep for `steep` (the square of
   * how much they may rise or fall a mm); gives that one, or `to`.
   */
  follow?(x: Float64Array, y: Float64Array, z: Float64Array, from: number, to: number, steep: number): number;
  flush(): void;
}

export interface SweptShape {
  /** How far the strip of a move of slope m, whose lowest point is `low`, is shifted along it at most: forwards when positive. */
  shift(m: number, low: number): number;
  /** Cuts the strip from `from` to `to` along a move of length len from (x0, y0, z0); m: its slope. */
  strip(
    x0: number,
    y0: number,
    z0: number,
    ux: number,
    uy: number,
    len: number,
    m: number,
    low: number,
    from: number,
    to: number,
  ): void;
  /** Cuts the cutter standing at (x, y, z) where (ux, uy) . v >= least and (px, py) . v <= most. */
  stand(
    x: number,
    y: number,
    z: number,
    ux: number,
    uy: number,
    least: number,
    px: number,
    py: number,
    most: number,
  ): void;
}

/** By so much more than needed (mm) each part reaches: a node between two of them is looked at by both. */
const SPARE = 1e-6;

export function makeChainSweep(shape: SweptShape): ChainSweep {
  // The end of the chain that still has to be cut: x, y, z, the direction in which it was reached, and how far behind it the
  // cutter is lowest. An array: numbers in a closure would be boxed at every change.
  let waiting = false;
  const end = new Float64Array(6);
  const flush = () => {
    if (waiting) shape.stand(end[0], end[1], end[2], end[3], end[4], end[5] - SPARE, 0, 0, Infinity);
    waiting = false;
  };
  return {
    flush: flush,
    cut(x0, y0, z0, x1, y1, z1) {
      const low = z0 < z1 ? z0 : z1;
      if (low >= TOP) return;
      const dx = x1 - x0;
      const dy = y1 - y0;
      const len = Math.sqrt(dx * dx + dy * dy);
      if (len < 1e-9) {
        flush();
        shape.stand(x1, y1, low, 0, 0, -Infinity, 0, 0, Infinity);
        return;
      }
      const m = (z1 - z0) / len;
      const ux = dx / len;
      const uy = dy / len;
      const shift = shape.shift(m, low);
      const most = shift > 0 ? shift : 0;
      const least = shift < 0 ? shift : 0;
      shape.strip(x0, y0, z0, ux, uy, len, m, low, least - SPARE, len + most + SPARE);
      if (waiting && x0 === end[0] && y0 === end[1] && z0 === end[2])
        shape.stand(x0, y0, z0, end[3], end[4], end[5] - SPARE, ux, uy, most + SPARE);
      else {
        flush();
        shape.stand(x0, y0, z0, 0, 0, -Infinity, ux, uy, most + SPARE);
      }
      waiting = true;
      end[0] = x1;
      end[1] = y1;
      end[2] = z1;
      end[3] = ux;
      end[4] = uy;
      end[5] = least;
    },
  };
}
