import type { CutterForm } from '../../cutters/form';
import type { Bounds } from '../../geometry/box';
import { boundsOf } from '../../geometry/loop';
import type { Region } from '../../geometry/region';
import { column } from '../../units/columns';
import { followed, type Follower, type Track } from './follow';
import { locatorBy, type Locator } from './locator';
import type { LocatorData } from './locatorData';
import type { RememberedWays } from './remembered';
import { wallOver } from './place';

/**
 * A cutter that follows a surface along many tracks. Tracks are parted into pieces that know nothing of each other, so that several can
 * go along them at once, and what comes of it is the same whoever does which.
 *
 *     track   x----x----x----x----x----x----x----x      points
 *     pieces  [-----------]          [-----------]
 *                         [----------]                  each begins where the one before ends
 */

/** What a cutter follows: numbers alone, which pass between threads. mm. */
export interface FollowWork {
  readonly locator: LocatorData;
  /** Left above it. */
  readonly allowance: number;
  /** No tip stands lower. */
  readonly least: number;
  /** Lines that the edge of a cutter of that form may not pass. */
  readonly walls: Region;
  readonly form: CutterForm;
  /** See `follow.ts`. */
  readonly sample: number;
  readonly merge: number;
}

/** Pieces of tracks one after the other: x, y interleaved; `firsts` says at which point each begins, and where the last ends. */
export interface Pieces {
  readonly points: Float64Array;
  readonly firsts: Int32Array;
  /** 1 for each that goes straight from point to point. */
  readonly straight: Uint8Array;
  /** By how much each point is raised; of no length where none is. */
  readonly raised: Float64Array;
  /** No lower than so each; -Infinity for as low as the surface. */
  readonly least: Float64Array;
}

/** Those who follow a surface together. */
export interface FollowHands {
  /** So few places are asked by one alone. */
  readonly worth: number;
  /** Where a cutter goes along each piece (x, y, z interleaved). `sizes`: about so many places are asked along each. */
  follow(work: FollowWork, pieces: Pieces, sizes: Float64Array, tell: (done: number) => void): Float64Array[];
}

export interface Following extends Follower {
  restart(): void;
}

export const followingOf = (w: FollowWork): Following => new OverSurface(w);

class OverSurface implements Following {
  readonly step: number;
  private readonly locator: Locator;
  private readonly wall: ((x: number, y: number) => number) | null;
  private readonly allowance: number;
  private readonly least: number;

  constructor(w: FollowWork) {
    this.locator = locatorBy(w.locator);
    this.step = this.locator.step;
    this.wall = w.walls.length ? wallOver(w.walls, w.form) : null;
    this.allowance = w.allowance;
    this.least = w.least;
  }

  restart(): void {
    this.locator.restart();
  }

  at(x: number, y: number): number {
    const h = Math.max(this.locator.at(x, y) + this.allowance, this.least);
    return this.wall ? Math.max(h, this.wall(x, y)) : h;
  }
}

/** A piece as a track of its own. */
function trackOf(p: Pieces, k: number): Track {
  const [from, to] = [p.firsts[k], p.firsts[k + 1]];
  return {
    points: p.points.subarray(2 * from, 2 * to),
    raised: p.raised.length ? p.raised.subarray(from, to) : undefined,
    closed: false,
    straight: p.straight[k] === 1,
    least: p.least[k],
  };
}

/** One piece followed. */
export function followPiece(w: FollowWork, f: Following, p: Pieces, k: number): Float64Array {
  f.restart();
  return followed(trackOf(p, k), f, w.sample, w.merge);
}

/** About so many places are asked along a piece. */
const A_PIECE = 1000;

/** A track that goes straight from point to point has points at least so often that it can be parted there. */
function pointed(t: Track, step: number): Track {
  const most = A_PIECE * step;
  const n = t.points.length / 2;
  const ends = t.closed ? n : n - 1;
  if (!t.straight || t.raised) return t;
  const points: number[] = [];
  for (let i = 0; i < n; i++) {
    const next = (2 * i + 2) % t.points.length;
    const ax = t.points[2 * i];
    const ay = t.points[2 * i + 1];
    const bx = t.points[next];
    const by = t.points[next + 1];
    const parts = i < ends ? Math.max(1, Math.floor(Math.hypot(bx - ax, by - ay) / most)) : 1;
    for (let k = 0; k < parts; k++) points.push(ax + ((bx - ax) * k) / parts, ay + ((by - ay) * k) / parts);
  }
  return points.length === t.points.length ? t : { ...t, points: Float64Array.from(points) };
}

