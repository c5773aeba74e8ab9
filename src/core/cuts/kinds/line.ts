import { shapeOf } from '../../cutters/registry';
import { engravingDefaults, engravingFields, engravingSchema, engravingTarget, planEngraving } from '../engraving/lines';
import { cutKind } from '../kind';

const shapes = ['cone', 'v', 'taperedBall', 'ball', 'flat'];

/** Line engraving with a turning cutter at constant depth. */
export const line = cutKind({
  id: 'line',
  name: 'Line engraving',
  summary: 'Engraves lines, single-line lettering and hatched outlines at one depth.',
  schema: engravingSchema,
  fields: engravingFields(shapes),
  defaults: (_blank, cutters) => engravingDefaults((cutters.find((c) => c.shape === 'cone') ?? cutters.find((c) => shapes.includes(c.shape)))?.id ?? '', 0.2),
  cutters: (v) => [v.cutter],
  plan: planEngraving,
  target: engravingTarget,
  side: (v, _blank, cutter) => ({ start: 0, floor: v.depth, lean: leanOf(cutter(v.cutter)) }),
});

function leanOf(c: Parameters<typeof import('../../cutters/cutter').radiusAt>[0] | null): number {
  const form = c && shapeOf(c.shape).form(c.values);
  return form?.form === 'cone' ? (Math.atan(form.tan) * 180) / Math.PI : 0;
}
