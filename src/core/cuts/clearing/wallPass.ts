import type { Region } from '../../geometry/region';
import type { MotionBuilder } from '../../motion/motion';
import { pointAt, run, slice } from '../../motion/arcPolyline';
import { trackOf, type ClearingMoves } from './contours';
import { enter, entryPlace } from './entry';
import { eachTrack, rapidTo } from './travel';

/** Once along the wall at height `z`, entered from `previousLevel`: what finishes a pattern that leaves scallops there. */
export function wallPass(b: MotionBuilder, wall: Region, m: ClearingMoves, z: number, previousLevel: number): void {
  const tracks = wall.map((l) => trackOf(l, m)).filter((t) => t.length > 0);
  eachTrack(b, tracks, (t, from) => {
    const place = entryPlace(t, from, m);
    const p = pointAt(t, place.s);
    rapidTo(b, p.x, p.y, m, 8 * m.radius);
    const s = enter(b, t, place, m, z, previousLevel);
    run(b, slice(t, s, s + t.length), z, z, m.feed);
  });
}
