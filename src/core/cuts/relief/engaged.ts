import { grownForm, type CutterForm } from '../../cutters/form';
import type { Bounds } from '../../geometry/box';
import { contentKey } from '../../geometry/hash';
import type { MotionBuilder } from '../../motion/motion';
import { sparser, type HeightField } from '../../relief/field';
import { aroundChanges } from '../../relief/window';
import { easedDown, easedShare, type Easing } from '../easing';
import { reachOver } from './remembered';
import { standsFree } from './stands';

/**
 * How much material a cutter meets that goes along a surface, as many times as beside a line that it has cut before: where nothing beside
 * it has been cut yet it cuts on both sides, and in a crease it touches both of its walls.
 */

/** More nodes than so many are not asked for creases. */
const MOST_NODES = 250_000;
/** Walls that stand at so much to each other, as the cutter feels them, are met each by itself, radians. */
const APART = Math.PI / 3;

const HELD = 4;
const wedgedOf = aroundChanges(HELD);

/** How far beside a place it is asked whether the ground rises, mm. */
const besideOf = (f: HeightField, form: CutterForm): number => Math.max(f.cell, (form.ball || form.radius) / 4);

/** For each node 0 to 1: whether the ground rises on both sides of the cutter that stands there. */
function wedged(f: HeightField, form: CutterForm, allowance: number, least: number): Float32Array {
  const { z, cols, rows, cell } = standsFree(f, form, allowance, least);
  const out = new Float32Array(z.length);
  const n = Math.round(besideOf(f, form) / cell);
  for (const [d, nodes] of [
    [1, n],
    [cols, n],
    [cols + 1, Math.max(1, Math.round(n / Math.SQRT2))],
    [cols - 1, Math.max(1, Math.round(n / Math.SQRT2))],
  ]) {
    const far = nodes * cell * (d === 1 || d === cols ? 1 : Math.SQRT2);
    for (let r = n; r < rows - n; r++)
      for (let c = n; c < cols - n; c++) {
        const i = r * cols + c;
        const walls = Math.atan((z[i - nodes * d] - z[i]) / far) + Math.atan((z[i + nodes * d] - z[i]) / far);
        if (walls > APART * out[i]) out[i] = Math.min(1, walls / APART);
      }
  }
  return out;
}

/** Squares are so many step-overs wide, and most of them that are looked after. */
const WIDE = 2;
const MOST_SQUARES = 2 ** 29;
/** What was cut fewer squares before may be behind the cutter; that it is beside it is seen by where it lies. */
const BEHIND = 4;
/** Between two lines, and where one goes on round a corner beyond the other, it is alone for less than so many step-overs. */
const CORNER = 4;
/** What is beside a line goes on beside it for so many step-overs. */
const SEEN = 8;
/** Lines lie beside each other from so many step-overs on. */
const ASIDE = 0.4;
/** Where what was cut beside a place lies: to its side, and ahead, in step-overs. A line that cuts off a corner of a square is not noted there. */
const BESIDE = Float64Array.of(1, 0, -1, 0, 0, 0, 0.5, 0, -0.5, 0, 1, 0.5, 1, -0.5, -1, 0.5, -1, -0.5);

/** Where a cutter has been, in squares. */
class Been {
  private readonly cols: number;
  private readonly rows: number;
  private bits: Uint32Array;
  /** Places where it was last, x and y. */
  private readonly last = new Float64Array(2 * BEHIND).fill(NaN);
  private n = 0;
  /** Which of the places beside was the one where something had been cut. */
  private found = 0;

  constructor(
    private readonly box: Bounds,
    private readonly step: number,
  ) {
    // What lies on the line between two squares by rounding is none of our lines.
    this.cols = Math.ceil((box.x1 - box.x0) / (WIDE * step) + 0.37) + 1;
    this.rows = Math.ceil((box.y1 - box.y0) / (WIDE * step) + 0.37) + 1;
    this.bits = new Uint32Array(0);
    this.restart();
  }

  /** Nothing has been cut yet; or, for all that anybody knows, everything. */
  restart(all = false): void {
    const size = this.cols * this.rows;
    this.bits = new Uint32Array(!all && size <= MOST_SQUARES ? Math.ceil(size / 32) : 0);
    this.last.fill(NaN);
  }

  private squareOf(x: number, y: number): number {
    const c = Math.floor((x - this.box.x0) / (WIDE * this.step) + 0.37);
    const r = Math.floor((y - this.box.y0) / (WIDE * this.step) + 0.37);
    return c >= 0 && c < this.cols && r >= 0 && r < this.rows ? r * this.cols + c : -1;
  }

  put(x: number, y: number): void {
    const k = 2 * (this.n++ % BEHIND);
    const was = this.squareOf(this.last[k], this.last[k + 1]);
    if (was >= 0) this.bits[was >>> 5] |= 1 << (was & 31);
    this.last[k] = x;
    this.last[k + 1] = y;
  }

