import { grownForm, type CutterForm } from '../../cutters/form';
import { contours } from '../../geometry/levels/contours';
import {
  clipLines,
  contains,
  intersect,
  loopArea,
  offset,
  simplifyLoop,
  subtract,
  type Loop,
  type Region,
} from '../../geometry/region';
import { locationsOver, NOTHING_LOCATED } from '../../kernels/location';
import { orderPieces } from '../../motion/order';
import type { HeightField } from '../../relief/field';
import { slopeAt } from '../../relief/steep';
import { stillWanted } from '../../units/stillWanted';
import type { Follower, Track } from './follow';
import { regionOver } from './stands';

/**
 * Ground parted by how steeply a cutter climbs over it. Rows lie evenly as seen from above, so that on what is steep they lie far apart;
 * there it goes round at heights instead, as far apart along the slope as rows on the level.
 *
 *      ______                   rows: evenly from above
 *     |      \_____
 *     |=                        level lines: evenly up and down
 *     |==
 *     |===\___________
 */

/** How low a cutter may stand over the nodes of a surface whatever its boundary, keeping an allowance and no lower than `least`. */
export function standsFree(f: HeightField, form: CutterForm, allowance: number, least: number): HeightField {
  const over = locationsOver(f)(grownForm(form, allowance));
  const z = new Float32Array(f.z.length);
  for (let r = 0; r < f.rows; r++) {
    stillWanted(f.cols);
    const row = over.row(r);
    for (let c = 0; c < f.cols; c++)
      z[r * f.cols + c] = Math.max(least, row[c] > NOTHING_LOCATED ? row[c] + allowance : least);
  }
  return { ...f, z };
}

export interface Slopes {
  /** Where level lines go, and where rows do: both reach some way into the other, so that no seam shows. */
  readonly steep: Region;
  readonly shallow: Region;
}

/** Steep ground narrower than so many step-overs is gone over by rows, too: they need not end at each wall. */
const NARROW = 4;

/** Parts the ground of `centres` where the cutter climbs by more than so much for each mm. `step`: of its rows, mm. */
export function slopesOf(stands: HeightField, climb: number, centres: Region, step: number, tolerance: number): Slopes {
  const over = new Float32Array(stands.z.length);
  for (let r = 0, i = 0; r < stands.rows; r++)
    for (let c = 0; c < stands.cols; c++, i++) over[i] = Math.max(-1, Math.min(1, slopeAt(stands, c, r) - climb));
  const raw = regionOver(over, stands).filter((l) => Math.abs(loopArea(l)) > step * step);
  if (!raw.length) return { steep: [], shallow: centres };
  const grown = offset(raw, step, tolerance);
  const half = (NARROW / 2) * step;
  const wide = offset(offset(grown, -(step + half), tolerance), half, tolerance);
  return { steep: intersect(grown, centres), shallow: wide.length ? subtract(centres, wide) : centres };
}

/** Height between two level lines that lie a step-over apart along ground that climbs by so much for each mm. */
export const levelStep = (step: number, climb: number): number => (step * climb) / Math.sqrt(1 + climb * climb);

/** More levels than so many are a mistake. */
const MOST_LEVELS = 20000;
/** Halvings to a place between two nodes. */
const HALVINGS = 10;
const SPANS = [
  [0, 1],
  [-1, 2],
] as const;

/**
 * Ways of a cutter round its ground at heights `apart` (mm), where they lie within a region: each no lower than its level, on the side
 * where `follower` finds room for it.
 */
export function levelTracks(
  stands: HeightField,
  region: Region,
  apart: number,
  follower: Follower,
  tolerance: number,
): Track[] {
  if (!region.length) return [];
  let [low, high] = [Infinity, -Infinity];
  for (const h of stands.z) {
    if (h < low) low = h;
    if (h > high) high = h;
  }
  const count = Math.ceil((Math.min(0, high) - low) / apart - 1e-9);
  if (count > MOST_LEVELS) throw new RangeError('The step-over is too small for the height of the relief.');
  const tracks: Track[] = [];
  for (let k = 1; k < count; k++) {
    const least = Math.min(0, high) - k * apart;
    for (const l of contours(stands.z, stands.cols, stands.rows, least, -Infinity)) {
      stillWanted(l.length);
      const loop = simplifyLoop(exactly(stands, l, least, follower, tolerance), tolerance);
      if (loop.length < 6) continue;
      for (const t of within(loop, region)) tracks.push({ ...t, straight: true, least });
    }
  }
  return inOrder(tracks);
}

/** A line through nodes laid where the cutter stands at its height, or a little lower. */
function exactly(s: HeightField, l: Loop, level: number, follower: Follower, tolerance: number): Loop {
  const out = new Float64Array(l.length);
  for (let i = 0; i < l.length; i += 2) {
    // Square (0, 0) of the line has the first node in its middle.
    const [u, v] = [l[i] - 0.5, l[i + 1] - 0.5];
    let [x, y] = [s.x0 + u * s.cell, s.y0 + v * s.cell];
    const [c, r] = [Math.floor(u), Math.floor(v)];
    if (!(Math.abs(follower.at(x, y) - level) <= tolerance) && (c !== u || r !== v)) {
      const ends = [[c, r], c === u ? [c, r + 1] : [c + 1, r]];
      const [down, up] = s.z[r * s.cols + c] < level ? ends : ends.reverse();
      const place = (t: number) =>
        [s.x0 + (down[0] + (up[0] - down[0]) * t) * s.cell, s.y0 + (down[1] + (up[1] - down[1]) * t) * s.cell] as const;
      const below = (t: number) => follower.at(...place(t)) <= level;
      // Beside a wall it may lie a node further than nodes alone tell.
      let [from, to]: readonly [number, number] = SPANS.find(([p, q]) => below(p) && !below(q)) ?? [0, 0];
      if (to > from) {
        for (let n = 0; n < HALVINGS; n++) {
          const t = (from + to) / 2;
          if (below(t)) from = t;
          else to = t;
        }
        [x, y] = place(from);
      }
    }
    out[i] = x;
    out[i + 1] = y;
  }
  return out;
}

/** The parts of a closed line within a region; all of it where it does not leave it. */
function within(loop: Loop, region: Region): Omit<Track, 'straight'>[] {
  const round = new Float64Array(loop.length + 2);
  round.set(loop);
  round.set(loop.subarray(0, 2), loop.length);
  const parts = clipLines([round], region);
  const last = parts.length - 1;
  if (last < 0) return [];
  const meets = (a: Loop, b: Loop) => Math.hypot(a[a.length - 2] - b[0], a[a.length - 1] - b[1]) < 1e-4;
  if (last === 0 && meets(parts[0], parts[0]) && contains(region, loop[0], loop[1]))
    return [{ points: parts[0].slice(0, -2), closed: true }];
  // What goes on over the place where the line begins was cut there.
  const into = parts.findIndex((p) => meets(p, round));
  const from = parts.findIndex((p) => Math.hypot(p[0] - loop[0], p[1] - loop[1]) < 1e-4);
  const open = (points: Float64Array) => ({ points, closed: false });
  if (into < 0 || from < 0 || into === from) return parts.map(open);
  const joined = new Float64Array(parts[into].length + parts[from].length - 2);
  joined.set(parts[into]);
  joined.set(parts[from].subarray(2), parts[into].length);
  return [...parts.filter((_, k) => k !== into && k !== from), joined].map(open);
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
