import { z } from 'zod';
import { formOf, radiusOf } from '../../cutters/cutter';
import { nearestCutter } from '../../cutters/library';
import { contains, loopArea, offset, type Region } from '../../geometry/region';
import { makeInside } from '../../geometry/inside';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { MotionBuilder } from '../../motion/motion';
import { orderPieces, type RoutePiece } from '../../motion/order';
import { fitArcs, pointAt, run, type ArcPolyline } from '../../motion/arcPolyline';
import { choices } from '../../units/fields';
import { reversed } from '../clearing/contours';
import { enterOpen } from '../clearing/entry';
import { pieceOf, startAt } from '../clearing/travel';
import { alongLines, boxOf, EMPTY } from '../wanted';
import { cutKind, emptyPlan, floorOf, passes, type CutContext, type PlacedTab } from '../kind';
import { cornered, cornerFields, cornerRemarks, cornerSchema } from '../corners';
import { reliefField, relievedRegion, reliefRemarks, reliefSchema } from '../cornerRelief';
import { findLead, leadKinds, type Lead } from '../profile/leads';
import { badFor, holderOf, shortOf, tooNarrow } from '../profile/outlines';
import { byRamp, passWithLeads, placeTabs, profilePass, tabShapes, tabSpans, type ProfileMoves } from '../profile/tabs';

const point = z.object({ x: z.number(), y: z.number() });
type Values = Record<string, unknown>;
/** Whether the values are those of a profile that may be held by tabs. */
const mayHaveTabs = (v: Values): boolean => v.through === true && typeof v.tabs === 'object';
const hasTabs = (v: Values) => mayHaveTabs(v) && (v.tabs as { count: number }).count > 0;

const schema = z.object({
  cutter: z.string(),
  side: z.enum(['outside', 'inside', 'on']),
  startDepth: z.number().min(0).max(500),
  through: z.boolean(),
  depth: z.number().min(0.001).max(500),
  /** How far below the underside of the blank it goes, mm. */
  beyond: z.number().min(0).max(10),
  /** What is left above the underside, mm: the part comes free by hand. */
  skin: z.number().min(0).max(50).default(0),
  allowance: z.number().min(0).max(20),
  ...cornerSchema,
  ...reliefSchema,
  /** Left by all passes but a last one, which goes round once at full depth; 0 for no such pass. */
  finish: z.number().min(0).max(20),
  ramp: z.number().min(0.5).max(45),
  direction: z.enum(['climb', 'conventional']),
  lead: z.enum(leadKinds),
  leadSize: z.number().min(0.05).max(200),
  tabs: z.object({
    shape: z.enum(tabShapes),
    by: z.enum(['count', 'spacing']),
    count: z.number().int().min(0).max(200),
    spacing: z.number().min(1).max(5000),
    length: z.number().min(0.2).max(200),
    height: z.number().min(0.05).max(200),
    /** Where the maker has put them, in the blank's frame; empty spreads them evenly. */
    at: z.array(point),
  }),
});
type Profile = z.infer<typeof schema>;

