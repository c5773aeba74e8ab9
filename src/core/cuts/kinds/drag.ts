import { engravingDefaults, engravingFields, engravingSchema, engravingSide, engravingTarget, planEngraving } from '../engraving/lines';
import { cutKind } from '../kind';

/** Drag engraving: a diamond is drawn through the face with the spindle off. */
export const drag = cutKind({
  id: 'drag',
  name: 'Drag engraving',
  summary: 'Draws a diamond along lines with the spindle off.',
  schema: engravingSchema,
  fields: engravingFields(['drag']),
  defaults: (_blank, cutters) => ({ ...engravingDefaults(cutters.find((c) => c.shape === 'drag')?.id ?? '', 0.08), spacing: 0.15 }),
  cutters: (v) => [v.cutter],
  plan(v, c) {
    const plan = planEngraving(v, c);
    return { ...plan, toolpaths: plan.toolpaths.map((t) => ({ ...t, rpm: 0 })) };
  },
  target: engravingTarget,
  side: engravingSide,
});
