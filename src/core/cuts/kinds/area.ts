import { z } from 'zod';
import { radiusOf } from '../../cutters/cutter';
import { contains, offset } from '../../geometry/region';
import { makeOutline } from '../../geometry/outline';
import { MotionBuilder } from '../../motion/motion';
import { clearingMoves, contours, OFFSET_TOLERANCE, reachOf } from '../clearing';
import { cutKind, emptyPlan, passes } from '../kind';

/** Area clearance by contour-parallel passes with one end mill. */
export const area = cutKind({
  id: 'area',
  name: 'Area clearance',
  summary: 'Clears the inside of outlines to a flat floor.',
  schema: z.object({
    cutter: z.string(),
    startDepth: z.number().min(0),
    depth: z.number().positive(),
    stepDown: z.number().positive().nullable(),
    stepOver: z.number().positive().nullable(),
    allowance: z.number().min(0),
    ramp: z.number().min(0.5).max(45),
    direction: z.enum(['climb', 'conventional']),
  }),
  fields: [
    { kind: 'cutter', key: 'cutter', label: 'Cutter', shapes: ['flat', 'bull'] },
    { kind: 'length', key: 'startDepth', label: 'Start depth', min: 0, max: 500 },
    { kind: 'length', key: 'depth', label: 'Depth', min: 0.001, max: 500, hint: 'Measured from the top face' },
    { kind: 'stepOver', key: 'stepOver', label: 'Step-over', cutter: 'cutter' },
    { kind: 'length', key: 'stepDown', label: 'Step-down', min: 0.001, max: 100, optional: 'From the cutter' },
    { kind: 'length', key: 'allowance', label: 'Wall allowance', min: 0, max: 20 },
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
  ],
  defaults: (blank, cutters) => ({
    cutter: (cutters.find((c) => c.shape === 'flat' && radiusOf(c) === 1.5) ?? cutters.find((c) => c.shape === 'flat'))?.id ?? '',
    startDepth: 0,
    depth: Math.min(2, blank.thickness / 3),
    stepDown: null,
    stepOver: null,
    allowance: 0,
    ramp: 3,
    direction: 'climb' as const,
  }),
  cutters: (v) => [v.cutter],
  plan(v, c) {
    const cutter = c.cutter(v.cutter);
    const preset = c.preset(v.cutter);
    const r = radiusOf(cutter);
    const region = c.region(0.001);
    const remarks = [];
    if (v.depth <= v.startDepth) return emptyPlan([{ level: 'problem', text: 'The depth is not below the start depth.' }]);
    const wall = v.allowance > 0 ? offset(region, -v.allowance, OFFSET_TOLERANCE) : region;
    const step = Math.min(v.stepOver ?? preset.stepOver, 2 * r);
    const clearing = contours(wall, r, step, () => c.progress(0.3));
    const unreached = reachOf(wall, r);
    if (clearing.pockets.length === 0 && region.length) remarks.push({ level: 'problem' as const, text: `${cutter.name} is too wide to enter any of the picked outlines. Choose a smaller cutter.` });
    const b = new MotionBuilder();
    clearingMoves(b, clearing, {
      safe: c.blank.safeHeight,
      clearance: c.blank.clearance,
      face: -v.startDepth,
      heights: passes(-v.startDepth, -v.depth, v.stepDown ?? preset.stepDown),
      feed: preset.feed,
      plunge: preset.plunge,
      ramp: v.ramp,
      climb: v.direction === 'climb',
    });
    c.progress(1);
    return {
      toolpaths: b.count ? [{ cutterId: v.cutter, rpm: preset.rpm, motion: b.build() }] : [],
      remarks,
      unreached: { area: unreached.area, region: unreached.left },
      tabs: [],
      cutsFree: false,
    };
  },
  target(v, c) {
    const region = c.region(0.001);
    const outline = v.allowance > 0 ? makeOutline(region) : null;
    return (x, y) => (contains(region, x, y) && (!outline || outline.distance(x, y) >= v.allowance) ? -v.depth : 0);
  },
  side: (v) => ({ start: v.startDepth, floor: v.depth, lean: 0 }),
});
