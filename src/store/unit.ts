import type { Unit } from '@/core/units/length';
import { local } from './local';

const KEY = 'mirvak-unit';

/** The unit that was chosen last on this device: new jobs begin with it. */
export function lastUnit(): Unit {
  try {
    return local().getItem(KEY) === 'in' ? 'in' : 'mm';
  } catch {
    return 'mm';
  }
}

export function keepUnit(unit: Unit): void {
  try {
    local().setItem(KEY, unit);
  } catch {
    // Without room for it new jobs begin in millimetres.
  }
}
