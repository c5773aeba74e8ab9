import { sideDefaults } from '../../cuts/around';
import { newItem } from '../../artwork/item';
import { freshForm } from '../../relief/freshForm';
import { castMaterials } from '../../cutters/castMaterials';
import { shippedLibrary } from '../../cutters/library';
import type { Cut } from '../job';
import { finishing, roughing } from './reliefCuts';
import { newOneSetup, type OneSetup } from '../job';

/** The face as it is skimmed, the floor of the mould, and how far the rim, the lettering and the ferry lie below that, mm. */
const [FACE, FLOOR, RIM, WORDS, FERRY] = [0.3, 3.3, 0.8, 0.5, 1.2];
/** Of walls from upright: that of the cone that finishes them, degrees. */
const DRAFT = 10;
const CONE = 'cone-3.175-10-0.1';
const [COARSE, FINE, ROUND, VBIT] = ['flat-6', 'flat-1.5', 'taperedBall-6-0.25-5', 'v-6-60-0'];

const cut = (id: string, name: string, kind: string, items: string[], values: Cut['values']): Cut => ({
  id,
  name,
  kind,
  enabled: true,
  items,
  values,
  overrides: {},
});

/** A floor cleared by end mills, its wall finished by the cone. */
const cleared = (id: string, name: string, item: string, cutters: string[], startDepth: number, depth: number): Cut =>
  cut(id, name, 'area', [item], {
    ...{ cutters, startDepth, depth, wall: CONE, ...sideDefaults },
    ...{ pattern: 'contours', angle: 0, allowance: 0, floorAllowance: 0 },
    ...{ entry: 'helix', ramp: 3, direction: 'climb' },
  });

/**
 * An aluminium mould for wax tokens of the ferry: what is raised on the token is sunk here, and its artwork lies mirrored. The relief
 * shows all of it; of that the ferry alone is cut as a relief.
 *
 *     face       ____________                                   ____________
 *     skimmed    ------------\    rim         lettering        /------------
 *     floor                   \_    __________    ___________ _/
 *                               \__/          \/\/  \_ferry_/
 */
export function ferryToken(): OneSetup {
  const job = newOneSetup('Ferry token mould');
  job.notes =
    'Fenwater Lock: mould for the wax tokens of the ferry. Face skimmed, floor and rim with leaning walls, lettering from the floor down, the ferry roughed and finished in rows that cross.';
  job.blank = { ...job.blank, width: 80, height: 60, thickness: 12, material: 'aluminium', intoBed: 0.2 };
  const layer = (id: string, name: string, colour: string) => ({ id, name, colour, visible: true, locked: false });
  job.layers = [layer('layer-1', 'Token', '#1e2a2f')];
  const [x, y] = [40, 30];
  job.items = [
    newItem({ id: 'i-token', name: 'Token', kind: 'ellipse', x, y, values: { width: 44, height: 44 } }),
    newItem({ id: 'i-rim', name: 'Rim', kind: 'ring', x, y, values: { diameter: 41, band: 2.6 } }),
    newItem({
      ...{ id: 'i-boat', name: 'Ferry', kind: 'motif', mirror: true },
      ...{ x, y: y + 2, values: { motif: 'boat', width: 28, height: 12 } },
    }),
    newItem({
      ...{ id: 'i-words', name: 'ONE CROSSING', kind: 'lettering', mirror: true },
      ...{ x, y: y - 9.6 },
      values: {
        ...{ kerning: true, leading: 1.6, align: 'centre', stretch: 100, baseline: 'straight', radius: 50, at: 90 },
        ...{ text: 'ONE CROSSING', tracking: 30, font: 'archivo', capHeight: 2.4 },
      },
    }),
  ];
  const walls = { edge: 'flat', draft: DRAFT };
  job.relief = {
    baseDepth: 5 + FACE,
    cell: null,
    forms: [
      freshForm('f-token', 'Token', 'outline', { ...walls, height: FLOOR - FACE }, { items: ['i-token'] }),
      freshForm('f-rim', 'Rim', 'outline', { ...walls, height: RIM }, { items: ['i-rim'] }),
      freshForm(
        ...(['f-boat', 'Ferry', 'outline'] as const),
        { edge: 'round', over: 1.4, top: 'fitted', height: FERRY },
        { items: ['i-boat'] },
      ),
      freshForm(
        ...(['f-words', 'Lettering', 'outline'] as const),
        { edge: 'bevel', angle: 60, top: 'capped', height: WORDS },
        { items: ['i-words'] },
      ),
      freshForm('f-mould', 'Mould', 'turned', { about: 'height', height: 2.5, mirror: 'none' }),
    ],
  };
  const library = shippedLibrary();
  job.cutters = ['flat-8', COARSE, 'flat-3', FINE, CONE, VBIT, ROUND].map((id) => library.find((c) => c.id === id)!);
  const ferry = { where: 'inside', startDepth: FLOOR };
  const rough = roughing([FINE], 0.1, { [FINE]: { stepDown: 0.25 } });
  const finish = finishing(ROUND, 'crossed', 45, 0.1);
  job.cuts = [
    cut('c-skim', 'Skim', 'skim', [], { cutter: 'flat-8', where: 'blank', depth: FACE, angle: 0, overlap: 1 }),
    cleared('c-floor', 'Floor', 'i-token', [COARSE, 'flat-3'], FACE, FLOOR),
    cleared('c-rim', 'Rim', 'i-rim', [FINE], FLOOR, FLOOR + RIM),
    cut('c-words', 'Lettering', 'vcarve', ['i-words'], {
      ...{ cutter: VBIT, endMills: [], startDepth: FLOOR, limit: WORDS, overRise: 0, ...sideDefaults },
    }),
    { ...rough, name: 'Ferry roughed', items: ['i-boat'], values: { ...rough.values, ...ferry } },
    { ...finish, name: 'Ferry finished', items: ['i-boat'], values: { ...finish.values, ...ferry } },
  ];
  job.casting = { material: 'castWax', below: null, shrinks: castMaterials.castWax.shrinks, draft: 5 };
  return job;
}
