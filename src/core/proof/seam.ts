import { lineLength, type Region } from '../geometry/region';
import { makeInside } from '../geometry/inside';
import { makeSegmentIndex } from '../geometry/segmentIndex';
import { stillWanted } from '../units/stillWanted';
import { cutByNearby, nearby, type Nearby } from './along';
import type { Half } from './fit';

export interface SeamOf {
  readonly pocket: Half;
  readonly plug: Half;
  readonly turned: 'x' | 'y';
  /** Along what it is looked for: the wanted outline of the pocket at its face. */
  readonly outlines: Region;
  /** At which height both walls are met, in the frame of each half, mm. */
  readonly pocketAt: number;
  readonly plugAt: number;
  /** Half angle of the cones that cut the walls, radians; 0 where they are upright. */
  readonly lean: number;
  /** How far inside and outside of the outline walls are looked for, mm. */
  readonly within: number;
  readonly outside: number;
  /** Where outlines are narrower than twice this no walls are so high, and none are looked for, mm; 0 where it is not said. */
  readonly narrow?: number;
  /** Whether there is no wall at a place because another pocket begins there: none is looked for along it. */
  isOpen?(x: number, y: number): boolean;
}

/** One place of the seam. */
export interface SeamPlace {
  /** How far along all outlines, one after the other, mm. */
  readonly along: number;
  readonly x: number;
  readonly y: number;
  /** Across the walls, mm; below zero where they lie in one another, NaN where one of them is not met. */
  readonly wide: number;
  /** Whether it lies at a corner that is relieved, and is meant to be wider. */
  readonly relieved?: boolean;
}

/** Places lie about so far apart, mm, and are so many at most. */
const APART = 0.4;
const MOST = 1000;
/** Along a line across the walls heights lie so far apart, mm: an upright wall is looked for once more between two of them, so finely. */
const COARSE = 0.02;
const FINE = 0.0005;

/**
 * The seam along outlines: at each place both programs are cut exactly along a line across the walls, and where these pass a
 * height tells how far they stand apart there.
 *
 *      pocket ____                   ____ plug, turned over
 *                 \ <-- seam --> \
 *      ............\..............\...... height at which both are met
 *                   \______        \_____
 *
 * `tell` 0..1. Throws Cancelled.
 */
export function seamAlong(f: SeamOf, tell: (done: number) => void = () => {}): SeamPlace[] {
  const total = f.outlines.reduce((s, l) => s + lineLength(l, true), 0);
  if (!(total > 0)) return [];
  const step = Math.max(APART, total / MOST);
  const out: SeamPlace[] = [];
  const outline = f.narrow ? makeSegmentIndex(f.outlines) : null;
  const inside = makeInside(f.outlines);
  // Of a tip the other side may be passed by then.
  const isNarrow = (x: number, y: number) =>
    !!outline && (!inside(x, y) || outline.distance(x, y, f.narrow) < f.narrow! - 0.01);
  let [begun, near] = [null as { x: number; y: number } | null, null as Near | null];
  eachPlace(f.outlines, step, (along, x, y, nx, ny) => {
    stillWanted();
    const deep = f.narrow ?? 0;
    if (isNarrow(x + nx * deep, y + ny * deep) || f.isOpen?.(x - nx * BESIDE, y - ny * BESIDE)) return;
    // Moves that come near are looked for once for many places.
    if (!begun || !near || Math.hypot(x - begun.x, y - begun.y) > TILE) {
      begun = { x, y };
      near = nearTo(f, x, y, TILE + Math.max(f.within, f.outside));
    }
    out.push({ along, x, y, wide: across(f, near, x, y, nx, ny) });
    tell(along / total);
  });
  return out;
}

