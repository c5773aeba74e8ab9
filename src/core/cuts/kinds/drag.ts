import { z } from 'zod';
import { radiusAt, type Cutter } from '../../cutters/cutter';
import type { MaterialId } from '../../cutters/materials';
import { depthUnder, programmedDepth, springRateOf } from '../../cutters/sprung';
import { choices } from '../../units/fields';
import {
  engravingDefaults,
  engravingFields,
  engravingSchema,
  engravingSide,
  engravingWanted,
  planEngraving,
  type Engraving,
} from '../engraving/lines';
import { cutKind, emptyPlan } from '../kind';

const schema = engravingSchema.extend({
  /** Whether the groove's depth is given, or the load of a sprung holder that makes it. */
  press: z.enum(['depth', 'load']),
  /** N. */
  load: z.number().min(0.1).max(500),
});
type Drag = z.infer<typeof schema>;

/** The values with the depth that the load makes in the material. */
const deepened = (v: Drag, cutter: Cutter | null, material: MaterialId): Engraving =>
  v.press === 'load' && cutter ? { ...v, depth: Math.min(50, depthUnder(cutter, material, v.load)) } : v;

const [cutterField, depthField, ...others] = engravingFields(['drag']);

/** Drag engraving: a diamond is drawn through the face with the spindle off, to a depth or under the load of a spring. */
export const drag = cutKind({
  id: 'drag',
  name: 'Drag engraving',
  summary: 'Draws a diamond along lines with the spindle off.',
  canRide: true,
  schema,
  fields: [
    cutterField,
    {
      kind: 'choice',
      key: 'press',
      label: 'Pressed in by',
      options: choices({ depth: 'Depth', load: 'Load of the spring' }),
    },
    { ...depthField, when: (v) => v.press !== 'load' },
    { kind: 'number', key: 'load', label: 'Load', unit: 'N', when: (v) => v.press === 'load' },
    ...others,
  ],
  defaults: (_blank, cutters) => ({
    ...engravingDefaults(cutters.find((c) => c.shape === 'drag')?.id ?? '', 0.08),
    spacing: 0.15,
    press: 'depth' as const,
    load: 5,
  }),
  cutters: (v) => [v.cutter],
  // It does not turn. How far rows of a fill lie from each other is a value of the cut.
  presets: () => ['feed', 'plunge', 'stepDown'],
  upgrades: { 5: (cut) => void (cut.values = { press: 'depth', load: 5, ...cut.values }) },
  plan(v, c) {
    const cutter = c.cutter(v.cutter);
    const sprung = springRateOf(cutter) > 0;
    if (v.press === 'load' && !sprung)
      return emptyPlan([
        {
          level: 'problem',
          text: `${cutter.name} is held firmly. Enter the spring of its holder in the tool library, or press it in by depth.`,
        },
      ]);
    const { material } = c.blank;
    const engraving = deepened(v, cutter, material);
    const plan = planEngraving(engraving, c);
    const lower = (z: number) => (z < 0 ? -programmedDepth(cutter, material, -z) : z);
    const remarks = [...plan.remarks];
    if (v.press === 'load' && plan.toolpaths.length)
      remarks.push({
        level: 'note',
        text: `Makes grooves about ${engraving.depth.toFixed(3)} mm deep and ${(2 * radiusAt(cutter, engraving.depth)).toFixed(2)} mm wide; try it on a scrap of the same material.`,
      });
    return {
      ...plan,
      remarks,
      toolpaths: plan.toolpaths.map((t) => ({
        ...t,
        rpm: 0,
        motion: sprung ? { ...t.motion, z: t.motion.z.map(lower) } : t.motion,
      })),
    };
  },
  wanted: (v, c) => engravingWanted(deepened(v, c.cutter(v.cutter), c.blank.material), c),
  side: (v, blank, cutter) => engravingSide(deepened(v, cutter(v.cutter), blank.material), blank, cutter),
});
