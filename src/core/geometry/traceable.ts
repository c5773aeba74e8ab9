import { axisFor } from './insets';
import { AxisError } from './medial/axis';
import { components, intersect, lineLength, regionArea, subtract, type Region } from './region';

/** A place that had to be left out because no axis was found there: its middle, the side of the square that went, and the area in it. mm, mm2 */
export interface Lost {
  readonly x: number;
  readonly y: number;
  readonly side: number;
  readonly area: number;
}

/** Side of the square that is given up first, mm; four times as much at each further try. */
const FIRST = 0.05;
const TRIES = 6;
/** Slivers thinner than this (mm) are what rounding to the grid leaves between outlines that run along each other: nothing that could be cut. */
const SLIVER = 1e-4;

/**
 * A region whose every component has a medial axis, and the places that were given up for it: one place costs that place, not
 * the outline that it lies on. What is taken away stays uncut; nothing else is cut because of it. `find` throws AxisError.
 */
export function traceable(region: Region, find: (component: Region) => unknown = axisFor): { readonly region: Region; readonly lost: readonly Lost[] } {
  const lost: Lost[] = [];
  const good: Region = [];
  const settle = (part: Region, tries: number): void => {
    try {
      find(part);
      good.push(...part);
    } catch (e) {
      if (!(e instanceof AxisError)) throw e;
      if (2 * regionArea(part) < SLIVER * part.reduce((sum, l) => sum + lineLength(l, true), 0)) return;
      const side = FIRST * 4 ** tries;
      const [x0, y0, x1, y1] = [e.x - side / 2, e.y - side / 2, e.x + side / 2, e.y + side / 2];
      const square = [Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1)];
      const gone = tries < TRIES ? intersect(part, square) : part;
      lost.push({ x: e.x, y: e.y, side, area: regionArea(gone) });
      if (tries < TRIES) for (const p of components(subtract(part, square))) settle(p, tries + 1);
    }
  };
  for (const part of components(region)) settle(part, 0);
  return { region: good.length === region.length ? region : good, lost };
}
