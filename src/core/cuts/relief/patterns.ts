import { reversed } from '../clearing/contours';
import { hatchRows, zigzags } from '../clearing/hatch';
import { insetsOf } from '../../geometry/insets';
import { makeInside } from '../../geometry/inside';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { boundsOf, clipLines, loopArea, offset, subtract, thicken, unite, type Region } from '../../geometry/region';
import { append } from '../../units/append';
import { stillWanted } from '../../units/stillWanted';
import type { Track } from './follow';

/*
 * Ways over a region, seen from above, so far apart that what stands between them is a step-over wide.
 */

/** From row to row it goes on along the surface where the next begins no further than so many step-overs away. */
const NEXT = 4;

/** Rows at an angle, to and fro, or all the same way. */
export function rowTracks(region: Region, angle: number, step: number, oneWay: boolean): Track[] {
  const rows = hatchRows(region, angle, step);
  const lines = oneWay ? rows.flat() : zigzags(rows, region, NEXT * step);
  return lines.map((points) => ({ points, closed: false, straight: true }));
}

/** Halvings to the place where a curve leaves a region: to a ten-thousandth of the way between two of its points. */
const HALVINGS = 14;

/** The boundary is looked for no further than so, mm. */
const FURTHEST = 5;

/** What of a curve lies inside of a region; `along`: what was said with each of its points, such as how far along it that lies. */
export interface CutTrack extends Track {
  readonly along: Float64Array;
}

/** Whether places lie inside a region, asked one after the other along curves: as long as they stay clear of its outlines nothing is looked up. */
export function insideAlong(region: Region): (x: number, y: number) => boolean {
  const inside = makeInside(region);
  const edge = makeSegmentIndex(region);
  let [px, py, was, clear] = [NaN, NaN, false, 0];
  return (x, y) => {
    // Asked for millions of points: `Math.hypot` takes ten times as long.
    const moved = Math.sqrt((x - px) * (x - px) + (y - py) * (y - py));
    if (moved < clear) clear -= moved;
    else {
      was = inside(x, y);
      clear = Math.min(FURTHEST, edge.distance(x, y, FURTHEST));
    }
    [px, py] = [x, y];
    return was;
  };
}

export const cutTo = (region: Region) => cutBy(insideAlong(region), makeInside(region));

/**
 * Cuts curves, point by point, to what of them lies inside: `end` ends one and gives its parts. `along` is asked for their points in their
 * order, `inside` for places between two of them.
 */
export function cutBy(
  along: (x: number, y: number) => boolean,
  inside: (x: number, y: number) => boolean,
): { to(x: number, y: number, s?: number): void; end(): CutTrack[] } {
  let tracks: CutTrack[] = [];
  let run: number[] = [];
  let said: number[] = [];
  let [px, py, ps, was] = [NaN, NaN, NaN, false];
  const put = (x: number, y: number, s: number) => {
    run.push(x, y);
    said.push(s);
  };
  /** Puts the place where the way from a place inside to one outside leaves it. */
  const leaves = (ax: number, ay: number, as: number, bx: number, by: number, bs: number): void => {
    let [from, to] = [0, 1];
    for (let k = 0; k < HALVINGS; k++) {
      const t = (from + to) / 2;
      if (inside(ax + (bx - ax) * t, ay + (by - ay) * t)) from = t;
      else to = t;
    }
    put(ax + (bx - ax) * from, ay + (by - ay) * from, as + (bs - as) * from);
  };
  const close = () => {
    if (run.length > 2)
      tracks.push({ points: Float64Array.from(run), along: Float64Array.from(said), closed: false, straight: false });
    run = [];
    said = [];
  };
  return {
    to(x, y, s = 0) {
      const now = along(x, y);
      if (now && !was && px === px) leaves(x, y, s, px, py, ps);
      if (!now && was) {
        leaves(px, py, ps, x, y, s);
        close();
      }
      if (now) put(x, y, s);
      [px, py, ps, was] = [x, y, s, now];
    },
    end() {
      close();
      [px, py, ps, was] = [NaN, NaN, NaN, false];
      const made = tracks;
      tracks = [];
      return made;
    },
  };
}

/** Rows that swing to both sides in waves of a length, mm, all alike; cut off where they leave the region. */
export function wavedTracks(
  region: Region,
  angle: number,
  step: number,
  wave: number,
  swing: number,
  chord: number,
): Track[] {
  const cut = cutTo(region);
  const tracks: Track[] = [];
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  // Along and across the rows, the region seen from them.
  let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const l of region)
    for (let i = 0; i < l.length; i += 2) {
      const [u, v] = [l[i] * cos + l[i + 1] * sin, l[i + 1] * cos - l[i] * sin];
      [u0, u1, v0, v1] = [Math.min(u0, u), Math.max(u1, u), Math.min(v0, v), Math.max(v1, v)];
    }
  for (let k = Math.ceil((v0 - swing) / step); k * step <= v1 + swing; k++) {
    const n = Math.max(1, Math.ceil((u1 - u0 + 2 * chord) / chord));
    stillWanted(n);
    for (let i = 0; i <= n; i++) {
      const u = u0 - chord + ((u1 - u0 + 2 * chord) * i) / n;
      const v = k * step + swing * Math.sin((2 * Math.PI * u) / wave);
      cut.to(u * cos - v * sin, u * sin + v * cos);
    }
    append(tracks, cut.end());
  }
  return tracks;
}

