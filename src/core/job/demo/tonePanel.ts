import { shippedLibrary } from '../../cutters/library';
import { newItem } from '../../artwork/item';
import { freshForm } from '../../relief/freshForm';
import { newOneSetup, type OneSetup } from '../job';

/** A painted board whose picture, a boat between reeds, is made of lines of different widths. */
export function tonePanel(): OneSetup {
  const job = newOneSetup('Towpath tone panel');
  job.notes =
    'Fenwater Lock: panel on the towpath. The heights are its greys: what lies low comes out dark, where the lines cut wide through the paint.';
  job.blank = { ...job.blank, width: 200, height: 150, thickness: 12, material: 'paintedBoard', intoBed: 0.3 };
  job.items = [
    newItem({
      id: 'i-panel',
      name: 'Panel',
      kind: 'rectangle',
      x: 100,
      y: 75,
      values: { width: 184, height: 134, corner: 'round', radius: 6 },
    }),
    newItem({
      id: 'i-pond',
      name: 'Pond',
      kind: 'rectangle',
      x: 100,
      y: 33,
      values: { width: 184, height: 50, corner: 'square', radius: 5 },
    }),
  ];
  const panel = { items: ['i-panel'], side: 'inside' as const, edge: 0 };
  const ornament = (id: string, name: string, which: string, x: number, y: number, width: number, rise: number) =>
    freshForm(id, name, 'ornament', { ornament: which, x, y, width, rise }, { meets: 'higher', base: 0.4 });
  job.relief = {
    baseDepth: 4,
    cell: null,
    forms: [
      // The sky is lightest about the boat.
      freshForm('f-sky', 'Sky', 'ground', { height: 0.4, dome: 1.8 }, { mask: panel }),
      freshForm(
        'f-water',
        'Water',
        'texture',
        { texture: 'water', size: 9, depth: 1.4, variation: 55, angle: 0 },
        { meets: 'replace', base: 1.7, mask: { items: ['i-pond'], side: 'inside', edge: 12 } },
      ),
      ornament('f-boat', 'Boat', 'boat', 104, 82, 70, 3.4),
      ornament('f-reeds', 'Reeds', 'reeds', 34, 62, 34, 2.6),
      ornament('f-lily', 'Water lily', 'lily', 158, 26, 34, 2.6),
    ],
  };
  const library = shippedLibrary();
  job.cutters = ['v-12-60-0', 'flat-6'].map((id) => library.find((c) => c.id === id)!);
  job.cuts = [
    {
      id: 'c-tone',
      name: 'Picture',
      kind: 'toneLines',
      enabled: true,
      items: ['i-panel'],
      values: {
        cutter: 'v-12-60-0',
        where: 'inside',
        margin: 0,
        dark: 'low',
        lightest: 4,
        darkest: 80,
        spacing: 1.2,
        pattern: 'waved',
        angle: 0,
        wave: 46,
        swing: 1.6,
        limit: 1.2,
        land: 0.2,
      },
      overrides: {},
    },
  ];
  return job;
}
