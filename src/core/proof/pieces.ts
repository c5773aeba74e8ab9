import { cuttingLength, type Cutter } from '../cutters/cutter';
import { shapeOf } from '../cutters/registry';
import { contentKey, derived, hashText, mix, mixOther } from '../geometry/hash';
import { ARC_CCW, isArc, RAPID, sweepOf, type Motion } from '../motion/motion';
import type { HeightField } from '../relief/field';
import { inParts } from '../units/inParts';

/** Nodes along the side of a tile. */
export const TILE = 32;
/** A piece ends after so many moves, or when it lies over so many tiles. */
const MOVES = 96;
const SPREAD = 40;

/** The field in square tiles, row-major. */
export interface Tiles {
  readonly cols: number;
  readonly rows: number;
}

export const tilesOf = (f: HeightField): Tiles => ({ cols: Math.ceil(f.cols / TILE), rows: Math.ceil(f.rows / TILE) });

/** Sets the nodes of a tile to a height. */
export function fillTile(f: HeightField, tiles: Tiles, tile: number, from: HeightField | null): void {
  const c = (tile % tiles.cols) * TILE;
  const r0 = Math.floor(tile / tiles.cols) * TILE;
  for (let r = r0; r < Math.min(f.rows, r0 + TILE); r++) {
    const [a, b] = [r * f.cols + c, r * f.cols + Math.min(f.cols, c + TILE)];
    if (from) f.z.set(from.z.subarray(a, b), a);
    else f.z.fill(0, a, b);
  }
}

/** A short run of moves of one motion, with all that its cutting depends on in its hash. */
export interface MotionPiece {
  /** Moves from .. to - 1 of the motion; the first begins where move from - 1 ended. */
  readonly from: number;
  readonly to: number;
  /** Two lanes. */
  readonly hash: readonly [number, number];
  /** Some of its moves must not meet material: what is found then depends on what was cut before. */
  readonly watched: boolean;
  /** Every tile that it can cut or is asked about, and perhaps some more. */
  readonly tiles: Int32Array;
}

/**
 * A move that must not meet material: a rapid below the top face, or one deeper than the cutting edges. The
 * way straight up out of a place where the cutter has just been is free.
 */
export function isWatched(m: Pick<Motion, 'kind' | 'x' | 'y' | 'z'>, i: number, edges: number): boolean {
  if (m.kind[i] === RAPID)
    return (
      (m.z[i] < 0 || m.z[i - 1] < 0) &&
      !(i > 1 && m.z[i] >= m.z[i - 1] && m.x[i] === m.x[i - 1] && m.y[i] === m.y[i - 1])
    );
  return m.z[i] < -edges - 1e-6 || m.z[i - 1] < -edges - 1e-6;
}

/** The radius of what follows the cutting edges: the shank, or a cone's own largest width carried on. */
export const shankRadius = (c: Cutter): number =>
  Math.max(c.shankDiameter / 2, c.shape === 'v' || c.shape === 'cone' ? shapeOf(c.shape).radius(c.values) : 0);

/** What of a cutter its pieces depend on. */
const toolKey = (c: Cutter): string => contentKey([c.shape, c.values, c.shankDiameter, c.fluteLength]);

const pieces = derived<Motion, readonly MotionPiece[]>();
/** The pieces of a motion that a cutter cuts out of a field; worked out once for both. */
export const piecesOf = (m: Motion, cutter: Cutter, field: HeightField): readonly MotionPiece[] =>
  pieces(m, contentKey([toolKey(cutter), field.cols, field.rows, field.cell, field.x0, field.y0]), () =>
    split(m, cutter, field),
  );

/**
 * Splits the cutting of a motion into pieces whose bounds depend on their own moves only, so that a change
 * in one place leaves the pieces elsewhere as they were.
 */
function split(m: Motion, cutter: Cutter, field: HeightField): MotionPiece[] {
  const splitter = new Splitter(m, cutter, field);
  inParts(m.count, (from, to) => splitter.moves(from, to));
  splitter.end(m.count);
  return splitter.out;
}

class Splitter {
  readonly out: MotionPiece[] = [];
  private readonly tiles: Tiles;
  private readonly edges: number;
  private readonly full: number;
  private readonly wide: number;
  /** mm. */
  private readonly side: number;
  private readonly seeds: readonly [number, number];
  /** The piece that each tile was given to last. */
  private readonly stamp: Int32Array;
  private readonly bits = new Float64Array(1);
  private readonly words = new Int32Array(this.bits.buffer);
  private list: number[] = [];
  private from = -1;
  private hash = 0;
  private other = 0;
  private watched = false;

  constructor(
    private readonly m: Motion,
    private readonly cutter: Cutter,
    private readonly field: HeightField,
  ) {
    this.tiles = tilesOf(field);
    this.edges = cuttingLength(cutter);
    this.full = shapeOf(cutter.shape).radius(cutter.values);
    this.wide = Math.max(this.full, shankRadius(cutter));
    this.side = TILE * field.cell;
    const tool = hashText(toolKey(cutter));
    this.seeds = [Number.parseInt(tool.slice(0, 6), 36), Number.parseInt(tool.slice(6), 36)];
    this.stamp = new Int32Array(this.tiles.cols * this.tiles.rows).fill(-1);
  }

