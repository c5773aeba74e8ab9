import { widthOf, type CutterForm } from '../../cutters/form';
import { memo, mix, mixOther } from '../../geometry/hash';
import type { HeightField } from '../../relief/field';
import { bitsOf } from '../../relief/window';
import type { Track } from './follow';

/**
 * Ways over a surface that were worked out before: where a surface has changed in one place only, ways elsewhere are the same, and
 * are not looked for again.
 */
export interface RememberedWays {
  /** The way along a track, if it is known and nothing has changed that the cutter could have met on it. */
  of(t: Track): Float64Array | null;
  keep(t: Track, way: Float64Array): void;
  /** All ways were asked for or kept: what was known besides is forgotten. Until then work may be given up, and nothing has changed. */
  done(): void;
}

/** Cutters and ways of going along that are remembered at once, and bytes of ways of each. */
const HELD = 8;
const MOST_BYTES = 64e6;
/** Nodes along a side of the squares that have changed or not. */
const SQUARE = 8;

interface Known {
  field: HeightField | null;
  reach: number;
  least: number;
  ways: Map<string, Float64Array>;
}
const kept = memo<Known>(HELD);

/** How far from its middle a cutter can meet a surface, mm: what of it stands higher than all of that meets nothing. */
export function reachOver(f: HeightField, form: CutterForm): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < f.z.length; i++) {
    const h = f.z[i];
    if (h < low) low = h;
    if (h > high) high = h;
  }
  return high > low ? Math.min(form.radius, widthOf(form, high - low)) : form.radius;
}

/**
 * Ways of a cutter over a surface; `key`: all that they depend on beside it and their tracks; `own`: how far it reaches (`reachOver`);
 * `least`: it goes no lower than so, and a way that keeps above that by more than `slack` does not depend on it. mm.
 */
export function remembered(field: HeightField, key: string, own: number, least = -Infinity, slack = 0): RememberedWays {
  const known = kept(`${key} ${[field.cols, field.rows, field.cell, field.x0, field.y0].join()}`, () => ({
    field: null,
    reach: 0,
    least: -Infinity,
    ways: new Map(),
  }));
  return new Remembered(known, field, own, least, slack);
}

class Remembered implements RememberedWays {
  private readonly changed: Changes | null;
  private readonly reach: number;
  /** Ways that come no higher than so depend on how low they may go, and that has changed. */
  private readonly above: number;
  private readonly now = new Map<string, Float64Array>();
  private bytes = 0;

  constructor(
    private readonly known: Known,
    private readonly field: HeightField,
    private readonly own: number,
    private readonly least: number,
    slack: number,
  ) {
    this.above = known.least === least ? -Infinity : Math.max(known.least, least) + slack;
    this.changed = known.field && changes(known.field, field);
    this.reach = Math.max(own, known.reach);
  }

  of(t: Track): Float64Array | null {
    const way = this.changed && this.known.ways.get(nameOf(t));
    if (!way || (this.above > -Infinity && !keepsAbove(way, this.above))) return null;
    return meets(t, this.field, this.changed!, this.reach) ? null : way;
  }

  keep(t: Track, way: Float64Array): void {
    this.bytes += way.byteLength;
    if (this.bytes <= MOST_BYTES) this.now.set(nameOf(t), way);
  }

  done(): void {
    const few = this.bytes <= MOST_BYTES;
    this.known.field = few ? this.field : null;
    this.known.reach = this.own;
    this.known.least = this.least;
    this.known.ways = few ? this.now : new Map();
  }
}

/** Whether all places of a way (x, y, z interleaved) lie above a height. */
function keepsAbove(way: Float64Array, height: number): boolean {
  for (let i = 2; i < way.length; i += 3) if (!(way[i] > height)) return false;
  return true;
}

/** Numbers in two, added to two. */
function mixed(into: Int32Array, numbers: Float64Array): void {
  // They may begin anywhere in their memory.
  const words = new Int32Array(numbers.buffer, numbers.byteOffset, 2 * numbers.length);
  let a = into[0];
  let b = into[1];
  for (let i = 0; i < words.length; i++) {
    a = mix(a, words[i]);
    b = mixOther(b, words[i]);
  }
  into[0] = a;
  into[1] = b;
}

