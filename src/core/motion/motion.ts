import { arcChords } from '../geometry/path';
import { column, noughts, used } from '../units/columns';

/**
 * Tool motion as a struct of arrays: a million moves are a few arrays that pass between workers
 * without copying. Move m goes from the end of move m - 1 to (x, y, z)[m]; the first is where it starts.
 * Millimetres and mm/min. An arc turns about (cx, cy)[m] in the XY plane, Z changing evenly with it; of other moves both
 * mean nothing.
 */
export const RAPID = 0;
export const FEED = 1;
export const PLUNGE = 2;
export const ARC_CW = 3;
export const ARC_CCW = 4;
/** Stands still for `feed` seconds. */
export const DWELL = 5;

export interface Motion {
  readonly count: number;
  readonly kind: Uint8Array;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
  readonly cx: Float64Array;
  readonly cy: Float64Array;
  readonly feed: Float64Array;
}

/** Whether a motion has no arcs for certain: it keeps no centres then. */
export const isStraight = (m: Pick<Motion, 'cx' | 'cy'>): boolean => m.cx === m.cy;

export const isArc = (kind: number): boolean => kind === ARC_CW || kind === ARC_CCW;

/** Grows a motion move by move. */
export class MotionBuilder {
  count = 0;
  private kind: Uint8Array;
  private x: Float64Array;
  private y: Float64Array;
  private z: Float64Array;
  /** Centres of arcs; there is no room for them until there is an arc. */
  private cx: Float64Array | null = null;
  private cy: Float64Array | null = null;
  private feed: Float64Array;

  /** @param room For how many moves there is room at first. */
  constructor(room = 256) {
    this.kind = column(Uint8Array, room);
    this.x = column(Float64Array, room);
    this.y = column(Float64Array, room);
    this.z = column(Float64Array, room);
    this.feed = column(Float64Array, room);
  }

  private push(kind: number, x: number, y: number, z: number, feed: number): void {
    if (!(Math.abs(x) < 1e7 && Math.abs(y) < 1e7 && Math.abs(z) < 1e7))
      throw new RangeError('A move to a place that is not a number.');
    const i = this.count;
    if (i === this.kind.length) {
      const wide = <T extends Uint8Array | Float64Array>(a: T): T => {
        const b = column<T>(a.constructor as never, 2 * i);
        b.set(a as never);
        return b;
      };
      if (this.cx && this.cy) [this.cx, this.cy] = [wide(this.cx), wide(this.cy)];
      this.kind = wide(this.kind);
      this.x = wide(this.x);
      this.y = wide(this.y);
      this.z = wide(this.z);
      this.feed = wide(this.feed);
    }
    this.kind[i] = kind;
    this.x[i] = x;
    this.y[i] = y;
    this.z[i] = z;
    this.feed[i] = feed;
    this.count++;
  }

  get lastX(): number {
    return this.x[this.count - 1];
  }
  get lastY(): number {
    return this.y[this.count - 1];
  }
  get lastZ(): number {
    return this.z[this.count - 1];
  }

  rapid(x: number, y: number, z: number): void {
    if (this.count && x === this.lastX && y === this.lastY && z === this.lastZ) return;
    this.push(RAPID, x, y, z, 0);
  }
  /** By rapid to another height, straight up or down; nothing before there is a place to lift from. */
  lift(z: number): void {
    if (this.count) this.rapid(this.lastX, this.lastY, z);
  }
  line(x: number, y: number, z: number, feed: number): void {
    if (x === this.lastX && y === this.lastY && z === this.lastZ) return;
    this.push(FEED, x, y, z, feed);
  }
  plunge(z: number, feed: number): void {
    if (z !== this.lastZ) this.push(PLUNGE, this.lastX, this.lastY, z, feed);
  }
  /** Stands where it is, in seconds. */
  dwell(seconds: number): void {
    if (seconds > 0 && this.count) this.push(DWELL, this.lastX, this.lastY, this.lastZ, seconds);
  }
  arc(ccw: boolean, x: number, y: number, z: number, cx: number, cy: number, feed: number): void {
    const i = this.count;
    this.push(ccw ? ARC_CCW : ARC_CW, x, y, z, feed);
    this.cx ??= column(Float64Array, this.kind.length);
    this.cy ??= column(Float64Array, this.kind.length);
    this.cx[i] = cx;
    this.cy[i] = cy;
  }

