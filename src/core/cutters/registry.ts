import type { CutterShape } from './shape';
import { ball } from './shapes/ball';
import { bull } from './shapes/bull';
import { cone } from './shapes/cone';
import { drag } from './shapes/drag';
import { drill } from './shapes/drill';
import { flat } from './shapes/flat';
import { taperedBall } from './shapes/taperedBall';
import { vbit } from './shapes/vbit';

/** Every kind of cutter, in the order in which the library lists them. */
export const cutterShapes: readonly CutterShape[] = [flat, ball, bull, vbit, cone, taperedBall, drag, drill];

const byId = new Map(cutterShapes.map((s) => [s.id, s]));

export function shapeOf(id: string): CutterShape {
  const shape = byId.get(id);
  if (!shape) throw new Error(`There is no kind of cutter called "${id}".`);
  return shape;
}
