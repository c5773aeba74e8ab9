import type { CutterForm } from '../cutters/shape';
import type { HeightField } from '../relief/field';
import { makeBallSweep } from './ballSweep';

/**
 * Material removal on a height field. A straight move lowers each node to the lowest point of the
 * cutter that passes over it: min over s of z(s) + profile(distance to the axis at s). For flat, cone
 * and ball this is closed form (the term is convex in s); other shapes are searched by golden section,
 * which convexity allows. A long move and its thousand pieces therefore give the same surface.
 *
 * A cutter is taken only as wide as it is at the height of the top face, and nodes that lie below its
 * lowest point already are passed over unseen.
 */
export interface Remover {
  readonly field: HeightField;
  /** Lowers the field along a move from (x0, y0, z0) to (x1, y1, z1). */
  cut(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): void;
  /** Cuts what was left for a joining move, and lets no later move join: to be called before the field is read. */
  settle(): void;
  /**
   * The most by which material stands above the cutter anywhere along a move, without cutting; 0 when it
   * runs free.
   */
  clash(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): number;
}

export interface SweptCutter {
  readonly form: CutterForm;
  readonly profile: (rho: number) => number;
  readonly radiusAt: (height: number) => number;
}

const GOLDEN = 0.6180339887498949;

export function makeRemover(field: HeightField, cutter: SweptCutter, top = 0): Remover {
  const { cols, rows, cell, x0: fx, y0: fy, z } = field;
  const { form } = cutter;
  const full = form.radius;
  const flat = form.form === 'flat';
  const ball = form.form === 'ball';
  const isCone = form.form === 'cone';
  const tip = isCone ? form.tip : 0;
  const rise = isCone ? 1 / form.tan : 0;
  const slope = isCone ? form.tan : 0;
  const inv = 1 / cell;

  // The swept height over a node at (along, across h2 = across squared), for s in [0, len], m = dz/ds.
  let len = 0;
  let zs = 0;
  let m = 0;
  let k1 = 0;
  const swept = (along: number, h2: number, r2: number): number => {
    // The stretch of s over which the node lies under the cutter.
    const w = Math.sqrt(r2 - h2);
    let lo = along - w;
    let hi = along + w;
    if (lo < 0) lo = 0;
    if (hi > len) hi = len;
    if (lo > hi) return Infinity;
    if (flat) return zs + (m > 0 ? m * lo : m * hi);
    if (isCone) {
      // Lowest where the slope of the cone along s balances m; inside the flat tip, at its downhill end.
      const h = Math.sqrt(h2);
      let s = along - h * k1;
      if (s < lo) s = lo;
      else if (s > hi) s = hi;
      let d = s - along;
      let rho = Math.sqrt(h2 + d * d);
      if (rho < tip) {
        const t = Math.sqrt(tip * tip - h2);
        s = m > 0 ? along - t : along + t;
        if (s < lo) s = lo;
        else if (s > hi) s = hi;
        d = s - along;
        rho = Math.sqrt(h2 + d * d);
        return zs + m * s + (rho > tip ? (rho - tip) * rise : 0);
      }
      return zs + m * s + (rho - tip) * rise;
    }
    if (ball) {
      const q = full * full - h2;
      let s = along - k1 * Math.sqrt(q);
      if (s < lo) s = lo;
      else if (s > hi) s = hi;
      const d = s - along;
      const g = q - d * d;
      return zs + m * s + full - (g > 0 ? Math.sqrt(g) : 0);
    }
    const at = (s: number) => zs + m * s + cutter.profile(Math.sqrt(h2 + (s - along) * (s - along)));
    if (m === 0) return at(along < lo ? lo : along > hi ? hi : along);
    let a = lo;
    let b = hi;
    let p = b - GOLDEN * (b - a);
    let q = a + GOLDEN * (b - a);
    let fp = at(p);
    let fq = at(q);
    for (let i = 0; i < 40 && b - a > 1e-7; i++) {
      if (fp < fq) {
        b = q;
        q = p;
        fq = fp;
        p = b - GOLDEN * (b - a);
        fp = at(p);
      } else {
        a = p;
        p = q;
        fp = fq;
        q = a + GOLDEN * (b - a);
        fq = at(q);
      }
    }
    return Math.min(at(lo), at(hi), fp, fq);
  };

  /**
   * Visits the nodes under a move; `cutting` lowers them, else the largest clash is returned. Of a move that
   * is `joined` to the one before, nodes whose lowest place is the start are passed over: they are cut.
   */
  const sweep = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number, cutting: boolean, joined: boolean): number => {
    const low = z0 < z1 ? z0 : z1;
    if (low >= top) return 0;
    const radius = Math.min(full, cutter.radiusAt(top - low) + 1e-9);
    if (!(radius > 0)) return 0;
    const dx = x1 - x0;
    const dy = y1 - y0;
    len = Math.sqrt(dx * dx + dy * dy);
    const level = len < 1e-9;
    const ux = level ? 1 : dx / len;
    const uy = level ? 0 : dy / len;
    if (level) len = 0;
    zs = level ? low : z0;
    m = level ? 0 : (z1 - z0) / len;
    if (isCone) {
      const k = m * slope;
      k1 = k >= 1 ? Infinity : k <= -1 ? -Infinity : k / Math.sqrt(1 - k * k);
    } else if (ball) k1 = m / Math.sqrt(1 + m * m);
    const r2 = radius * radius;
    const even = m === 0;
    // Least distance along the move at which a node can be lower than the cutter at the start leaves it.
    let behind = -Infinity;
    if (joined && len > 0) behind = m >= 0 ? 0 : isCone && k1 > -1e6 ? k1 * radius - tip : -Infinity;
    const pruned = behind > -radius;
    let r0 = Math.ceil(((y0 < y1 ? y0 : y1) - radius - fy) * inv);
    let r1 = Math.floor(((y0 > y1 ? y0 : y1) + radius - fy) * inv);
    if (r0 < 0) r0 = 0;
    if (r1 > rows - 1) r1 = rows - 1;
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
        } else if ((y - y0) * uy < 0 || (y - y0) * uy > len) q = p - 1;
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
        } else if (ahead > 0) continue;
      }
      let c0 = Math.ceil((a - fx) * inv);
      let c1 = Math.floor((b - fx) * inv);
      if (c0 < 0) c0 = 0;
      if (c1 > cols - 1) c1 = cols - 1;
      const base = r * cols;
      const vy = y - y0;
      const alongY = vy * uy;
      const acrossY = vy * ux;
      for (let c = c0; c <= c1; c++) {
        const i = base + c;
        const was = z[i];
        if (was <= low) continue;
        const vx = fx + c * cell - x0;
        const across = acrossY - vx * uy;
        // A cone is nowhere lower than its lowest tip under the distance to the line.
        if (isCone && low + ((across < 0 ? -across : across) - tip) * rise >= was) continue;
        const along = vx * ux + alongY;
        const h2 = across * across;
        let zc: number;
        if (even) {
          const e = along < 0 ? along : along > len ? along - len : 0;
          const rho2 = h2 + e * e;
          if (rho2 > r2) continue;
          if (flat) zc = zs;
          else if (isCone) {
            const rho = Math.sqrt(rho2);
            zc = rho > tip ? zs + (rho - tip) * rise : zs;
          } else if (ball) zc = zs + full - Math.sqrt(full * full - rho2);
          else zc = zs + cutter.profile(Math.sqrt(rho2));
        } else {
          if (h2 > r2) continue;
          zc = swept(along, h2, r2);
        }
        if (zc < was) {
          if (cutting) z[i] = zc;
          else if (was - zc > worst) worst = was - zc;
        }
      }
    }
    return worst;
  };

  if (ball) {
    const balls = makeBallSweep(field, full, top);
    return {
      field,
      cut: balls.cut,
      settle: balls.settle,
      clash(x0, y0, z0, x1, y1, z1) {
        balls.settle();
        return sweep(x0, y0, z0, x1, y1, z1, false, false);
      },
    };
  }
  let lastX = NaN;
  let lastY = NaN;
  let lastZ = NaN;
  return {
    field,
    settle() {
      lastX = NaN;
    },
    cut(x0, y0, z0, x1, y1, z1) {
      const joined = x0 === lastX && y0 === lastY && z0 === lastZ;
      lastX = x1;
      lastY = y1;
      lastZ = z1;
      sweep(x0, y0, z0, x1, y1, z1, true, joined);
    },
    clash: (x0, y0, z0, x1, y1, z1) => sweep(x0, y0, z0, x1, y1, z1, false, false),
  };
}
