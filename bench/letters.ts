import { sideDefaults } from '../src/core/cuts/around';
import { newItem } from '../src/core/artwork/item';
import { shippedLibrary } from '../src/core/cutters/library';
import { newOneSetup, type OneSetup } from '../src/core/job/job';

/** A V-carved board of 20 letters, one of which changes: the other letters of its line move with it. */
export function lettersBoard(last = 'S'): OneSetup {
  const job = newOneSetup('Twenty letters');
  const text = {
    font: 'libre-baskerville',
    capHeight: 22,
    tracking: 10,
    kerning: true,
    leading: 1.6,
    align: 'centre',
    stretch: 100,
    baseline: 'straight',
    radius: 50,
    at: 90,
  };
  job.blank = { ...job.blank, width: 360, height: 120 };
  job.items = [
    newItem({
      id: 'a',
      name: 'Letters',
      kind: 'lettering',
      x: 180,
      y: 60,
      values: { ...text, text: `FENWATER LOCK\nKEEPER ${last}` },
    }),
  ];
  job.cutters = shippedLibrary().filter((c) => c.id === 'v-12-60-0');
  job.cuts = [
    {
      id: 'c',
      name: 'Letters',
      kind: 'vcarve',
      enabled: true,
      items: ['a'],
      values: { cutter: 'v-12-60-0', endMills: [], startDepth: 0, limit: null, overRise: 0, ...sideDefaults },
      overrides: { 'v-12-60-0': { stepDown: 20 } },
    },
  ];
  return job;
}
