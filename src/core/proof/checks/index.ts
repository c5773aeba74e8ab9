import type { Check } from '../check';
import { bed } from './bed';
import { buried } from './buried';
import { clamps } from './clamps';
import { edges } from './edges';
import { faces } from './faces';
import { limits } from './limits';
import { order } from './order';
import { planned } from './planned';
import { rapids } from './rapids';
import { shank } from './shank';
import { slots } from './slots';
import { spindle } from './spindle';
import { unreached } from './unreached';
import { wanted } from './wanted';

/** Every check, in the order in which results are listed. */
export const checks: readonly Check[] = [
  bed,
  faces,
  edges,
  rapids,
  shank,
  buried,
  order,
  wanted,
  unreached,
  spindle,
  slots,
  limits,
  clamps,
  planned,
];