/** Places along outlines about a step apart, each in the midst of a stretch of its own, with the direction that leads inside. */
function eachPlace(
  outlines: Region,
  step: number,
  take: (along: number, x: number, y: number, nx: number, ny: number) => void,
): void {
  let before = 0;
  for (const l of outlines) {
    const long = lineLength(l, true);
    const n = Math.max(3, Math.round(long / step));
    let [s, k] = [0, 0];
    for (let i = 0; i < l.length && k < n; i += 2) {
      const j = (i + 2) % l.length;
      const [ex, ey] = [l[j] - l[i], l[j + 1] - l[i + 1]];
      const side = Math.hypot(ex, ey);
      for (; k < n && ((k + 0.5) * long) / n <= s + side; k++) {
        const way = ((k + 0.5) * long) / n - s;
        // Inside lies left.
        take(before + s + way, l[i] + (way * ex) / side, l[i + 1] + (way * ey) / side, -ey / side, ex / side);
      }
      s += side;
    }
    before += long;
  }
}

/** So far outside of an outline another pocket is looked for, mm. */
const BESIDE = 0.1;
/** Moves are looked for within so much of a place, mm. */
const TILE = 4;

interface Near {
  readonly pocket: Nearby;
  readonly plug: Nearby;
}
/** Where a place of the pocket lies on the plug, which lies turned over. */
const over = (f: SeamOf): Turning => {
  const { width, height } = f.plug.blank;
  return f.turned === 'y' ? (x, y) => [width - x, y] : (x, y) => [x, height - y];
};
const nearTo = (f: SeamOf, x: number, y: number, away: number): Near => ({
  pocket: nearby(f.pocket.programs, f.pocket.tools, x, y, away),
  plug: nearby(f.plug.programs, f.plug.tools, ...over(f)(x, y), away),
});

/** How far the walls stand apart at a place, along the direction nx, ny that leads inside. */
function across(f: SeamOf, near: Near, x: number, y: number, nx: number, ny: number): number {
  const line =
    (moves: Nearby, turn: Turning, found: Half['found']): Heights =>
    (from, to, count) => {
      const [x0, y0] = turn(x + nx * from, y + ny * from);
      const [x1, y1] = turn(x + nx * to, y + ny * to);
      return cutByNearby(moves, { x0, y0, x1, y1 }, count, found);
    };
  const span = [-f.outside, f.within] as const;
  const upright = f.lean === 0;
  // From outside inwards: where the pocket begins, and where the plug does behind what was cut round it.
  const meant = -f.pocketAt * Math.tan(f.lean);
  const pocket = wallAt(
    line(near.pocket, (px, py) => [px, py], f.pocket.found),
    f.pocketAt,
    span,
    upright,
    true,
    meant,
  );
  const plug = wallAt(
    line(near.plug, over(f), f.plug.found),
    f.plugAt,
    span,
    upright,
    false,
    pocket === pocket ? pocket : meant,
  );
  return (plug - pocket) * Math.cos(f.lean);
}

type Turning = (x: number, y: number) => [number, number];
type Heights = (from: number, to: number, count: number) => Float32Array;

/**
 * Where heights along a line pass a height, downwards or upwards: of several places that which is the nearest to where it is
 * looked for, since others belong to what lies beside. NaN where they do not.
 */
export function wallAt(
  heights: Heights,
  at: number,
  [from, to]: readonly [number, number],
  upright: boolean,
  down: boolean,
  near = 0,
): number {
  const count = Math.ceil((to - from) / COARSE) + 1;
  const step = (to - from) / (count - 1);
  const z = heights(from, to, count);
  let k = -1;
  for (let i = 1; i < count; i++)
    if (
      z[i - 1] < at !== down &&
      z[i] < at === down &&
      (k < 0 || Math.abs(from + i * step - near) < Math.abs(from + k * step - near))
    )
      k = i;
  if (k < 0) return NaN;
  const s = from + (k - 1) * step;
  if (!upright) return s + (step * (at - z[k - 1])) / (z[k] - z[k - 1]);
  const n = Math.ceil(step / FINE) + 1;
  const finer = heights(s, s + step, n);
  const j = finer.findIndex((h) => h < at === down);
  // What rounding leaves to neither lies at the end.
  return s + (step * (j > 0 ? j - 0.5 : j < 0 ? n - 1 : 0)) / (n - 1);
}
