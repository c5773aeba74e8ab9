import { z } from 'zod';
import { formOf, radiusOf } from '../../cutters/cutter';
import { makeInside } from '../../geometry/inside';
import { insetsOf } from '../../geometry/insets';
import { offset, type Region } from '../../geometry/region';
import { MotionBuilder } from '../../motion/motion';
import { fitArcs, pointAt, run, slice } from '../../motion/arcPolyline';
import { choices } from '../../units/fields';
import { clearingTool } from '../clearing/clear';
import { hatchRows, zigzags } from '../clearing/hatch';
import { reachOf } from '../clearing/reach';
import { eachTrack, rapidTo } from '../clearing/travel';
import { cutKind, emptyPlan, passes, wholeBlank, type CutContext } from '../kind';
import { boxOf, EMPTY, reaching } from '../wanted';

const schema = z.object({
  cutter: z.string(),
  where: z.enum(['blank', 'picked']),
  depth: z.number().min(0.005).max(100),
  angle: z.number().min(-360).max(360),
  /** How far the cutter's edge goes beyond what is skimmed, mm. */
  overlap: z.number().min(0).max(100),
});
type Skim = z.infer<typeof schema>;

/**
 * Where the cutter's axis may go, and what its edge may reach. Over the whole blank the edge passes every side by `overlap`;
 * round outlines it goes `overlap` beyond them and no further, with round corners.
 */
function places(v: Skim, c: CutContext): { reached: Region; centres: Region } {
  const r = radiusOf(c.cutter(v.cutter));
  if (v.where === 'blank') {
    const reached = offset(wholeBlank(c.blank), v.overlap + 2 * r, c.budget.offset, 'sharp');
    return { reached, centres: offset(wholeBlank(c.blank), v.overlap + r, c.budget.offset, 'sharp') };
  }
  const region = c.region(c.budget.flatten);
  const reached = v.overlap > 0 ? offset(region, v.overlap, c.budget.offset) : region;
  return { reached, centres: insetsOf(reached).at(r, c.budget.offset) };
}

/** Skimming a face flat: rows to and fro, with their turns beyond the edge. */
export const skim = cutKind({
  id: 'skim',
  name: 'Skim',
  summary: 'Takes a thin layer off the whole face, or off outlines.',
  schema,
  bare: (v) => v.where === 'blank',
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes: ['flat', 'bull'] },
    {
      kind: 'choice',
      key: 'where',
      label: 'Where',
      options: choices({ blank: 'The whole blank', picked: 'Picked outlines' }),
    },
    { kind: 'length', key: 'depth', label: 'Depth' },
    { kind: 'number', key: 'angle', label: 'Angle of the rows', unit: '\u00b0' },
    { kind: 'length', key: 'overlap', label: 'Beyond the edge' },
  ],
  defaults: (_blank, cutters) => ({
    cutter: [...cutters].filter((c) => c.shape === 'flat').sort((a, b) => radiusOf(b) - radiusOf(a))[0]?.id ?? '',
    where: 'blank' as const,
    depth: 0.3,
    angle: 0,
    overlap: 1,
  }),
  outlinesOnly: (v) => v.where === 'picked',
  cutters: (v) => [v.cutter],
  plan(v, c) {
    const preset = c.preset(v.cutter);
    const cutter = c.cutter(v.cutter);
    const { radius: r, floorRadius } = clearingTool(cutter, preset);
    const { reached, centres } = places(v, c);
    if (!reached.length) return emptyPlan();
    if (!centres.length)
      return emptyPlan([
        {
          level: 'problem',
          text: `${cutter.name} is too wide for any of the picked outlines. Let its edge go further beyond them, or choose a smaller cutter.`,
        },
      ]);
    const step = Math.min(preset.stepOver, 1.9 * floorRadius);
    const rows = zigzags(hatchRows(centres, v.angle, step), centres, 3 * r).map((l) => fitArcs(l, false, c.budget.arc));
    // Rows end at the outline: what lies between their ends is taken by going round it once.
    const rims =
      v.where === 'picked' ? centres.map((l) => fitArcs(l, true, c.budget.arc)).filter((t) => t.length > 0) : [];
    const b = new MotionBuilder();
    const { safeHeight: safe, clearance, approach } = c.blank;
    let previousLevel = 0;
    for (const z of passes(0, -v.depth, preset.stepDown)) {
      eachTrack(b, [...rows, ...rims], (t, from) => {
        const p = pointAt(t, t.closed ? from : 0);
        rapidTo(b, p.x, p.y, { safe, linkHeight: safe }, 0);
        b.rapid(p.x, p.y, Math.min(clearance, previousLevel + approach));
        b.plunge(z, preset.plunge);
        run(b, t.closed ? slice(t, from, from + t.length) : t.segments, z, z, preset.feed);
      });
      c.progress(-z / v.depth);
      previousLevel = z;
    }
    b.lift(safe);
    const out = v.where === 'picked' ? reachOf(reached, r) : null;
    return {
      toolpaths: b.count ? [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }] : [],
      remarks: [],
      unreached: { area: out?.area ?? 0, region: out?.left ?? [] },
      tabs: [],
      overEdge: v.where === 'blank' ? r + v.overlap + 0.01 : v.overlap,
      cutsFree: false,
    };
  },
  wanted(v, c) {
    const { reached, centres } = places(v, c);
    if (!reached.length) return EMPTY;
    const inside = makeInside(reached);
    const reach = reaching(centres, formOf(c.cutter(v.cutter)), -v.depth);
    return {
      box: boxOf(reached, 0),
      surface: (x, y) => (inside(x, y) ? -v.depth : 0),
      stays: (x, y) => (inside(x, y) ? Math.min(0, reach(x, y)) : 0),
    };
  },
  side: (v) => ({ start: 0, floor: v.depth, draftAngle: 0 }),
});
