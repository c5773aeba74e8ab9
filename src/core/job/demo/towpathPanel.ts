import { sideDefaults } from '../../cuts/around';
import { drawnItem } from '../../artwork/drawn';
import { newItem } from '../../artwork/item';
import { shippedLibrary } from '../../cutters/library';
import type { Path, Segment } from '../../geometry/path';
import { freshForm } from '../../relief/freshForm';
import { newOneSetup, type OneSetup } from '../job';

/** A line through points, bent softly from each to the next; `closed`: along the lower rim of the picture back to where it begins. */
function softLine(points: readonly (readonly [number, number])[], closed: boolean): Path {
  const at = (k: number) => points[Math.max(0, Math.min(points.length - 1, k))];
  const segments: Segment[] = points.slice(1).map(([x, y], i) => {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    return {
      k: 'cubic',
      x1: b[0] + (c[0] - a[0]) / 6,
      y1: b[1] + (c[1] - a[1]) / 6,
      x2: c[0] - (d[0] - b[0]) / 6,
      y2: c[1] - (d[1] - b[1]) / 6,
      x,
      y,
    };
  });
  const [[x, y], [xe]] = [points[0], points[points.length - 1]];
  if (closed)
    for (const [px, py] of [
      [xe, LOWER - BEYOND],
      [x, LOWER - BEYOND],
      [x, y],
    ])
      segments.push({ k: 'line', x: px, y: py });
  return { x, y, segments, closed };
}

/** The picture lies on the panel within so much, mm. */
const [LEFT, RIGHT, LOWER, UPPER] = [20, 280, 42, 190];
/** Land and water go on beyond it, so that their soft edges lie outside. */
const BEYOND = 8;

