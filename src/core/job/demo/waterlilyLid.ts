import { newItem } from '../../artwork/item';
import { shippedLibrary } from '../../cutters/library';
import { inlayDefaults, withInlay } from '../inlay';
import { newOneSetup, type Job } from '../job';
import { jobOf } from '../oneSetup';

const VBIT = 'v-12-60-0';

/** The lid of a box of walnut with a waterlily of maple let into it: the pocket in the lid, the plug in a set-up of its own. */
export function waterlilyLid(): Job {
  const one = newOneSetup('Waterlily box lid');
  one.notes =
    'Fenwater Lock: lid for the box of the visitors\u2019 book. Glue the plug in, saw it off, and sand it flush.';
  one.blank = { ...one.blank, width: 160, height: 120, thickness: 10, material: 'walnut', intoBed: 0.4 };
  const [x, y] = [80, 60];
  one.items = [
    newItem({
      ...{ id: 'i-lid', name: 'Lid', kind: 'rectangle', x, y },
      values: { width: 144, height: 104, corner: 'round', radius: 10 },
    }),
    newItem({
      ...{ id: 'i-lily', name: 'Waterlily', kind: 'motif', x, y: y + 9 },
      values: { motif: 'lily', width: 88, height: 56 },
    }),
    newItem({
      ...{ id: 'i-words', name: 'FENWATER', kind: 'lettering', x, y: y - 42 },
      values: {
        ...{ kerning: true, leading: 1.6, align: 'centre', stretch: 100, baseline: 'straight', radius: 50, at: 90 },
        ...{ text: 'FENWATER', tracking: 120, font: 'cinzel-bold', capHeight: 12 },
      },
    }),
  ];
  const library = shippedLibrary();
  one.cutters = ['flat-6', 'flat-3', 'flat-1.5', VBIT].map((id) => library.find((c) => c.id === id)!);
  let n = 0;
  const values = { ...inlayDefaults(VBIT, ['flat-3', 'flat-1.5'], 'maple'), margin: 5 };
  const made = withInlay(jobOf(one), one.at.id, ['i-lily', 'i-words'], values, () => `inlay-${++n}`);
  const [lid, plug] = made.job.setups;
  const free = {
    ...{ id: 'c-free', name: 'Cut free', kind: 'profile', enabled: true, items: ['i-lid'], overrides: {} },
    values: {
      ...{ cutter: 'flat-6', side: 'outside', startDepth: 0, through: true, depth: 10, beyond: 0.2, skin: 0 },
      ...{ allowance: 0, finish: 0, ramp: 5, direction: 'climb', lead: 'none', leadSize: 3 },
      tabs: { shape: 'rectangular', by: 'count', count: 4, spacing: 80, length: 6, height: 2.5, at: [] },
    },
  };
  return {
    ...made.job,
    setups: [
      { ...lid, name: 'Lid', cuts: [...lid.cuts, free] },
      { ...plug, name: 'Plug' },
    ],
  };
}
