import { z } from 'zod';
import { formOf, radiusOf, type Cutter } from '../../cutters/cutter';
import { intersect, offset, type Region } from '../../geometry/region';
import { MotionBuilder } from '../../motion/motion';
import { heightAt, sparser, sparserOver, type HeightField } from '../../relief/field';
import { choices } from '../../units/fields';
import { formatLength } from '../../units/length';
import { freeShapeLeaves, leftOver, shapeLeaves } from '../relief/closing';
import { closingBy, standingOver } from '../relief/finer';
import { reversed } from '../clearing/contours';
import { easings, sinkOf, type Easing } from '../easing';
import { goAlong } from '../relief/along';
import type { Follower, Track } from '../relief/follow';
import { ringTracks, rimTracks, rowTracks, spiralTracks } from '../relief/patterns';
import {
  bounded,
  fromTheTop,
  groundOf,
  NO_RELIEF,
  NOTHING_WITHIN,
  placeDefaults,
  placeFields,
  placeSchema,
  START_DEPTH,
  type ReliefGround,
} from '../relief/place';
import { levelTracks, slopesOf } from '../relief/slopes';
import { standsFree } from '../relief/stands';
import { levelStep } from '../relief/steepGround';
import { reliefWanted } from '../relief/surface';
import {
  beginsOf,
  wandered,
  wanderDefaults,
  wanderFields,
  wandering,
  wanderSchema,
  wanderStep,
} from '../texture/wander';
import { cutKind, emptyPlan, passes, type CutContext, type Remark, type Toolpath } from '../kind';
import { EMPTY, type Reason } from '../wanted';

const patterns = {
  rows: 'Rows',
  crossed: 'Crossed rows',
  spiral: 'Spiral',
  rings: 'Rings',
  slopes: 'Level lines where steep, rows elsewhere',
} as const;
type Pattern = keyof typeof patterns;

const schema = z.object({
  cutters: z.array(z.string()).min(1).max(8),
  ...placeSchema,
  pattern: z.enum(Object.keys(patterns) as [Pattern, ...Pattern[]]),
  /** Of the rows from X, and from the first rows to those that cross them, degrees. */
  angle: z.number().min(-360).max(360),
  startDepth: z.number().min(0).max(500),
  turn: z.number().min(1).max(179),
  /** Ground is steep from so many degrees on. */
  steep: z.number().min(5).max(85),
  direction: z.enum(['both', 'one']),
  from: z.enum(['middle', 'rim']),
  /** Left all over the relief, measured across its surface, mm. */
  allowance: z.number().min(0).max(20),
  /** Whether it is cut in layers, none deeper than the step-down of the cutter. */
  layers: z.boolean(),
  /** Finer cutters go where they would take more than so much of what the ones before have left, mm. */
  rest: z.number().min(0.001).max(10),
  /** Length of the way in along the surface, mm. */
  lead: z.number().min(0).max(50),
  /** Whether it goes slower where it goes down steeply, and where it meets more than beside a line. */
  ease: z.enum(Object.keys(easings) as [Easing, ...Easing[]]),
  /** Whether rows wander from their way, as strokes of a texture do. */
  wander: z.boolean(),
  ...wanderSchema,
});
type Values = z.infer<typeof schema>;

const oneOf = (p: unknown, of: readonly Pattern[]) => of.includes(p as Pattern);

/** More nodes than so many are not looked at for what cutters leave. */
const MOST_NODES = 1e6;

/** What level lines are found by: how low a cutter may stand over nodes, and anywhere. */
interface Levels {
  stands(): HeightField;
  readonly follower: Follower;
  tell(done: number): void;
}
/** Level lines lie within so much of their level, mm. */
const LEVEL = 0.002;

/** Patterns that are made of rows. */
const ROWS: readonly Pattern[] = ['rows', 'crossed', 'slopes'];

/** How much ground climbs for each mm from where on it is steep; null where level lines are not asked for. */
const climbOf = (v: Values): number | null => (v.pattern === 'slopes' ? Math.tan((v.steep * Math.PI) / 180) : null);

