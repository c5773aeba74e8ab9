import { z } from 'zod';
import { coneOf, cuttingLength } from '../../cutters/cutter';
import { makeInside } from '../../geometry/inside';
import { roundOnce } from '../../geometry/loop';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { clipLines, intersect, type Region } from '../../geometry/region';
import { MotionBuilder } from '../../motion/motion';
import { choices } from '../../units/fields';
import { formatLength } from '../../units/length';
import { sparser } from '../../relief/field';
import { around } from '../relief/spread';
import { followed, type Follower, type Track } from '../relief/follow';
import { followMoves } from '../relief/moves';
import { besideTracks, ringTracks, rowTracks, spiralTracks, wavedTracks } from '../relief/patterns';
import {
  boundaryOf,
  groundOf,
  placeDefaults,
  placeFields,
  placeSchema,
  type ReliefGround,
  NO_RELIEF,
  NOTHING_WITHIN,
} from '../relief/place';
import { reliefShare } from '../relief/share';
import { darkness, grooveWidth, narrowestLand, shareOfWidth, type Tone } from '../relief/tone';
import { cutKind, emptyPlan, openLines, travelHeights, wholeBlank, type CutContext, type Remark } from '../kind';
import { boxOf, EMPTY, thereAndBack } from '../wanted';

const patterns = {
  rows: 'Straight lines',
  waved: 'Waved lines',
  crossed: 'Crossed lines',
  spiral: 'Spiral',
  rings: 'Rings',
  beside: 'Beside a picked line',
} as const;
type Pattern = keyof typeof patterns;
const oneOf = (p: unknown, of: readonly Pattern[]) => of.includes(p as Pattern);

/** More nodes than so many are not asked how wide grooves are beside them. */
const MOST_NODES = 4e6;

/** Where a groove would be finer than its tip, the cutter goes so far above the face: even a touch would show, mm. */
const OVER = 0.1;

const { where, margin } = placeSchema;
const schema = z.object({
  cutter: z.string(),
  where,
  margin,
  dark: z.enum(['low', 'high']),
  /** Shares of the area, per cent. */
  lightest: z.number().min(0).max(100),
  darkest: z.number().min(0).max(100),
  spacing: z.number().min(0.05).max(50),
  pattern: z.enum(Object.keys(patterns) as [Pattern, ...Pattern[]]),
  angle: z.number().min(-360).max(360),
  /** Of waved lines: length of a wave, and how far it goes to each side, mm. */
  wave: z.number().min(0.5).max(500),
  swing: z.number().min(0).max(100),
  /** No groove goes deeper, mm. */
  limit: z.number().min(0.01).max(50),
  /** Lands between grooves are no narrower, mm. */
  land: z.number().min(0).max(10),
});
type Values = z.infer<typeof schema>;

const toneOf = (v: Values): Tone => ({
  dark: v.dark,
  lightest: v.lightest / 100,
  darkest: v.darkest / 100,
  spacing: v.spacing,
  crossed: v.pattern === 'crossed',
});

/** Widths of grooves, as far as the cutter, its depth and the lands between them let them be. */
interface Grooves {
  readonly tan: number;
  readonly tip: number;
  /** Widest, mm. */
  readonly most: number;
  /** Share of the area that is asked for at a place. */
  share(x: number, y: number): number;
  width(x: number, y: number): number;
}

function groovesOf(v: Values, c: CutContext, g: ReliefGround): Grooves {
  const cutter = c.cutter(v.cutter);
  const { tan, tip } = coneOf(cutter);
  const tone = toneOf(v);
  const deepest = 2 * (tip + Math.min(v.limit, cuttingLength(cutter)) * tan);
  const most = Math.max(0, Math.min(deepest, v.spacing - v.land));
  const share = darkness(g.field, g.facts, tone);
  const [cos, sin] = [Math.cos((v.angle * Math.PI) / 180), Math.sin((v.angle * Math.PI) / 180)];
  /** Where a wave climbs, rows lie so much nearer to each other, and are so much longer. */
  const nearer = (x: number, y: number): number => {
    if (v.pattern !== 'waved') return 1;
    const climb = ((2 * Math.PI * v.swing) / v.wave) * Math.cos((2 * Math.PI * (x * cos + y * sin)) / v.wave);
    return 1 / Math.sqrt(1 + climb * climb);
  };
  return {
    tan,
    tip,
    most,
    share,
    width(x, y) {
      const near = nearer(x, y);
      return Math.max(0, Math.min(deepest, v.spacing * near - v.land, near * grooveWidth(share(x, y), tone)) || 0);
    },
  };
}

