import { z } from 'zod';
import { formKind } from '../form';

const at = z.number().min(-300).max(300).nullable();
const schema = z.object({ cap: at, floor: at });

/** Cuts all that lies under it off at a height, and fills it up to another. */
export const limit = formKind({
  id: 'limit',
  name: 'Limit',
  summary: 'Caps all that lies under it at a height, or fills it up to a floor.',
  schema,
  adjusts: true,
  fields: [
    { kind: 'length', key: 'cap', label: 'Not above', optional: 'no limit', hint: 'Above the base of the stack' },
    { kind: 'length', key: 'floor', label: 'Not below', optional: 'no limit', hint: 'Above the base of the stack' },
  ],
  defaults: { cap: 2, floor: null },
  higher: (v, by) => ({ cap: v.cap && v.cap * by, floor: v.floor && v.floor * by }),
  evaluate(v, { under }) {
    const [cap, floor] = [v.cap ?? Infinity, v.floor ?? -Infinity];
    // Math.min and Math.max leave what is empty empty.
    const out = under.map((h) => Math.min(cap, Math.max(floor, h)));
    const remark = floor > cap ? 'Its floor lies above its cap: all of it is at the cap. Lower the floor.' : '';
    return { z: out, remark };
  },
});