/** Puts pieces one after the other. */
class Parting {
  private readonly firsts: number[] = [0];
  readonly owner: number[] = [];
  readonly sizes: number[] = [];
  private readonly straight: number[] = [];
  private readonly least: number[] = [];
  private x: Float64Array;
  private z: Float64Array;
  private n = 0;

  /** `points`: so many it holds at first; `raised`: whether any is raised. */
  constructor(
    points: number,
    private readonly raised: boolean,
  ) {
    this.x = new Float64Array(2 * points);
    this.z = new Float64Array(raised ? points : 0);
  }

  private put(t: Track, i: number): void {
    const { n } = this;
    if (2 * n + 2 > this.x.length) {
      this.x = twice(this.x);
      this.z = twice(this.z);
    }
    this.x[2 * n] = t.points[2 * i];
    this.x[2 * n + 1] = t.points[2 * i + 1];
    if (this.raised) this.z[n] = t.raised?.[i] ?? 0;
    this.n++;
  }

  private close(t: Track, k: number, size: number): void {
    this.firsts.push(this.n);
    this.owner.push(k);
    this.straight.push(t.straight ? 1 : 0);
    this.sizes.push(size);
    this.least.push(t.least ?? -Infinity);
  }

  /** The k-th track; each of its pieces but the first begins with a point of its own. */
  track(t: Track, k: number, step: number): void {
    const count = t.points.length / 2;
    const ends = t.closed ? count : count - 1;
    let size = 0;
    this.put(t, 0);
    for (let i = 1; i <= ends; i++) {
      const j = i % count;
      const dx = t.points[2 * j] - this.x[2 * this.n - 2];
      const dy = t.points[2 * j + 1] - this.x[2 * this.n - 1];
      this.put(t, j);
      size += Math.max(1, Math.sqrt(dx * dx + dy * dy) / step);
      if (size >= A_PIECE && i < ends) {
        this.close(t, k, size);
        size = 0;
        this.put(t, j);
      }
    }
    this.close(t, k, size);
  }

  pieces(): Pieces {
    const { n, firsts, straight, least } = this;
    const pieces: Pieces = {
      points: column(Float64Array, 2 * n),
      firsts: column(Int32Array, firsts.length),
      straight: column(Uint8Array, straight.length),
      raised: column(Float64Array, this.raised ? n : 0),
      least: column(Float64Array, least.length),
    };
    pieces.points.set(this.x.subarray(0, 2 * n));
    pieces.firsts.set(firsts);
    pieces.straight.set(straight);
    if (this.raised) pieces.raised.set(this.z.subarray(0, n));
    pieces.least.set(least);
    return pieces;
  }
}

function twice(a: Float64Array): Float64Array {
  const wider = new Float64Array(2 * a.length);
  wider.set(a);
  return wider;
}

/** Parts tracks into pieces; `owner` says whose each is. */
function parted(given: readonly Track[], step: number) {
  const tracks = given.map((t) => pointed(t, step));
  const points = tracks.reduce((n, t) => n + t.points.length / 2 + 1, 0);
  const parting = new Parting(
    points + 1,
    tracks.some((t) => t.raised),
  );
  for (const [k, t] of tracks.entries()) parting.track(t, k, step);
  return { pieces: parting.pieces(), owner: parting.owner, sizes: Float64Array.from(parting.sizes) };
}

