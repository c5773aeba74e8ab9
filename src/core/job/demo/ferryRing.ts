import { sideDefaults } from '../../cuts/around';
import { newItem } from '../../artwork/item';
import { shippedLibrary } from '../../cutters/library';
import { newOneSetup, type OneSetup } from '../job';

/** A round sign of cedar for the ferry landing: lettering on circles, a rope of slots in a ring, cut out round. */
export function ferryRing(): OneSetup {
  const library = shippedLibrary();
  const take = (id: string) => library.find((c) => c.id === id)!;
  const job = newOneSetup('Ferry ring');
  job.notes = 'Fenwater Lock: sign at the landing of the hand-drawn ferry.';
  job.blank = { ...job.blank, width: 260, height: 260, thickness: 15, material: 'cedar', datum: 'cm', intoBed: 0.5 };
  const [x, y] = [130, 130];
  const text = { tracking: 60, kerning: true, leading: 1.6, align: 'centre', stretch: 100 };
  const layer = (id: string, name: string, colour: string) => ({ id, name, colour, visible: true, locked: false });
  job.layers = [
    layer('layer-1', 'Lettering', '#1e2a2f'),
    layer('l-ring', 'Rings', '#2b5f8a'),
    layer('l-edge', 'Edge', '#8a5a2b'),
  ];
  job.groups = [{ id: 'g-rope', name: 'Rope', parent: null }];
  const rope = Array.from({ length: 48 }, (_, k) => {
    const a = (2 * Math.PI * k) / 48;
    return newItem({
      id: `i-rope-${k}`,
      name: `Strand ${k + 1}`,
      kind: 'slot',
      x: x + 106 * Math.cos(a),
      y: y + 106 * Math.sin(a),
      angle: Math.round((360 * k) / 48 + 125) % 360,
      layer: 'l-ring',
      group: 'g-rope',
      values: { length: 12, width: 3.2 },
    });
  });
  job.items = [
    newItem({
      id: 'i-edge',
      name: 'Edge',
      kind: 'ellipse',
      x,
      y,
      layer: 'l-edge',
      values: { width: 236, height: 236 },
    }),
    newItem({
      id: 'i-band',
      name: 'Inner ring',
      kind: 'ring',
      x,
      y,
      layer: 'l-ring',
      values: { diameter: 132, band: 2.4 },
    }),
    ...rope,
    newItem({
      id: 'i-upper',
      name: 'FERRY LANDING',
      kind: 'lettering',
      x,
      y,
      values: {
        ...text,
        text: 'FERRY LANDING',
        font: 'cinzel-bold',
        capHeight: 17,
        baseline: 'outwards',
        radius: 74,
        at: 90,
      },
    }),
    newItem({
      id: 'i-lower',
      name: 'RING FOR THE BOAT',
      kind: 'lettering',
      x,
      y,
      values: {
        ...text,
        text: 'RING FOR THE BOAT',
        font: 'cinzel',
        capHeight: 12,
        baseline: 'inwards',
        radius: 90,
        at: -90,
      },
    }),
    newItem({
      id: 'i-middle',
      name: 'Fenwater',
      kind: 'lettering',
      x,
      y: y + 4,
      values: {
        ...text,
        tracking: 0,
        text: 'Fenwater\nLock',
        font: 'dancing-script',
        capHeight: 22,
        leading: 1.75,
        baseline: 'straight',
        radius: 50,
        at: 90,
      },
    }),
  ];
  job.cutters = [take('v-12-60-0'), take('flat-6')];
  job.cuts = [
    {
      id: 'c-letters',
      name: 'Lettering',
      kind: 'vcarve',
      enabled: true,
      items: ['i-upper', 'i-lower', 'i-middle'],
      values: { cutter: 'v-12-60-0', endMills: [], startDepth: 0, limit: null, overRise: 0, ...sideDefaults },
      overrides: { 'v-12-60-0': { stepDown: 3 } },
    },
    {
      id: 'c-rope',
      name: 'Rope and ring',
      kind: 'vcarve',
      enabled: true,
      items: ['i-band', ...rope.map((i) => i.id)],
      values: { cutter: 'v-12-60-0', endMills: [], startDepth: 0, limit: null, overRise: 0, ...sideDefaults },
      overrides: { 'v-12-60-0': { stepDown: 3 } },
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
        depth: 15,
        beyond: 0.2,
        skin: 0,
        allowance: 0,
        finish: 0,
        ramp: 5,
        direction: 'climb',
        lead: 'none',
        leadSize: 3,
        tabs: { shape: 'rectangular', by: 'count', count: 5, spacing: 80, length: 10, height: 3, at: [] },
      },
      overrides: {},
    },
  ];
  return job;
}
