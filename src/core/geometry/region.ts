import {
  Clipper64,
  ClipperOffset,
  ClipType,
  EndType,
  FillRule,
  JoinType,
  PathType,
  type Path64,
  type Paths64,
} from 'clipper2-ts';
import { groupsOf, workedOut } from './local';
import { inBox } from './box';
import { boxOfLoop, distinct, type Loop } from './loop';
import { UNITS_PER_MM } from './places';
import { stillWanted } from '../units/stillWanted';

export { boxesMeet, boxHolds, inBox, type Bounds } from './box';
export { boundsOf, boxOfLoop, distinct, type Loop } from './loop';

/**
 * Regions of the plane and their boolean algebra.
 *
 * A loop is x, y interleaved in mm without a repeated last point. A region is a list of loops: outer
 * ones counter-clockwise, holes clockwise, none crossing. The integer unit of the algebra is 10 nm.
 */
export type Region = Loop[];
export type Fill = 'evenodd' | 'nonzero';

/** Coordinates beyond this (mm) would lose digits in the integer algebra. */
const LARGEST = 1e7;

/** Refuses corners that the algebra cannot hold. Throws RangeError. */
function held(loops: readonly Loop[]): readonly Loop[] {
  for (const l of loops)
    for (const v of l)
      if (!(Math.abs(v) < LARGEST))
        throw new RangeError('An outline has a point that is not a number or is more than 10 km away.');
  return loops;
}

const toPath = (loop: Float64Array): Path64 =>
  Array.from({ length: loop.length / 2 }, (_, i) => ({ x: loop[2 * i], y: loop[2 * i + 1] }));
const toPaths = (loops: readonly Float64Array[]): Paths64 => loops.map(toPath);
function fromPath(path: Path64): Float64Array {
  const loop = new Float64Array(2 * path.length);
  path.forEach((p, i) => loop.set([p.x, p.y], 2 * i));
  return loop;
}
const rule = (fill: Fill) => (fill === 'evenodd' ? FillRule.EvenOdd : FillRule.NonZero);
const usable = (paths: Paths64): Float64Array[] =>
  paths
    .map(fromPath)
    .map(distinct)
    .filter((l) => l.length >= 6);

/** A line crosses many outlines: a question at each takes nothing beside it. */
const SOME = 64;
let givenUp: { readonly why: unknown } | null = null;
/**
 * The algebra works from scan line to scan line, and has no word for giving up: at each it asks whether its work is still wanted. What
 * is thrown there it keeps to itself, and comes to a quick end with nothing: `algebra` throws it again.
 */
const lines = Clipper64.prototype as unknown as { doTopOfScanbeam(y: number): void };
const { doTopOfScanbeam } = lines;
lines.doTopOfScanbeam = function (this: typeof lines, y) {
  try {
    stillWanted(SOME);
  } catch (why) {
    givenUp = { why };
    throw why;
  }
  doTopOfScanbeam.call(this, y);
};
function algebra(work: () => unknown): void {
  givenUp = null;
  work();
  const lost = givenUp as { readonly why: unknown } | null;
  givenUp = null;
  if (lost) throw lost.why;
}

/** By so much more than their boxes (mm) loops reach: one that touches another belongs to it. */
const TOUCHING = 2e-5;

/** Combines loops, each group of those that lie about each other for itself. */
function combine(kind: ClipType, a: readonly Loop[], b: readonly Loop[], fill: Fill): Region {
  const all = held([...a, ...b]);
  return groupsOf(all, TOUCHING).flatMap((group) => {
    const mine = group.filter((k) => k < a.length);
    // What is taken away, or shared, where nothing is.
    if (!mine.length || (kind === ClipType.Intersection && mine.length === group.length)) {
      if (kind !== ClipType.Union) return [];
    }
    return workedOut(
      `${kind} ${fill} ${mine.length}`,
      group.map((k) => all[k]),
      (loops) => {
        const engine = new Clipper64();
        engine.preserveCollinear = false;
        if (mine.length) engine.addSubject(toPaths(loops.slice(0, mine.length)));
        if (loops.length > mine.length) engine.addClip(toPaths(loops.slice(mine.length)));
        const out: Paths64 = [];
        algebra(() => engine.execute(kind, rule(fill), out));
        return usable(out);
      },
    );
  });
}

/** Any loops, crossing or doubled, to a region under the fill rule. */
export const normalise = (loops: readonly Loop[], fill: Fill = 'nonzero'): Region =>
  loops.length ? combine(ClipType.Union, loops, [], fill) : [];
