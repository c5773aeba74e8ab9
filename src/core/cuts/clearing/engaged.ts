import type { Bounds } from '../../geometry/box';
import { makeStretches } from '../../geometry/inside';
import type { Region } from '../../geometry/region';
import {
  DWELL,
  FEED,
  isArc,
  moveLength,
  PLUNGE,
  RAPID,
  ARC_CCW,
  sweepOf,
  type Motion,
  type MotionBuilder,
} from '../../motion/motion';
import { stillWanted } from '../../units/stillWanted';
import { easedShare, type Easing } from '../easing';

/**
 * How much of its rim a cutter has in material while it clears a level: in the first line all of the half that goes ahead, beside a line
 * that was cut before less, in a corner more.
 *
 *      material   . - .            ahead of the cutter 16 places of its rim are asked
 *     ----------/   ^   \------    whether it, or a wider cutter, has been there
 *               |   |   |
 *      cleared   \     /
 */

/** Squares across the radius of a cutter, and most of them in all. */
const FINE = 10;
const MOST = 16e6;
/** Places of the rim that are asked, and places along a way for each radius of the cutter. */
const RIM = 16;
const ALONG = 4;
/** Those places, ahead and to the left, on a rim of radius 1. */
const AHEAD = Float64Array.from({ length: RIM }, (_, k) => Math.cos(((k + 0.5) / RIM - 0.5) * Math.PI));
const LEFT = Float64Array.from({ length: RIM }, (_, k) => Math.sin(((k + 0.5) / RIM - 0.5) * Math.PI));

export class ClearedLevel {
  private readonly cell: number;
  private readonly cols: number;
  private readonly gone: Uint8Array;
  /** Of the disc: for each row of squares from its middle, how far it goes to both sides. */
  private readonly rim: number;

  constructor(
    private readonly box: Bounds,
    readonly radius: number,
  ) {
    const [wide, high] = [box.x1 - box.x0 + 2 * radius, box.y1 - box.y0 + 2 * radius];
    this.cell = Math.max(radius / FINE, Math.sqrt((wide * high) / MOST));
    this.cols = Math.ceil(wide / this.cell) + 3;
    this.gone = new Uint8Array(this.cols * (Math.ceil(high / this.cell) + 3));
    // Squares are gone when their middle is: what is asked lies so far outside that its own way has not cleared it.
    this.rim = radius + this.cell;
  }

  private row(y: number): number {
    return (y - this.box.y0 + this.radius) / this.cell + 1;
  }
  private col(x: number): number {
    return (x - this.box.x0 + this.radius) / this.cell + 1;
  }

  /** What others have cleared. */
  clearAll(region: Region): void {
    const stretches = makeStretches(region);
    const places = { x0: this.box.x0 - this.radius, first: -1, cell: this.cell };
    for (let r = 0; r * this.cols < this.gone.length; r++) {
      stillWanted();
      const y = this.box.y0 - this.radius + (r - 1) * this.cell;
      for (const [from, to] of stretches(y, places, this.cols))
        this.gone.fill(1, r * this.cols + from, r * this.cols + to);
    }
  }

  /** The cutter has stood at a place. */
  clear(x: number, y: number): void {
    const { gone, cols } = this;
    const u = this.col(x);
    const v = this.row(y);
    const far = this.radius / this.cell;
    const top = Math.min(gone.length / cols - 1, Math.floor(v + far));
    for (let r = Math.max(0, Math.ceil(v - far)); r <= top; r++) {
      const half = Math.sqrt(Math.max(0, far * far - (r - v) * (r - v)));
      const from = r * cols + Math.max(0, Math.ceil(u - half));
      const to = r * cols + Math.min(cols - 1, Math.floor(u + half));
      // So few are set one by one sooner than asked for.
      for (let i = from; i <= to; i++) gone[i] = 1;
    }
  }