/** Straight lines from the middle of a region outwards, between one and two steps apart: where there is room for it, another begins. */
export function spokeTracks(region: Region, step: number): Track[] {
  const box = boundsOf(region);
  if (!box) return [];
  const [mx, my] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
  const far = Math.hypot(box.x1 - box.x0, box.y1 - box.y0) / 2;
  // As many as a power of two lie two steps apart at the rim or nearer.
  let [count, halvings] = [4, 0];
  while (count * step < Math.PI * far) [count, halvings] = [2 * count, halvings + 1];
  stillWanted(count);
  const rays = Array.from({ length: count }, (_, k) => {
    // A ray that half of the others leave out begins where all of them are a step apart.
    let n = count;
    for (let j = k, left = halvings; left > 0 && j % 2 === 0; left--) [j, n] = [j / 2, n / 2];
    const begins = (n * step) / (2 * Math.PI);
    const [cos, sin] = [Math.cos((2 * Math.PI * k) / count), Math.sin((2 * Math.PI * k) / count)];
    return Float64Array.of(mx + begins * cos, my + begins * sin, mx + far * cos, my + far * sin);
  });
  // One by one: cut together, they would come in any order.
  return rays.flatMap((r) => clipLines([r], region).map((points) => ({ points, closed: false, straight: true })));
}

/** One line round a middle, out to the furthest of a region, cut off where it leaves it. `chord`: its points lie so far apart, mm. */
export function spiralTracks(region: Region, step: number, outwards: boolean, chord: number): Track[] {
  const box = boundsOf(region);
  if (!box) return [];
  const [mx, my] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
  let far = 0;
  for (const l of region)
    for (let i = 0; i < l.length; i += 2) far = Math.max(far, Math.hypot(l[i] - mx, l[i + 1] - my));
  const cut = cutTo(region);
  const growth = step / (2 * Math.PI);
  let angle = 0;
  for (let k = 0; ; k++) {
    const r = growth * angle;
    if (r > far + step) break;
    const [x, y] = [mx + r * Math.cos(angle), my + r * Math.sin(angle)];
    cut.to(x, y);
    if ((k & 1023) === 0) stillWanted(1024);
    angle += Math.min(0.3, chord / Math.sqrt(r * r + growth * growth));
  }
  const tracks = cut.end();
  return outwards ? tracks : tracks.reverse().map((t) => ({ ...t, points: reversed(t.points) }));
}

/** Of what lies between contours, less than such a share of a square step-over is rounding. */
const SPECK = 0.02;

/** Contours of a region, from its rim inwards or from the innermost outwards. */
export function ringTracks(region: Region, step: number, tolerance: number, outwards: boolean): Track[] {
  const insets = insetsOf(region);
  const tracks: Track[] = [];
  let at = region;
  for (let k = 1; at.length; k++) {
    append(tracks, rimTracks(at));
    at = insets.at(k * step, tolerance);
    // Where two contours meet from both sides a ridge is left between them that is wider than a step-over.
    const missed = subtract(insets.at((k - 0.5) * step, tolerance), at.length ? offset(at, step / 2, tolerance) : []);
    for (const points of missed)
      if (Math.abs(loopArea(points)) > SPECK * step * step) tracks.push({ points, closed: true, straight: true });
    if (k > 20_000) throw new RangeError('The step-over is too small for the size of the area.');
  }
  return outwards ? tracks.reverse() : tracks;
}

/** Along the rim of a region. */
export const rimTracks = (region: Region): Track[] =>
  region.map((points) => ({ points, closed: true, straight: true }));

/** Drawn lines, and lines at even distances from them, as far as a region goes. */
export function besideTracks(region: Region, drawn: readonly Float64Array[], step: number, tolerance: number): Track[] {
  const out: Track[] = drawn.map((points) => ({ points, closed: false, straight: true }));
  if (!drawn.length) return out;
  for (let k = 1; ; k++) {
    const round = drawn.map((d) => thicken(d, k * step, tolerance)).reduce(unite);
    stillWanted(round.length);
    for (const points of round) out.push({ points, closed: true, straight: true });
    if (!subtract(region, round).length) break;
  }
  return out;
}
