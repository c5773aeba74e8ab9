import type { ItemKind } from './kind';
import { border } from './kinds/border';
import { drawing } from './kinds/drawing';
import { ellipse } from './kinds/ellipse';
import { lettering } from './kinds/lettering';
import { linked } from './kinds/linked';
import { motif } from './kinds/motif';
import { picture } from './kinds/picture';
import { polygon } from './kinds/polygon';
import { rectangle } from './kinds/rectangle';
import { ring } from './kinds/ring';
import { slot } from './kinds/slot';
import { star } from './kinds/star';

/** Every kind of item, in the order in which they are offered. */
export const itemKinds: readonly ItemKind[] = [
  lettering,
  rectangle,
  ellipse,
  polygon,
  star,
  ring,
  slot,
  motif,
  border,
  drawing,
  linked,
  picture,
];

const byId = new Map(itemKinds.map((k) => [k.id, k]));

export function itemKindOf(id: string): ItemKind {
  const kind = byId.get(id);
  if (!kind) throw new Error(`There is no kind of item called "${id}".`);
  return kind;
}
