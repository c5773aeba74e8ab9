import type { OneSetup } from '../job';
import { ferryRing } from './ferryRing';
import { gearPlate } from './gearPlate';
import { lockCottage } from './lockCottage';
import { sluiceGear } from './sluiceGear';

/** The demo jobs of the Fenwater Lock trust, by the name that the command line takes. */
export const demoJobs: Readonly<Record<string, () => OneSetup>> = {
  'lock-cottage-board': lockCottage,
  'keeper-plate': gearPlate,
  'ferry-ring': ferryRing,
  'sluice-gear-plate': sluiceGear,
};