/** Some of the pieces. */
function someOf(p: Pieces, which: readonly number[]): Pieces {
  const n = which.reduce((sum, k) => sum + p.firsts[k + 1] - p.firsts[k], 0);
  const out: Pieces = {
    points: column(Float64Array, 2 * n),
    firsts: column(Int32Array, which.length + 1),
    straight: column(Uint8Array, which.length),
    raised: column(Float64Array, p.raised.length ? n : 0),
    least: column(Float64Array, which.length),
  };
  let at = 0;
  which.forEach((k, i) => {
    const { points, raised } = trackOf(p, k);
    out.points.set(points, 2 * at);
    if (raised) out.raised.set(raised, at);
    out.straight[i] = p.straight[k];
    out.least[i] = p.least[k];
    out.firsts[i + 1] = at += p.firsts[k + 1] - p.firsts[k];
  });
  return out;
}

/** So many pieces, spread over all, tell of what all of them will be. */
const SAMPLES = 32;

/** Ways along some of the pieces, and how many times as long all are; none where there are too few to choose from. */
function someWays(work: FollowWork, own: Following, pieces: Pieces, sizes: Float64Array): [Float64Array[], number] {
  if (sizes.length < 2 * SAMPLES) return [[], 0];
  let size = 0;
  const ways = Array.from({ length: SAMPLES }, (_, n) => {
    const k = Math.floor(((n + 0.5) * sizes.length) / SAMPLES);
    size += sizes[k];
    return followPiece(work, own, pieces, k);
  });
  return size ? [ways, sizes.reduce((a, b) => a + b, 0) / size] : [[], 0];
}

export interface FollowMeans {
  readonly hands?: FollowHands;
  /** What is known from before. */
  readonly ways: RememberedWays;
  /** Given some of the ways before all are made, and how many times as long all are; none where all are soon made. */
  expect(some: readonly Float64Array[], times: number): void;
  /** Told 0..1. */
  progress(done: number): void;
}

/**
 * Ways of a cutter along tracks, x, y, z interleaved, in their order. `step`: so closely it is asked, mm; `workIn`: what is followed
 * within a box.
 */
export function followAll(
  tracks: readonly Track[],
  step: number,
  workIn: (box: Bounds) => FollowWork,
  { hands, ways, expect, progress }: FollowMeans,
): Float64Array[] {
  const { pieces, owner, sizes } = parted(tracks, step);
  const parts = Array.from(sizes, (_, k) => trackOf(pieces, k));
  const known = parts.map((t) => ways.of(t));
  const unknown = [...known.keys()].filter((k) => !known[k]);
  if (unknown.length) {
    const all = unknown.length === known.length;
    const some = all ? pieces : someOf(pieces, unknown);
    const made = followPieces(
      workIn(boundsOf([some.points])!),
      some,
      all ? sizes : Float64Array.from(unknown, (k) => sizes[k]),
      // Of what is mostly known nobody needs to be told.
      { hands, expect: all ? expect : null, progress },
    );
    unknown.forEach((k, i) => (known[k] = made[i]));
  }
  parts.forEach((t, k) => ways.keep(t, known[k]!));
  const out: Float64Array[] = [];
  for (let k = 0; k < known.length;) {
    let to = k + 1;
    while (to < known.length && owner[to] === owner[k]) to++;
    out.push(to === k + 1 ? known[k]! : joined(known.slice(k, to) as Float64Array[]));
    k = to;
  }
  return out;
}

function followPieces(
  work: FollowWork,
  pieces: Pieces,
  sizes: Float64Array,
  {
    hands,
    expect,
    progress,
  }: Pick<FollowMeans, 'hands' | 'progress'> & { readonly expect: FollowMeans['expect'] | null },
): Float64Array[] {
  const own = followingOf(work);
  const all = sizes.reduce((a, b) => a + b, 0);
  expect?.(...someWays(work, own, pieces, sizes));
  if (hands && all >= hands.worth) return hands.follow(work, pieces, sizes, progress);
  let done = 0;
  return Array.from(sizes, (size, k) => {
    progress(done / all);
    done += size;
    return followPiece(work, own, pieces, k);
  });
}

/** Ways each of which begins where the one before ends. */
function joined(ways: readonly Float64Array[]): Float64Array {
  const out = new Float64Array(ways.reduce((n, w) => n + w.length - 3, 3));
  let n = 0;
  for (const w of ways) {
    out.set(n ? w.subarray(3) : w, n);
    n += n ? w.length - 3 : w.length;
  }
  return out;
}
