import type { CutKind } from './kind';
import { area } from './kinds/area';
import { drag } from './kinds/drag';
import { drilling } from './kinds/drilling';
import { line } from './kinds/line';
import { profile } from './kinds/profile';
import { reliefFinish } from './kinds/reliefFinish';
import { reliefRough } from './kinds/reliefRough';
import { skim } from './kinds/skim';
import { toneLines } from './kinds/toneLines';
import { tooledTexture } from './kinds/tooledTexture';
import { vcarve } from './kinds/vcarve';

/** Every kind of cut, in the order in which they are offered. */
export const cutKinds: readonly CutKind[] = [
  vcarve,
  area,
  profile,
  line,
  drag,
  drilling,
  skim,
  reliefRough,
  reliefFinish,
  toneLines,
  tooledTexture,
];

const byId = new Map(cutKinds.map((k) => [k.id, k]));

export function kindOf(id: string): CutKind {
  const kind = byId.get(id);
  if (!kind) throw new Error(`There is no kind of cut called "${id}".`);
  return kind;
}
