import { z } from 'zod';
import Flatbush from 'flatbush';
import { formOf, radiusOf } from '../../cutters/cutter';
import { nearestCutter } from '../../cutters/library';
import { heightOf } from '../../cutters/form';
import { boundsOf } from '../../geometry/region';
import { MotionBuilder } from '../../motion/motion';
import { orderPieces } from '../../motion/order';
import { choices } from '../../units/fields';
import { boxOf, EMPTY } from '../wanted';
import { cutKind, emptyPlan, floorOf, linkHeightOf, type CutContext, type Remark } from '../kind';

/** A place to drill; the diameter when it comes from a circle. */
interface Hole {
  readonly x: number;
  readonly y: number;
  readonly diameter: number | null;
}

/**
 * Height above the face from which pecks are measured and to which the drill comes up to clear its chips; and so far above
 * what is drilled it comes back down by rapid, mm. Canned cycles (G83) do the same.
 */
const RETURN = 0.3;

const schema = z.object({
  cutter: z.string(),
  places: z.enum(['circles', 'centres', 'nodes']),
  through: z.boolean(),
  depth: z.number().min(0.01).max(500),
  beyond: z.number().min(0).max(10),
  /** Drilled at a time, then the drill comes up to clear its chips; null drills in one go. */
  peck: z.number().min(0.05).max(200).nullable(),
  /** Seconds for which the drill turns at the floor of each hole. */
  dwell: z.number().min(0).max(60),
});
type Drilling = z.infer<typeof schema>;

/** Holes of the picked artwork: centres of circles, of any outline, or the nodes of open lines. */
function holes(v: Drilling, c: CutContext): { found: Hole[]; others: number } {
  const found: Hole[] = [];
  let others = 0;
  for (const { points: p, closed } of c.lines(0.002)) {
    if (v.places === 'nodes') {
      if (closed) others++;
      else for (let i = 0; i < p.length; i += 2) found.push({ x: p[i], y: p[i + 1], diameter: null });
      continue;
    }
    if (!closed) {
      others++;
      continue;
    }
    const { x0, y0, x1, y1 } = boundsOf([p])!;
    const [x, y, r] = [(x0 + x1) / 2, (y0 + y1) / 2, (x1 - x0) / 2];
    let off = 0;
    for (let i = 0; i < p.length; i += 2) off = Math.max(off, Math.abs(Math.hypot(p[i] - x, p[i + 1] - y) - r));
    const round = p.length >= 16 && off < Math.max(0.01, 0.005 * r);
    if (round || v.places === 'centres') found.push({ x, y, diameter: round ? 2 * r : null });
    else others++;
  }
  const seen = new Set<string>();
  return {
    found: found.filter(
      (h) => !seen.has(`${h.x.toFixed(3)}/${h.y.toFixed(3)}`) && seen.add(`${h.x.toFixed(3)}/${h.y.toFixed(3)}`),
    ),
    others,
  };
}

