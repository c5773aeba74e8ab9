import { z } from 'zod';
import { cuttingLength, formOf } from '../../cutters/cutter';
import { nearestCutter } from '../../cutters/library';
import { widthOf } from '../../cutters/form';
import { intersect, offset, subtract, type Region } from '../../geometry/region';
import { MotionBuilder } from '../../motion/motion';
import { choices } from '../../units/fields';
import { formatLength } from '../../units/length';
import { fewestAlong } from '../relief/follow';
import { followMoves } from '../relief/moves';
import { groundOf, NO_RELIEF, NOTHING_WITHIN } from '../relief/place';
import { alongStrokes } from '../texture/envelope';
import { strokesOver, ways, type Way } from '../texture/strokes';
import { wanderDefaults, wanderFields, wanderSchema } from '../texture/wander';
import { cutKind, emptyPlan, openLines, travelHeights, wholeBlank, type CutContext, type Remark } from '../kind';
import { EMPTY, type Wanted } from '../wanted';

const places = {
  inside: 'Inside outlines',
  outside: 'Outside outlines',
  relief: 'All of the relief',
  blank: 'All of the blank',
} as const;
type Where = keyof typeof places;

const schema = z.object({
  cutter: z.string(),
  where: z.enum(Object.keys(places) as [Where, ...Where[]]),
  /** How far strokes may go: their edge stays within the boundary, or their middle does. */
  rim: z.enum(['edge', 'middle']),
  way: z.enum(Object.keys(ways) as [Way, ...Way[]]),
  angle: z.number().min(-360).max(360),
  spacing: z.number().min(0.05).max(100),
  long: z.number().min(0).max(1000),
  gap: z.number().min(0).max(500),
  runs: z.number().min(0).max(500),
  depth: z.number().min(0.01).max(20),
  ...wanderSchema,
});
type Values = z.infer<typeof schema>;

/** Where strokes go, and what of it their middles may reach. Lines among what is picked show the way, and bound nothing. */
function boundaryOf(v: Values, c: CutContext): { region: Region; centres: Region } {
  const blank = wholeBlank(c.blank);
  const field = v.where === 'relief' ? c.relief() : null;
  const picked = () => c.region(c.budget.flatten);
  const region =
    v.where === 'blank'
      ? blank
      : v.where === 'relief'
        ? field
          ? intersect(groundOf(field).border, blank)
          : []
        : v.where === 'inside'
          ? intersect(picked(), blank)
          : subtract(blank, picked());
  // The edge of the blank is no boundary that a stroke could spoil.
  const half = v.rim === 'edge' ? widthOf(formOf(c.cutter(v.cutter)), v.depth) : 0;
  if (!half || v.where === 'blank' || v.where === 'relief') return { region, centres: region };
  const centres =
    v.where === 'inside'
      ? offset(region, -half, c.budget.offset)
      : subtract(blank, offset(picked(), half, c.budget.offset));
  return { region, centres };
}

const strokesOf = (v: Values, c: CutContext, centres: Region): Float64Array[] =>
  strokesOver(v, centres, v.way === 'line' ? openLines(c) : [], c.budget.offset);

/** Where there is something to stroke but nothing is stroked, and why. */
function wanting(v: Values, c: CutContext, { region, centres }: ReturnType<typeof boundaryOf>): string | null {
  if (v.where === 'relief' && !c.relief()) return NO_RELIEF;
  if (!region.length)
    return v.where === 'inside' ? 'There is no closed outline here to stroke. Pick some.' : NOTHING_WITHIN;
  if (!centres.length)
    return `${c.cutter(v.cutter).name} at this depth fits nowhere inside. Go less deep, take a finer cutter, or let its middle go to the boundary.`;
  if (v.way === 'line' && !openLines(c).length)
    return 'Strokes are to run along a picked line, and none is picked. Pick an open line too.';
  return null;
}

