import { makeInside } from '../../geometry/inside';
import { contours } from '../../geometry/levels/contours';
import {
  intersect,
  lineLength,
  simplifyLine,
  simplifyLoop,
  simplifyRegion,
  subtract,
  type Loop,
  type Region,
} from '../../geometry/region';
import { orderPieces } from '../../motion/order';
import { heightAt, type HeightField } from '../../relief/field';
import { stillWanted } from '../../units/stillWanted';
import type { Follower, Track } from './follow';
import { cutBy, insideAlong, type CutTrack } from './patterns';
import { regionOver } from './stands';
import { steepGround, type Mask } from './steepGround';

/** Where level lines go over steep ground, and where rows go: both reach some way into the other, so that no seam shows. */
export interface Slopes {
  steep(x: number, y: number): boolean;
  readonly shallow: Region;
  /** What of that rows go over both ways. */
  readonly strips: Region;
}

/** Parts the ground of `centres` where the cutter climbs by more than so much for each mm. `step`: of its rows, mm. */
export function slopesOf(stands: HeightField, climb: number, centres: Region, step: number): Slopes {
  const ground = steepGround(stands, climb, step);
  const over = (m: Mask): Region => simplifyRegion(regionOver(m, stands), stands.cell / 2);
  const steep = { ...stands, z: ground.levels };
  const noRows = over(ground.noRows);
  const shallow = noRows.length ? subtract(centres, noRows) : centres;
  const strips = over(ground.strips);
  return {
    steep: (x, y) => heightAt(steep, x, y) >= 0,
    shallow,
    strips: strips.length ? intersect(shallow, strips) : [],
  };
}

/** More levels than so many are a mistake. */
const MOST_LEVELS = 20000;
/** Where a place between two nodes is looked for, in shares of the way from the lower to the higher. */
const SPANS = [
  [0, 1],
  [-1, 2],
] as const;

/**
 * Ways of a cutter round its ground at heights `apart` (mm), where that is steep and lies within `centres`: each no lower than its
 * level, on the side where `follower` finds room for it.
 */
export function levelTracks(
  stands: HeightField,
  steep: (x: number, y: number) => boolean,
  centres: Region,
  apart: number,
  follower: Follower,
  tolerance: number,
  tell: (done: number) => void,
): Track[] {
  let [low, high] = [Infinity, -Infinity];
  for (const h of stands.z) {
    if (h < low) low = h;
    if (h > high) high = h;
  }
  const count = Math.ceil((Math.min(0, high) - low) / apart - 1e-9);
  if (count > MOST_LEVELS) throw new RangeError('The step-over is too small for the height of the relief.');
  const tracks: Track[] = [];
  const along = insideAlong(centres);
  const inside = makeInside(centres);
  const cut = cutBy(
    (x, y) => steep(x, y) && along(x, y),
    (x, y) => steep(x, y) && inside(x, y),
  );
  for (let k = 1; k < count; k++) {
    tell(k / count);
    const least = Math.min(0, high) - k * apart;
    for (const l of contours(stands.z, stands.cols, stands.rows, least, -Infinity)) {
      stillWanted(l.length);
      const n = l.length / 2;
      // Square (0, 0) of the line has the first node in its middle.
      for (let i = 0; i <= n; i++)
        cut.to(
          stands.x0 + (l[2 * (i % n)] - 0.5) * stands.cell,
          stands.y0 + (l[2 * (i % n) + 1] - 0.5) * stands.cell,
          i,
        );
      const parts = cut.end();
      for (const p of parts) exactly(stands, l, p, least, follower, tolerance);
      if (parts.length === 1 && parts[0].along.length === n + 1)
        tracks.push({
          points: simplifyLoop(parts[0].points.slice(0, -2), tolerance),
          closed: true,
          straight: true,
          least,
        });
      else
        for (const points of overItsEnd(parts, n))
          tracks.push({ points: simplifyLine(points, tolerance), closed: false, straight: true, least });
    }
  }
  // What is shorter than from one level to the next is met from there.
  return inOrder(tracks.filter((t) => lineLength(t.points, t.closed) > apart));
}

/** Of parts of a closed line of `n` points, what goes on over the place where it begins as one. */
function overItsEnd(parts: readonly CutTrack[], n: number): Float64Array[] {
  const [first, last] = [parts[0], parts[parts.length - 1]];
  if (parts.length < 2 || first.along[0] !== 0 || last.along[last.along.length - 1] !== n)
    return parts.map((p) => p.points);
  const joined = new Float64Array(last.points.length + first.points.length - 2);
  joined.set(last.points);
  joined.set(first.points.subarray(2), last.points.length);
  return [...parts.slice(1, -1).map((p) => p.points), joined];
}

/** Lays what was cut out of a line through nodes where the cutter stands at its height, or a little lower. */
function exactly(s: HeightField, l: Loop, part: CutTrack, level: number, follower: Follower, tolerance: number): void {
  const { points, along } = part;
  for (let k = 0; k < along.length; k++) {
    const i = along[k] % (l.length / 2);
    // Where it was cut off it lies between two places of the line.
    if (!Number.isInteger(i) || Math.abs(follower.at(points[2 * k], points[2 * k + 1]) - level) <= tolerance) continue;
    const [u, v] = [l[2 * i] - 0.5, l[2 * i + 1] - 0.5];
    const [c, r] = [Math.floor(u), Math.floor(v)];
    if (c === u && r === v) continue;
    const ends = [[c, r], c === u ? [c, r + 1] : [c + 1, r]];
    const [down, up] = s.z[r * s.cols + c] < level ? ends : ends.reverse();
    const place = (t: number) =>
      [s.x0 + (down[0] + (up[0] - down[0]) * t) * s.cell, s.y0 + (down[1] + (up[1] - down[1]) * t) * s.cell] as const;
    const below = (t: number) => follower.at(...place(t)) <= level;
    // Beside a wall it may lie a node further than nodes alone tell.
    const span = SPANS.find(([p, q]) => below(p) && !below(q));
    if (!span) continue;
    let [from, to]: readonly [number, number] = span;
    while ((to - from) * s.cell > tolerance) {
      const t = (from + to) / 2;
      if (below(t)) from = t;
      else to = t;
    }
    points.set(place(from), 2 * k);
  }
}

/** Places along a closed track where it may be begun. */
const STARTS = 16;

/** Tracks in an order of short ways from one to the next; closed ones are begun where that is short. */
function inOrder(tracks: readonly Track[]): Track[] {
  const startOf = (t: Track, k: number) => 2 * Math.floor((k * t.points.length) / 2 / STARTS);
  const pieces = tracks.map((t) => {
    const p = t.points;
    const e = t.closed ? 0 : p.length - 2;
    const starts = new Float64Array(2 * STARTS);
    for (let k = 0; k < STARTS; k++) starts.set(p.subarray(startOf(t, k), startOf(t, k) + 2), 2 * k);
    return { inX: p[0], inY: p[1], outX: p[e], outY: p[e + 1], ...(t.closed ? { starts } : {}) };
  });
  return orderPieces(pieces, 0, 0, { effort: 2 }).map(({ piece, start }) => {
    const t = tracks[piece];
    const from = t.closed ? startOf(t, start) : 0;
    if (!from) return t;
    const points = new Float64Array(t.points.length);
    points.set(t.points.subarray(from));
    points.set(t.points.subarray(0, from), t.points.length - from);
    return { ...t, points };
  });
}
