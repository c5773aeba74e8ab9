import {
  engravingDefaults,
  engravingFields,
  engravingSchema,
  engravingSide,
  engravingWanted,
  planEngraving,
} from '../engraving/lines';
import { cutKind } from '../kind';

const shapes = ['cone', 'v', 'taperedBall', 'ball', 'flat'];

/** Line engraving with a turning cutter at constant depth. */
export const line = cutKind({
  id: 'line',
  name: 'Line engraving',
  summary: 'Engraves lines, single-line lettering and hatched outlines at one depth.',
  canRide: true,
  schema: engravingSchema,
  fields: engravingFields(shapes),
  defaults: (_blank, cutters) =>
    engravingDefaults(
      (cutters.find((c) => c.shape === 'cone') ?? cutters.find((c) => shapes.includes(c.shape)))?.id ?? '',
      0.2,
    ),
  cutters: (v) => [v.cutter],
  // How far rows of a fill lie from each other is a value of the cut.
  presets: () => ['rpm', 'feed', 'plunge', 'stepDown'],
  plan: planEngraving,
  wanted: engravingWanted,
  side: engravingSide,
});