/** The tracks of a cutter over a region. */
function tracksOf(v: Values, region: Region, step: number, chord: number, c: CutContext, level: Levels): Track[] {
  const both = v.direction === 'both' && oneOf(v.pattern, ROWS);
  const wanders = (over: Region, tracks: Track[], way: number | string): Track[] => {
    if (!v.wander) return tracks;
    const { up } = wandering(v);
    return wandered(tracks, region, Math.min(chord, wanderStep(v)), v, beginsOf(way, over)).map(
      ({ line, along, points, ...t }) => {
        const raised = along.map((s) => up(line, s));
        return both && line % 2
          ? { ...t, points: reversed(points), raised: raised.reverse() }
          : { ...t, points, raised };
      },
    );
  };
  // What swings beyond the boundary is cut off there: it begins beyond it.
  const wide = v.wander ? offset(region, v.swing, c.budget.offset) : region;
  const outwards = v.from === 'middle';
  if (v.pattern === 'spiral')
    return [...wanders(wide, spiralTracks(wide, step, outwards, chord), 'spiral'), ...rimTracks(region)];
  if (v.pattern === 'rings') {
    const rings = wanders(wide, ringTracks(wide, step, c.budget.offset, outwards), 'rings');
    return v.wander ? [...rings, ...rimTracks(region)] : rings;
  }
  const rows = (angle: number, over = wide) =>
    wanders(over, rowTracks(over, angle, step, v.wander || v.direction === 'one'), angle);
  const climb = climbOf(v);
  if (climb !== null) {
    const stands = level.stands();
    const parts = slopesOf(stands, climb, region, step);
    const apart = levelStep(step, climb);
    return [
      ...levelTracks(stands, parts.steep, region, apart, level.follower, LEVEL, level.tell),
      ...rows(v.angle, parts.shallow),
      ...(parts.strips.length ? rows(v.angle + 90, parts.strips) : []),
      ...rimTracks(region),
    ];
  }
  return [...rows(v.angle), ...(v.pattern === 'crossed' ? rows(v.angle + v.turn) : []), ...rimTracks(region)];
}

/** Furthest that two rows lie from each other: those that wander alike keep their distance, whatever else lets them part. */
const apart = (v: Values, step: number): number =>
  v.wander ? step + 2 * v.swing * (oneOf(v.pattern, ROWS) ? v.chance / 100 : 1) : step;

/** What each cutter of the list is to go over, the first of them everything. */
function* shares(v: Values, c: CutContext, g: ReliefGround) {
  const one = v.cutters.length === 1;
  const thin = one ? g.field : sparser(g.field, MOST_NODES);
  let left: HeightField | null = null;
  for (const id of v.cutters) {
    const form = formOf(c.cutter(id));
    const b = bounded(v, c, g, form);
    const step = c.preset(id).stepOver;
    const mine = one ? null : closingBy(thin, form, b, g.facts.lowest + v.allowance, v.allowance);
    // Beside what was left it goes on for some rows: no seam shows where the two meet.
    const region =
      left && mine ? intersect(b.centres, standingOver(mine, left, v.rest, 2 * step + 2 * thin.cell)) : b.centres;
    yield { id, form, b, step, region };
    if (!mine) return;
    const { z } = mine.left;
    left = { ...mine.left, z: left ? left.z.map((h, i) => (h < z[i] ? h : z[i])) : z };
  }
}

/** Where a list of cutters begins: with what is round and fine. */
const finest = (cutters: readonly Cutter[]): string =>
  [...cutters]
    .filter((q) => q.shape === 'taperedBall' || q.shape === 'ball')
    .sort((a, b) => Math.abs(radiusOf(a) - 1.5) - Math.abs(radiusOf(b) - 1.5))[0]?.id ?? '';