export const unite = (a: Region, b: Region): Region => combine(ClipType.Union, a, b, 'nonzero');
export const intersect = (a: Region, b: Region): Region => combine(ClipType.Intersection, a, b, 'nonzero');
export const subtract = (a: Region, b: Region): Region =>
  a.length === 0 ? [] : b.length === 0 ? a : combine(ClipType.Difference, a, b, 'nonzero');

/** A connected piece of a region: its outer loop first, then its holes. */
export type Component = Region;

/**
 * A point of a normalised region just beside the longest edge of one of its loops. Loops may touch, so where a loop lies is
 * asked of such a point, not of a corner.
 */
export function pointBeside(loop: Loop): { x: number; y: number } {
  let at = 0;
  let longest = -1;
  for (let i = 0; i < loop.length; i += 2) {
    const j = (i + 2) % loop.length;
    const l = Math.hypot(loop[j] - loop[i], loop[j + 1] - loop[i + 1]);
    if (l > longest) {
      longest = l;
      at = i;
    }
  }
  const to = (at + 2) % loop.length;
  const step = Math.min(1e-5, longest / 4) / longest;
  return {
    x: (loop[at] + loop[to]) / 2 - (loop[to + 1] - loop[at + 1]) * step,
    y: (loop[at + 1] + loop[to + 1]) / 2 + (loop[to] - loop[at]) * step,
  };
}

/** Splits a normalised region into connected components: each hole goes to the smallest outer loop around it. */
export function components(region: Region): Component[] {
  const outers = region
    .filter((l) => loopArea(l) > 0)
    .map((loop) => ({ loops: [loop], area: loopArea(loop), box: boxOfLoop(loop) }));
  outers.sort((a, b) => a.area - b.area);
  for (const hole of region) {
    if (!(loopArea(hole) < 0)) continue;
    const { x, y } = pointBeside(hole);
    const home = outers.find((o) => inBox(o.box, x, y) && contains([o.loops[0]], x, y));
    if (home) home.loops.push(hole);
  }
  return outers.map((o) => o.loops);
}

/** How corners come out that an offset opens: round, sharp up to four times the distance, or cut off square. */
export type CornerStyle = 'round' | 'sharp' | 'square';
const joins: Record<CornerStyle, JoinType> = { round: JoinType.Round, sharp: JoinType.Miter, square: JoinType.Square };

/**
 * Moves the outline by `distance` mm (outwards when positive). `tolerance` is the sagitta of round corners in mm.
 */
export function offset(region: Region, distance: number, tolerance = 0.002, corners: CornerStyle = 'round'): Region {
  if (region.length === 0 || distance === 0) return region;
  // Corners that come out sharp reach up to four times as far.
  const reach = Math.max(0, 2 * distance * (corners === 'sharp' ? 4 : 1.5)) + TOUCHING;
  return groupsOf(held(region), reach).flatMap((group) =>
    workedOut(
      `offset ${distance} ${tolerance} ${corners}`,
      group.map((k) => region[k]),
      (loops) => {
        const engine = new ClipperOffset(4, tolerance * UNITS_PER_MM);
        engine.addPaths(toPaths(loops), joins[corners], EndType.Polygon);
        const out: Paths64 = [];
        algebra(() => engine.execute(distance * UNITS_PER_MM, out));
        return usable(out);
      },
    ),
  );
}

/** What a disc of the given radius covers when its centre runs along a line (open, x, y interleaved). */
export function thicken(line: Loop, radius: number, tolerance = 0.002): Region {
  return workedOut(`thicken ${radius} ${tolerance}`, held([line]), (lines) => {
    const engine = new ClipperOffset(2, tolerance * UNITS_PER_MM);
    engine.addPaths(toPaths(lines), JoinType.Round, EndType.Round);
    const out: Paths64 = [];
    algebra(() => engine.execute(radius * UNITS_PER_MM, out));
    return usable(out);
  });
}

/** The parts of open lines (x, y interleaved, mm) that lie inside a region. */
export function clipLines(lines: readonly Loop[], region: Region): Loop[] {
  if (!lines.length || !region.length) return [];
  return workedOut(`clip ${region.length}`, held([...region, ...lines]), (loops) => {
    const engine = new Clipper64();
    engine.addPaths(toPaths(loops.slice(region.length)), PathType.Subject, true);
    engine.addClip(toPaths(loops.slice(0, region.length)));
    const closed: Paths64 = [];
    const open: Paths64 = [];
    algebra(() => engine.execute(ClipType.Intersection, FillRule.NonZero, closed, open));
    return open.map(fromPath);
  });
}

