import { z } from 'zod';
import { radiusOf } from '../../cutters/cutter';
import { contains, loopArea, offset, type Loop } from '../../geometry/region';
import { makeOutline } from '../../geometry/outline';
import { MotionBuilder } from '../../motion/motion';
import { orderPieces } from '../../motion/order';
import { makeTrack, pointAt, type Track } from '../../motion/track';
import { ARC_TOLERANCE, OFFSET_TOLERANCE, reversed } from '../clearing';
import { cutKind, passes, type PlacedTab, type Remark } from '../kind';
import { placeTabs, profilePass, tabSpans } from '../tabs';

const point = z.object({ x: z.number(), y: z.number() });

/** Profile along outlines: outside, inside or on the line, in passes, with holding tabs. */
export const profile = cutKind({
  id: 'profile',
  name: 'Profile',
  summary: 'Runs along outlines, for cutting parts free or scoring a line.',
  schema: z.object({
    cutter: z.string(),
    side: z.enum(['outside', 'inside', 'on']),
    startDepth: z.number().min(0),
    through: z.boolean(),
    depth: z.number().positive(),
    /** Below the bed side of the blank when positive, material left (skin) when negative. */
    beyond: z.number(),
    stepDown: z.number().positive().nullable(),
    allowance: z.number().min(0),
    ramp: z.number().min(0.5).max(45),
    direction: z.enum(['climb', 'conventional']),
    tabs: z.object({
      count: z.number().int().min(0).max(200),
      length: z.number().positive(),
      height: z.number().positive(),
      /** Where the maker has put them, in the blank's frame; empty spreads `count` evenly. */
      at: z.array(point),
    }),
  }),
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes: ['flat', 'bull', 'ball', 'v', 'cone', 'taperedBall'] },
    {
      kind: 'choice',
      key: 'side',
      label: 'Side of the line',
      options: [
        { value: 'outside', label: 'Outside' },
        { value: 'inside', label: 'Inside' },
        { value: 'on', label: 'On the line' },
      ],
    },
    { kind: 'flag', key: 'through', label: 'Cut through the blank' },
    { kind: 'length', key: 'beyond', label: 'Past the underside', min: -50, max: 10, hint: 'Negative leaves a skin', when: (v) => v.through === true },
    { kind: 'length', key: 'depth', label: 'Depth', min: 0.001, max: 500, when: (v) => v.through !== true },
    { kind: 'length', key: 'startDepth', label: 'Start depth', min: 0, max: 500 },
    { kind: 'length', key: 'stepDown', label: 'Step-down', min: 0.001, max: 100, optional: 'From the cutter' },
    { kind: 'length', key: 'allowance', label: 'Allowance', min: 0, max: 20, when: (v) => v.side !== 'on' },
    { kind: 'number', key: 'ramp', label: 'Ramp angle', unit: '°', min: 0.5, max: 45 },
    {
      kind: 'choice',
      key: 'direction',
      label: 'Direction',
      options: [
        { value: 'climb', label: 'Climb' },
        { value: 'conventional', label: 'Conventional' },
      ],
    },
    { kind: 'number', key: 'tabs.count', label: 'Holding tabs', min: 0, max: 200, whole: true, hint: 'Drag them on the table' },
    { kind: 'length', key: 'tabs.length', label: 'Tab length', min: 0.1, max: 200, when: (v) => (v.tabs as { count: number }).count > 0 },
    { kind: 'length', key: 'tabs.height', label: 'Tab height', min: 0.05, max: 100, when: (v) => (v.tabs as { count: number }).count > 0 },
  ],
  defaults: (blank, cutters) => ({
    cutter: (cutters.find((c) => c.shape === 'flat' && radiusOf(c) === 3) ?? cutters.find((c) => c.shape === 'flat'))?.id ?? '',
    side: 'outside' as const,
    startDepth: 0,
    through: true,
    depth: blank.thickness / 2,
    beyond: 0,
    stepDown: null,
    allowance: 0,
    ramp: 5,
    direction: 'climb' as const,
    tabs: { count: 4, length: 8, height: Math.min(3, blank.thickness / 3), at: [] },
  }),
  cutters: (v) => [v.cutter],
  plan(v, c) {
    const cutter = c.cutter(v.cutter);
    const preset = c.preset(v.cutter);
    const r = radiusOf(cutter);
    const floor = -(v.through ? c.blank.thickness + v.beyond : v.depth);
    const remarks: Remark[] = [];
    const climb = v.direction === 'climb';
    const region = c.region(0.001);
    const away = r + v.allowance;
    const loops = v.side === 'on' ? region : offset(region, v.side === 'outside' ? away : -away, OFFSET_TOLERANCE);
    if (!loops.length && region.length) remarks.push({ level: 'problem', text: `${cutter.name} is too wide to go inside the picked outlines.` });
    // Interior on the left is climb for an inside profile; outside, the part is on the other hand.
    const forward = (v.side === 'outside') !== climb;
    const rank = (l: Loop) => (loopArea(l) < 0 ? 0 : 1);
    const tracks: { track: Track; first: number }[] = loops.map((l) => ({ track: makeTrack(forward ? l : reversed(l), true, ARC_TOLERANCE), first: rank(l) }));

    const heights = passes(-v.startDepth, floor, v.stepDown ?? preset.stepDown);
    const tabTop = -c.blank.thickness + v.tabs.height;
    const wanted = v.through && v.tabs.count > 0 && floor < tabTop;
    const placed = wanted ? placeTabs(tracks.map((t) => t.track), v.tabs) : tracks.map(() => []);
    const tabs: PlacedTab[] = [];
    placed.forEach((at, i) => at.forEach((s) => tabs.push({ ...pointAt(tracks[i].track, s), length: v.tabs.length })));

    const b = new MotionBuilder();
    const turn = [...tracks.keys()];
    // Openings before what surrounds them, each group in a short order.
    for (const group of [0, 1]) {
      const members = turn.filter((i) => tracks[i].first === group && tracks[i].track.length > 0);
      const starts = members.map((i) => startOf(tracks[i].track, placed[i], v.tabs.length + 2 * r));
      const at = members.map((i, k) => pointAt(tracks[i].track, starts[k]));
      for (const k of orderPieces(at.map((p) => ({ inX: p.x, inY: p.y, outX: p.x, outY: p.y })), b.count ? b.lastX : 0, b.count ? b.lastY : 0).map((t) => t.piece)) {
        const i = members[k];
        // A cutter of radius r clears r to each side of its centre: the way over a tab is longer by 2 r.
        const spans = tabSpans(tracks[i].track, placed[i], v.tabs.length + 2 * r);
        profilePass(b, tracks[i].track, starts[k], spans, {
          safe: c.blank.safeHeight,
          clearance: c.blank.clearance,
          face: -v.startDepth,
          heights,
          tabTop,
          feed: preset.feed,
          plunge: preset.plunge,
          ramp: v.ramp,
        });
        c.progress((k + 1) / members.length);
      }
    }
    return {
      toolpaths: b.count ? [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }] : [],
      remarks,
      unreached: { area: 0, region: [] },
      tabs,
      cutsFree: v.through && v.beyond >= 0 && v.side !== 'on',
    };
  },
  target(v, c) {
    const r = radiusOf(c.cutter(v.cutter));
    const floor = -(v.through ? c.blank.thickness + v.beyond : v.depth);
    const region = c.region(0.001);
    const outline = makeOutline(region);
    const sign = v.side === 'outside' ? 1 : -1;
    return (x, y) => {
      const d = outline.distance(x, y);
      if (v.side === 'on') return d < r ? floor : 0;
      const out = contains(region, x, y) ? -d : d;
      const from = out * sign - v.allowance;
      return from > 0 && from < 2 * r ? floor : 0;
    };
  },
  side: (v, blank) => ({ start: v.startDepth, floor: v.through ? blank.thickness + v.beyond : v.depth, lean: 0 }),
});

/** Starts midway between tabs, where the ramp is in nobody's way. */
function startOf(track: Track, tabs: readonly number[], length: number): number {
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