  private add(v: number): void {
    this.bits[0] = v;
    const a = this.words[0];
    const b = this.words[1];
    this.hash = mix(mix(this.hash, a), b);
    this.other = mixOther(mixOther(this.other, a), b);
  }

  /** All tiles within `reach` of a straight way. */
  private cover(x0: number, y0: number, x1: number, y1: number, reach: number): void {
    const { field, side, tiles, stamp, list } = this;
    const piece = this.out.length;
    const first = Math.max(0, Math.floor((Math.min(y0, y1) - reach - field.y0) / side));
    const last = Math.min(tiles.rows - 1, Math.floor((Math.max(y0, y1) + reach - field.y0) / side));
    for (let r = first; r <= last; r++) {
      // The part of the way from which this row of tiles is within reach.
      const a = field.y0 + r * side - reach;
      const b = a + side + 2 * reach;
      let t0 = 0;
      let t1 = 1;
      if (Math.abs(y1 - y0) > 1e-9) {
        const p = (a - y0) / (y1 - y0);
        const q = (b - y0) / (y1 - y0);
        t0 = Math.max(0, Math.min(p, q));
        t1 = Math.min(1, Math.max(p, q));
        if (t0 > t1) continue;
      }
      const p = x0 + (x1 - x0) * t0;
      const q = x0 + (x1 - x0) * t1;
      const left = Math.max(0, Math.floor((Math.min(p, q) - reach - field.x0) / side));
      const right = Math.min(tiles.cols - 1, Math.floor((Math.max(p, q) + reach - field.x0) / side));
      for (let c = left; c <= right; c++) {
        const k = r * tiles.cols + c;
        if (stamp[k] === piece) continue;
        stamp[k] = piece;
        list.push(k);
      }
    }
  }

  /** All tiles within `reach` of an arc. */
  private coverArc(i: number, reach: number): void {
    const { m } = this;
    const r = Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]);
    const sweep = sweepOf(m, i) * (m.kind[i] === ARC_CCW ? 1 : -1);
    const n = Math.max(1, Math.ceil(Math.abs(sweep) / 0.4));
    const a0 = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
    const at = (k: number) => a0 + (sweep * k) / n;
    const bulge = r * (1 - Math.cos(sweep / n / 2)) + 1e-6;
    for (let k = 0; k < n; k++)
      this.cover(
        m.cx[i] + r * Math.cos(at(k)),
        m.cy[i] + r * Math.sin(at(k)),
        m.cx[i] + r * Math.cos(at(k + 1)),
        m.cy[i] + r * Math.sin(at(k + 1)),
        reach + bulge,
      );
    this.cover(m.x[i - 1], m.y[i - 1], m.x[i - 1], m.y[i - 1], reach);
    this.cover(m.x[i], m.y[i], m.x[i], m.y[i], reach);
  }

  private begin(i: number): void {
    const { m } = this;
    this.from = i;
    [this.hash, this.other] = this.seeds;
    this.watched = false;
    this.add(m.x[i - 1]);
    this.add(m.y[i - 1]);
    this.add(m.z[i - 1]);
  }

  /** Ends the piece that has been begun before move `to`. */
  end(to: number): void {
    const { from, hash, other, watched, list } = this;
    if (from >= 0) this.out.push({ from, to, hash: [hash, other], watched, tiles: Int32Array.from(list) });
    this.from = -1;
    this.list = [];
  }

  private move(i: number): void {
    const { m, field, full } = this;
    const low = Math.min(m.z[i], m.z[i - 1]);
    if (m.kind[i] === RAPID && low >= 0) return this.end(i);
    if (this.from < 0) this.begin(i);
    this.add(m.kind[i]);
    this.add(m.x[i]);
    this.add(m.y[i]);
    this.add(m.z[i]);
    const asked = isWatched(m, i, this.edges);
    this.watched ||= asked;
    // One node more than the cutter is wide where it is at the height of the face.
    const reach =
      field.cell +
      (asked && m.kind[i] !== RAPID
        ? this.wide
        : low < 0
          ? Math.min(full, shapeOf(this.cutter.shape).radiusAt(this.cutter.values, -low))
          : 0);
    if (isArc(m.kind[i])) {
      this.add(m.cx[i]);
      this.add(m.cy[i]);
      this.coverArc(i, reach);
    } else this.cover(m.x[i - 1], m.y[i - 1], m.x[i], m.y[i], reach);
    if (i + 1 - this.from >= MOVES || this.list.length >= SPREAD) this.end(i + 1);
  }

  moves(from: number, to: number): void {
    for (let i = Math.max(1, from); i < to; i++) this.move(i);
  }
}
