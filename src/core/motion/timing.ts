import { contentKey, derived } from '../geometry/hash';
import type { Machine } from '../machine/profile';
import { DWELL, isArc, RAPID, withoutArcs, type Motion } from './motion';

/** Seconds by what the machine is doing, and mm of way. */
export interface Time {
  cutting: number;
  plunging: number;
  air: number;
  cutLength: number;
  airLength: number;
  moves: number;
}

/** What of a machine its times depend on. */
export type Dynamics = Pick<Machine, 'accel' | 'maxFeed' | 'rapid' | 'junctionDeviation'>;

/** Sagitta of the chords that arcs are run as, mm. */
const CHORD = 0.005;

/** The motion with arcs no faster than the acceleration towards their centre allows: v^2 <= a r. */
function heldOnArcs(m: Motion, accel: number): Motion {
  let feed: Float64Array | null = null;
  for (let i = 1; i < m.count; i++) {
    if (!isArc(m.kind[i])) continue;
    const most = 60 * Math.sqrt(accel * Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]));
    if (m.feed[i] > most) (feed ??= m.feed.slice())[i] = most;
  }
  return feed ? { ...m, feed } : m;
}

/** The most that limits of the axes allow along a direction. */
const along = (
  a: { readonly x: number; readonly y: number; readonly z: number },
  vx: number,
  vy: number,
  vz: number,
): number =>
  Math.min(a.x / Math.max(1e-9, Math.abs(vx)), a.y / Math.max(1e-9, Math.abs(vy)), a.z / Math.max(1e-9, Math.abs(vz)));

/**
 * Time of a motion under a controller with look-ahead: each move has a trapezoid of speed whose ends are
 * bounded by junction deviation (the speed at which a circle that leaves the corner by that deviation is
 * run at the acceleration limit) and by what can still be braked from. Speed and acceleration along a move
 * are bounded per axis. Method: backward then forward pass over the junction speeds, the usual planner of
 * open motion controllers. Arcs are run as chords, held to v^2 <= a r. `perMove`, if given, receives seconds per chord end,
 * summed into the original moves.
 */
export function timeOf(motion: Motion, m: Dynamics, perMove?: Float64Array): Time {
  const c = withoutArcs(heldOnArcs(motion, Math.min(m.accel.x, m.accel.y)), CHORD);
  const n = c.count;
  const t: Time = { cutting: 0, plunging: 0, air: 0, cutLength: 0, airLength: 0, moves: motion.count };
  if (n < 2) return t;
  const len = new Float64Array(n);
  const cruise = new Float64Array(n);
  const acc = new Float64Array(n);
  const junction = new Float64Array(n + 1);
  let ux = 0;
  let uy = 0;
  let uz = 0;
  for (let i = 1; i < n; i++) {
    const dx = c.x[i] - c.x[i - 1];
    const dy = c.y[i] - c.y[i - 1];
    const dz = c.z[i] - c.z[i - 1];
    const l = Math.sqrt(dx * dx + dy * dy + dz * dz);
    len[i] = l;
    if (l < 1e-9) {
      cruise[i] = 1;
      acc[i] = 1;
      junction[i] = junction[i] || 0;
      continue;
    }
    const vx = dx / l;
    const vy = dy / l;
    const vz = dz / l;
    acc[i] = along(m.accel, vx, vy, vz);
    cruise[i] = Math.min(c.kind[i] === RAPID ? m.rapid : c.feed[i], along(m.maxFeed, vx, vy, vz)) / 60;
    // Angle between the way in and the way out.
    const cos = -(ux * vx + uy * vy + uz * vz);
    let v: number;
    if (i === 1 || cos > 0.999999) v = 0;
    else if (cos < -0.999999) v = Infinity;
    else {
      const sinHalf = Math.sqrt((1 - cos) / 2);
      const jx = vx - ux;
      const jy = vy - uy;
      const jz = vz - uz;
      const jl = Math.sqrt(jx * jx + jy * jy + jz * jz);
      const ja = along(m.accel, jx / jl, jy / jl, jz / jl);
      v = Math.sqrt((ja * m.junctionDeviation * sinHalf) / (1 - sinHalf));
    }
    junction[i] = Math.min(v, cruise[i], i > 1 ? cruise[i - 1] || v : v);
    ux = vx;
    uy = vy;
    uz = vz;
  }
  junction[n] = 0;
  for (let i = n - 1; i >= 1; i--)
    junction[i] = Math.min(junction[i], Math.sqrt(junction[i + 1] ** 2 + 2 * acc[i] * len[i]));
  for (let i = 1; i < n; i++)
    junction[i + 1] = Math.min(junction[i + 1], Math.sqrt(junction[i] ** 2 + 2 * acc[i] * len[i]));
  let source = 1;
  for (let i = 1; i < n; i++) {
    const l = len[i];
    if (c.kind[i] === DWELL) {
      t.plunging += c.feed[i];
      if (perMove) perMove[source++] += c.feed[i];
      continue;
    }
    if (l < 1e-9) continue;
    const a = acc[i];
    const v0 = junction[i];
    const v1 = junction[i + 1];
    const peak = Math.min(cruise[i], Math.sqrt(Math.max(0, (2 * a * l + v0 * v0 + v1 * v1) / 2)));
    const up = Math.max(0, (peak * peak - v0 * v0) / (2 * a));
    const down = Math.max(0, (peak * peak - v1 * v1) / (2 * a));
    const s =
      Math.max(0, peak - v0) / a + Math.max(0, peak - v1) / a + Math.max(0, l - up - down) / Math.max(peak, 1e-9);
    if (c.kind[i] === RAPID) {
      t.air += s;
      t.airLength += l;
    } else if (Math.abs(c.x[i] - c.x[i - 1]) < 1e-9 && Math.abs(c.y[i] - c.y[i - 1]) < 1e-9) {
      t.plunging += s;
      t.cutLength += l;
    } else {
      t.cutting += s;
      t.cutLength += l;
    }
    if (perMove) {
      // Chords of an arc belong to the move whose end they reach.
      perMove[source] += s;
      if (c.x[i] === motion.x[source] && c.y[i] === motion.y[source] && c.z[i] === motion.z[source]) source++;
    }
  }
  return t;
}

const times = derived<Motion, Time>();
/** The same, worked out once for a motion and a machine. */
export function timed(motion: Motion, { accel, maxFeed, rapid, junctionDeviation }: Machine): Time {
  const dynamics: Dynamics = { accel, maxFeed, rapid, junctionDeviation };
  return times(motion, contentKey(dynamics), () => timeOf(motion, dynamics));
}

export function sumTimes(list: readonly Time[]): Time {
  const t: Time = { cutting: 0, plunging: 0, air: 0, cutLength: 0, airLength: 0, moves: 0 };
  for (const s of list) for (const k of Object.keys(t) as (keyof Time)[]) t[k] += s[k];
  return t;
}

export const seconds = (t: Time): number => t.cutting + t.plunging + t.air;