  /** Share of the half of its rim that goes ahead (0 to 1) that has not been cleared round a place; `dx`, `dy`: ahead, of length 1. */
  met(x: number, y: number, dx: number, dy: number): number {
    let met = 0;
    const far = this.rim / this.cell;
    // Half a square more, and what is cut off is what is nearest.
    const u = this.col(x) + 0.5;
    const v = this.row(y) + 0.5;
    for (let k = 0; k < RIM; k++) {
      const c = Math.floor(u + far * (AHEAD[k] * dx - LEFT[k] * dy));
      const r = Math.floor(v + far * (AHEAD[k] * dy + LEFT[k] * dx));
      const i = r * this.cols + c;
      if (!(c >= 0 && c < this.cols && i >= 0 && i < this.gone.length && this.gone[i])) met++;
    }
    return met / RIM;
  }

  /** The same beside a straight line that was cut so far away. */
  beside(step: number): number {
    const left = Math.max(-1, Math.min(1, (this.radius - step) / this.rim));
    return Math.max(1 / RIM, (Math.PI / 2 - Math.asin(left)) / Math.PI);
  }
}

/**
 * Moves at one level from their first, at which the cutter stands already, put to others with feeds that are eased where it meets more
 * than beside a line `step` mm away. Only moves that stay at the level clear it; how it comes down is left as it is.
 */
export function easeLevel(
  m: Motion,
  z: number,
  level: ClearedLevel,
  step: number,
  easing: Easing,
  to: MotionBuilder,
): void {
  const usual = level.beside(step);
  const share = (x: number, y: number, dx: number, dy: number) => easedShare(easing, level.met(x, y, dx, dy) / usual);
  for (let i = 1; i < m.count; i++) {
    const { kind } = m;
    if (kind[i] === RAPID) to.rapid(m.x[i], m.y[i], m.z[i]);
    else if (kind[i] === PLUNGE) to.plunge(m.z[i], m.feed[i]);
    else if (kind[i] === DWELL) to.dwell(m.feed[i]);
    else if (m.z[i] !== z || m.z[i - 1] !== z) {
      if (kind[i] === FEED) to.line(m.x[i], m.y[i], m.z[i], m.feed[i]);
      else to.arc(kind[i] === ARC_CCW, m.x[i], m.y[i], m.z[i], m.cx[i], m.cy[i], m.feed[i]);
    } else easeMove(m, i, level, share, to);
    if (m.z[i] === z && kind[i] !== RAPID) level.clear(m.x[i], m.y[i]);
  }
}

/** One move, in as many as it has feeds: what is hard at either end of a stretch is hard along it. */
function easeMove(
  m: Motion,
  i: number,
  level: ClearedLevel,
  share: (x: number, y: number, dx: number, dy: number) => number,
  to: MotionBuilder,
): void {
  const n = Math.max(1, Math.ceil((ALONG * moveLength(m, i)) / level.radius));
  const [x0, y0, x1, y1] = [m.x[i - 1], m.y[i - 1], m.x[i], m.y[i]];
  const arc = isArc(m.kind[i]);
  const turn = m.kind[i] === ARC_CCW ? 1 : -1;
  const sweep = arc ? turn * sweepOf(m, i) : 0;
  const [cx, cy] = [m.cx[i], m.cy[i]];
  const radius = arc ? Math.hypot(x0 - cx, y0 - cy) : 0;
  const from = arc ? Math.atan2(y0 - cy, x0 - cx) : 0;
  const long = Math.hypot(x1 - x0, y1 - y0) || 1;
  /** Where it is after so many stretches, and which way it goes. */
  const at = (k: number): readonly [x: number, y: number, dx: number, dy: number] => {
    const t = k / n;
    if (!arc) return [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t, (x1 - x0) / long, (y1 - y0) / long];
    const [c, s] = [Math.cos(from + sweep * t), Math.sin(from + sweep * t)];
    return [cx + radius * c, cy + radius * s, -turn * s, turn * c];
  };
  const put = (k: number, part: number) => {
    const [x, y] = k === n ? [x1, y1] : at(k);
    if (arc) to.arc(turn > 0, x, y, m.z[i], cx, cy, m.feed[i] * part);
    else to.line(x, y, m.z[i], m.feed[i] * part);
  };
  let now = 0;
  let before = share(...at(0));
  for (let k = 1; k <= n; k++) {
    stillWanted(RIM);
    const [x, y] = at(k - 1);
    level.clear(x, y);
    const there = share(...at(k));
    const part = Math.min(before, there);
    before = there;
    if (now && part !== now) put(k - 1, now);
    now = part;
  }
  put(n, now);
}