function tracksOf(v: Values, region: Region, chord: number, c: CutContext): Track[] {
  switch (v.pattern) {
    case 'spiral':
      return spiralTracks(region, v.spacing, true, chord);
    case 'rings':
      return ringTracks(region, v.spacing, c.budget.offset, true);
    case 'waved':
      return wavedTracks(region, v.angle, v.spacing, v.wave, v.swing, chord);
    case 'beside':
      return besideTracks(region, openLines(c), v.spacing, c.budget.offset).flatMap(({ points, closed }) =>
        clipLines([closed ? roundOnce(points) : points], region).map((p) => ({
          points: p,
          closed: false,
          straight: true,
        })),
      );
    case 'crossed':
      return [0, 90].flatMap((turn) => rowTracks(region, v.angle + turn, v.spacing, true));
    default:
      return rowTracks(region, v.angle, v.spacing, true);
  }
}

/** Where lines go: what is meant of the relief, and of the blank. */
function regionOf(v: Values, c: CutContext, g: ReliefGround): Region {
  return intersect(boundaryOf({ ...placeDefaults, where: v.where, margin: v.margin }, c, g), wholeBlank(c.blank));
}

/** A picture as grooves whose width makes the grey: the heights of the relief say how dark each place is to be. */
export const toneLines = cutKind({
  id: 'toneLines',
  name: 'Tone lines',
  summary: 'Lines whose width makes a picture: the heights of the relief say how dark each place is.',
  schema,
  onRelief: () => true,
  bare: (v) => v.where === 'relief' && v.pattern !== 'beside',
  outlinesOnly: (v) => v.where !== 'relief' && v.pattern !== 'beside',
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes: ['v', 'cone'] },
    ...placeFields.filter((f) => f.key !== 'rim'),
    {
      kind: 'choice',
      key: 'dark',
      label: 'Dark is',
      options: choices({ low: 'What lies low', high: 'What lies high' }),
    },
    { kind: 'number', key: 'lightest', label: 'Cut where it is lightest', unit: '%' },
    { kind: 'number', key: 'darkest', label: 'Cut where it is darkest', unit: '%' },
    { kind: 'length', key: 'spacing', label: 'Lines lie apart' },
    { kind: 'choice', key: 'pattern', label: 'Pattern', options: choices(patterns) },
    {
      kind: 'number',
      key: 'angle',
      label: 'Angle of the lines',
      unit: '\u00b0',
      when: (v) => oneOf(v.pattern, ['rows', 'waved', 'crossed']),
    },
    { kind: 'length', key: 'wave', label: 'Length of a wave', when: (v) => v.pattern === 'waved' },
    { kind: 'length', key: 'swing', label: 'Swing to each side', when: (v) => v.pattern === 'waved' },
    { kind: 'length', key: 'limit', label: 'Deepest' },
    { kind: 'length', key: 'land', label: 'Narrowest land', hint: 'What stands between two grooves' },
  ],
  defaults: (blank, cutters) => ({
    cutter: cutters.find((q) => q.shape === 'v' && q.values.includedAngle === 60)?.id ?? '',
    where: 'relief' as const,
    margin: 0,
    dark: 'low' as const,
    lightest: 4,
    darkest: 90,
    spacing: 1.2,
    pattern: 'rows' as const,
    angle: 45,
    wave: 12,
    swing: 1.5,
    limit: Math.min(2, blank.thickness / 3),
    land: narrowestLand(blank.material),
  }),
  cutters: (v) => [v.cutter],
  presets: () => ['rpm', 'feed', 'plunge'],
  plan(v, c) {
    const field = c.relief();
    if (!field) return emptyPlan([{ level: 'problem', text: NO_RELIEF }]);
    const g = groundOf(field);
    const region = regionOf(v, c, g);
    if (!region.length) return emptyPlan([{ level: 'problem', text: NOTHING_WITHIN }]);
    if (v.pattern === 'beside' && !openLines(c).length)
      return emptyPlan([
        {
          level: 'problem',
          text: 'Lines are to run beside a picked line, and none is picked. Pick an open line too, or take another pattern.',
        },
      ]);
    const q = groovesOf(v, c, g);
    const unit = c.blank.unit ?? 'mm';
    const length = (mm: number) => `${formatLength(mm, unit)} ${unit}`;
    const remarks: Remark[] = [];
    const tone = toneOf(v);
    const reached = shareOfWidth(q.most, tone);
    const asked = Math.max(tone.darkest, tone.lightest);
    if (!(q.most > 2 * q.tip))
      return emptyPlan([
        {
          level: 'problem',
          text: `Lines ${length(v.spacing)} apart leave no room for a groove of ${c.cutter(v.cutter).name} beside lands of ${length(v.land)}. Lay them further apart, or take a finer cutter.`,
        },
      ]);
    if (asked > reached + 0.005)
      remarks.push({
        level: 'note',
        text: `What is darkest is cut to ${Math.round(100 * reached)} % instead of ${Math.round(100 * asked)} %: grooves are ${length(q.most)} wide at most. Go deeper, or leave narrower lands.`,
      });
    const chips = narrowestLand(c.blank.material);
    if (v.land < chips && v.spacing - Math.min(q.most, grooveWidth(asked, tone)) < chips - 1e-9)
      remarks.push({
        level: 'problem',
        text: `Where it is darkest, lands ${length(Math.max(0, v.spacing - Math.min(q.most, grooveWidth(asked, tone))))} wide are left: in this material they chip. Leave lands of ${length(chips)}.`,
      });
    const share = reliefShare();
    const preset = c.preset(v.cutter);
    const follower: Follower = {
      step: Math.max(0.02, Math.min(field.cell, v.spacing / 4)),
      at: (x, y) => {
        const w = q.width(x, y);
        return w > 2 * q.tip ? -(w / 2 - q.tip) / q.tan : OVER;
      },
    };
    const tracks = tracksOf(v, region, follower.step, c);
    const lines = tracks.map((t, k) => {
      if ((k & 15) === 0) c.progress((0.9 * k) / tracks.length);
      return followed(t, follower, share.sample, share.merge);
    });
    const b = new MotionBuilder();
    followMoves(b, lines, [{ floor: -v.limit, above: 0 }], {
      ...travelHeights(c.blank),
      near: 20 * v.spacing,
      preset,
    });
    c.progress(1);
    if (!b.count)
      remarks.push({
        level: 'problem',
        text: `Every place is lighter than the finest groove of ${c.cutter(v.cutter).name} makes it: nothing is cut. Ask for more where it is darkest.`,
      });
    return {
      toolpaths: b.count ? [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }] : [],
      remarks,
      unreached: { area: 0, region: [] },
      tabs: [],
      cutsFree: false,
    };
  },
  wanted(v, c) {
    const field = c.relief();
    if (!field) return EMPTY;
    const g = groundOf(field);
    const region = regionOf(v, c, g);
    if (!region.length || (v.pattern === 'beside' && !openLines(c).length)) return EMPTY;
    const q = groovesOf(v, c, g);
    if (!(q.most > 2 * q.tip)) return EMPTY;
    const tracks = tracksOf(v, region, Math.max(0.02, Math.min(field.cell, v.spacing / 4)), c);
    const lines = makeSegmentIndex(tracks.map((t) => (t.closed ? t.points : thereAndBack(t.points))));
    const inside = makeInside(region);
    /** How deep a groove is at a place so far from its middle, if it is so wide there. */
    const depth = (width: number, d: number) =>
      width > 2 * q.tip ? Math.min(0, -(width / 2 - Math.max(q.tip, d)) / q.tan) : 0;
    const away = (x: number, y: number) => lines.distance(x, y, q.most);
    const surface = (x: number, y: number) => (inside(x, y) ? depth(q.width(x, y), away(x, y)) : 0);
    // At the middle of the groove, which lies beside the place, the relief may ask for another width.
    const thin = sparser(field, MOST_NODES);
    const widths = {
      ...thin,
      z: Float32Array.from(thin.z, (_, i) =>
        q.width(thin.x0 + (i % thin.cols) * thin.cell, thin.y0 + Math.floor(i / thin.cols) * thin.cell),
      ),
    };
    let near: ReturnType<typeof around> | null = null;
    const bounds = () => (near ??= around(widths, q.most / 2 + 2 * thin.cell));
    return {
      box: boxOf(region, q.most),
      surface,
      stays: (x, y) => (inside(x, y) ? Math.max(surface(x, y), depth(bounds().low(x, y), away(x, y))) : 0),
      // Grooves end round, a little beyond the boundary.
      least: (x, y) =>
        inside(x, y) ? Math.min(surface(x, y), depth(bounds().high(x, y), away(x, y))) : depth(q.most, away(x, y)),
    };
  },
  side: (v) => ({ start: 0, floor: v.limit, draftAngle: 0 }),
});
