import type { FormKind } from './form';
import { ground } from './kinds/ground';
import { mesh } from './kinds/mesh';
import { outline } from './kinds/outline';
import { texture } from './kinds/texture';

/** Every kind of form, in the order in which they are offered. */
export const formKinds: readonly FormKind[] = [outline, mesh, texture, ground];

const byId = new Map(formKinds.map((k) => [k.id, k]));

export function formKindOf(id: string): FormKind {
  const kind = byId.get(id);
  if (!kind) throw new Error(`There is no kind of form called "${id}".`);
  return kind;
}
