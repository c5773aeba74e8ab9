/** Units of the integer grid in a millimetre. */
export const UNITS_PER_MM = 1e5;

/**
 * Numbers the places of the 10 nm grid in the order in which they are met: equal places get equal numbers. Both coordinates
 * are compared as they are. Folding them into one double would pass 2^53 from 21 mm on and take neighbours for one place.
 */
export class Places {
  private readonly heads: Int32Array;
  private readonly mask: number;
  private xs: Int32Array;
  private ys: Int32Array;
  count = 0;

  /** `most`: how many different places there may be. */
  constructor(most: number) {
    let size = 16;
    while (size < 2 * most) size *= 2;
    this.heads = new Int32Array(size).fill(-1);
    this.mask = size - 1;
    this.xs = new Int32Array(most);
    this.ys = new Int32Array(most);
  }

  /** The number of the place of x, y (mm). */
  of(x: number, y: number): number {
    const ix = Math.round(x * UNITS_PER_MM) | 0;
    const iy = Math.round(y * UNITS_PER_MM) | 0;
    let h = Math.imul(ix, 0x9e3779b1) ^ Math.imul(iy, 0x85ebca6b);
    h = (h ^ (h >>> 15)) & this.mask;
    for (; this.heads[h] >= 0; h = (h + 1) & this.mask) {
      const k = this.heads[h];
      if (this.xs[k] === ix && this.ys[k] === iy) return k;
    }
    this.heads[h] = this.count;
    this.xs[this.count] = ix;
    this.ys[this.count] = iy;
    return this.count++;
  }
}
