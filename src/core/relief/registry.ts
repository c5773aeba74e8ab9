import type { FormKind } from './form';
import { denoise } from './kinds/denoise';
import { ground } from './kinds/ground';
import { group } from './kinds/group';
import { limit } from './kinds/limit';
import { mesh } from './kinds/mesh';
import { ornament } from './kinds/ornament';
import { outline } from './kinds/outline';
import { picture } from './kinds/picture';
import { sculpt } from './kinds/sculpt';
import { swept } from './kinds/swept';
import { texture } from './kinds/texture';
import { turned } from './kinds/turned';

/** Every kind of form, in the order in which they are offered. */
export const formKinds: readonly FormKind[] = [
  outline,
  swept,
  mesh,
  picture,
  ornament,
  texture,
  ground,
  sculpt,
  denoise,
  limit,
  turned,
  group,
];

const byId = new Map(formKinds.map((k) => [k.id, k]));

export function formKindOf(id: string): FormKind {
  const kind = byId.get(id);
  if (!kind) throw new Error(`There is no kind of form called "${id}".`);
  return kind;
}