/** Profile along outlines: outside, inside or on the line, in passes, with holding tabs. */
export const profile = cutKind({
  id: 'profile',
  takesTabs: mayHaveTabs,
  presets: () => ['rpm', 'feed', 'plunge', 'stepDown'],
  name: 'Profile',
  summary: 'Runs along outlines, for cutting parts free or scoring a line.',
  canRide: true,
  schema,
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes: ['flat', 'bull', 'ball', 'v', 'cone', 'taperedBall'] },
    {
      kind: 'choice',
      key: 'side',
      label: 'Side of the line',
      options: choices({ outside: 'Outside', inside: 'Inside', on: 'On the line' }),
    },
    {
      kind: 'choice',
      key: 'direction',
      label: 'Direction',
      options: choices({ climb: 'Climb', conventional: 'Conventional' }),
    },
    { kind: 'flag', key: 'through', label: 'Through the blank' },
    { kind: 'length', key: 'startDepth', label: 'Start depth' },
    { kind: 'length', key: 'depth', label: 'Depth', when: (v) => v.through !== true },
    {
      kind: 'length',
      key: 'beyond',
      label: 'Spoilboard depth',
      when: (v) => v.through === true && !v.skin,
    },
    {
      kind: 'length',
      key: 'skin',
      label: 'Skin',
      hint: 'Left at the bottom',
      when: (v) => v.through === true,
    },
    { kind: 'length', key: 'allowance', label: 'Allowance' },
    ...cornerFields,
    reliefField((v) => v.side !== 'on'),
    {
      kind: 'length',
      key: 'finish',
      label: 'Finishing allowance',
      hint: 'Once round at full depth',
      when: (v) => v.side !== 'on',
    },
    { kind: 'number', key: 'ramp', label: 'Ramp angle', unit: '\u00b0' },
    {
      kind: 'choice',
      key: 'lead',
      label: 'Lead-in and lead-out',
      options: choices({ none: 'None', arc: 'Arc', line: 'Line' }),
      when: (v) => v.side !== 'on',
    },
    {
      kind: 'length',
      key: 'leadSize',
      label: 'Lead length',
      when: (v) => v.side !== 'on' && v.lead !== 'none',
    },
    {
      kind: 'number',
      key: 'tabs.count',
      label: 'Holding tabs',
      whole: true,
      when: (v) => v.through === true,
    },
    {
      kind: 'choice',
      key: 'tabs.by',
      label: 'Tabs by',
      options: choices({ count: 'Number', spacing: 'Distance' }),
      when: hasTabs,
    },
    {
      kind: 'length',
      key: 'tabs.spacing',
      label: 'Tab spacing',
      when: (v) => hasTabs(v) && (v.tabs as { by: string }).by === 'spacing',
    },
    {
      kind: 'choice',
      key: 'tabs.shape',
      label: 'Tab shape',
      options: choices({ rectangular: 'Rectangular', triangular: 'Triangular', rounded: 'Rounded' }),
      when: hasTabs,
    },
    { kind: 'length', key: 'tabs.length', label: 'Tab length', when: hasTabs },
    { kind: 'length', key: 'tabs.height', label: 'Tab height', when: hasTabs },
  ],
  defaults: (blank, cutters) => ({
    cutter: nearestCutter(cutters, 'flat', 6),
    side: 'outside' as const,
    startDepth: 0,
    through: true,
    depth: blank.thickness / 2,
    beyond: 0,
    skin: 0,
    allowance: 0,
    corners: 0,
    grow: 0,
    relieved: false,
    finish: 0,
    ramp: 5,
    direction: 'climb' as const,
    lead: 'none' as const,
    leadSize: 3,
    tabs: {
      shape: 'rectangular' as const,
      by: 'count' as const,
      count: 4,
      spacing: 80,
      length: 8,
      height: Math.min(3, blank.thickness / 3),
      at: [],
    },
  }),
  outlinesOnly: (v) => v.side !== 'on',
  cutters: (v) => [v.cutter],
  upgrades: {
    4: (cut) => {
      cut.values = {
        ...cut.values,
        finish: 0,
        lead: 'none',
        leadSize: 3,
        tabs: { shape: 'rectangular', by: 'count', spacing: 80, ...(cut.values.tabs as object) },
      };
    },
    // What stayed below was a negative depth into the spoilboard.
    6: (cut) => {
      const beyond = Number(cut.values.beyond);
      cut.values = { ...cut.values, beyond: Math.max(0, beyond), skin: Math.max(0, -beyond) };
    },
  },
  plan(v, given) {
    const c = cornered(given, v);
    const cutter = c.cutter(v.cutter);
    const preset = c.preset(v.cutter);
    const r = radiusOf(cutter);
    const floor = floorOf(v, c.blank);
    if (floor >= -v.startDepth)
      return emptyPlan([{ level: 'problem', text: 'The depth is not below the start depth.' }]);
    const remarks = cornerRemarks(given, v);
    const outlines = c.region(c.budget.flatten);
    const region = relievedIn(v, c);
    if (v.relieved && v.side !== 'on')
      remarks.push(...reliefRemarks(outlines, reliefsOf(v, c), cutter, c.budget.flatten));
    const levels = passes(-v.startDepth, floor, preset.stepDown);
    const tabTop = -c.blank.thickness + v.tabs.height;
    const moves: ProfileMoves = {
      safe: c.blank.safeHeight,
      clearance: c.blank.clearance,
      approach: c.blank.approach,
      stockTop: -v.startDepth,
      levels: levels,
      tabTop,
      tabFoot: Math.min(-c.blank.thickness, tabTop),
      tabShape: v.tabs.shape,
      tabRise: v.tabs.length / 2,
      feed: preset.feed,
      plunge: preset.plunge,
      ramp: v.ramp,
    };
    const b = new MotionBuilder();
    if (v.side === 'on') followLines(b, c, moves);
    const away = r + v.allowance;
    const rough = away + v.finish;
    const loopsAt = (d: number) =>
      v.side === 'on' ? region : offset(region, v.side === 'outside' ? d : -d, c.budget.offset);
    const loops = loopsAt(rough);
    if (v.side === 'inside')
      for (const at of tooNarrow(region, rough))
        remarks.push({
          level: 'problem',
          text: `${cutter.name} is too wide to go inside this outline: nothing of it is cut. Choose a smaller cutter.`,
          ...at,
        });
    const wanted = v.through && v.tabs.count > 0 && floor < tabTop;
    const tabs: PlacedTab[] = [];
    const round = (at: Region, m: ProfileMoves, tell: boolean) => {
      const tracks = at.map((l) => fitArcs(forward(v) ? l : reversed(l), true, c.budget.arc));
      const { placed, short } = wanted
        ? placeTabs(tracks, v.tabs, v.tabs.length + 2 * r, badFor(region, c, v))
        : { placed: tracks.map((): number[] => []), short: [] };
      if (tell)
        for (const q of short)
          remarks.push(shortOf(q, tracks[q.track], loopArea(at[q.track]) > 0 && v.side !== 'inside', c.blank));
      if (tell)
        placed.forEach((on, i) => on.forEach((s) => tabs.push({ ...pointAt(tracks[i], s), length: v.tabs.length })));
      const leads = tracks.map((t, i) => {
        const s = startOf(t, placed[i], v.tabs.length + 2 * r);
        return v.side === 'on'
          ? null
          : findLead(t, s, v.lead, v.leadSize, leadSide(v), (x, y) => contains(at, x, y) !== (v.side === 'outside'));
      });
      if (tell && v.lead !== 'none' && leads.some((l) => !l))
        remarks.push({
          level: 'note',
          text: 'Somewhere there is no room for the way in without touching a neighbour; the cutter goes straight to the outline there.',
        });
      const pieces = tracks.map((t, i) => outlinePiece(t, at, i, leads[i], placed[i], v, r));
      orderPieces(pieces, b.count ? b.lastX : 0, b.count ? b.lastY : 0).forEach(({ piece: i, start }, k) => {
        if (!(tracks[i].length > 0)) return;
        // A cutter of radius r clears r to each side of its centre: the way over a tab is longer by 2 r.
        const spans = tabSpans(tracks[i], placed[i], v.tabs.length + 2 * r);
        const lead = leads[i];
        if (lead) passWithLeads(b, tracks[i], lead, spans, m);
        else
          profilePass(
            b,
            tracks[i],
            pieces[i].starts ? startAt(tracks[i], start) : startOf(tracks[i], placed[i], v.tabs.length + 2 * r),
            spans,
            m,
          );
        c.progress((k + 1) / pieces.length);
      });
    };
    round(loops, moves, true);
    if (v.finish > 0 && v.side !== 'on') round(loopsAt(away), { ...moves, levels: [floor], ramp: 45 }, false);
    return {
      toolpaths: b.count ? [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }] : [],
      remarks,
      unreached: { area: 0, region: [] },
      tabs,
      cutsFree: v.through && !(v.skin > 0) && (v.side !== 'on' || region.length > 0),
    };
  },
  wanted(v, given, plan) {
    const c = cornered(given, v);
    const cutter = c.cutter(v.cutter);
    const floor = floorOf(v, c.blank);
    const region = relievedIn(v, c);
    const away = radiusOf(cutter) + v.allowance;
    const closed = (loops: Region) => loops.map((points) => ({ points, closed: true }));
    const path =
      v.side === 'on'
        ? [...closed(region), ...c.lines(c.budget.flatten).filter((l) => !l.closed)]
        : closed(offset(region, v.side === 'outside' ? away : -away, c.budget.offset));
    if (!path.length) return EMPTY;
    const groove = alongLines(path, formOf(cutter), floor);
    const part = makeInside(region);
    const edge = v.allowance > 0 ? makeSegmentIndex(region) : null;
    const surface = (x: number, y: number) => Math.min(0, groove(x, y));
    const tabTop = -c.blank.thickness + v.tabs.height;
    const tabs = plan?.tabs ?? [];
    const tabbed = (x: number, y: number) => tabs.some((t) => Math.hypot(t.x - x, t.y - y) < t.length / 2 + 2 * away);
    return {
      // Ways in and out lie in the waste.
      box: boxOf(
        path.map((l) => l.points),
        radiusOf(cutter) + (v.side === 'on' || v.lead === 'none' ? 0 : 2 * v.leadSize),
      ),
      surface,
      stays: tabs.length
        ? (x, y) => (tabbed(x, y) ? Math.max(Math.min(0, tabTop), surface(x, y)) : surface(x, y))
        : undefined,
      least:
        v.side === 'on'
          ? undefined
          : (x, y) => {
              // Out of the part, or into the opening: there anything may go.
              const waste = part(x, y) !== (v.side === 'outside');
              return waste && !(edge && edge.distance(x, y) < v.allowance) ? floor : 0;
            },
    };
  },
  side: (v, blank) => ({ start: v.startDepth, floor: -floorOf(v, blank), draftAngle: 0 }),
});

