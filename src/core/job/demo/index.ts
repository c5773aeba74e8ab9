import type { Job, OneSetup } from '../job';
import { jobOf, oneSetup } from '../oneSetup';
import { ferryRing } from './ferryRing';
import { ferryToken } from './ferryToken';
import { gearPlate } from './gearPlate';
import { gearPlateWithBack } from './gearPlateBack';
import { heronMedallion } from './heronMedallion';
import { keeperToken } from './keeperToken';
import { lockCottage } from './lockCottage';
import { reedBed } from './reedBed';
import { sluiceGear } from './sluiceGear';
import { towpathPanel } from './towpathPanel';
import { waterlilyLid } from './waterlilyLid';

/** What the demo jobs are about, each in one set-up. */
export const demoSetups: Readonly<Record<string, () => OneSetup>> = {
  'ferry-token-mould': ferryToken,
  'reed-bed-sign': reedBed,
  'heron-medallion': heronMedallion,
  'lock-cottage-board': lockCottage,
  'keeper-plate': gearPlate,
  'ferry-ring': ferryRing,
  'sluice-gear-plate': sluiceGear,
  'towpath-panel': towpathPanel,
  'waterlily-lid': () => oneSetup(waterlilyLid()),
  'keeper-token': () => oneSetup(keeperToken()),
};

/** Those that have several. */
const whole: Readonly<Record<string, () => Job>> = {
  'keeper-plate': gearPlateWithBack,
  'waterlily-lid': waterlilyLid,
  'keeper-token': keeperToken,
};

/** The demo jobs of the Fenwater Lock trust, by the name that the command line takes. */
export const demoJobs: Readonly<Record<string, () => Job>> = Object.fromEntries(
  Object.entries(demoSetups).map(([name, make]) => [name, whole[name] ?? (() => jobOf(make()))]),
);
