import { z } from 'zod';
import { radiusOf } from '../../cutters/cutter';
import { contains, offset, type Region } from '../../geometry/region';
import { MotionBuilder } from '../../motion/motion';
import { choices } from '../../units/fields';
import { hatchRows } from '../clearing/hatch';
import { cutKind, emptyPlan, passes, type CutBlank, type CutContext } from '../kind';

const schema = z.object({
  cutter: z.string(),
  where: z.enum(['blank', 'picked']),
  depth: z.number().positive().max(100),
  angle: z.number().min(-360).max(360),
  /** How far the cutter's edge goes beyond what is skimmed, mm. */
  overlap: z.number().min(0).max(100),
});
type Skim = z.infer<typeof schema>;

const whole = (b: CutBlank): Region => [Float64Array.of(0, 0, b.width, 0, b.width, b.height, 0, b.height)];
const regionOf = (v: Skim, c: CutContext): Region => (v.where === 'blank' ? whole(c.blank) : c.region(0.01));

/** Skimming a face flat: rows to and fro, with their turns beyond the edge. */
export const skim = cutKind({
  id: 'skim',
  name: 'Skim',
  summary: 'Takes a thin layer off the whole face, or off outlines.',
  schema,
  bare: (v) => v.where === 'blank',
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes: ['flat', 'bull'] },
    { kind: 'choice', key: 'where', label: 'Where', options: choices({ blank: 'The whole blank', picked: 'Picked outlines' }) },
    { kind: 'length', key: 'depth', label: 'Depth', min: 0.005, max: 100 },
    { kind: 'number', key: 'angle', label: 'Angle of the rows', unit: '\u00b0', min: -360, max: 360 },
    { kind: 'length', key: 'overlap', label: 'Beyond the edge', min: 0, max: 100 },
  ],
  defaults: (_blank, cutters) => ({ cutter: [...cutters].filter((c) => c.shape === 'flat').sort((a, b) => radiusOf(b) - radiusOf(a))[0]?.id ?? '', where: 'blank' as const, depth: 0.3, angle: 0, overlap: 1 }),
  cutters: (v) => [v.cutter],
  plan(v, c) {
    const preset = c.preset(v.cutter);
    const r = radiusOf(c.cutter(v.cutter));
    const region = regionOf(v, c);
    if (!region.length) return emptyPlan();
    // Rows reach so far that the cutter's whole width has passed every edge.
    const overEdge = r + v.overlap;
    const rows = hatchRows(offset(region, overEdge, 0.01, 'sharp'), v.angle, Math.min(preset.stepOver, 1.9 * r)).filter((row) => row.length);
    const b = new MotionBuilder();
    const { safeHeight, clearance } = c.blank;
    let above = 0;
    for (const z of passes(0, -v.depth, preset.stepDown)) {
      rows.forEach((row, k) => {
        for (const seg of k % 2 ? [...row].reverse() : row) {
          const [x0, y0, x1, y1] = k % 2 ? [seg[2], seg[3], seg[0], seg[1]] : seg;
          const near = b.count > 0 && b.lastZ === z && Math.hypot(x0 - b.lastX, y0 - b.lastY) < 3 * r && row.length === 1;
          if (near) b.line(x0, y0, z, preset.feed);
          else {
            if (b.count) b.rapid(b.lastX, b.lastY, safeHeight);
            b.rapid(x0, y0, safeHeight);
            b.rapid(x0, y0, Math.min(clearance, above + c.blank.approach));
            b.plunge(z, preset.plunge);
          }
          b.line(x1, y1, z, preset.feed);
        }
        c.progress((k + 1) / rows.length);
      });
      above = z;
    }
    if (b.count) b.rapid(b.lastX, b.lastY, safeHeight);
    return { toolpaths: b.count ? [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }] : [], remarks: [], unreached: { area: 0, region: [] }, tabs: [], overEdge: overEdge + 0.01, cutsFree: false };
  },
  target(v, c) {
    const region = regionOf(v, c);
    return (x, y) => (contains(region, x, y) ? -v.depth : 0);
  },
  side: (v) => ({ start: 0, floor: v.depth, lean: 0 }),
});
