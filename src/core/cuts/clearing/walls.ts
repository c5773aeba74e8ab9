import type { Preset } from '../../cutters/cutter';
import type { Insets } from '../../geometry/insets';
import { MotionBuilder, type Motion } from '../../motion/motion';
import { orderPieces } from '../../motion/order';
import { makeTrack, pointAt, run, slice } from '../../motion/track';
import { passes } from '../kind';
import { ARC_TOLERANCE, OFFSET_TOLERANCE, reversed, startsOf } from './contours';
import { enter } from './entry';

interface WallMoves {
  readonly safe: number;
  readonly clearance: number;
  readonly face: number;
  readonly floor: number;
  readonly preset: Preset;
  readonly climb: boolean;
}

/**
 * A cone's way along a leaning wall: at each height the tip runs where its side lies in the wall, so that inner corners get
 * sharper with every pass. Null when there is no room for the tip.
 */
export function wallMoves(insets: Insets, cone: { tan: number; tip: number }, allowance: number, m: WallMoves): Motion | null {
  const b = new MotionBuilder();
  let above = m.face;
  for (const z of passes(m.face, m.floor, m.preset.stepDown)) {
    const loops = insets.at(allowance + cone.tip + cone.tan * (m.face - z), OFFSET_TOLERANCE);
    const tracks = loops.map((l) => makeTrack(m.climb ? l : reversed(l), true, ARC_TOLERANCE)).filter((t) => t.length > 0);
    const pieces = tracks.map((t) => {
      const p = pointAt(t, 0);
      return { inX: p.x, inY: p.y, outX: p.x, outY: p.y, starts: startsOf(t) };
    });
    for (const { piece, start } of orderPieces(pieces, b.count ? b.lastX : 0, b.count ? b.lastY : 0, { effort: 4 })) {
      const t = tracks[piece];
      const at = (t.length * start) / 16;
      const p = pointAt(t, at);
      if (b.count) b.rapid(b.lastX, b.lastY, m.safe);
      b.rapid(p.x, p.y, m.safe);
      const s = enter(b, t, { s: at, helix: null }, { clearance: m.clearance, feed: m.preset.feed, plunge: m.preset.plunge, ramp: 5, entry: 'ramp', radius: cone.tip }, z, above);
      run(b, slice(t, s, s + t.length), z, z, m.preset.feed);
    }
    above = z;
  }
  if (!b.count) return null;
  b.rapid(b.lastX, b.lastY, m.safe);
  return b.build();
}
