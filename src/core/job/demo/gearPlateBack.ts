import { sideDefaults } from '../../cuts/around';
import { noRelief } from '../../relief/stack';
import { newItem } from '../../artwork/item';
import { FIRST_SETUP, type Job } from '../job';
import { newLink } from '../linked';
import { jobOf, oneSetup, withSetup } from '../oneSetup';
import { gearPlate } from './gearPlate';

const CONE = 'cone-3.175-20-0.1';

/**
 * The keeper's plate with its back: words for whoever takes it down, cut before the plate is turned over, so that it is still
 * held all around; its face, and cutting it free, come last.
 */
export function gearPlateWithBack(): Job {
  const front = { ...gearPlate(), at: { ...gearPlate().at, id: 'front', name: 'Front' } };
  const text = {
    kerning: true,
    leading: 1.6,
    align: 'centre',
    stretch: 100,
    baseline: 'straight',
    radius: 50,
    at: 90,
    tracking: 20,
  };
  const whole = jobOf(front);
  const [face] = whole.setups;
  // Where the plate will be parted from the blank: it follows the edge on the front.
  const edge = newLink(
    'i-back-edge',
    face.items.find((i) => i.id === 'i-edge')!,
    face.layers[0].id,
  );
  const bare = {
    ...face,
    id: FIRST_SETUP,
    name: 'Back',
    clamps: [],
    groups: [],
    items: [edge],
    relief: noRelief(),
    cuts: [],
  };
  const job: Job = { ...whole, setups: [bare, { ...face, after: { setup: FIRST_SETUP, turned: 'y' } }] };
  const back = oneSetup(job, FIRST_SETUP);
  return withSetup(job, {
    ...back,
    items: [
      ...back.items,
      newItem({
        id: 'i-back',
        name: 'Property',
        kind: 'lettering',
        x: 55,
        y: 33,
        angle: 0,
        values: { ...text, text: 'Fenwater Lock', font: 'libre-baskerville', capHeight: 5 },
      }),
      newItem({
        id: 'i-back-no',
        name: 'Number',
        kind: 'lettering',
        x: 55,
        y: 24,
        angle: 0,
        values: { ...text, text: 'Gear plate 3 of 6', font: 'libre-baskerville', capHeight: 3 },
      }),
    ],
    cuts: [
      {
        id: 'c-back',
        name: 'Words on the back',
        kind: 'vcarve',
        enabled: true,
        items: ['i-back', 'i-back-no'],
        values: { cutter: CONE, endMills: [], startDepth: 0, limit: 0.3, overRise: 0, ...sideDefaults },
        overrides: { [CONE]: { stepDown: 0.3, stepOver: 0.05 } },
      },
    ],
  });
}
