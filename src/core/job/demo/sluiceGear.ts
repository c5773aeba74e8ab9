import { newItem } from '../../artwork/item';
import { shippedLibrary } from '../../cutters/library';
import type { Path } from '../../geometry/path';
import { newOneSetup, type OneSetup } from '../job';

/** Graduations of a half dial about the origin: degrees from 180 down to 0, longer every five and ten. */
function graduations(radius: number): Path[] {
  return Array.from({ length: 51 }, (_, i) => {
    const a = Math.PI - (i * Math.PI) / 50;
    const length = i % 10 === 0 ? 6 : i % 5 === 0 ? 4.5 : 3;
    const at = (r: number) => ({ x: r * Math.cos(a), y: r * Math.sin(a) });
    return { ...at(radius), segments: [{ k: 'line' as const, ...at(radius + length) }], closed: false };
  });
}

/** The plate over the sluice gear: a half dial, single-line lettering and a serial number dragged into brass, holes drilled, cut free. */
export function sluiceGear(): OneSetup {
  const library = shippedLibrary();
  const take = (id: string) => library.find((c) => c.id === id)!;
  const job = newOneSetup('Sluice gear plate');
  job.notes =
    'Fenwater Lock: dial plate of the sluice gear, 2 mm brass. Spindle off for everything but the holes and the edge.';
  job.blank = {
    ...job.blank,
    width: 150,
    height: 100,
    thickness: 2,
    material: 'brass',
    datum: 'cm',
    safeHeight: 5,
    clearance: 1,
    intoBed: 0.8,
  };
  const [x, y] = [75, 34];
  const text = { kerning: true, leading: 1.6, align: 'centre', stretch: 100, baseline: 'straight', radius: 50, at: 90 };
  const number = (n: number) => {
    const a = Math.PI - (n * Math.PI) / 10;
    return newItem({
      id: `i-n${n}`,
      name: `${n}`,
      kind: 'lettering',
      x: x + 47.5 * Math.cos(a),
      y: y + 47.5 * Math.sin(a) - 1.4,
      group: 'g-numbers',
      values: { ...text, text: `${n}`, font: 'line-upright', capHeight: 3.2, tracking: 0 },
    });
  };
  const hole = (id: string, hx: number, hy: number) =>
    newItem({ id, name: 'Screw hole', kind: 'ellipse', x: hx, y: hy, values: { width: 3, height: 3 } });
  job.groups = [{ id: 'g-numbers', name: 'Numbers', parent: null }];
  job.items = [
    newItem({
      id: 'i-edge',
      name: 'Plate edge',
      kind: 'rectangle',
      x: 75,
      y: 50,
      values: { width: 132, height: 82, corner: 'round', radius: 6 },
    }),
    newItem({
      id: 'i-frame',
      name: 'Frame',
      kind: 'rectangle',
      x: 75,
      y: 50,
      values: { width: 126, height: 76, corner: 'scoop', radius: 5 },
    }),
    newItem({
      id: 'i-dial',
      name: 'Graduations',
      kind: 'drawing',
      x,
      y,
      values: { paths: graduations(37), fill: 'nonzero' },
    }),
    newItem({
      id: 'i-arc',
      name: 'Dial arc',
      kind: 'drawing',
      x,
      y,
      values: {
        paths: [{ x: 37, y: 0, segments: [{ k: 'arc', x: -37, y: 0, cx: 0, cy: 0, ccw: true }], closed: false }],
        fill: 'nonzero',
      },
    }),
    ...Array.from({ length: 11 }, (_, n) => number(n)),
    newItem({
      id: 'i-name',
      name: 'SLUICE GEAR',
      kind: 'lettering',
      x: 75,
      y: 46,
      values: { ...text, text: 'SLUICE GEAR', font: 'line-upright', capHeight: 6, tracking: 60 },
    }),
    newItem({
      id: 'i-turns',
      name: 'turns of the windlass',
      kind: 'lettering',
      x: 75,
      y: 37,
      values: { ...text, text: 'turns of the windlass', font: 'line-leaning', capHeight: 3.4, tracking: 20 },
    }),
    newItem({
      id: 'i-arrow',
      name: 'Arrow',
      kind: 'polygon',
      x: 75,
      y: 62,
      angle: 0,
      values: { sides: 3, radius: 3.4, rounding: 0 },
    }),
    newItem({
      id: 'i-serial',
      name: 'Serial number',
      kind: 'lettering',
      x: 75,
      y: 21,
      values: { ...text, text: 'No. FL-0417', font: 'line-upright', capHeight: 2, tracking: 40 },
    }),
    hole('i-h1', 17, 18),
    hole('i-h2', 133, 18),
    hole('i-h3', 17, 82),
    hole('i-h4', 133, 82),
  ];
  job.cutters = [take('drag-3-120-0.02'), take('drill-3-118'), take('flat-2')];
  const engraving = {
    cutter: 'drag-3-120-0.02',
    edge: 'on',
    fill: 'none',
    angle: 45,
    spacing: 0.2,
    touch: 120,
    cornerShare: 1,
    press: 'depth',
    load: 5,
  };
  job.cuts = [
    {
      id: 'c-lines',
      name: 'Dial and lettering',
      kind: 'drag',
      enabled: true,
      items: ['i-frame', 'i-dial', 'i-arc', ...Array.from({ length: 11 }, (_, n) => `i-n${n}`), 'i-name', 'i-turns'],
      values: { ...engraving, depth: 0.1 },
      overrides: {},
    },
    {
      id: 'c-fill',
      name: 'Arrow',
      kind: 'drag',
      enabled: true,
      items: ['i-arrow'],
      values: { ...engraving, depth: 0.08, fill: 'crossed' },
      overrides: {},
    },
    {
      id: 'c-serial',
      name: 'Serial number',
      kind: 'drag',
      enabled: true,
      items: ['i-serial'],
      values: { ...engraving, depth: 0.06, cornerShare: 0.6 },
      overrides: {},
    },
    {
      id: 'c-holes',
      name: 'Screw holes',
      kind: 'drilling',
      enabled: true,
      items: ['i-h1', 'i-h2', 'i-h3', 'i-h4'],
      values: { cutter: 'drill-3-118', places: 'circles', through: true, depth: 2, beyond: 0.8, peck: 0.8, dwell: 0 },
      overrides: {},
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
        finish: 0.1,
        ramp: 3,
        direction: 'climb',
        lead: 'arc',
        leadSize: 2,
        tabs: { shape: 'rounded', by: 'count', count: 4, spacing: 80, length: 5, height: 0.7, at: [] },
      },
      overrides: {},
    },
  ];
  return job;
}
