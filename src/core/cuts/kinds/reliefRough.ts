import { z } from 'zod';
import { cuttingLength, formOf, radiusOf } from '../../cutters/cutter';
import { nearestCutter } from '../../cutters/library';
import { shapeOf } from '../../cutters/registry';
import { unite } from '../../geometry/region';
import { MotionBuilder, type Motion } from '../../motion/motion';
import type { HeightField } from '../../relief/field';
import { flatPlaces } from '../../relief/flats';
import { choices } from '../../units/fields';
import { formatLength } from '../../units/length';
import { entryKinds } from '../clearing/entry';
import { easings, type Easing } from '../easing';
import { terraces } from '../relief/closing';
import {
  bounded,
  fromTheTop,
  groundOf,
  NO_RELIEF,
  placeDefaults,
  placeFields,
  placeSchema,
  START_DEPTH,
  type Bounded,
  type ReliefGround,
} from '../relief/place';
import { reliefWanted } from '../relief/surface';
import { goAlong } from '../relief/along';
import { rimTracks, rowTracks } from '../relief/patterns';
import { raised, roughed, roughLevels, roughMoves, type RoughCutter, type RoughOptions } from '../relief/rough';
import { cutKind, emptyPlan, type CutContext, type Remark, type Toolpath } from '../kind';
import { EMPTY } from '../wanted';

const schema = z.object({
  cutters: z.array(z.string()).min(1).max(8),
  ...placeSchema,
  pattern: z.enum(['contours', 'hatch']),
  angle: z.number().min(-360).max(360),
  startDepth: z.number().min(0).max(500),
  /** Left all over the relief, measured across its surface, mm. */
  allowance: z.number().min(0).max(20),
  /** Whether level floors of the relief get a level of their own. */
  floors: z.boolean(),
  /** Whether each cutter goes along the slopes after its levels, so that no stairs are left. */
  slopes: z.boolean(),
  entry: z.enum(entryKinds),
  ramp: z.number().min(0.5).max(45),
  direction: z.enum(['climb', 'conventional']),
  /** Whether it goes slower where more of the cutter is in material than beside a line that was cut before. */
  ease: z.enum(Object.keys(easings) as [Easing, ...Easing[]]),
});
type Values = z.infer<typeof schema>;

/** Level places of less than so many mm2 get no level of their own. */
const FLOOR = 4;

/** What roughing alone leaves of a relief is told of from so much on, mm. */
const MINDED = 0.05;

const optionsOf = (v: Values, g: ReliefGround): RoughOptions => ({
  startDepth: v.startDepth,
  allowance: v.allowance,
  lowest: g.facts.lowest,
  floors: v.floors ? flatPlaces(g.field, { tolerance: g.field.cell, smallest: FLOOR }).map((p) => p.height) : [],
});

/** Cutters of the list, the widest first. */
const sorted = (v: Values, c: CutContext) =>
  [...new Set(v.cutters)].map((id) => c.cutter(id)).sort((a, b) => radiusOf(b) - radiusOf(a));

/**
 * Along the slopes after the levels, in rows: over the same surface as these keep to, so that no more is taken at once than lies between
 * two of them. A finer cutter goes where it went before.
 */
function slopeMoves(
  v: Values,
  c: CutContext,
  field: HeightField,
  { tool, form, todo }: RoughCutter,
  place: Bounded,
  nth: number,
  lowest: number,
): Motion | null {
  const region = nth ? todo.reduce(unite) : place.centres;
  if (!region.length) return null;
  const b = new MotionBuilder();
  const step = Math.min(tool.preset.stepOver, 2 * Math.max(tool.floorRadius, form.radius / 4));
  const least = lowest + v.allowance;
  goAlong(
    b,
    {
      field,
      form,
      allowance: v.allowance,
      least,
      walls: place.walls,
      region,
      step,
      tracks: () => [...rowTracks(region, v.angle, step, false), ...rimTracks(region)],
      layers: [{ floor: least, above: -v.startDepth }],
      preset: tool.preset,
      sink: tool.preset.plunge,
      ease: v.ease,
      links: true,
    },
    c,
    () => c.progress(0.9),
  );
  return b.count ? b.build() : null;
}

