import { jointOf, type CutterForm } from '../cutters/form';
import type { HeightField } from '../relief/field';
import { makeBallSweep } from './ballSweep';
import type { ChainSweep } from './chainSweep';
import { makeConeSweep } from './coneSweep';
import { EDGE, makeEnvelope, TOP } from './envelope';
import { SweepKernel } from './kernel';

/**
 * Material removal on a height field. A straight move lowers each node to the lowest point of the cutter that
 * passes over it, in closed form (`./envelope.ts`), so a long move and its thousand pieces give the same surface.
 * Which nodes are looked at is only a saving: each answers for itself whether it is covered.
 *
 * A cutter is taken only as wide as it is at the height of the top face, and nodes that lie below its
 * lowest point already are passed over unseen.
 */
export interface Remover {
  readonly field: HeightField;
  /** Lowers the field along a move from (x0, y0, z0) to (x1, y1, z1). */
  cut(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void;
  /** Lowers the field along the straight moves from .. to - 1 of a way: each from the place before it. */
  follow(x: Float64Array, y: Float64Array, z: Float64Array, from: number, to: number): void;
  /** Cuts what was left for a joining move, and lets no later move join: to be called before the field is read. */
  flush(): void;
  /**
   * The most by which material stands above the cutter anywhere along a move, without cutting; 0 when it
   * runs free.
   */
  collision(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): number;
}

/** Of the square of a cone's steepness: what comes nearer to 1 has no place of its own along the move that is worth finding. */
const STEEP = 0.998;

/** Rows of a field, from the first to before the last. */
export interface Rows {
  readonly from: number;
  readonly to: number;
}

type Sweep = (
  x0: number,
  y0: number,
  z0: number,
  x1: number,
  y1: number,
  z1: number,
  cutting: boolean,
  joined: boolean,
) => number;

/** Cuts by chains of moves what is less steep than the cutter's side; steeper, that is lowest at an end of the move. */
function byChains(field: HeightField, chain: ChainSweep, rise: number, sweep: Sweep): Remover {
  const steep = Math.min(STEEP * rise * rise, chain.steepest ?? Infinity);
  const cut: Remover['cut'] = (x0, y0, z0, x1, y1, z1) => {
    const dx = x1 - x0;
    const dy = y1 - y0;
    const dz = z1 - z0;
    const l2 = dx * dx + dy * dy;
    if (l2 === 0 || dz * dz < steep * l2) return chain.cut(x0, y0, z0, x1, y1, z1);
    chain.flush();
    sweep(x0, y0, z0, x1, y1, z1, true, false);
  };
  return {
    field,
    cut,
    follow(x, y, z, from, to) {
      for (let i = from; i < to; i++) {
        if (chain.follow) i = chain.follow(x, y, z, i, to, steep);
        if (i < to) cut(x[i - 1], y[i - 1], z[i - 1], x[i], y[i], z[i]);
      }
    },
    flush: () => chain.flush(),
    collision(x0, y0, z0, x1, y1, z1) {
      chain.flush();
      return sweep(x0, y0, z0, x1, y1, z1, false, false);
    },
  };
}

/** `only`: rows that are looked at; all where it is not given. */
export function makeRemover(field: HeightField, form: CutterForm, only: Rows = { from: 0, to: field.rows }): Remover {
  const { cols, cell, x0: fx, y0: fy, z } = field;
  const { radius: full, core, ball, rise } = form;
  const joint = jointOf(form);
  const upright = rise === Infinity;
  const flat = upright && ball === 0;
  const envelope = makeEnvelope(form);
  const inv = 1 / cell;
  const widthAt = (h: number): number => {
    if (h < joint.high) return core + Math.sqrt(h * (2 * ball - h));
    return upright ? full : Math.min(full, core + joint.out + (h - joint.high) / rise);
  };
  // The side carried on inwards lies nowhere above the outline: what it says of the least height is true of every node.
  const sideAt = upright ? 0 : joint.high - (core + joint.out) * rise;

  /**
   * Visits the nodes under a move; `cutting` lowers them, else the largest clash is returned. Of a move that
   * is `joined` to the one before, nodes whose lowest place is surely the start are passed over: they are cut.
   */
  const sweep: Sweep = (x0, y0, z0, x1, y1, z1, cutting, joined) => {
    const low = z0 < z1 ? z0 : z1;
    if (low >= TOP) return 0;
    const radius = widthAt(TOP - low) + EDGE;
    const dx = x1 - x0;
    const dy = y1 - y0;
    let len = Math.sqrt(dx * dx + dy * dy);
    const standing = len < 1e-9;
    const ux = standing ? 1 : dx / len;
    const uy = standing ? 0 : dy / len;
    const m = standing ? 0 : (z1 - z0) / len;
    if (standing) len = 0;
    envelope.move(len, standing ? low : z0, m);
    const r2 = radius * radius;
    // Least distance along the move at which a node can be lower than the cutter at the start leaves it.
    let behind = -Infinity;
    if (joined && len > 0) {
      if (m >= 0) behind = -EDGE;
      else if (ball === 0 && !flat) {
        const k = -m / rise;
        if (k < 1) behind = -(k / Math.sqrt(1 - k * k)) * radius - core - EDGE;
      }
    }
    const pruned = behind > -radius;
    let r0 = Math.ceil(((y0 < y1 ? y0 : y1) - radius - fy) * inv);
    let r1 = Math.floor(((y0 > y1 ? y0 : y1) + radius - fy) * inv);
    if (r0 < only.from) r0 = only.from;
    if (r1 > only.to - 1) r1 = only.to - 1;
    let worst = 0;
    for (let r = r0; r <= r1; r++) {
      const y = fy + r * cell;
      // Where this row crosses the capsule around the move: hull of its discs and its straight part.
      let a = Infinity;
      let b = -Infinity;
      const d0 = r2 - (y - y0) * (y - y0);
      if (d0 >= 0) {
        const w = Math.sqrt(d0);
        a = x0 - w;
        b = x0 + w;
      }
      const d1 = r2 - (y - y1) * (y - y1);
      if (d1 >= 0) {
        const w = Math.sqrt(d1);
        if (x1 - w < a) a = x1 - w;
        if (x1 + w > b) b = x1 + w;
      }
      if (len > 0 && (uy > 1e-12 || uy < -1e-12)) {
        // |across| <= radius and 0 <= along <= len.
        const mid = x0 + ((y - y0) * ux) / uy;
        const w = radius / (uy < 0 ? -uy : uy);
        let p = mid - w;
        let q = mid + w;
        if (ux > 1e-12 || ux < -1e-12) {
          const e0 = x0 - ((y - y0) * uy) / ux;
          const e1 = x0 + (len - (y - y0) * uy) / ux;
          const lo = e0 < e1 ? e0 : e1;
          const hi = e0 < e1 ? e1 : e0;
          if (lo > p) p = lo;
          if (hi < q) q = hi;
        } else if ((y - y0) * uy < -EDGE || (y - y0) * uy > len + EDGE) q = p - 1;
        if (p <= q) {
          if (p < a) a = p;
          if (q > b) b = q;
        }
      }
      if (pruned) {
        const ahead = behind - (y - y0) * uy;
        if (ux > 1e-12) {
          if (x0 + ahead / ux > a) a = x0 + ahead / ux;
        } else if (ux < -1e-12) {
          if (x0 + ahead / ux < b) b = x0 + ahead / ux;
        } else if (ahead > EDGE) continue;
      }
      let c0 = Math.ceil((a - fx) * inv);
      let c1 = Math.floor((b - fx) * inv);
      if (c0 < 0) c0 = 0;
      if (c1 > cols - 1) c1 = cols - 1;
      const base = r * cols;
      const alongY = (y - y0) * uy;
      const acrossY = (y - y0) * ux;
      for (let c = c0; c <= c1; c++) {
        const i = base + c;
        const was = z[i];
        if (was <= low) continue;
        const vx = fx + c * cell - x0;
        const across = acrossY - vx * uy;
        if (!upright && low + sideAt + (across < 0 ? -across : across) * rise >= was) continue;
        const zc = envelope.at(vx * ux + alongY, across * across, r2);
        if (zc < was) {
          if (cutting) z[i] = zc;
          else if (was - zc > worst) worst = was - zc;
        }
      }
    }
    return worst;
  };
  const chain =
    SweepKernel.of(field)?.sweep(form, only) ??
    (upright && core === 0 ? makeBallSweep(field, full, only) : null) ??
    (!upright && ball === 0 ? makeConeSweep(field, form, only) : null);
  if (chain) return byChains(field, chain, rise, sweep);
  let lastX = NaN;
  let lastY = NaN;
  let lastZ = NaN;
  const cut: Remover['cut'] = (x0, y0, z0, x1, y1, z1) => {
    const joined = x0 === lastX && y0 === lastY && z0 === lastZ;
    lastX = x1;
    lastY = y1;
    lastZ = z1;
    sweep(x0, y0, z0, x1, y1, z1, true, joined);
  };
  return {
    field,
    cut,
    follow(x, y, z, from, to) {
      for (let i = from; i < to; i++) cut(x[i - 1], y[i - 1], z[i - 1], x[i], y[i], z[i]);
    },
    flush() {
      lastX = NaN;
    },
    collision: (x0, y0, z0, x1, y1, z1) => sweep(x0, y0, z0, x1, y1, z1, false, false),
  };
}
