import { inParts } from '../units/inParts';
import { contentKey, derived } from '../geometry/hash';
import type { Machine } from '../machine/profile';
import { LookAhead } from './lookAhead';
import { DWELL, eachChord, isArc, RAPID, type Motion } from './motion';

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

/** The most that limits of the axes allow along a direction. */
const along = (
  a: { readonly x: number; readonly y: number; readonly z: number },
  vx: number,
  vy: number,
  vz: number,
): number =>
  Math.min(a.x / Math.max(1e-9, Math.abs(vx)), a.y / Math.max(1e-9, Math.abs(vy)), a.z / Math.max(1e-9, Math.abs(vz)));

/** What a chord is part of. */
const CUTTING = 0;
const PLUNGING = 1;
const AIR = 2;
const SORTS = 3;

/** Hands the chords of moves to a controller: how fast the corner before each may be run, and how fast the chord. */
class Chords {
  /** The way in. */
  private ux = 0;
  private uy = 0;
  private uz = 0;

  constructor(
    private readonly motion: Motion,
    private readonly m: Dynamics,
    private readonly ahead: LookAhead,
  ) {}

  add(i: number, dx: number, dy: number, dz: number, feed: number): void {
    const { m, ux, uy, uz } = this;
    const l = Math.sqrt(dx * dx + dy * dy + dz * dz);
    if (l < 1e-9) return;
    const vx = dx / l;
    const vy = dy / l;
    const vz = dz / l;
    // Angle between the way in and the way out.
    const cos = -(ux * vx + uy * vy + uz * vz);
    let corner: number;
    if (cos > 0.999999) corner = 0;
    else if (cos < -0.999999) corner = Infinity;
    else {
      const sinHalf = Math.sqrt((1 - cos) / 2);
      const jx = vx - ux;
      const jy = vy - uy;
      const jz = vz - uz;
      const jl = Math.sqrt(jx * jx + jy * jy + jz * jz);
      const ja = along(m.accel, jx / jl, jy / jl, jz / jl);
      corner = Math.sqrt((ja * m.junctionDeviation * sinHalf) / (1 - sinHalf));
    }
    const air = this.motion.kind[i] === RAPID;
    const sort = air ? AIR : Math.abs(dx) < 1e-9 && Math.abs(dy) < 1e-9 ? PLUNGING : CUTTING;
    const cruise = Math.min(air ? m.rapid : feed, along(m.maxFeed, vx, vy, vz)) / 60;
    this.ahead.add(SORTS * i + sort, l, cruise, along(m.accel, vx, vy, vz), corner);
    this.ux = vx;
    this.uy = vy;
    this.uz = vz;
  }

  /** A move that is no dwell. */
  move(i: number): void {
    const { motion, m } = this;
    const { x, y, z, cx, cy, feed } = motion;
    if (!isArc(motion.kind[i])) return this.add(i, x[i] - x[i - 1], y[i] - y[i - 1], z[i] - z[i - 1], feed[i]);
    const pull = Math.min(m.accel.x, m.accel.y);
    const held = Math.min(feed[i], 60 * Math.sqrt(pull * Math.hypot(x[i] - cx[i], y[i] - cy[i])));
    let [px, py, pz] = [x[i - 1], y[i - 1], z[i - 1]];
    eachChord(motion, i, CHORD, (qx, qy, qz) => {
      this.add(i, qx - px, qy - py, qz - pz, held);
      [px, py, pz] = [qx, qy, qz];
    });
  }
}

/** Moves from .. to - 1; `stand` is told of dwells. */
function moveOn(motion: Motion, chords: Chords, stand: (i: number) => void, from: number, to: number): void {
  for (let i = from; i < to; i++)
    if (motion.kind[i] === DWELL) stand(i);
    else chords.move(i);
}

/**
 * Time of a motion under a controller with look-ahead: each move has a trapezoid of speed whose ends are
 * bounded by junction deviation (the speed at which a circle that leaves the corner by that deviation is
 * run at the acceleration limit) and by what can still be braked from. Speed and acceleration along a move
 * are bounded per axis. Method: backward then forward pass over the junction speeds, the usual planner of
 * open motion controllers. Arcs are run as chords, no faster than the acceleration towards their centre allows:
 * v^2 <= a r. Moves of no length are passed over. `perMove`, if given, receives the seconds of each move.
 */
export function timeOf(motion: Motion, m: Dynamics, perMove?: Float64Array): Time {
  const t: Time = { cutting: 0, plunging: 0, air: 0, cutLength: 0, airLength: 0, moves: motion.count };
  const seconds = [0, 0, 0];
  const lengths = [0, 0, 0];
  const ahead = new LookAhead((name, length, s) => {
    const sort = name % SORTS;
    seconds[sort] += s;
    lengths[sort] += length;
    if (perMove) perMove[(name - sort) / SORTS] += s;
  });
  const chords = new Chords(motion, m, ahead);
  const stand = (i: number) => {
    ahead.stop();
    seconds[PLUNGING] += motion.feed[i];
    if (perMove) perMove[i] += motion.feed[i];
  };
  inParts(motion.count, (from, to) => moveOn(motion, chords, stand, Math.max(1, from), to));
  ahead.stop();
  [t.cutting, t.plunging, t.air] = seconds;
  t.cutLength = lengths[CUTTING] + lengths[PLUNGING];
  t.airLength = lengths[AIR];
  return t;
}

const times = derived<Motion, Time>();
/** The same, worked out once for a motion and a machine. */
export function timed(motion: Motion, { accel, maxFeed, rapid, junctionDeviation }: Machine): Time {
  const dynamics: Dynamics = { accel, maxFeed, rapid, junctionDeviation };
  return times(motion, contentKey(dynamics), () => timeOf(motion, dynamics));
}

/** How long motions take one after the other on a machine, with what it is known to take more, minutes. */
export const minutesOf = (motions: readonly Motion[], machine: Machine): number =>
  (motions.reduce((sum, m) => sum + seconds(timed(m, machine)), 0) * machine.factor) / 60;

export function sumTimes(list: readonly Time[]): Time {
  const t: Time = { cutting: 0, plunging: 0, air: 0, cutLength: 0, airLength: 0, moves: 0 };
  for (const s of list) for (const k of Object.keys(t) as (keyof Time)[]) t[k] += s[k];
  return t;
}

export const seconds = (t: Time): number => t.cutting + t.plunging + t.air;
