import { sideDefaults } from '../../cuts/around';
import { shippedLibrary } from '../../cutters/library';
import { newItem } from '../../artwork/item';
import { newOneSetup, type OneSetup } from '../job';

/** An oak board for the lock cottage: V-carved lettering with a flat floor, a border channel, cut out with tabs. */
export function lockCottage(): OneSetup {
  const library = shippedLibrary();
  const take = (id: string) => library.find((c) => c.id === id)!;
  const job = newOneSetup('Lock cottage board');
  job.notes = 'Fenwater Lock: name board over the door of the keeper\u2019s cottage.';
  job.blank = { ...job.blank, width: 360, height: 200, thickness: 18, material: 'oak', intoBed: 0.5 };
  const text = {
    tracking: 30,
    kerning: true,
    leading: 1.6,
    align: 'centre',
    stretch: 100,
    baseline: 'straight',
    radius: 50,
    at: 90,
  };
  job.items = [
    newItem({
      id: 'i-edge',
      name: 'Board edge',
      kind: 'rectangle',
      x: 180,
      y: 100,
      angle: 0,
      values: { width: 332, height: 160, corner: 'scoop', radius: 16 },
    }),
    newItem({
      id: 'i-border',
      name: 'Border outside',
      kind: 'rectangle',
      x: 180,
      y: 100,
      angle: 0,
      values: { width: 296, height: 124, corner: 'round', radius: 4 },
    }),
    newItem({
      id: 'i-border-in',
      name: 'Border inside',
      kind: 'rectangle',
      x: 180,
      y: 100,
      angle: 0,
      values: { width: 287, height: 115, corner: 'round', radius: 2 },
    }),
    newItem({
      id: 'i-leaf',
      name: 'Leaf border',
      kind: 'border',
      x: 180,
      y: 100,
      values: {
        motif: 'border-leaf',
        corner: 'none',
        around: 'rectangle',
        width: 320,
        height: 148,
        radius: 60,
        size: 8,
        cornerSize: 18,
      },
    }),
    newItem({
      id: 'i-heron',
      name: 'Heron',
      kind: 'motif',
      x: 94,
      y: 73,
      values: { motif: 'heron', width: 36, height: 35.4 },
    }),
    newItem({
      id: 'i-name',
      name: 'FENWATER',
      kind: 'lettering',
      x: 180,
      y: 119,
      angle: 0,
      values: { ...text, text: 'FENWATER', font: 'cinzel-bold', capHeight: 33 },
    }),
    newItem({
      id: 'i-lock',
      name: 'LOCK 7',
      kind: 'lettering',
      x: 206,
      y: 73,
      angle: 0,
      values: { ...text, text: 'LOCK 7', font: 'cinzel-bold', capHeight: 27 },
    }),
  ];
  job.cutters = [take('v-12-60-0'), take('flat-1.5'), take('flat-3'), take('flat-6')];
  job.cuts = [
    {
      id: 'c-letters',
      name: 'Lettering',
      kind: 'vcarve',
      enabled: true,
      items: ['i-name', 'i-lock'],
      values: {
        cutter: 'v-12-60-0',
        endMills: ['flat-3', 'flat-1.5'],
        startDepth: 0,
        limit: 3,
        overRise: 0,
        ...sideDefaults,
      },
      overrides: { 'v-12-60-0': { stepDown: 3, stepOver: 0.12 } },
    },
    {
      id: 'c-ornament',
      name: 'Ornament',
      kind: 'vcarve',
      enabled: true,
      items: ['i-leaf', 'i-heron'],
      values: { cutter: 'v-12-60-0', endMills: [], startDepth: 0, limit: 1.6, overRise: 0, ...sideDefaults },
      overrides: { 'v-12-60-0': { stepDown: 3, stepOver: 0.15 } },
    },
    {
      id: 'c-border',
      name: 'Border channel',
      kind: 'area',
      enabled: true,
      items: ['i-border', 'i-border-in'],
      values: {
        cutters: ['flat-3'],
        ...sideDefaults,
        startDepth: 0,
        depth: 2.5,
        pattern: 'contours',
        angle: 0,
        allowance: 0,
        floorAllowance: 0,
        entry: 'ramp',
        ramp: 3,
        direction: 'climb',
        wall: null,
      },
      overrides: {},
    },
    {
      id: 'c-free',
      name: 'Cut free',
      kind: 'profile',
      enabled: true,
      items: ['i-edge'],
      values: {
        cutter: 'flat-6',
        side: 'outside',
        startDepth: 0,
        through: true,
        depth: 18,
        beyond: 0.2,
        skin: 0,
        allowance: 0,
        finish: 0,
        ramp: 5,
        direction: 'climb',
        lead: 'none',
        leadSize: 3,
        tabs: { shape: 'rectangular', by: 'count', count: 6, spacing: 80, length: 10, height: 4, at: [] },
      },
      overrides: {},
    },
  ];
  return job;
}
