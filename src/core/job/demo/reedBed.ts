import { sideDefaults } from '../../cuts/around';
import { newItem } from '../../artwork/item';
import { freshForm } from '../../relief/freshForm';
import { shippedLibrary } from '../../cutters/library';
import type { Cut } from '../job';
import { finishing, roughing } from './reliefCuts';
import { newOneSetup, type OneSetup } from '../job';

/**
 * An oak sign for the reed bed: raised lettering and reeds over flowing water, and a barrel-shaped banner under them. The water is
 * finished in coarse rows that leave marks, what is raised and the frame in fine ones; a line is carved round the frame.
 */
export function reedBed(): OneSetup {
  const job = newOneSetup('Reed-bed sign');
  job.notes =
    'Fenwater Lock: sign on the path along the reed bed. Roughed, the water finished coarsely and what is raised finely, along the grain; the lettering rides on the banner, a line on the frame; cut free with a last pass of its own.';
  job.blank = { ...job.blank, width: 420, height: 230, thickness: 24, material: 'oak', intoBed: 0.5 };
  const text = {
    kerning: true,
    leading: 1.6,
    align: 'centre',
    stretch: 100,
    baseline: 'straight',
    radius: 50,
    at: 90,
  };
  const layer = (id: string, name: string, colour: string) => ({ id, name, colour, visible: true, locked: false });
  job.layers = [
    layer('layer-1', 'Lettering', '#1e2a2f'),
    layer('l-panel', 'Panel', '#8a5a2b'),
    layer('l-banner', 'Banner', '#2b5f8a'),
  ];
  const panel = (id: string, name: string, width: number, height: number, radius: number) =>
    newItem({
      id,
      name,
      kind: 'rectangle',
      x: 210,
      y: 115,
      layer: 'l-panel',
      values: { width, height, corner: 'round', radius },
    });
  job.items = [
    panel('i-frame', 'Frame', 404, 214, 18),
    panel('i-panel', 'Panel', 376, 186, 10),
    panel('i-line-1', 'Line, outside', 391.5, 201.5, 13),
    panel('i-line-2', 'Line, inside', 388.5, 198.5, 11.5),
    newItem({
      id: 'i-banner',
      name: 'Banner',
      kind: 'rectangle',
      x: 210,
      y: 62,
      layer: 'l-banner',
      values: { width: 300, height: 46, corner: 'round', radius: 4 },
    }),
    newItem({
      id: 'i-title',
      name: 'REED BED',
      kind: 'lettering',
      x: 210,
      y: 122,
      values: { ...text, text: 'REED BED', tracking: 40, font: 'alfa-slab-one', capHeight: 38 },
    }),
    newItem({
      id: 'i-below',
      name: 'FENWATER LOCK',
      kind: 'lettering',
      x: 210,
      y: 55,
      values: { ...text, text: 'FENWATER LOCK', tracking: 60, font: 'cinzel-bold', capHeight: 14 },
    }),
    ...[50, 370].map((x, k) =>
      newItem({
        id: `i-reeds-${k}`,
        name: k ? 'Reeds right' : 'Reeds left',
        kind: 'motif',
        x,
        y: 138,
        mirror: k === 1,
        layer: 'l-panel',
        values: { motif: 'reeds', width: 42, height: 86 },
      }),
    ),
  ];
  job.relief = {
    baseDepth: 10,
    cell: null,
    forms: [
      freshForm(
        'f-frame',
        'Frame',
        'outline',
        { edge: 'round', over: 5, top: 'natural' },
        { items: ['i-frame'], base: 4 },
      ),
      freshForm(
        'f-sunk',
        'Sunk panel',
        'ground',
        { height: 0 },
        {
          meets: 'replace',
          mask: { items: ['i-panel'], side: 'inside', edge: 0 },
        },
      ),
      freshForm(
        'f-water',
        'Water',
        'texture',
        { texture: 'water', size: 14, depth: 1.4, variation: 60 },
        {
          mask: { items: ['i-panel'], side: 'inside', edge: 4 },
        },
      ),
      freshForm(
        'f-reeds',
        'Reeds',
        'outline',
        { edge: 'round', over: 4 },
        {
          items: ['i-reeds-0', 'i-reeds-1'],
          meets: 'higher',
          base: 1,
        },
      ),
      freshForm(
        'f-title',
        'Title',
        'outline',
        { edge: 'round', over: null, top: 'fitted', height: 5 },
        {
          items: ['i-title'],
          meets: 'higher',
          base: 2,
        },
      ),
      freshForm(
        'f-banner',
        'Banner',
        'swept',
        { way: 'straight', profile: 'bow', width: 46, height: 6, length: 300, x: 210, y: 62, taper: 0 },
        { meets: 'higher', base: 1, mask: { items: ['i-banner'], side: 'inside', edge: 0 } },
      ),
    ],
  };
  const library = shippedLibrary();
  job.cutters = ['flat-6', 'flat-3', 'ball-4', 'v-6-60-0', 'v-12-60-0', 'flat-8'].map((id) =>
    library.find((c) => c.id === id)!,
  );
  // What lies inside of an outline lies outside of the next one in it: the water is the panel without what is raised from it.
  const water = ['i-panel', 'i-title', 'i-banner', 'i-reeds-0', 'i-reeds-1'];
  const inside = (id: string, name: string, items: string[], stepOver: number): Cut => {
    const cut = finishing('ball-4', 'rows', 0, stepOver);
    // Ridges of less are not seen on oak.
    return { ...cut, id, name, items, values: { ...cut.values, where: 'inside', rest: 0.1 } };
  };
  const riding = (id: string, name: string, items: string[], cutter: string): Cut => ({
    ...{ id, name, kind: 'vcarve', enabled: true, rides: true, items },
    values: { cutter, endMills: [], startDepth: 0, limit: null, overRise: 0, ...sideDefaults },
    overrides: { [cutter]: { stepDown: 4 } },
  });
  job.cuts = [
    roughing(['flat-6', 'flat-3'], 0.6),
    inside('c-water', 'Water finished', water, 1),
    inside('c-raised', 'Raised parts finished', ['i-frame', ...water], 0.6),
    riding('c-line', 'Line round the frame', ['i-line-1', 'i-line-2'], 'v-6-60-0'),
    riding('c-banner', 'Lettering on the banner', ['i-below'], 'v-12-60-0'),
    {
      id: 'c-free',
      name: 'Cut free',
      kind: 'profile',
      enabled: true,
      items: ['i-frame'],
      values: {
        cutter: 'flat-8',
        side: 'outside',
        startDepth: 0,
        through: true,
        depth: 24,
        beyond: 0.2,
        skin: 0,
        allowance: 0,
        finish: 0.3,
        ramp: 5,
        direction: 'climb',
        lead: 'none',
        leadSize: 3,
        tabs: { shape: 'rectangular', by: 'count', count: 6, spacing: 80, length: 10, height: 5, at: [] },
      },
      overrides: {},
    },
  ];
  return job;
}