/** Strokes of a cutter side by side, as a chisel or a punch would leave them. */
export const tooledTexture = cutKind({
  id: 'tooledTexture',
  name: 'Tooled texture',
  summary: 'Strokes side by side that wander a little, as if a face were tooled by hand.',
  schema,
  canRide: true,
  onRelief: (v) => v.where === 'relief',
  bare: (v) => (v.where === 'relief' || v.where === 'blank') && v.way !== 'line',
  outlinesOnly: (v) => v.way !== 'line',
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes: ['ball', 'taperedBall', 'v', 'cone', 'bull'] },
    { kind: 'choice', key: 'where', label: 'Where', options: choices(places) },
    {
      kind: 'choice',
      key: 'rim',
      label: 'Cutter at the boundary',
      options: choices({ edge: 'Stays within', middle: 'Middle on it' }),
      when: (v) => v.where === 'inside' || v.where === 'outside',
    },
    { kind: 'choice', key: 'way', label: 'Strokes run', options: choices(ways) },
    { kind: 'number', key: 'angle', label: 'Angle', unit: '\u00b0', when: (v) => v.way === 'rows' },
    { kind: 'length', key: 'spacing', label: 'Lines of strokes lie apart' },
    { kind: 'length', key: 'depth', label: 'Depth' },
    { kind: 'length', key: 'long', label: 'Length of a stroke', hint: '0: from end to end' },
    { kind: 'length', key: 'gap', label: 'Gap between strokes', when: (v) => Number(v.long) > 0 },
    { kind: 'length', key: 'runs', label: 'Runs in and out over' },
    ...wanderFields(),
  ],
  defaults: (blank, cutters) => ({
    cutter: nearestCutter(cutters, 'ball', 3),
    where: 'inside' as const,
    rim: 'edge' as const,
    way: 'rows' as const,
    angle: 30,
    spacing: 2.5,
    long: 14,
    gap: 1.5,
    runs: 4,
    depth: Math.min(0.5, blank.thickness / 4),
    ...wanderDefaults,
  }),
  cutters: (v) => [v.cutter],
  presets: () => ['rpm', 'feed', 'plunge'],
  plan(v, c) {
    const where = boundaryOf(v, c);
    const cutter = c.cutter(v.cutter);
    const lacks = wanting(v, c, where);
    if (lacks) return emptyPlan([{ level: 'problem', text: lacks }]);
    const unit = c.blank.unit ?? 'mm';
    const remarks: Remark[] = [];
    if (v.depth > cuttingLength(cutter))
      remarks.push({
        level: 'problem',
        text: `${cutter.name} cuts ${formatLength(cuttingLength(cutter), unit)} ${unit} deep at most.`,
      });
    if (v.lift >= v.depth)
      remarks.push({
        level: 'note',
        text: 'Strokes may be shallower by all of their depth: in places the cutter leaves the face.',
      });
    const strokes = strokesOf(v, c, where.centres);
    if (!strokes.length)
      return emptyPlan([
        {
          level: 'problem',
          text: 'No stroke is short enough for what the boundary leaves. Make strokes shorter, or run in and out over less.',
        },
      ]);
    const preset = c.preset(v.cutter);
    const b = new MotionBuilder();
    const lines = strokes.map((p, k) => {
      if ((k & 63) === 0) c.progress((0.9 * k) / strokes.length);
      const out = [p[0], p[1], p[2]];
      fewestAlong(p, c.budget.merge, (i, z) => out.push(p[3 * i], p[3 * i + 1], z));
      return Float64Array.from(out);
    });
    followMoves(b, lines, [{ floor: -v.depth, above: 0 }], {
      ...travelHeights(c.blank),
      near: 20 * v.spacing + v.gap,
      preset,
    });
    c.progress(1);
    return {
      ...emptyPlan(remarks),
      toolpaths: b.count ? [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }] : [],
    };
  },
  wanted(v, c): Wanted {
    const where = boundaryOf(v, c);
    if (wanting(v, c, where)) return EMPTY;
    const strokes = strokesOf(v, c, where.centres);
    if (!strokes.length) return EMPTY;
    const { box, lowest } = alongStrokes(strokes, formOf(c.cutter(v.cutter)));
    return { box, surface: (x, y) => Math.min(0, lowest(x, y)) };
  },
  side: (v) => ({ start: 0, floor: v.depth, draftAngle: 0 }),
});
