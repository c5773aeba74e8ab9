import { newItem } from '../../artwork/item';
import { freshForm } from '../../relief/freshForm';
import { shippedLibrary } from '../../cutters/library';
import { finishing, roughing } from './reliefCuts';
import { newOneSetup, type OneSetup } from '../job';

/** A round medallion of brass: a heron over ripples, in a moulded ring. */
export function heronMedallion(): OneSetup {
  const job = newOneSetup('Heron medallion');
  job.notes = 'Fenwater Lock: medallion for the keepers of thirty years. Roughed, finished in one spiral, cut free.';
  job.blank = { ...job.blank, width: 70, height: 70, thickness: 6, material: 'brass', datum: 'cm', intoBed: 0.2 };
  const [x, y] = [35, 35];
  const layer = (id: string, name: string, colour: string) => ({ id, name, colour, visible: true, locked: false });
  job.layers = [layer('layer-1', 'Lettering', '#1e2a2f'), layer('l-ring', 'Rings', '#2b5f8a')];
  const circle = (id: string, name: string, d: number) =>
    newItem({ id, name, kind: 'ellipse', x, y, layer: 'l-ring', values: { width: d, height: d } });
  const text = {
    tracking: 80,
    kerning: true,
    leading: 1.6,
    align: 'centre',
    stretch: 100,
    font: 'cinzel-bold',
    capHeight: 3.4,
  };
  job.items = [
    circle('i-edge', 'Edge', 62),
    circle('i-rail', 'Middle of the ring', 58),
    circle('i-field', 'Field', 53),
    newItem({
      id: 'i-upper',
      name: 'FENWATER LOCK',
      kind: 'lettering',
      x,
      y,
      values: { ...text, text: 'FENWATER LOCK', baseline: 'outwards', radius: 21.2, at: 90 },
    }),
    newItem({
      id: 'i-lower',
      name: 'XXX YEARS',
      kind: 'lettering',
      x,
      y,
      values: { ...text, text: 'XXX YEARS', baseline: 'inwards', radius: 24.6, at: 270 },
    }),
  ];
  job.relief = {
    baseDepth: 2.2,
    cell: null,
    forms: [
      freshForm('f-field', 'Dish', 'ground', { height: 0 }, { mask: { items: ['i-edge'], side: 'inside', edge: 0 } }),
      freshForm(
        'f-ripples',
        'Ripples',
        'texture',
        { texture: 'ripples', size: 2.4, depth: 0.2, variation: 70 },
        {
          mask: { items: ['i-field'], side: 'inside', edge: 4 },
        },
      ),
      freshForm(
        'f-ring',
        'Ring',
        'swept',
        { way: 'rail', profile: 'bow', width: 4, height: 1.2 },
        {
          items: ['i-rail'],
          meets: 'higher',
          base: 0.6,
        },
      ),
      freshForm(
        'f-heron',
        'Heron',
        'ornament',
        { ornament: 'heron', x: x - 0.3, y: y - 0.4, width: 19.6, rise: 1.7 },
        { meets: 'higher', base: 0.05 },
      ),
      freshForm(
        'f-words',
        'Lettering',
        'outline',
        { edge: 'bevel', angle: 60, top: 'capped', height: 0.5 },
        {
          items: ['i-upper', 'i-lower'],
          meets: 'higher',
          base: 0.1,
        },
      ),
    ],
  };
  const library = shippedLibrary();
  job.cutters = ['flat-3', 'flat-1.5', 'taperedBall-6-0.25-5'].map((id) => library.find((c) => c.id === id)!);
  job.cuts = [
    roughing(['flat-3', 'flat-1.5'], 0.15, { 'flat-3': { stepDown: 0.5 }, 'flat-1.5': { stepDown: 0.25 } }),
    finishing('taperedBall-6-0.25-5', 'spiral', 0, 0.12),
    {
      id: 'c-free',
      name: 'Cut free',
      kind: 'profile',
      enabled: true,
      items: ['i-edge'],
      values: {
        cutter: 'flat-3',
        side: 'outside',
        startDepth: 0,
        through: true,
        depth: 6,
        beyond: 0.1,
        skin: 0,
        allowance: 0,
        finish: 0,
        ramp: 5,
        direction: 'climb',
        lead: 'none',
        leadSize: 3,
        tabs: { shape: 'triangular', by: 'count', count: 3, spacing: 60, length: 5, height: 1.5, at: [] },
      },
      overrides: {},
    },
  ];
  return job;
}