/** The surface of a relief, followed by the tip of a cutter. */
export const reliefFinish = cutKind({
  id: 'reliefFinish',
  name: 'Relief finishing',
  summary: 'Follows the surface of the relief, row by row, until it is smooth.',
  schema,
  onRelief: () => true,
  bare: (v) => v.where === 'relief',
  outlinesOnly: (v) => v.where !== 'relief',
  fields: [
    {
      kind: 'cutters',
      key: 'cutters',
      label: 'Cutters',
      shapes: ['ball', 'taperedBall', 'bull', 'cone', 'v', 'flat'],
      hint: 'Each after the first goes only where the one before has left something',
    },
    {
      kind: 'length',
      key: 'rest',
      label: 'Where more is left than',
      hint: 'Finer cutters go where they take more, and the proof tells of it',
    },
    ...placeFields,
    { kind: 'choice', key: 'pattern', label: 'Pattern', options: choices(patterns) },
    {
      kind: 'number',
      key: 'angle',
      label: 'Angle of the rows',
      unit: '\u00b0',
      when: (v) => oneOf(v.pattern, ROWS),
    },
    {
      kind: 'number',
      key: 'turn',
      label: 'Crossed at',
      unit: '\u00b0',
      when: (v) => oneOf(v.pattern, ['crossed']),
    },
    {
      kind: 'number',
      key: 'steep',
      label: 'Steep from',
      unit: '\u00b0',
      hint: 'There it goes round at heights',
      when: (v) => oneOf(v.pattern, ['slopes']),
    },
    {
      kind: 'choice',
      key: 'direction',
      label: 'Rows run',
      options: choices({ both: 'To and fro', one: 'All the same way' }),
      when: (v) => oneOf(v.pattern, ROWS),
    },
    {
      kind: 'choice',
      key: 'from',
      label: 'Begins',
      options: choices({ middle: 'In the middle', rim: 'At the rim' }),
      when: (v) => oneOf(v.pattern, ['spiral', 'rings']),
    },
    START_DEPTH,
    { kind: 'length', key: 'allowance', label: 'Allowance left', hint: 'Measured across the surface' },
    {
      kind: 'length',
      key: 'lead',
      label: 'Way in',
      hint: 'Along the surface; 0: straight down',
    },
    {
      kind: 'choice',
      key: 'ease',
      label: 'Slower where more is cut',
      options: choices(easings),
      hint: 'In the first line, in creases, and where it goes down steeply',
    },
    { kind: 'flag', key: 'layers', label: 'In layers, none deeper than the step-down' },
    { kind: 'flag', key: 'wander', label: 'Rows wander, as if made by hand' },
    ...wanderFields((v) => v.wander === true),
  ],
  defaults: (_blank, cutters) => ({
    cutters: [finest(cutters)],
    ...placeDefaults,
    pattern: 'rows' as const,
    angle: 0,
    turn: 90,
    steep: 45,
    direction: 'both' as const,
    from: 'middle' as const,
    startDepth: 0,
    allowance: 0,
    layers: false,
    rest: 0.05,
    lead: 1,
    ease: 'gentle' as const,
    wander: false,
    ...wanderDefaults,
  }),
  atOnce: (v) => !v.layers,
  smooths: true,
  cutters: (v) => v.cutters,
  upgrades: { 15: fromTheTop },
  presets: (v) =>
    v.layers ? ['rpm', 'feed', 'plunge', 'stepDown', 'stepOver'] : ['rpm', 'feed', 'plunge', 'stepOver'],
  plan(v, c) {
    const field = c.relief();
    if (!field) return emptyPlan([{ level: 'problem', text: NO_RELIEF }]);
    const g = groundOf(field);
    const remarks: Remark[] = [];
    const toolpaths: Toolpath[] = [];
    const unit = c.blank.unit ?? 'mm';
    let overEdge = 0;
    let done = 0;
    for (const { id, form, b, step, region } of shares(v, c, g)) {
      const cutter = c.cutter(id);
      const preset = c.preset(id);
      overEdge = Math.max(overEdge, b.overEdge);
      if (!region.length) {
        remarks.push(
          done
            ? {
                level: 'note',
                text: `${cutter.name} finds nothing to do: nowhere would it take more than ${formatLength(v.rest, unit)} ${unit} of what the one before leaves.`,
              }
            : { level: 'problem', text: NOTHING_WITHIN },
        );
        continue;
      }
      const least = g.facts.lowest + v.allowance;
      const levels = v.layers ? passes(-v.startDepth, least, preset.stepDown) : [least];
      const motion = new MotionBuilder();
      const error = goAlong(
        motion,
        {
          field,
          form,
          allowance: v.allowance,
          least,
          walls: b.walls,
          region,
          step,
          tracks: (chord, follower, tell) =>
            tracksOf(v, region, step, chord, c, {
              stands: () => standsFree(sparserOver(field, MOST_NODES), form, v.allowance, least),
              follower,
              tell,
            }),
          layers: levels.map((floor, k) => ({ floor, above: k ? levels[k - 1] : -v.startDepth })),
          preset,
          lead: v.lead,
          sink: sinkOf(v.ease, preset.plunge),
          ease: v.ease,
          links: v.direction === 'both' || !oneOf(v.pattern, ROWS),
        },
        c,
        (f) => c.progress((done + f) / v.cutters.length),
      );
      if (error)
        remarks.push({
          level: 'note',
          text: `${cutter.name} is too fine for so many nodes: sharp ridges may be cut ${formatLength(error, unit)} ${unit} too deep. Make the nodes of the relief lie closer, or take a cutter with a rounder tip.`,
        });
      done++;
      if (motion.count) toolpaths.push({ cutterId: id, rpm: preset.rpm, motion: motion.build() });
    }
    if (!toolpaths.length && !remarks.length)
      remarks.push({
        level: 'problem',
        text: v.startDepth
          ? 'The relief lies no lower than the start depth anywhere here: there is nothing to cut.'
          : 'The relief lies at the top face everywhere here: there is nothing to cut.',
      });
    return {
      toolpaths,
      remarks,
      unreached: { area: 0, region: [] },
      tabs: [],
      overEdge: overEdge > 0 ? overEdge + 0.01 : 0,
      cutsFree: false,
    };
  },
  wanted(v, c) {
    const field = c.relief();
    if (!field) return EMPTY;
    const g = groundOf(field);
    const list = v.cutters.map((id, n) => {
      const form = formOf(c.cutter(id));
      return {
        form,
        place: bounded(v, c, g, form),
        step: apart(v, c.preset(id).stepOver),
        spare: n ? v.rest : 0,
        // Rows that wander leave no more than they would where level lines go.
        climb: v.wander ? null : climbOf(v),
      };
    });
    const thin = sparserOver(field, MOST_NODES);
    const left = leftOver(thin, list, g.facts.lowest + v.allowance, v.allowance);
    const lift = v.wander ? v.lift : 0;
    const meant = reliefWanted(v, g, v.allowance, v.startDepth, list, lift ? (x, y) => left(x, y) + lift : left);
    const least = g.facts.lowest + v.allowance;
    const [leaves, free] = [shapeLeaves, freeShapeLeaves].map((by) => by(thin, list, least, v.allowance));
    const more = v.rest + lift;
    const why = (x: number, y: number, over: number, thick: number): Reason => {
      if (v.allowance && thick <= v.allowance + more) return 'allowance';
      const above = over - v.allowance;
      const most = meant.surface(x, y) + above / 2;
      return free(x, y) > most ? 'shape' : leaves(x, y) > most ? 'boundary' : 'rows';
    };
    const smooth = (x: number, y: number) => heightAt(field, x, y);
    return { ...meant, kept: { more, smooth, lift: v.allowance, why } };
  },
  side: (v, _blank, _cutter, relief) => ({
    start: v.startDepth,
    floor: Math.max(v.startDepth, -(relief?.lowest ?? 0)),
    draftAngle: 0,
  }),
});