const reliefsOf = (v: Profile, c: CutContext) => ({
  ...{ radius: radiusOf(c.cutter(v.cutter)), outside: v.side === 'outside', blank: c.blank },
});
/** The outlines that it runs along, their corners relieved where that is asked for. */
function relievedIn(v: Profile, c: CutContext): Region {
  const outlines = c.region(c.budget.flatten);
  return v.relieved && v.side !== 'on' ? relievedRegion(outlines, reliefsOf(v, c), c.budget.flatten) : outlines;
}

/** Interior on the left is climb for an inside profile; outside, the part is on the other hand. */
const forward = (v: Profile) => (v.side === 'outside') !== (v.direction === 'climb');
/** The waste is outside of an outside profile: on the right of loops that run with their interior on the left. */
const leadSide = (v: Profile): 1 | -1 => ((v.side === 'outside') === forward(v) ? -1 : 1);

/** A closed track as a piece of the order: after all that lie inside it, begun anywhere unless tabs or a way in say where. */
function outlinePiece(
  track: ArcPolyline,
  loops: Region,
  i: number,
  lead: Lead | null,
  tabs: readonly number[],
  v: Profile,
  r: number,
): RoutePiece {
  const before = holderOf(loops, i);
  if (!lead && !tabs.length) return { ...pieceOf(track), before };
  const from = lead ? pointAt(lead.into, 0) : pointAt(track, startOf(track, tabs, v.tabs.length + 2 * r));
  const to = lead ? pointAt(lead.out, lead.out.length) : from;
  return { inX: from.x, inY: from.y, outX: to.x, outY: to.y, before };
}