  /** Whether something beside a place has been cut; of too many squares nobody knows, and it counts as cut. */
  beside(x: number, y: number, dx: number, dy: number): boolean {
    if (!this.bits.length) return true;
    // Where it was beside the place before it is mostly beside this one.
    for (let n = 0, k = this.found; n < BESIDE.length; n += 2, k = (k + 2) % BESIDE.length)
      if (
        this.isPut(
          x + this.step * (BESIDE[k + 1] * dx - BESIDE[k] * dy),
          y + this.step * (BESIDE[k + 1] * dy + BESIDE[k] * dx),
        )
      ) {
        this.found = k;
        return true;
      }
    return this.isLast(x, y, dx, dy);
  }

  private isPut(x: number, y: number): boolean {
    const i = this.squareOf(x, y);
    return i >= 0 && ((this.bits[i >>> 5] >>> (i & 31)) & 1) === 1;
  }

  private isLast(x: number, y: number, dx: number, dy: number): boolean {
    const { last, step } = this;
    for (let k = 0; k < last.length; k += 2) {
      const u = last[k] - x;
      const v = last[k + 1] - y;
      const aside = Math.abs(u * dy - v * dx);
      if (aside > ASIDE * step && aside < 1.5 * step && Math.abs(u * dx + v * dy) < WIDE * step) return true;
    }
    return false;
  }
}

export interface EngagedBy {
  readonly field: HeightField;
  readonly form: CutterForm;
  readonly allowance: number;
  readonly least: number;
  /** Where its middle goes. */
  readonly box: Bounds;
  readonly step: number;
}

export class Engaged {
  private readonly been: Been;
  private readonly ground: HeightField;
  /** Ways are asked so closely, mm. */
  private readonly stretch: number;
  private readonly step: number;
  /** How long it has gone on with nothing beside it, mm. */
  private alone = Infinity;
  /** How long ago it was seen that there is something. */
  private unseen = 0;
  /** The share where the move before ended; below zero where none did. */
  private before = -1;

  constructor(
    { field, form, allowance, least, box, step }: EngagedBy,
    private readonly easing: Easing,
  ) {
    const thin = sparser(field, MOST_NODES);
    const beside = besideOf(thin, form);
    const grown = grownForm(form, allowance);
    const z = wedgedOf(
      thin,
      contentKey([form, allowance]),
      reachOver(thin, grown) + 2 * beside,
      (f) => wedged(f, form, allowance, least),
      least - allowance,
    );
    this.ground = { ...thin, z };
    this.been = new Been(box, step);
    this.stretch = Math.max(beside, step);
    this.step = step;
  }

  /** Nothing has been cut yet at the height where it goes on; or all that lies beside its lines. */
  restart(all = false): void {
    this.been.restart(all);
  }

  /** A line begins here. */
  begin(): void {
    this.alone = Infinity;
    this.before = -1;
  }

  /** So much of the feed at a place after so long a stretch. */
  private share(x: number, y: number, dx: number, dy: number, long: number): number {
    // Where there is something beside it, it is looked for again after some way.
    if (this.alone > 0 || (this.unseen += long) > SEEN * this.step) {
      this.alone = this.been.beside(x, y, dx, dy) ? 0 : this.alone + long;
      this.unseen = 0;
    }
    const { cols, rows, cell, x0, y0, z } = this.ground;
    const c = Math.round((x - x0) / cell);
    const r = Math.round((y - y0) / cell);
    const creased = c >= 0 && r >= 0 && c < cols && r < rows ? z[r * cols + c] : 0;
    return easedShare(this.easing, 1 + creased + (this.alone > CORNER * this.step ? 1 : 0));
  }

  /** Goes straight on to a place with the feed that it can go there, no faster down than `sink`, mm/min. */
  line(b: MotionBuilder, x1: number, y1: number, z1: number, feed: number, sink: number): void {
    const x0 = b.lastX;
    const y0 = b.lastY;
    const z0 = b.lastZ;
    const flat = Math.sqrt((x1 - x0) * (x1 - x0) + (y1 - y0) * (y1 - y0));
    const down = easedDown(feed, sink, Math.sqrt(flat * flat + (z1 - z0) * (z1 - z0)), z0 - z1);
    if (!(flat > 0)) return b.line(x1, y1, z1, down);
    const dx = (x1 - x0) / flat;
    const dy = (y1 - y0) / flat;
    const n = Math.ceil(flat / this.stretch);
    const each = Math.ceil(flat / n / (WIDE * this.step));
    let now = 0;
    let before = this.before < 0 || this.alone > 0 ? this.share(x0, y0, dx, dy, 0) : this.before;
    for (let k = 1; k <= n; k++) {
      for (let j = 0; j < each; j++) {
        const far = (flat * (k - 1 + j / each)) / n;
        this.been.put(x0 + dx * far, y0 + dy * far);
      }
      const there = this.share(x0 + ((x1 - x0) * k) / n, y0 + ((y1 - y0) * k) / n, dx, dy, flat / n);
      // What is hard at either end of a stretch is hard along it.
      const part = Math.min(feed * before, feed * there, down);
      before = there;
      if (now && part !== now) {
        const t = (k - 1) / n;
        b.line(x0 + (x1 - x0) * t, y0 + (y1 - y0) * t, z0 + (z1 - z0) * t, now);
      }
      now = part;
    }
    this.before = before;
    b.line(x1, y1, z1, now);
  }
}
