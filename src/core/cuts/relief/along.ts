import type { Preset } from '../../cutters/cutter';
import { grownForm, type CutterForm } from '../../cutters/form';
import { grownBox, inBox, type Bounds } from '../../geometry/box';
import { contentKey, hashFloats } from '../../geometry/hash';
import { clearWay } from '../../geometry/lines';
import { boundsOf, lineLength, type Region } from '../../geometry/region';
import { FEED, MotionBuilder, moveLength } from '../../motion/motion';
import type { HeightField } from '../../relief/field';
import { windowOf } from '../../relief/window';
import type { Easing } from '../easing';
import { travelHeights, type CutContext, type Expected } from '../kind';
import { Engaged } from './engaged';
import { followed, type Follower, type Track } from './follow';
import { followAll, followingOf, type FollowWork } from './following';
import { leadsOver } from './lead';
import { asked, locatorData } from './locatorData';
import { followMoves, type FollowMoves, type Layer } from './moves';
import { reachOver, remembered } from './remembered';
import { reliefShare } from './share';

/** What a cutter does that goes along a surface. mm. */
export interface Along {
  readonly field: HeightField;
  readonly form: CutterForm;
  /** Left all over the surface, measured across it. */
  readonly allowance: number;
  /** No tip goes lower. */
  readonly least: number;
  /** Lines that its edge may not pass. */
  readonly walls: Region;
  /** Where its middle may go. */
  readonly region: Region;
  readonly step: number;
  /**
   * Its tracks; those that are curves have points no further apart than `chord`. `follower`: how low it may stand; `tell` 0..1 where
   * that takes long.
   */
  tracks(chord: number, follower: Follower, tell: (done: number) => void): Track[];
  readonly layers: readonly Layer[];
  readonly preset: Preset;
  /** It comes down along the surface on a way so long, mm; 0 for straight down. */
  readonly lead?: number;
  /** No faster down than so, mm/min. */
  readonly sink?: number;
  /** Whether it goes slower where it meets more than beside a line; not said: no. */
  readonly ease?: Easing;
  /** Whether it may go from one track to the next along the surface. */
  readonly links: boolean;
}

/** To a line that begins no further away than so many step-overs it stays down; over so many it lifts no higher than it need. */
const NEAR = 6;
const HOPS = 20;

/** Share of the time that tracks take which are looked for on the surface. */
const TRACKS = 0.4;

/** Goes along a surface. Tells by how much it may cut into it, mm, where there is no room for nodes enough. */
export function goAlong(b: MotionBuilder, a: Along, c: CutContext, progress: (done: number) => void): number {
  const share = reliefShare();
  const grown = grownForm(a.form, a.allowance);
  const { step, error } = asked(a.field, grown, share.locate);
  const { sample, merge } = share;
  const fixed = { allowance: a.allowance, least: a.least, walls: a.walls, form: a.form, sample, merge };
  const workOver = (field: HeightField): FollowWork => ({ ...fixed, locator: locatorData(field, grown, share.locate) });
  const reach = reachOver(a.field, grown);
  /** Where the surface is asked anew; elsewhere it is asked only where that must be. */
  let anew: { readonly box: Bounds; readonly work: FollowWork } | null = null;
  const makers = [() => followingOf(anew!.work), () => followingOf(workOver(a.field))].map(once);
  const followerAt = (x: number, y: number) => makers[anew && inBox(anew.box, x, y) ? 0 : 1]();
  const follower: Follower = { step, at: (x, y) => makers[1]().at(x, y) };
  let told = 0;
  const tracks = a.tracks(step, follower, (f) => progress((told = TRACKS * f)));
  // Other cuts go along the same surface with the same cutter: their first tracks tell them apart.
  const ways = remembered(
    a.field,
    contentKey([{ ...fixed, least: 0 }, share.locate, hashFloats(tracks.slice(0, 1).map((t) => t.points))]),
    reach,
    a.least,
    // No straight piece leaves what it stands for by more.
    merge,
  );
  const moves: FollowMoves = {
    ...travelHeights(c.blank),
    near: HOPS * a.step,
    preset: a.preset,
    sink: a.sink,
    engaged:
      a.ease && a.ease !== 'off' && a.region.length
        ? new Engaged({ ...a, box: boundsOf(a.region)! }, a.ease)
        : undefined,
  };
  const flat = tracks.reduce((sum, t) => sum + lineLength(t.points, t.closed), 0);
  const lines = followAll(
    tracks,
    step,
    (tracked) => {
      // Ways in and over to the next begin and end a little beside.
      const box = grownBox(tracked, (a.lead ?? 0) + NEAR * a.step);
      const work = workOver(windowOf(a.field, box, reach + a.field.cell));
      anew = { box, work };
      return work;
    },
    {
      hands: c.hands,
      ways,
      expect: (some, times) => c.expect?.(expected(some, times, flat, a.layers, moves)),
      progress: (f) => progress(told + (0.9 - told) * f),
    },
  );
  /** A way of its own, as it was or anew. */
  const follow = (t: Track): Float64Array => {
    let way = ways.of(t);
    if (!way) {
      const [x, y] = [t.points[t.points.length - 2], t.points[t.points.length - 1]];
      const f = followerAt(t.points[0], t.points[1]) === followerAt(x, y) ? followerAt(x, y) : makers[1]();
      f.restart();
      way = followed(t, f, sample, merge);
    }
    ways.keep(t, way);
    return way;
  };
  followMoves(b, lines, a.layers, {
    ...moves,
    lead: a.lead ? leadsOver(a.region, a.lead, step, follow) : undefined,
    link(x0, y0, x1, y1) {
      if (!a.links || Math.hypot(x1 - x0, y1 - y0) > NEAR * a.step || !clearWay(a.region, x0, y0, x1, y1)) return null;
      return follow({ points: Float64Array.of(x0, y0, x1, y1), closed: false, straight: true });
    },
  });
  ways.done();
  progress(1);
  return error > 2 * share.locate ? error : 0;
}

/** How long a way (x, y, z interleaved) is from above, mm. */
function fromAbove(way: Float64Array): number {
  let long = 0;
  for (let i = 3; i < way.length; i += 3) long += Math.hypot(way[i] - way[i - 3], way[i + 1] - way[i - 2]);
  return long;
}

/**
 * What all ways will take, by some of them (`times` as long are all; `flat`: tracks as long as that from above, mm): what is cut along
 * them, as slowly as that is cut where lines lie on both sides.
 */
function expected(
  some: readonly Float64Array[],
  times: number,
  flat: number,
  layers: readonly Layer[],
  m: FollowMoves,
): Expected {
  const level = flat / m.preset.feed;
  if (!some.length) return { minutes: level, moves: 0 };
  const trial = new MotionBuilder();
  followMoves(trial, some, layers, { ...m, amid: true });
  const made = trial.build();
  let [moves, minutes] = [0, 0];
  for (let i = 1; i < made.count; i++)
    if (made.kind[i] === FEED) {
      moves++;
      minutes += moveLength(made, i) / made.feed[i];
    }
  const seen = some.reduce((sum, w) => sum + fromAbove(w), 0) / m.preset.feed;
  return { minutes: seen ? (level * minutes) / seen : level, moves: Math.round(moves * times) };
}

/** What is made when it is asked for first. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}
