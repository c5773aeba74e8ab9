import type { Preset } from '../../cutters/cutter';
import type { Insets } from '../../geometry/insets';
import type { Loop } from '../../geometry/region';
import { MotionBuilder, type Motion } from '../../motion/motion';
import { pointAt, run, slice } from '../../motion/arcPolyline';
import type { Budget } from '../budget';
import { passes } from '../kind';
import { trackOf } from './contours';
import { enter } from './entry';
import { eachTrack, rapidTo } from './travel';

interface WallMoves {
  readonly safe: number;
  readonly clearance: number;
  readonly approach: number;
  readonly stockTop: number;
  readonly floor: number;
  readonly preset: Preset;
  readonly climb: boolean;
  /** Finer on steep walls: what stands off sideways is a depth there. */
  readonly budget: Budget;
  /** Of the lines along walls those that are run. */
  near(lines: Loop[]): Loop[];
}

/**
 * A cone's way along a leaning wall: at each height the tip runs where its side lies in the wall, so that inner corners get
 * sharper with every pass. Null when there is no room for the tip.
 */
export function wallMoves(
  insets: Insets,
  cone: { tan: number; tip: number },
  allowance: number,
  m: WallMoves,
): Motion | null {
  const b = new MotionBuilder();
  const track = { climb: m.climb, budget: m.budget };
  let previousLevel = m.stockTop;
  for (const z of passes(m.stockTop, m.floor, m.preset.stepDown)) {
    const loops = m.near(insets.at(allowance + cone.tip + cone.tan * (m.stockTop - z), m.budget.offset));
    const tracks = loops.map((l) => trackOf(l, track)).filter((t) => t.length > 0);
    eachTrack(b, tracks, (t, from) => {
      const p = pointAt(t, from);
      rapidTo(b, p.x, p.y, { safe: m.safe, linkHeight: m.safe }, 0);
      const s = enter(
        b,
        t,
        { s: from, helix: null },
        {
          clearance: m.clearance,
          approach: m.approach,
          stockTop: m.stockTop,
          walled: true,
          feed: m.preset.feed,
          plunge: m.preset.plunge,
          ramp: 5,
          entry: 'ramp',
          radius: cone.tip,
        },
        z,
        previousLevel,
      );
      run(b, slice(t, s, s + t.length), z, z, m.preset.feed);
    });
    previousLevel = z;
  }
  if (!b.count) return null;
  b.lift(m.safe);
  return b.build();
}
