import type { HeightField } from '../relief/field';

/** Nodes along a tile's side. */
const TILE = 64;

interface Frame {
  readonly at: number;
  readonly tiles: readonly Float32Array[];
}

/**
 * Heights of a field as they were after some of the moves, so that playing may begin near where it is asked for.
 * A frame holds the field in tiles; those that have not changed since the frame before it are that frame's own:
 *
 *     after 1,000 moves   │a│b│c│d│
 *     after 2,000 moves   │a│B│c│d│      one tile more is kept
 */
export class KeyFrames {
  private frames: Frame[] = [];
  private bytes = 0;

  /** @param most bytes that frames may take; beyond it every other one is let go. */
  constructor(
    private readonly field: HeightField,
    private readonly most: number,
  ) {}

  /** The last frame that is not after `move`; -1 when there is none. */
  before(move: number): number {
    for (let i = this.frames.length - 1; i >= 0; i--) if (this.frames[i].at <= move) return this.frames[i].at;
    return -1;
  }
  get last(): number {
    return this.frames.at(-1)?.at ?? -1;
  }
  get count(): number {
    return this.frames.length;
  }

  /** Keeps the field as it stands after `at` moves, which are more than those of the last frame. True when frames had to go for it. */
  keep(at: number): boolean {
    const before = this.frames.at(-1)?.tiles;
    const tiles: Float32Array[] = [];
    for (const [c0, r0, w, h] of this.places()) {
      const old = before?.[tiles.length];
      tiles.push(old && this.same(old, c0, r0, w, h) ? old : this.taken(c0, r0, w, h));
    }
    this.frames.push({ at, tiles });
    if (this.bytes <= this.most) return false;
    // The first stays: it is where everything begins.
    this.frames = this.frames.filter((_, i) => i % 2 === 0);
    const left = new Set(this.frames.flatMap((f) => f.tiles));
    this.bytes = [...left].reduce((n, t) => n + t.byteLength, 0);
    return true;
  }

  /** Makes the field what it was in the frame after `at` moves. */
  restore(at: number): void {
    const frame = this.frames.find((f) => f.at === at);
    if (!frame) throw new RangeError(`There is no frame after ${at} moves.`);
    let i = 0;
    for (const [c0, r0, w, h] of this.places()) {
      const tile = frame.tiles[i++];
      for (let r = 0; r < h; r++) this.field.z.set(tile.subarray(r * w, (r + 1) * w), (r0 + r) * this.field.cols + c0);
    }
  }

  /** First column and row, width and height of each tile. */
  private *places(): Generator<[number, number, number, number]> {
    const { cols, rows } = this.field;
    for (let r = 0; r < rows; r += TILE)
      for (let c = 0; c < cols; c += TILE) yield [c, r, Math.min(TILE, cols - c), Math.min(TILE, rows - r)];
  }
  private same(tile: Float32Array, c0: number, r0: number, w: number, h: number): boolean {
    const { z, cols } = this.field;
    for (let r = 0, i = 0; r < h; r++)
      for (let k = (r0 + r) * cols + c0, end = k + w; k < end; k++) if (z[k] !== tile[i++]) return false;
    return true;
  }
  private taken(c0: number, r0: number, w: number, h: number): Float32Array {
    const { z, cols } = this.field;
    const tile = new Float32Array(w * h);
    for (let r = 0; r < h; r++) tile.set(z.subarray((r0 + r) * cols + c0, (r0 + r) * cols + c0 + w), r * w);
    this.bytes += tile.byteLength;
    return tile;
  }
}