/** Signed area in mm2, positive for counter-clockwise. */
export function loopArea(loop: Loop): number {
  let sum = 0;
  const n = loop.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) sum += (loop[j] - loop[i]) * (loop[j + 1] + loop[i + 1]);
  return sum / 2;
}

export const regionArea = (region: Region): number => region.reduce((sum, loop) => sum + loopArea(loop), 0);

/** Whether a point lies inside the loops (non-zero winding of a normalised region). */
export function contains(region: readonly Loop[], x: number, y: number): boolean {
  let winding = 0;
  for (const loop of region) {
    // A loop winds round nothing that lies outside of its box; of a single one the box would cost as much as the answer.
    if (region.length > 1) {
      const b = boxOfLoop(loop);
      if (x < b.x0 || x > b.x1 || y < b.y0 || y > b.y1) continue;
    }
    const n = loop.length;
    for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
      const yj = loop[j + 1];
      const yi = loop[i + 1];
      if (yj <= y !== yi <= y) {
        const side = (loop[i] - loop[j]) * (y - yj) - (x - loop[j]) * (yi - yj);
        if (yi > yj ? side > 0 : side < 0) winding += yi > yj ? 1 : -1;
      }
    }
  }
  return winding !== 0;
}

/** Length of a line in mm; closed adds the way back. */
export function lineLength(line: Loop, closed: boolean): number {
  let sum = 0;
  for (let i = 2; i < line.length; i += 2) sum += Math.hypot(line[i] - line[i - 2], line[i + 1] - line[i - 1]);
  const n = line.length;
  if (closed && n > 2) sum += Math.hypot(line[0] - line[n - 2], line[1] - line[n - 1]);
  return sum;
}

/** Marks which points of a line stay, from one to another (counted on round its end), so that each other lies within a tolerance of it. */
function keepBetween(l: Loop, from: number, to: number, tolerance: number, keep: Uint8Array): void {
  const n = l.length / 2;
  const stack = [from, to];
  while (stack.length) {
    stillWanted();
    const b = stack.pop()!;
    const a = stack.pop()!;
    const ex = l[2 * (b % n)] - l[2 * a];
    const ey = l[2 * (b % n) + 1] - l[2 * a + 1];
    const q = ex * ex + ey * ey;
    let at = -1;
    let worst = tolerance * tolerance;
    for (let k = a + 1; k < b; k++) {
      const vx = l[2 * k] - l[2 * a];
      const vy = l[2 * k + 1] - l[2 * a + 1];
      const t = q > 0 ? Math.min(1, Math.max(0, (vx * ex + vy * ey) / q)) : 0;
      const d = (vx - t * ex) ** 2 + (vy - t * ey) ** 2;
      if (d > worst) {
        worst = d;
        at = k;
      }
    }
    if (at >= 0) {
      keep[at] = 1;
      stack.push(a, at, at, b);
    }
  }
}

const kept = (l: Loop, keep: Uint8Array): Loop => {
  const out: number[] = [];
  for (let i = 0; i < keep.length; i++) if (keep[i]) out.push(l[2 * i], l[2 * i + 1]);
  return Float64Array.from(out);
};

/** An open line with fewer points, each dropped point within `tolerance` mm of what stays (Douglas-Peucker). */
export function simplifyLine(l: Loop, tolerance: number): Loop {
  const n = l.length / 2;
  if (n < 3) return l;
  const keep = new Uint8Array(n);
  keep[0] = keep[n - 1] = 1;
  keepBetween(l, 0, n - 1, tolerance, keep);
  return kept(l, keep);
}

/** The same of a closed one. */
export function simplifyLoop(l: Loop, tolerance: number): Loop {
  const n = l.length / 2;
  if (n < 4) return l;
  const keep = new Uint8Array(n);
  // Two far points split the loop into lines.
  let far = 0;
  let most = -1;
  for (let i = 1; i < n; i++) {
    const d = (l[2 * i] - l[0]) ** 2 + (l[2 * i + 1] - l[1]) ** 2;
    if (d > most) {
      most = d;
      far = i;
    }
  }
  keep[0] = keep[far] = 1;
  keepBetween(l, 0, far, tolerance, keep);
  keepBetween(l, far, n, tolerance, keep);
  return kept(l, keep);
}

/** Loops with fewer points, each dropped point within `tolerance` mm of what stays. */
export const simplifyRegion = (region: Region, tolerance: number): Region =>
  normalise(region.map((l) => simplifyLoop(l, tolerance)));
