import { axisFor } from './insets';
import { AxisError } from './medial/axis';
import { append } from '../units/append';
import { boundsOf, components, intersect, lineLength, regionArea, subtract, type Region } from './region';

/** A place that had to be left out because no axis was found there: its middle, the side of the square that went, and the area in it. mm, mm2 */
export interface Lost {
  readonly x: number;
  readonly y: number;
  readonly side: number;
  readonly area: number;
}

/** Side of the square that a place is given up by at first, mm. */
const FIRST = 0.05;
/** By how much a square grows when the trouble comes again beside it, and beyond which side its whole piece goes instead. */
const GROWTH = 4;
const LARGEST = 60;
/** So many places at most are given up of one piece before all of it is. */
const MOST = 60;
/** Slivers thinner than this (mm) are what rounding to the grid leaves between outlines that run along each other: nothing that could be cut. */
const SLIVER = 1e-4;

const isSliver = (part: Region): boolean =>
  2 * regionArea(part) < SLIVER * part.reduce((sum, l) => sum + lineLength(l, true), 0);

const square = (x: number, y: number, side: number): Region => {
  const h = side / 2;
  return [Float64Array.of(x - h, y - h, x + h, y - h, x + h, y + h, x - h, y + h)];
};

/**
 * A region whose every component has a medial axis, and the places that were given up for it: one place costs that place, not
 * the outline that it lies on. What is taken away stays uncut; nothing else is cut because of it. `find` throws AxisError.
 */
export function traceable(
  region: Region,
  find: (component: Region) => unknown = axisFor,
): { readonly region: Region; readonly lost: readonly Lost[] } {
  const lost: Lost[] = [];
  const good: Region = [];
  let whole = true;
  for (const piece of components(region)) {
    const places: Lost[] = [];
    const todo = [piece];
    for (let part = todo.pop(); part; part = todo.pop()) {
      try {
        find(part);
        append(good, part);
      } catch (e) {
        if (!(e instanceof AxisError)) throw e;
        whole = false;
        if (isSliver(part)) continue;
        // Trouble beside a place that was given up: that was too little. Elsewhere it is another place.
        const { x, y } = e;
        const at = places.findIndex((p) => Math.max(Math.abs(p.x - x), Math.abs(p.y - y)) <= p.side);
        const was = at < 0 ? { x, y, side: FIRST / GROWTH, area: 0 } : places[at];
        const side = was.side * GROWTH;
        const all = places.length >= MOST || side > LARGEST;
        const b = boundsOf(part)!;
        const gone = all ? part : intersect(part, square(was.x, was.y, side));
        const now = {
          x: was.x,
          y: was.y,
          side: all ? Math.max(b.x1 - b.x0, b.y1 - b.y0) : side,
          area: was.area + regionArea(gone),
        };
        if (at < 0) places.push(now);
        else places[at] = now;
        if (!all) todo.push(...components(subtract(part, square(was.x, was.y, side))));
      }
    }
    append(lost, places);
  }
  // Unchanged it is the same object: what is kept by it is found again.
  return { region: whole ? region : good, lost };
}
