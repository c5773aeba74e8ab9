import { jointOf, type CutterForm } from '../cutters/form';

/**
 * What a cutter of any form leaves over a point when it goes along a straight move: the least over s in
 * [0, len] of z(s) + profile(distance to the axis at s). The term is convex in s, so the least over the move is
 * the place that is lowest on the endless line, clamped to the move and to where the cutter covers the point:
 *
 *      s* = along - sign(slope) v,      v >= 0 the way downhill from the point's foot to that place
 *
 * - side (a cone):  v = h K / sqrt(1 - K^2),  K = |slope| / rise;  K >= 1: the side never lies in the way, the end does
 * - round about the axis (a ball):  v = sin(angle of the move) sqrt(ball^2 - h^2)
 * - level core:  v = sqrt(core^2 - h^2), the core's rim
 * - round about a core (a torus): where its normal is square to the move; one root, by Newton kept in a bracket
 *
 * with h the point's distance from the line. Any point may be asked about: one that is not covered gets Infinity, so
 * whoever asks may visit more points than needed, and two moves that share an end leave nothing between them.
 */
export interface Envelope {
  /** Sets the move: its length in the plane, height of its start, slope (0 for an upright one at the lower end). */
  move(length: number, z: number, slope: number): void;
  /** Least height over a point `along` the move, `h2` = its distance from the line squared, within the radius sqrt(`r2`). */
  at(along: number, h2: number, r2: number): number;
}

/** Nodes on the very edge of the cutter count as covered, whichever way their coordinates were rounded, mm. */
export const EDGE = 1e-7;

/** Nothing stands higher (mm): the top face of the blank. */
export const TOP = 0;

/** Steps of the root on the torus: each at least halves the bracket, most square the error. */
const STEPS = 40;

export function makeEnvelope(f: CutterForm): Envelope {
  const { core, ball, rise } = f;
  const joint = jointOf(f);
  const rim = core + joint.out;
  const core2 = core * core;
  const upright = rise === Infinity;
  const flat = ball === 0 && upright;
  const torus = core > 0 && ball > 0;
  // One array: numbers in a closure would be boxed at every change. length, z, slope, |slope|, sin of its angle, K / sqrt(1 - K^2).
  const m = new Float64Array(6);

  const profile = (rho: number): number => {
    const d = rho - core;
    if (d <= 0) return 0;
    if (d <= joint.out || upright) return d < ball ? ball - Math.sqrt(ball * ball - d * d) : ball;
    return joint.high + (d - joint.out) * rise;
  };

  /** Distance from the axis at which the torus' normal is square to the move: (core + ball sin p)^2 (1 - slope^2 / tan^2 p) = h^2. */
  const onTorus = (h2: number): number => {
    const steep2 = m[3] * m[3];
    let low = Math.atan(m[3]);
    let high = Math.PI / 2;
    let p = (low + high) / 2;
    for (let i = 0; i < STEPS; i++) {
      const s = Math.sin(p);
      const c = Math.cos(p);
      const rho = core + ball * s;
      const cut = 1 - (steep2 * c * c) / (s * s);
      const value = rho * rho * cut - h2;
      if (value > 0) high = p;
      else low = p;
      const next = p - value / (2 * rho * ball * c * cut + (2 * rho * rho * steep2 * c) / (s * s * s));
      const to = next > low && next < high ? next : (low + high) / 2;
      if (Math.abs(to - p) < 1e-8) return core + ball * Math.sin(to);
      p = to;
    }
    return core + ball * Math.sin(p);
  };

  /** How far downhill from its foot a point is lowest: see above. `w` is as far as the cutter reaches. */
  const downhill = (h2: number, w: number): number => {
    if (flat) return w;
    if (torus) return Math.sqrt(Math.max(0, onTorus(h2) ** 2 - h2));
    if (ball > 0) {
      const q = ball * ball - h2;
      if (q > 0) {
        const v = m[4] * Math.sqrt(q);
        if (upright || h2 + v * v <= rim * rim) return v;
      } else if (upright) return 0;
    }
    const v = m[5] === Infinity ? w : Math.sqrt(h2) * m[5];
    return h2 + v * v < core2 ? Math.sqrt(core2 - h2) : v;
  };

  return {
    move(length, z, slope) {
      const steep = slope < 0 ? -slope : slope;
      const k = steep / rise;
      m[0] = length;
      m[1] = z;
      m[2] = slope;
      m[3] = steep;
      m[4] = steep / Math.sqrt(1 + steep * steep);
      m[5] = k >= 1 ? Infinity : k / Math.sqrt(1 - k * k);
    },
    at(along, h2, r2) {
      const w2 = r2 - h2;
      if (w2 < 0) return Infinity;
      const w = Math.sqrt(w2);
      const length = m[0];
      const lo = along - w > 0 ? along - w : 0;
      const hi = along + w < length ? along + w : length;
      if (lo > hi) return Infinity;
      const slope = m[2];
      let s = along;
      if (slope > 0) s -= downhill(h2, w);
      else if (slope < 0) s += downhill(h2, w);
      if (s < lo) s = lo;
      else if (s > hi) s = hi;
      const d = s - along;
      return m[1] + slope * s + profile(Math.sqrt(h2 + d * d));
    },
  };
}
