import { z } from 'zod';
import { formOf, profileAt, radiusAt, type Cutter } from '../../cutters/cutter';
import { shapeOf } from '../../cutters/registry';
import { insetsOf } from '../../geometry/insets';
import { MotionBuilder } from '../../motion/motion';
import { choices, type Field } from '../../units/fields';
import { hatchRows, zigzags } from '../clearing/hatch';
import { finer, type Budget } from '../budget';
import {
  emptyPlan,
  travelHeights,
  passes,
  type CutBlank,
  type CutContext,
  type CutPlan,
  type Line,
  type Remark,
} from '../kind';
import { alongLines, boxOf, EMPTY, type Wanted } from '../wanted';
import { append } from '../../units/append';
import { grooves } from './moves';

/** What line engraving and drag engraving have in common: which lines are followed, how deep, and how outlines are filled. */
export const engravingSchema = z.object({
  cutter: z.string(),
  depth: z.number().min(0.001).max(50),
  /** What becomes of outlines: run along them, along their inside by half the groove, or not. */
  edge: z.enum(['on', 'inside', 'none']),
  fill: z.enum(['none', 'hatch', 'crossed']),
  angle: z.number().min(-360).max(360),
  spacing: z.number().min(0.01).max(100),
  touch: z.number().min(1).max(5000),
  cornerShare: z.number().min(0.05).max(1),
});
export type Engraving = z.infer<typeof engravingSchema>;

const filled = (v: Record<string, unknown>) => v.fill !== 'none';
export const engravingFields = (shapes: readonly string[]): Field[] => [
  { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes },
  { kind: 'length', key: 'depth', label: 'Depth' },
  {
    kind: 'choice',
    key: 'edge',
    label: 'Outlines',
    options: choices({ on: 'On the line', inside: 'Inside the line', none: 'Left out' }),
  },
  {
    kind: 'choice',
    key: 'fill',
    label: 'Fill',
    options: choices({ none: 'None', hatch: 'Hatch', crossed: 'Crossed hatch' }),
  },
  { kind: 'number', key: 'angle', label: 'Angle of the hatch', unit: '\u00b0', when: filled },
  { kind: 'length', key: 'spacing', label: 'Spacing', when: filled },
  { kind: 'length', rate: true, key: 'touch', label: 'Touch-down feed' },
  {
    kind: 'number',
    key: 'cornerShare',
    label: 'Feed in sharp corners',
    unit: '\u00d7',
    hint: '1 does not slow',
  },
];

export const engravingDefaults = (cutter: string, depth: number): Engraving => ({
  cutter,
  depth,
  edge: 'on',
  fill: 'none',
  angle: 45,
  spacing: 0.3,
  touch: 150,
  cornerShare: 1,
});

/** The budget for a groove: what stands off sideways is a depth on its wall, the more so the steeper it is. */
function budgetFor(cutter: Cutter, depth: number, c: CutContext): Budget {
  const [r0, r1] = [radiusAt(cutter, 1e-4), radiusAt(cutter, depth)];
  let steep = 1;
  const place = (i: number) => r0 + ((r1 - r0) * i) / 8;
  // The wall of an end mill is upright: there only the way sideways counts.
  if (r1 - r0 > 1e-6)
    for (let i = 0; i < 8; i++)
      steep = Math.max(
        steep,
        (profileAt(cutter, place(i + 1) - 1e-9) - profileAt(cutter, place(i))) / (place(i + 1) - place(i)),
      );
  return finer(c.budget, steep);
}

/** The lines of an engraving, in no order: those of the artwork, and those of the fill, a groove's half width inside. */
export function engravedLines(v: Engraving, c: CutContext): Line[] {
  const cutter = c.cutter(v.cutter);
  const half = radiusAt(cutter, v.depth);
  const budget = budgetFor(cutter, v.depth, c);
  const out: Line[] = c.lines(budget.flatten).filter((l) => !l.closed || v.edge === 'on');
  if (v.edge !== 'inside' && v.fill === 'none') return out;
  const region = c.region(budget.flatten);
  if (!region.length) return out;
  const inside = insetsOf(region).at(half, budget.offset);
  if (v.edge === 'inside')
    append(
      out,
      inside.map((points) => ({ points, closed: true })),
    );
  // Joined rows leave a short groove between their ends: where an edge is run, it lies in the edge's own groove or beside it.
  for (const angle of v.fill === 'none' ? [] : v.fill === 'hatch' ? [v.angle] : [v.angle, v.angle + 90])
    for (const points of zigzags(hatchRows(inside, angle, v.spacing), inside, 3 * v.spacing))
      out.push({ points, closed: false });
  return out;
}

export function planEngraving(v: Engraving, c: CutContext): CutPlan {
  const cutter = c.cutter(v.cutter);
  const preset = c.preset(v.cutter);
  const remarks: Remark[] = [];
  const lines = engravedLines(v, c).filter((l) => l.points.length >= 4);
  if (!lines.length)
    return emptyPlan([
      {
        level: 'problem',
        text: `There is no line here for ${cutter.name}: pick lines or outlines, or have the outlines run or filled.`,
      },
    ]);
  if (v.depth > cutter.fluteLength)
    remarks.push({ level: 'problem', text: `${cutter.name} cuts ${cutter.fluteLength.toFixed(2)} mm deep at most.` });
  const b = new MotionBuilder();
  grooves(
    b,
    lines,
    {
      ...travelHeights(c.blank),
      levels: passes(0, -v.depth, preset.stepDown),
      feed: preset.feed,
      approachFeed: Math.min(v.touch, preset.plunge),
      cornerFeedFactor: v.cornerShare,
      merge: budgetFor(cutter, v.depth, c).merge,
    },
    (f) => c.progress(f),
  );
  return {
    toolpaths: [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }],
    remarks,
    unreached: { area: 0, region: [] },
    tabs: [],
    cutsFree: false,
  };
}

/** Depth and lean of the groove for the side-on drawing. */
export function engravingSide(
  v: Engraving,
  _blank: CutBlank,
  cutter: (id: string) => Cutter | null,
): { start: number; floor: number; draftAngle: number } {
  const c = cutter(v.cutter);
  const form = c && shapeOf(c.shape).form(c.values);
  return {
    start: 0,
    floor: v.depth,
    draftAngle: form && form.rise < Infinity ? (Math.atan(1 / form.rise) * 180) / Math.PI : 0,
  };
}

/** Grooves as the cutter's profile makes them about each line. */
export function engravingWanted(v: Engraving, c: CutContext): Wanted {
  const cutter = c.cutter(v.cutter);
  const lines = engravedLines(v, c).filter((l) => l.points.length >= 4);
  if (!lines.length) return EMPTY;
  const groove = alongLines(lines, formOf(cutter), -v.depth);
  return {
    box: boxOf(
      lines.map((l) => l.points),
      radiusAt(cutter, v.depth),
    ),
    surface: (x, y) => Math.min(0, groove(x, y)),
  };
}
