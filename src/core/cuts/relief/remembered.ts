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

/** Ways of a cutter over a surface; `key`: all that they depend on beside it and their tracks; `own`: how far it reaches (`reachOver`). */
export function remembered(field: HeightField, key: string, own: number): RememberedWays {
  const known = kept(`${key} ${[field.cols, field.rows, field.cell, field.x0, field.y0].join()}`, () => ({
    field: null,
    reach: 0,
    ways: new Map(),
  }));
  const changed = known.field && changes(known.field, field);
  const reach = Math.max(own, known.reach);
  const now = new Map<string, Float64Array>();
  let bytes = 0;
  return {
    of(t) {
      const way = changed && known.ways.get(nameOf(t));
      if (!way || meets(t, field, changed, reach)) return null;
      return way;
    },
    keep(t, way) {
      bytes += way.byteLength;
      if (bytes <= MOST_BYTES) now.set(nameOf(t), way);
    },
    done() {
      known.field = bytes <= MOST_BYTES ? field : null;
      known.reach = own;
      known.ways = bytes <= MOST_BYTES ? now : new Map();
    },
  };
}

/** All of a track in two numbers. */
function nameOf({ points, raised, closed, straight, least = NaN }: Track): string {
  let [a, b] = [closed ? 1 : 2, straight ? 3 : 4];
  const add = (numbers: Float64Array) => {
    // Numbers may begin anywhere in their memory.
    const words = new Int32Array(numbers.buffer, numbers.byteOffset, 2 * numbers.length);
    for (let i = 0; i < words.length; i++) {
      a = mix(a, words[i]);
      b = mixOther(b, words[i]);
    }
  };
  add(points);
  if (raised) add(raised);
  add(Float64Array.of(least, points.length));
  return `${a} ${b}`;
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

/** Whether anything has changed within reach of a track; each stretch of it that is as long as a square asks for itself. */
function meets(t: Track, { cell, x0, y0 }: HeightField, { across, up, sums }: Changes, reach: number): boolean {
  const side = SQUARE * cell;
  // The surface between two nodes is of both; and a line is asked a little beside itself.
  const more = reach + 2 * cell;
  const column = (x: number) => Math.min(across, Math.max(0, Math.floor((x - x0) / side)));
  const row = (y: number) => Math.min(up, Math.max(0, Math.floor((y - y0) / side)));
  const differ = (ax: number, ay: number, bx: number, by: number): boolean => {
    const [c0, c1] = [column(Math.min(ax, bx) - more), Math.min(across, column(Math.max(ax, bx) + more) + 1)];
    const [r0, r1] = [row(Math.min(ay, by) - more), Math.min(up, row(Math.max(ay, by) + more) + 1)];
    const at = (r: number, c: number) => sums[r * (across + 1) + c];
    return at(r1, c1) - at(r0, c1) - at(r1, c0) + at(r0, c0) > 0;
  };
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
  if (!differ(west, south, east, north)) return false;
  for (let i = 0; i < (t.closed || n === 1 ? n : n - 1); i++) {
    const [ax, ay, bx, by] = [p[2 * i], p[2 * i + 1], p[(2 * i + 2) % p.length], p[(2 * i + 3) % p.length]];
    const parts = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / side));
    for (let k = 0; k < parts; k++) {
      const at = (s: number) => [ax + ((bx - ax) * s) / parts, ay + ((by - ay) * s) / parts] as const;
      if (differ(...at(k), ...at(k + 1))) return true;
    }
  }
  return false;
}