/** Open lines, on the line: each pass to and fro, entered by a ramp along the line. */
function followLines(b: MotionBuilder, c: CutContext, m: ProfileMoves): void {
  const tracks = c
    .lines(c.budget.flatten)
    .filter((l) => !l.closed)
    .map((l) => fitArcs(l.points, false, c.budget.arc))
    .filter((t) => t.length > 0);
  const pieces = tracks.map(pieceOf);
  for (const { piece } of orderPieces(pieces, b.count ? b.lastX : 0, b.count ? b.lastY : 0)) {
    let previousLevel = m.stockTop;
    for (const floor of m.levels) {
      b.lift(previousLevel === m.stockTop ? m.safe : m.clearance);
      b.rapid(pieces[piece].inX, pieces[piece].inY, b.count && previousLevel !== m.stockTop ? m.clearance : m.safe);
      enterOpen(b, tracks[piece], byRamp(m), floor, previousLevel, false);
      run(b, tracks[piece].segments, floor, floor, m.feed);
      previousLevel = floor;
    }
  }
  b.lift(m.safe);
}

/** Starts midway between tabs, where the ramp is in nobody's way. */
function startOf(track: ArcPolyline, tabs: readonly number[], length: number): number {
  if (!tabs.length) return 0;
  const sorted = [...tabs].sort((a, b) => a - b);
  let best = 0;
  let at = 0;
  sorted.forEach((s, i) => {
    const next = i + 1 < sorted.length ? sorted[i + 1] : sorted[0] + track.length;
    if (next - s > best) {
      best = next - s;
      at = s + length / 2 + 0.5;
    }
  });
  return at % track.length;
}
