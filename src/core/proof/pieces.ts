import { cuttingLength, type Cutter } from '../cutters/cutter';
import { shapeOf } from '../cutters/registry';
import { contentKey, derived, hashText, mix, mixOther } from '../geometry/hash';
import { ARC_CCW, isArc, RAPID, sweepOf, type Motion } from '../motion/motion';
import type { HeightField } from '../relief/field';

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
  const tiles = tilesOf(field);
  const shape = shapeOf(cutter.shape);
  const edges = cuttingLength(cutter);
  const full = shape.radius(cutter.values);
  const wide = Math.max(full, shankRadius(cutter));
  const side = TILE * field.cell;
  const tool = hashText(toolKey(cutter));
  const stamp = new Int32Array(tiles.cols * tiles.rows).fill(-1);
  const bits = new Float64Array(1);
  const words = new Int32Array(bits.buffer);
  const out: MotionPiece[] = [];
  let list: number[] = [];
  let from = -1;
  let hash = 0;
  let other = 0;
  let watched = false;
  const add = (v: number) => {
    bits[0] = v;
    hash = mix(mix(hash, words[0]), words[1]);
    other = mixOther(mixOther(other, words[0]), words[1]);
  };
  // All tiles within `reach` of a straight way.
  const cover = (x0: number, y0: number, x1: number, y1: number, reach: number) => {
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
        if (stamp[k] === out.length) continue;
        stamp[k] = out.length;
        list.push(k);
      }
    }
  };
  const end = (to: number) => {
    if (from >= 0) out.push({ from, to, hash: [hash, other], watched, tiles: Int32Array.from(list) });
    from = -1;
    list = [];
  };
  for (let i = 1; i < m.count; i++) {
    if (m.kind[i] === RAPID && m.z[i] >= 0 && m.z[i - 1] >= 0) {
      end(i);
      continue;
    }
    if (from < 0) {
      from = i;
      hash = Number.parseInt(tool.slice(0, 6), 36);
      other = Number.parseInt(tool.slice(6), 36);
      watched = false;
      add(m.x[i - 1]);
      add(m.y[i - 1]);
      add(m.z[i - 1]);
    }
    add(m.kind[i]);
    add(m.x[i]);
    add(m.y[i]);
    add(m.z[i]);
    const asked = isWatched(m, i, edges);
    watched ||= asked;
    const low = Math.min(m.z[i], m.z[i - 1]);
    // One node more than the cutter is wide where it is at the height of the face.
    const reach =
      (asked && m.kind[i] !== RAPID ? wide : low < 0 ? Math.min(full, shape.radiusAt(cutter.values, -low)) : 0) +
      field.cell;
    if (isArc(m.kind[i])) {
      add(m.cx[i]);
      add(m.cy[i]);
      const r = Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]);
      const sweep = sweepOf(m, i) * (m.kind[i] === ARC_CCW ? 1 : -1);
      const n = Math.max(1, Math.ceil(Math.abs(sweep) / 0.4));
      const a0 = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
      const at = (k: number) => a0 + (sweep * k) / n;
      const bulge = r * (1 - Math.cos(sweep / n / 2)) + 1e-6;
      for (let k = 0; k < n; k++)
        cover(
          m.cx[i] + r * Math.cos(at(k)),
          m.cy[i] + r * Math.sin(at(k)),
          m.cx[i] + r * Math.cos(at(k + 1)),
          m.cy[i] + r * Math.sin(at(k + 1)),
          reach + bulge,
        );
      cover(m.x[i - 1], m.y[i - 1], m.x[i - 1], m.y[i - 1], reach);
      cover(m.x[i], m.y[i], m.x[i], m.y[i], reach);
    } else cover(m.x[i - 1], m.y[i - 1], m.x[i], m.y[i], reach);
    if (i + 1 - from >= MOVES || list.length >= SPREAD) end(i + 1);
  }
  end(m.count);
  return out;
}
