import { boundsOfPaths, compose, transformPath, type Affine, type Path } from '../geometry/path';
import type { Fill } from '../geometry/region';
import { newItem, type Item } from './item';
import type { TracedFrom } from './kinds/drawing';

const moved = (x: number, y: number): Affine => ({ a: 1, b: 0, c: 0, d: 1, e: x, f: y });

/**
 * Paths in the blank's frame as an item of its own, about their middle. `traced`: where they were traced from, its map
 * going to the blank's frame.
 */
export function drawnItem(
  like: Pick<Item, 'id' | 'name' | 'layer' | 'group'>,
  paths: readonly Path[],
  fill: Fill = 'nonzero',
  traced?: TracedFrom,
): Item {
  const b = boundsOfPaths(paths) ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  const [x, y] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  const home = moved(-x, -y);
  return newItem({
    id: like.id,
    name: like.name,
    layer: like.layer,
    group: like.group,
    kind: 'drawing',
    x,
    y,
    values: {
      paths: paths.map((p) => transformPath(p, home)),
      fill,
      ...(traced && { traced: { ...traced, map: compose(home, traced.map) } }),
    },
  });
}
