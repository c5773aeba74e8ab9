import { Clipper64, ClipperOffset, ClipType, EndType, FillRule, JoinType, type Path64, type Paths64 } from 'clipper2-ts';
import { UNITS_PER_MM } from './places';

/**
 * Regions of the plane and their boolean algebra.
 *
 * A loop is x, y interleaved in mm without a repeated last point. A region is a list of loops: outer
 * ones counter-clockwise, holes clockwise, none crossing. The integer unit of the algebra is 10 nm.
 */
export type Loop = Float64Array;
export type Region = Loop[];
export type Fill = 'evenodd' | 'nonzero';

/** Coordinates beyond this (mm) would lose digits in the integer algebra. */
const LARGEST = 1e7;

function toPath(loop: Loop): Path64 {
  const path: Path64 = new Array(loop.length / 2);
  for (let i = 0; i < loop.length; i += 2) {
    const x = loop[i];
    const y = loop[i + 1];
    if (!(Math.abs(x) < LARGEST && Math.abs(y) < LARGEST)) throw new RangeError('An outline has a point that is not a number or is more than 10 km away.');
    path[i / 2] = { x: Math.round(x * UNITS_PER_MM), y: Math.round(y * UNITS_PER_MM) };
  }
  return path;
}

function fromPath(path: Path64): Loop {
  const loop = new Float64Array(2 * path.length);
  for (let i = 0; i < path.length; i++) {
    loop[2 * i] = path[i].x / UNITS_PER_MM;
    loop[2 * i + 1] = path[i].y / UNITS_PER_MM;
  }
  return loop;
}

const toPaths = (loops: readonly Loop[]): Paths64 => loops.map(toPath);
const rule = (fill: Fill) => (fill === 'evenodd' ? FillRule.EvenOdd : FillRule.NonZero);

function combine(kind: ClipType, a: readonly Loop[], b: readonly Loop[] | null, fill: Fill): Paths64 {
  const engine = new Clipper64();
  engine.preserveCollinear = false;
  engine.addSubject(toPaths(a));
  if (b) engine.addClip(toPaths(b));
  const out: Paths64 = [];
  engine.execute(kind, rule(fill), out);
  return out;
}

/** A loop without points that repeat the one before: the algebra's offsets leave such. */
export function distinct(loop: Loop): Loop {
  const n = loop.length;
  const same = (i: number, j: number) => loop[i] === loop[j] && loop[i + 1] === loop[j + 1];
  let repeats = 0;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) if (same(i, j)) repeats++;
  if (!repeats) return loop;
  const out: number[] = [];
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) if (!same(i, j)) out.push(loop[i], loop[i + 1]);
  return Float64Array.from(out);
}

const usable = (paths: Paths64): Region => paths.map(fromPath).map(distinct).filter((l) => l.length >= 6);

/** Any loops, crossing or doubled, to a region under the fill rule. */
export const normalise = (loops: readonly Loop[], fill: Fill = 'nonzero'): Region =>
  loops.length ? usable(combine(ClipType.Union, loops, null, fill)) : [];
export const unite = (a: Region, b: Region): Region => usable(combine(ClipType.Union, a, b, 'nonzero'));
export const intersect = (a: Region, b: Region): Region => usable(combine(ClipType.Intersection, a, b, 'nonzero'));
export const subtract = (a: Region, b: Region): Region =>
  a.length === 0 ? [] : b.length === 0 ? a : usable(combine(ClipType.Difference, a, b, 'nonzero'));

/** A connected piece of a region: its outer loop first, then its holes. */
export type Component = Region;

/**
 * Splits a normalised region into connected components: each hole goes to the smallest outer loop around
 * it. Loops may touch, so the question is asked of a point just inside the region beside the hole's
 * longest edge, not of a corner.
 */