const names = new WeakMap<Track, string>();
/** All of a track in two numbers. */
function nameOf(t: Track): string {
  let name = names.get(t);
  if (!name) names.set(t, (name = named(t)));
  return name;
}
function named({ points, raised, closed, straight, least = NaN }: Track): string {
  const name = Int32Array.of(closed ? 1 : 2, straight ? 3 : 4);
  mixed(name, points);
  if (raised) mixed(name, raised);
  mixed(name, Float64Array.of(least, points.length));
  return `${name[0]} ${name[1]}`;
}

/** How many squares have changed left of and below each corner of them: any rectangle is asked by its four. */
interface Changes {
  readonly across: number;
  readonly up: number;
  readonly sums: Int32Array;
}

function changes(was: HeightField, now: HeightField): Changes {
  const { cols, rows } = now;
  const [across, up] = [Math.ceil(cols / SQUARE), Math.ceil(rows / SQUARE)];
  const [a, b] = [bitsOf(was), bitsOf(now)];
  const sums = new Int32Array((across + 1) * (up + 1));
  const differs = new Uint8Array(across);
  for (let j = 0; j < up; j++) {
    differs.fill(0);
    for (let r = j * SQUARE; r < Math.min(rows, (j + 1) * SQUARE); r++)
      for (let c = 0, i = r * cols; c < cols; c++, i++) if (a[i] !== b[i]) differs[c >> 3] = 1;
    const [low, high] = [j * (across + 1), (j + 1) * (across + 1)];
    for (let i = 0, sum = 0; i < across; i++) {
      sum += differs[i];
      sums[high + i + 1] = sums[low + i + 1] + sum;
    }
  }
  return { across, up, sums };
}

/** Whether anything has changed in the squares of a box (x from .. to, y from .. to), with `more` to every side. */
function differ(
  f: HeightField,
  { across, up, sums }: Changes,
  xFrom: number,
  xTo: number,
  yFrom: number,
  yTo: number,
  more: number,
): boolean {
  const side = SQUARE * f.cell;
  const c0 = Math.min(across, Math.max(0, Math.floor((xFrom - more - f.x0) / side)));
  const c1 = Math.min(across, Math.max(0, Math.floor((xTo + more - f.x0) / side)) + 1);
  const r0 = Math.min(up, Math.max(0, Math.floor((yFrom - more - f.y0) / side))) * (across + 1);
  const r1 = Math.min(up, Math.max(0, Math.floor((yTo + more - f.y0) / side)) + 1) * (across + 1);
  return sums[r1 + c1] - sums[r0 + c1] - sums[r1 + c0] + sums[r0 + c0] > 0;
}

/** Whether anything has changed within reach of a track; each stretch of it that is as long as a square asks for itself. */
function meets(t: Track, f: HeightField, changed: Changes, reach: number): boolean {
  const side = SQUARE * f.cell;
  // The surface between two nodes is of both; and a line is asked a little beside itself.
  const more = reach + 2 * f.cell;
  const { points: p } = t;
  const n = p.length / 2;
  // Most that are not met lie nowhere near.
  let [west, east, south, north] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 2) {
    const x = p[i];
    const y = p[i + 1];
    if (x < west) west = x;
    if (x > east) east = x;
    if (y < south) south = y;
    if (y > north) north = y;
  }
  if (!differ(f, changed, west, east, south, north, more)) return false;
  for (let i = 0; i < (t.closed || n === 1 ? n : n - 1); i++) {
    const ax = p[2 * i];
    const ay = p[2 * i + 1];
    const dx = p[(2 * i + 2) % p.length] - ax;
    const dy = p[(2 * i + 3) % p.length] - ay;
    const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / side));
    for (let k = 0; k < parts; k++) {
      const [x, y] = [ax + (dx * k) / parts, ay + (dy * k) / parts];
      const [tx, ty] = [ax + (dx * (k + 1)) / parts, ay + (dy * (k + 1)) / parts];
      if (differ(f, changed, Math.min(x, tx), Math.max(x, tx), Math.min(y, ty), Math.max(y, ty), more)) return true;
    }
  }
  return false;
}
