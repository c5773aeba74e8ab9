import type { ItemKind } from './kind';
import { ellipse } from './kinds/ellipse';
import { lettering } from './kinds/lettering';
import { rectangle } from './kinds/rectangle';

/** Every kind of item, in the order in which they are offered. */
export const itemKinds: readonly ItemKind[] = [lettering, rectangle, ellipse];

const byId = new Map(itemKinds.map((k) => [k.id, k]));

export function itemKindOf(id: string): ItemKind {
  const kind = byId.get(id);
  if (!kind) throw new Error(`There is no kind of item called "${id}".`);
  return kind;
}
