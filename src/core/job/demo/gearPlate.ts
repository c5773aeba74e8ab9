import { sideDefaults } from '../../cuts/around';
import { shippedLibrary } from '../../cutters/library';
import { newItem } from '../../artwork/item';
import { newOneSetup, type OneSetup } from '../job';

/** A small brass plate for the lock keeper's gear: V-carved letters in a frame, cut out. */
export function gearPlate(): OneSetup {
  const library = shippedLibrary();
  const take = (id: string) => library.find((c) => c.id === id)!;
  const job = newOneSetup('Keeper\u2019s gear plate');
  job.notes = 'Fenwater Lock: plate for the paddle gear, 2 mm brass.';
  job.blank = {
    ...job.blank,
    width: 110,
    height: 60,
    thickness: 2,
    material: 'brass',
    datum: 'cm',
    safeHeight: 5,
    clearance: 1,
    intoBed: 0.3,
  };
  const text = { kerning: true, leading: 1.6, align: 'centre', stretch: 100, baseline: 'straight', radius: 50, at: 90 };
  job.items = [
    newItem({
      id: 'i-edge',
      name: 'Plate edge',
      kind: 'rectangle',
      x: 55,
      y: 30,
      angle: 0,
      values: { width: 92, height: 44, corner: 'scoop', radius: 5 },
    }),
    newItem({
      id: 'i-frame',
      name: 'Frame outside',
      kind: 'rectangle',
      x: 55,
      y: 30,
      angle: 0,
      values: { width: 80, height: 34, corner: 'scoop', radius: 4 },
    }),
    newItem({
      id: 'i-frame-in',
      name: 'Frame inside',
      kind: 'rectangle',
      x: 55,
      y: 30,
      angle: 0,
      values: { width: 78.8, height: 32.8, corner: 'scoop', radius: 4 },
    }),
    newItem({
      id: 'i-word',
      name: 'Quay & Sluice',
      kind: 'lettering',
      x: 55,
      y: 34,
      angle: 0,
      values: { ...text, text: 'Quay & Sluice', font: 'libre-baskerville', capHeight: 7, tracking: 10 },
    }),
    newItem({
      id: 'i-year',
      name: '1794',
      kind: 'lettering',
      x: 55,
      y: 21,
      angle: 0,
      values: { ...text, text: '1794', font: 'libre-baskerville', capHeight: 5.5, tracking: 120 },
    }),
  ];
  job.cutters = [take('cone-3.175-20-0.1'), take('flat-2')];
  job.cuts = [
    {
      id: 'c-letters',
      name: 'Letters',
      kind: 'vcarve',
      enabled: true,
      items: ['i-word', 'i-year', 'i-frame', 'i-frame-in'],
      values: { cutter: 'cone-3.175-20-0.1', endMills: [], startDepth: 0, limit: 0.6, overRise: 0, ...sideDefaults },
      overrides: { 'cone-3.175-20-0.1': { stepDown: 0.3, stepOver: 0.05 } },
    },
    {
      id: 'c-free',
      name: 'Cut free',
      kind: 'profile',
      enabled: true,
      items: ['i-edge'],
      values: {
        cutter: 'flat-2',
        side: 'outside',
        startDepth: 0,
        through: true,
        depth: 2,
        beyond: 0.1,
        skin: 0,
        allowance: 0,
        finish: 0,
        ramp: 3,
        direction: 'climb',
        lead: 'none',
        leadSize: 3,
        tabs: { shape: 'rectangular', by: 'count', count: 4, spacing: 80, length: 4, height: 0.6, at: [] },
      },
      overrides: {},
    },
  ];
  return job;
}