/** A panel of maple by the towpath: a picture of the water in lines of one V-bit, to be painted black and sanded clean. */
export function towpathPanel(): OneSetup {
  const job = newOneSetup('Towpath tone panel');
  job.notes =
    'Fenwater Lock: panel at the towpath. What is high is light: lines of one V-bit, wider where it is dark. Paint it black, sand the face clean.';
  job.blank = { ...job.blank, width: 300, height: 210, thickness: 12, material: 'maple', paint: 'black' };
  const layer = (id: string, name: string, colour: string) => ({ id, name, colour, visible: true, locked: false });
  job.layers = [
    layer('layer-1', 'Lettering', '#1e2a2f'),
    layer('l-land', 'Land and water', '#2b5f8a'),
    layer('l-lines', 'Way of the lines', '#8a5a2b'),
  ];
  const like = (id: string, name: string, of = 'l-land') => ({ id, name, layer: of, group: null });
  job.items = [
    newItem({
      id: 'i-picture',
      name: 'Picture',
      kind: 'rectangle',
      x: (LEFT + RIGHT) / 2,
      y: (LOWER + UPPER) / 2,
      layer: 'l-land',
      values: { width: RIGHT - LEFT, height: UPPER - LOWER, corner: 'round', radius: 6 },
    }),
    newItem({
      id: 'i-sun',
      name: 'Sun',
      kind: 'ellipse',
      x: 178,
      y: 161,
      layer: 'l-land',
      values: { width: 30, height: 30 },
    }),
    drawnItem(like('i-far', 'Far hills'), [
      softLine(
        [
          [LEFT - BEYOND, 128],
          [52, 136],
          [88, 130],
          [124, 141],
          [160, 131],
          [205, 138],
          [246, 129],
          [RIGHT + BEYOND, 134],
        ],
        true,
      ),
    ]),
    drawnItem(like('i-near', 'Near bank'), [
      softLine(
        [
          [LEFT - BEYOND, 120],
          [60, 117],
          [96, 121],
          [140, 116],
          [190, 117],
          [232, 123],
          [RIGHT + BEYOND, 119],
        ],
        true,
      ),
    ]),
    drawnItem(like('i-water', 'Water'), [
      softLine(
        [
          [LEFT - BEYOND, 108],
          [80, 110],
          [150, 109],
          [220, 111],
          [RIGHT + BEYOND, 109],
        ],
        true,
      ),
    ]),
    drawnItem(like('i-way', 'Line beside which all run', 'l-lines'), [
      softLine(
        [
          [-10, 100],
          [45, 107],
          [100, 108],
          [155, 102],
          [210, 99],
          [260, 104],
          [310, 110],
        ],
        false,
      ),
    ]),
    newItem({
      id: 'i-words',
      name: 'THE TOWPATH',
      kind: 'lettering',
      x: 150,
      y: 19,
      values: {
        text: 'THE TOWPATH',
        kerning: true,
        leading: 1.6,
        align: 'centre',
        stretch: 100,
        baseline: 'straight',
        radius: 50,
        at: 90,
        tracking: 120,
        font: 'cinzel-bold',
        capHeight: 11,
      },
    }),
  ];
  const inside = (item: string, edge = 0) => ({ items: [item], side: 'inside' as const, edge });
  job.relief = {
    baseDepth: 0,
    cell: null,
    forms: [
      // Light at the horizon, darker above.
      freshForm('f-sky', 'Sky', 'ground', { height: -2.3, alongY: -0.6 }, { mask: inside('i-picture') }),
      freshForm('f-sun', 'Sun', 'ground', { height: -0.2 }, { meets: 'replace', mask: inside('i-sun', 1.5) }),
      freshForm(
        'f-far',
        'Far hills',
        'ground',
        { height: -3.1, alongX: 0.15 },
        { meets: 'replace', mask: inside('i-far', 1) },
      ),
      freshForm('f-near', 'Near bank', 'ground', { height: -4.4 }, { meets: 'replace', mask: inside('i-near', 2) }),
      freshForm(
        'f-water',
        'Water',
        'ground',
        { height: -3.3, alongY: 0.5 },
        { meets: 'replace', mask: inside('i-water', 1) },
      ),
      freshForm(
        'f-ripples',
        'Ripples',
        'texture',
        { texture: 'ripples', size: 8, depth: 0.9, angle: 0, variation: 80 },
        { mask: inside('i-water', 4) },
      ),
      freshForm(
        'f-boat',
        'Boat',
        'ornament',
        { ornament: 'boat', x: 106, y: 140, width: 64, rise: 1.7 },
        { meets: 'replace', base: -1.7 },
      ),
      freshForm(
        'f-heron',
        'Heron',
        'ornament',
        { ornament: 'heron', x: 234, y: 97, width: 56, rise: 2.6, mirror: true },
        { meets: 'replace', base: -2.7 },
      ),
      freshForm(
        'f-reeds',
        'Reeds',
        'ornament',
        { ornament: 'reeds', x: 46, y: 82, width: 44, rise: 2.2 },
        { meets: 'replace', base: -2.8 },
      ),
    ],
  };
  const library = shippedLibrary();
  job.cutters = ['v-12-60-0'].map((id) => library.find((c) => c.id === id)!);
  job.cuts = [
    {
      id: 'c-lines',
      name: 'Tone lines',
      kind: 'toneLines',
      enabled: true,
      items: ['i-picture', 'i-way'],
      values: {
        cutter: 'v-12-60-0',
        where: 'inside',
        margin: 0,
        dark: 'low',
        lightest: 4,
        darkest: 75,
        spacing: 1.2,
        pattern: 'beside',
        angle: 0,
        wave: 12,
        swing: 1.5,
        limit: 2,
        land: 0.3,
      },
      overrides: {},
    },
    {
      id: 'c-words',
      name: 'Lettering',
      kind: 'vcarve',
      enabled: true,
      items: ['i-words'],
      values: { cutter: 'v-12-60-0', endMills: [], startDepth: 0, limit: null, overRise: 0, ...sideDefaults },
      overrides: { 'v-12-60-0': { stepDown: 4 } },
    },
  ];
  return job;
}
