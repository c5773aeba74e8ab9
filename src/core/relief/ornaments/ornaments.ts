import { classic } from './classic';
import { creatures } from './creatures';
import type { Ornament } from './ornament';
import { plants } from './plants';
import { waterside } from './waterside';

/** Every ornament, by its id, in the order in which they are shown. */
export const ornaments: Readonly<Record<string, Ornament>> = { ...creatures, ...waterside, ...plants, ...classic };