  /** All moves of a motion as they are; where there are some already, without its first, at which they ended. */
  add(m: Motion): void {
    for (let i = this.count ? 1 : 0; i < m.count; i++)
      if (isArc(m.kind[i])) this.arc(m.kind[i] === ARC_CCW, m.x[i], m.y[i], m.z[i], m.cx[i], m.cy[i], m.feed[i]);
      else this.push(m.kind[i], m.x[i], m.y[i], m.z[i], m.feed[i]);
  }

  build(): Motion {
    const n = this.count;
    // Without arcs there are no centres to keep.
    const none = noughts(this.cx ? 0 : n);
    return {
      count: n,
      kind: used(this.kind, n),
      x: used(this.x, n),
      y: used(this.y, n),
      z: used(this.z, n),
      cx: this.cx ? used(this.cx, n) : none,
      cy: this.cy ? used(this.cy, n) : none,
      feed: used(this.feed, n),
    };
  }
}

/** Sweep in radians of arc move m (positive, up to a full turn). */
export function sweepOf(m: Pick<Motion, 'x' | 'y' | 'cx' | 'cy' | 'kind'>, i: number): number {
  const a0 = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
  const a1 = Math.atan2(m.y[i] - m.cy[i], m.x[i] - m.cx[i]);
  let d = m.kind[i] === ARC_CCW ? a1 - a0 : a0 - a1;
  while (d <= 1e-9) d += 2 * Math.PI;
  while (d > 2 * Math.PI + 1e-9) d -= 2 * Math.PI;
  return d;
}

/** Length of move i in mm. */
export function moveLength(m: Motion, i: number): number {
  if (i === 0) return 0;
  const dz = m.z[i] - m.z[i - 1];
  if (!isArc(m.kind[i])) return Math.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1], dz);
  return Math.hypot(sweepOf(m, i) * Math.hypot(m.x[i] - m.cx[i], m.y[i] - m.cy[i]), dz);
}

/** The ends of the chords of arc move i, whose sagitta stays below `tolerance` mm; the last one is the end of the move. */
export function eachChord(
  m: Pick<Motion, 'kind' | 'x' | 'y' | 'z' | 'cx' | 'cy'>,
  i: number,
  tolerance: number,
  to: (x: number, y: number, z: number) => void,
): void {
  const sweep = sweepOf(m, i);
  const r = Math.hypot(m.x[i - 1] - m.cx[i], m.y[i - 1] - m.cy[i]);
  const n = arcChords(sweep, r, tolerance);
  const a0 = Math.atan2(m.y[i - 1] - m.cy[i], m.x[i - 1] - m.cx[i]);
  const step = ((m.kind[i] === ARC_CCW ? 1 : -1) * sweep) / n;
  const rise = (m.z[i] - m.z[i - 1]) / n;
  for (let k = 1; k < n; k++)
    to(m.cx[i] + r * Math.cos(a0 + step * k), m.cy[i] + r * Math.sin(a0 + step * k), m.z[i - 1] + rise * k);
  to(m.x[i], m.y[i], m.z[i]);
}

/** A motion with every arc replaced by chords whose sagitta stays below `tolerance` mm. */
export function withoutArcs(m: Motion, tolerance: number): Motion {
  let any = false;
  for (let i = 0; i < m.count && !any; i++) any = isArc(m.kind[i]);
  if (!any) return m;
  const b = new MotionBuilder();
  for (let i = 0; i < m.count; i++) {
    if (m.kind[i] === RAPID) b.rapid(m.x[i], m.y[i], m.z[i]);
    else if (m.kind[i] === PLUNGE) b.plunge(m.z[i], m.feed[i]);
    else if (m.kind[i] === FEED) b.line(m.x[i], m.y[i], m.z[i], m.feed[i]);
    else if (m.kind[i] === DWELL) b.dwell(m.feed[i]);
    else eachChord(m, i, tolerance, (x, y, z) => b.line(x, y, z, m.feed[i]));
  }
  return b.build();
}