/** Drilling at the centres of circles or at points, in pecks where asked. */
export const drilling = cutKind({
  id: 'drilling',
  name: 'Drilling',
  summary: 'Drills holes at circles, at the centres of outlines or at the nodes of lines.',
  schema,
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Drill', shapes: ['drill', 'flat', 'ball', 'bull', 'v', 'cone'] },
    {
      kind: 'choice',
      key: 'places',
      label: 'Holes at',
      options: choices({ circles: 'Circles', centres: 'Centres of outlines', nodes: 'Nodes of lines' }),
    },
    { kind: 'flag', key: 'through', label: 'Through the blank' },
    { kind: 'length', key: 'depth', label: 'Depth of the point', when: (v) => v.through !== true },
    {
      kind: 'length',
      key: 'beyond',
      label: 'Spoilboard depth',
      hint: 'Add the point of the drill',
      when: (v) => v.through === true,
    },
    { kind: 'length', key: 'peck', label: 'Peck depth', optional: 'All at once' },
    { kind: 'number', key: 'dwell', label: 'Dwell at the floor', unit: 's' },
  ],
  defaults: (_blank, cutters) => ({
    cutter: nearestCutter(cutters, 'drill', 3),
    places: 'circles' as const,
    through: false,
    depth: 3,
    beyond: 0,
    peck: null,
    dwell: 0,
  }),
  cutters: (v) => [v.cutter],
  presets: () => ['rpm', 'plunge'],
  upgrades: {
    5: (cut) => void (cut.values = { dwell: 0, ...cut.values }),
    // A drill that stopped above the spoilboard has a depth.
    6: (cut) => {
      const beyond = Number(cut.values.beyond);
      if (beyond < 0)
        cut.values = {
          ...cut.values,
          beyond: 0,
          ...(cut.values.through === true && { through: false, depth: cut.thickness + beyond }),
        };
    },
  },
  plan(v, c) {
    const cutter = c.cutter(v.cutter);
    const preset = c.preset(v.cutter);
    const { found, others } = holes(v, c);
    if (!found.length)
      return emptyPlan([
        {
          level: 'problem',
          text:
            v.places === 'circles'
              ? 'None of the picked outlines is a circle. Drill at the centres of outlines, or pick circles.'
              : 'There is no place to drill in what is picked.',
        },
      ]);
    const remarks: Remark[] = [];
    if (others)
      remarks.push({
        level: 'note',
        text: `${others} of the picked outlines and lines are not drilled: they are no ${v.places === 'circles' ? 'circles' : v.places === 'nodes' ? 'open lines' : 'closed outlines'}.`,
      });
    const wrong = found.find((h) => h.diameter !== null && Math.abs(h.diameter - 2 * radiusOf(cutter)) > 0.05);
    if (wrong)
      remarks.push({
        level: 'note',
        text: `${cutter.name} makes holes of another size than the circle drawn here (${wrong.diameter!.toFixed(2)} mm).`,
        x: wrong.x,
        y: wrong.y,
      });
    const floor = floorOf(v, c.blank);
    const { safeHeight, clearance } = c.blank;
    const b = new MotionBuilder();
    const order = orderPieces(
      found.map((h) => ({ inX: h.x, inY: h.y, outX: h.x, outY: h.y })),
      0,
      0,
      { progress: (f) => c.progress(f) },
    );
    for (const { piece } of order) {
      const h = found[piece];
      b.rapid(h.x, h.y, b.count ? b.lastZ : safeHeight);
      b.rapid(h.x, h.y, clearance);
      if (v.peck !== null) {
        const from = Math.min(RETURN, clearance);
        b.plunge(from, preset.plunge);
        for (let z = from; z > floor + 1e-9;) {
          if (z < from) {
            b.rapid(h.x, h.y, from);
            b.rapid(h.x, h.y, Math.min(from, z + RETURN));
          }
          z = z - v.peck > floor + 1e-9 ? z - v.peck : floor;
          b.plunge(z, preset.plunge);
        }
      } else b.plunge(floor, preset.plunge);
      b.dwell(v.dwell);
      b.rapid(h.x, h.y, linkHeightOf(c.blank));
    }
    b.lift(safeHeight);
    return {
      toolpaths: [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }],
      remarks,
      unreached: { area: 0, region: [] },
      tabs: [],
      cutsFree: false,
    };
  },
  wanted(v, c) {
    const form = formOf(c.cutter(v.cutter));
    const { found } = holes(v, c);
    if (!found.length) return EMPTY;
    const floor = floorOf(v, c.blank);
    const near = new Flatbush(found.length);
    for (const h of found) near.add(h.x, h.y, h.x, h.y);
    near.finish();
    return {
      box: boxOf([Float64Array.from(found.flatMap((h) => [h.x, h.y]))], form.radius),
      surface(x, y) {
        const r = form.radius;
        let z = 0;
        for (const i of near.search(x - r, y - r, x + r, y + r))
          z = Math.min(z, floor + heightOf(form, Math.hypot(found[i].x - x, found[i].y - y)));
        return z;
      },
    };
  },
  side: (v, blank) => ({ start: 0, floor: -floorOf(v, blank), draftAngle: 0 }),
});