/** Most of a relief taken away in level layers, so that what follows its surface has little left to take. */
export const reliefRough = cutKind({
  id: 'reliefRough',
  name: 'Relief roughing',
  summary: 'Takes away most of what lies above the relief, level by level.',
  schema,
  onRelief: () => true,
  bare: (v) => v.where === 'relief',
  outlinesOnly: (v) => v.where !== 'relief',
  fields: [
    {
      kind: 'cutters',
      key: 'cutters',
      label: 'Cutters',
      shapes: ['flat', 'bull', 'ball'],
      hint: 'The widest goes first; each takes what the wider ones left',
    },
    ...placeFields,
    START_DEPTH,
    { kind: 'length', key: 'allowance', label: 'Allowance left', hint: 'Measured across the surface' },
    {
      kind: 'choice',
      key: 'pattern',
      label: 'Pattern',
      options: choices({ contours: 'Offset', hatch: 'Parallel lines' }),
    },
    {
      kind: 'number',
      key: 'angle',
      label: 'Angle of the lines',
      unit: '\u00b0',
      when: (v) => v.pattern === 'hatch' || v.slopes === true,
    },
    {
      kind: 'choice',
      key: 'entry',
      label: 'Entry',
      options: choices({ helix: 'Helix, else ramp', ramp: 'Ramp', plunge: 'Straight down' }),
    },
    { kind: 'number', key: 'ramp', label: 'Ramp angle', unit: '\u00b0', when: (v) => v.entry !== 'plunge' },
    {
      kind: 'choice',
      key: 'direction',
      label: 'Direction',
      options: choices({ climb: 'Climb', conventional: 'Conventional' }),
    },
    {
      kind: 'choice',
      key: 'ease',
      label: 'Slower where more is cut',
      options: choices(easings),
      hint: 'In the first line of a level, and in corners',
    },
    { kind: 'flag', key: 'floors', label: 'A level of its own for each level floor' },
    { kind: 'flag', key: 'slopes', label: 'Then along the slopes, so that no stairs are left' },
  ],
  defaults: (_blank, cutters) => ({
    cutters: [nearestCutter(cutters, 'flat', 3)],
    ...placeDefaults,
    pattern: 'contours' as const,
    angle: 0,
    startDepth: 0,
    allowance: 0.3,
    floors: true,
    slopes: false,
    entry: 'helix' as const,
    ramp: 3,
    direction: 'climb' as const,
    ease: 'gentle' as const,
  }),
  smooths: false,
  cutters: (v) => v.cutters,
  upgrades: {
    15: fromTheTop,
    20: (cut) => void (cut.values = { ease: 'off', ...cut.values }),
  },
  plan(v, c) {
    const field = c.relief();
    if (!field) return emptyPlan([{ level: 'problem', text: NO_RELIEF }]);
    const g = groundOf(field);
    const o = optionsOf(v, g);
    const unit = c.blank.unit ?? 'mm';
    const length = (mm: number) => `${formatLength(mm, unit)} ${unit}`;
    const remarks: Remark[] = [];
    const depth = -o.lowest - v.allowance - v.startDepth;
    if (depth <= 0)
      return emptyPlan([
        {
          level: 'problem',
          text: `The relief goes ${length(-o.lowest)} below the top face, and ${length(v.allowance)} is to be left: there is nothing to take away${v.startDepth ? ` below a start depth of ${length(v.startDepth)}. Start higher, or leave less.` : '. Leave less.'}`,
        },
      ]);
    const list = sorted(v, c).map((cutter) => ({
      cutter,
      preset: c.preset(cutter.id),
      place: bounded(v, c, g, formOf(cutter)),
    }));
    const plunges = list.every((q) => shapeOf(q.cutter.shape).plunges);
    const entry = v.entry === 'plunge' && !plunges ? 'ramp' : v.entry;
    if (entry !== v.entry)
      remarks.push({ level: 'note', text: 'A cutter of the list cannot go straight down; it enters by a ramp.' });
    for (const { cutter, preset } of list)
      if (preset.stepDown > cuttingLength(cutter))
        remarks.push({
          level: 'problem',
          text: `The step-down of ${cutter.name} is ${length(preset.stepDown)}, but its edges are ${length(cuttingLength(cutter))} long. Make the step-down smaller.`,
        });
    for (const { cutter, preset } of list)
      if (preset.stepDown >= depth && preset.stepDown <= cuttingLength(cutter))
        remarks.push({
          level: 'note',
          text: `The step-down of ${cutter.name} is ${length(preset.stepDown)}, and no more than ${length(depth)} is taken away: it is all one level.`,
        });
    const steps = roughed(field, list, o, (f) => c.progress(0.6 * f));
    const toolpaths: Toolpath[] = [];
    let made: HeightField | null = null;
    const surface = () => (made ??= raised(field));
    for (const [k, q] of steps.entries()) {
      const at = () => c.progress(0.6 + (0.4 * (k + 0.5)) / steps.length);
      const motion = roughMoves(q, steps.slice(0, k), c, { ...v, entry, climb: v.direction === 'climb' }, at);
      const along = motion && v.slopes ? slopeMoves(v, c, surface(), q, list[k].place, k, o.lowest) : null;
      if (motion) toolpaths.push({ cutterId: q.tool.id, rpm: q.tool.preset.rpm, motion });
      if (along) toolpaths.push({ cutterId: q.tool.id, rpm: q.tool.preset.rpm, motion: along });
      if (!motion)
        remarks.push(
          k
            ? {
                level: 'note',
                text: `${c.cutter(q.tool.id).name} finds nothing to do: the others reach everything that it could.`,
              }
            : {
                level: 'problem',
                text: `${c.cutter(q.tool.id).name} comes nowhere below the top face here: what lies between the heights of the relief is too narrow for it. Choose a smaller cutter, or leave less.`,
              },
        );
    }
    c.progress(1);
    return {
      toolpaths,
      remarks,
      unreached: { area: 0, region: [] },
      tabs: [],
      overEdge: Math.max(0, ...list.map((q) => q.place.overEdge)),
      cutsFree: false,
    };
  },
  wanted(v, c) {
    const field = c.relief();
    if (!field) return EMPTY;
    const g = groundOf(field);
    const o = optionsOf(v, g);
    const list = sorted(v, c).map((cutter) => {
      const form = formOf(cutter);
      const preset = c.preset(cutter.id);
      return { form, place: bounded(v, c, g, form), step: preset.stepOver, levels: roughLevels(o, preset.stepDown) };
    });
    const left = terraces(raised(field), list, o.lowest + v.allowance, v.allowance);
    return {
      ...reliefWanted(v, g, v.allowance, v.startDepth, list, left),
      kept: { more: MINDED, lift: v.allowance, why: () => 'levels' },
    };
  },
  side: (v, _blank, _cutter, relief) => ({
    start: v.startDepth,
    floor: Math.max(v.startDepth, -(relief?.lowest ?? 0) - v.allowance),
    draftAngle: 0,
  }),
});