export function components(region: Region): Component[] {
  const outers = region.filter((l) => loopArea(l) > 0).map((loop) => ({ loops: [loop], area: loopArea(loop), box: boxOfLoop(loop) }));
  outers.sort((a, b) => a.area - b.area);
  for (const hole of region) {
    if (!(loopArea(hole) < 0)) continue;
    let at = 0;
    let longest = -1;
    for (let i = 0; i < hole.length; i += 2) {
      const j = (i + 2) % hole.length;
      const l = Math.hypot(hole[j] - hole[i], hole[j + 1] - hole[i + 1]);
      if (l > longest) {
        longest = l;
        at = i;
      }
    }
    const to = (at + 2) % hole.length;
    const step = Math.min(1e-5, longest / 4) / longest;
    const x = (hole[at] + hole[to]) / 2 - (hole[to + 1] - hole[at + 1]) * step;
    const y = (hole[at + 1] + hole[to + 1]) / 2 + (hole[to] - hole[at]) * step;
    const home = outers.find((o) => o.box.x0 <= x && x <= o.box.x1 && o.box.y0 <= y && y <= o.box.y1 && contains([o.loops[0]], x, y));
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
  const engine = new ClipperOffset(4, tolerance * UNITS_PER_MM);
  engine.addPaths(toPaths(region), joins[corners], EndType.Polygon);
  const out: Paths64 = [];
  engine.execute(distance * UNITS_PER_MM, out);
  return usable(out);
}

/** What a disc of the given radius covers when its centre runs along a line (open, x, y interleaved). */
export function thicken(line: Loop, radius: number, tolerance = 0.002): Region {
  const engine = new ClipperOffset(2, tolerance * UNITS_PER_MM);
  engine.addPaths([toPath(line)], JoinType.Round, EndType.Round);
  const out: Paths64 = [];
  engine.execute(radius * UNITS_PER_MM, out);
  return usable(out);
}

/** Signed area in mm2, positive for counter-clockwise. */
export function loopArea(loop: Loop): number {
  let sum = 0;
  const n = loop.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) sum += (loop[j] - loop[i]) * (loop[j + 1] + loop[i + 1]);
  return sum / 2;
}

export const regionArea = (region: Region): number => region.reduce((sum, loop) => sum + loopArea(loop), 0);

export interface Bounds {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Bounds of loops or lines; null when there is no point. */
export function boundsOf(loops: readonly Loop[]): Bounds | null {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const loop of loops)
    for (let i = 0; i < loop.length; i += 2) {
      if (loop[i] < x0) x0 = loop[i];
      if (loop[i] > x1) x1 = loop[i];
      if (loop[i + 1] < y0) y0 = loop[i + 1];
      if (loop[i + 1] > y1) y1 = loop[i + 1];
    }
  return x0 <= x1 ? { x0, y0, x1, y1 } : null;
}

/** Whether two boxes have a point in common. */
export const boxesMeet = (a: Bounds, b: Bounds): boolean => a.x0 <= b.x1 && a.x1 >= b.x0 && a.y0 <= b.y1 && a.y1 >= b.y0;

const boxes = new WeakMap<Loop, Bounds>();

/** The box of a loop, kept with it: loops are not changed once they are made. */
export function boxOfLoop(loop: Loop): Bounds {
  let b = boxes.get(loop);
  if (!b) boxes.set(loop, (b = boundsOf([loop]) ?? { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity }));
  return b;
}

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

/** Loops with fewer points, each dropped point within `tolerance` mm of what stays (Douglas-Peucker). */
export function simplifyRegion(region: Region, tolerance: number): Region {
  return normalise(
    region.map((l) => {
      const n = l.length / 2;
      if (n < 8) return l;
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
      const stack = [0, far, far, n];
      while (stack.length) {
        const b = stack.pop()!;
        const a = stack.pop()!;
        const bx = l[2 * (b % n)];
        const by = l[2 * (b % n) + 1];
        const ex = bx - l[2 * a];
        const ey = by - l[2 * a + 1];
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
      const out: number[] = [];
      for (let i = 0; i < n; i++) if (keep[i]) out.push(l[2 * i], l[2 * i + 1]);
      return Float64Array.from(out);
    }),
  );
}
