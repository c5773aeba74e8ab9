import { flatten } from '../geometry/path';
import { boundsOf, contains, normalise, type Bounds, type Region } from '../geometry/region';
import { segmentInBox, segmentsCross, toSegment } from '../geometry/straight';
import { itemBounds, type PlacedItem } from './item';

/** Chords of outlines that are only pointed at, mm. */
const COARSE = 0.05;

interface Line {
  readonly points: Float64Array;
  readonly closed: boolean;
}

/** Worked out when it is first asked for: of thousands of items only those near the pointer ever are. */
function once<T>(make: (p: PlacedItem) => T): (p: PlacedItem) => T {
  const kept = new WeakMap<PlacedItem, { readonly value: T }>();
  return (p) => {
    let k = kept.get(p);
    if (!k) kept.set(p, (k = { value: make(p) }));
    return k.value;
  };
}

const linesOf = once((p): readonly Line[] => p.paths.map((q) => ({ points: flatten(q, COARSE), closed: q.closed })));

/** The box of what an item draws. */
export const boxOf = once(itemBounds);

/** What an item's closed outlines fill. */
export const filledBy = once((p): Region =>
  normalise(
    linesOf(p)
      .filter((l) => l.closed)
      .map((l) => l.points),
    p.fill,
  ),
);

/** The box of an item's frame: at least as large as that of what it draws, and at hand without looking at its curves. */
export const frameBox = (p: PlacedItem): Bounds => boundsOf([Float64Array.from(p.corners.flatMap((c) => [c.x, c.y]))])!;

/** Calls `ask` for the segments of an item until it says true. */
function someSegment(p: PlacedItem, ask: (ax: number, ay: number, bx: number, by: number) => boolean): boolean {
  for (const { points: l, closed } of linesOf(p)) {
    const n = l.length;
    for (let i = closed ? 0 : 2, j = closed ? n - 2 : 0; i < n; j = i, i += 2)
      if (ask(l[j], l[j + 1], l[i], l[i + 1])) return true;
  }
  return false;
}

/** Distance from a point to an item's lines and outlines, mm; Infinity when it draws nothing. */
export function distanceTo(p: PlacedItem, x: number, y: number): number {
  let best = Infinity;
  someSegment(p, (ax, ay, bx, by) => {
    best = Math.min(best, toSegment(ax, ay, bx, by, x, y));
    return best === 0;
  });
  return best;
}

/** Whether a point lies in what an item's closed outlines fill, asked of the outlines as they are. */
export function isInside(p: PlacedItem, x: number, y: number): boolean {
  let winding = 0;
  let crossings = 0;
  for (const { points: l, closed } of linesOf(p)) {
    if (!closed) continue;
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) {
      const [ay, by] = [l[j + 1], l[i + 1]];
      if (ay <= y === by <= y || l[j] + ((l[i] - l[j]) * (y - ay)) / (by - ay) <= x) continue;
      crossings++;
      winding += by > ay ? 1 : -1;
    }
  }
  return p.fill === 'evenodd' ? crossings % 2 === 1 : winding !== 0;
}

/** Whether any line or outline of an item has a point in a box. */
export const touches = (p: PlacedItem, b: Bounds): boolean =>
  someSegment(p, (ax, ay, bx, by) => segmentInBox(ax, ay, bx, by, b));

/** Whether all that an item draws lies in a box. */
export function isWithin(p: PlacedItem, b: Bounds): boolean {
  const box = boxOf(p);
  return box.x0 >= b.x0 && box.x1 <= b.x1 && box.y0 >= b.y0 && box.y1 <= b.y1;
}

/** Whether all that an item draws lies inside of outlines (their holes are outside). */
export function liesInside(p: PlacedItem, region: Region): boolean {
  const b = boundsOf(region);
  const [first] = linesOf(p);
  if (!b || !first || !isWithin(p, b)) return false;
  const [x0, y0, x1, y1] = first.points;
  if (!contains(region, (x0 + x1) / 2, (y0 + y1) / 2)) return false;
  // One point inside, and no outline of the region goes through the item: then all of it is inside.
  const box = boxOf(p);
  for (const l of region)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
      if (
        segmentInBox(l[j], l[j + 1], l[i], l[i + 1], box) &&
        someSegment(p, (ax, ay, bx, by) => segmentsCross(l[j], l[j + 1], l[i], l[i + 1], ax, ay, bx, by))
      )
        return false;
  return true;
}

/** What reaches beyond the blank, and what of that lies wholly off it. */
export function offBlank(
  things: readonly { readonly id: string; readonly placed: PlacedItem }[],
  blank: { readonly width: number; readonly height: number },
): { readonly over: string[]; readonly off: string[] } {
  const whole = { x0: -1e-6, y0: -1e-6, x1: blank.width + 1e-6, y1: blank.height + 1e-6 };
  const holds = (b: Bounds) => b.x0 >= whole.x0 && b.y0 >= whole.y0 && b.x1 <= whole.x1 && b.y1 <= whole.y1;
  // Frames answer for nearly all; curves are looked at where a frame reaches out.
  const over = things.filter(
    (t) => t.placed.shape.paths.length && !holds(frameBox(t.placed)) && !holds(boxOf(t.placed)),
  );
  const beside = (b: Bounds) => b.x1 < 0 || b.y1 < 0 || b.x0 > blank.width || b.y0 > blank.height;
  return { over: over.map((t) => t.id), off: over.filter((t) => beside(boxOf(t.placed))).map((t) => t.id) };
}

/** Of several things the one whose outline all others lie in: together they are what is between it and them. Null when there is none. */
export function boundaryOf(things: readonly { readonly id: string; readonly placed: PlacedItem }[]): string | null {
  if (things.length < 2) return null;
  const size = ({ placed }: (typeof things)[number]) =>
    (boxOf(placed).x1 - boxOf(placed).x0) * (boxOf(placed).y1 - boxOf(placed).y0);
  const outer = things.reduce((m, t) => (size(t) > size(m) ? t : m));
  // Boxes tell most lists apart at once.
  if (!things.every((t) => isWithin(t.placed, boxOf(outer.placed)))) return null;
  const region = filledBy(outer.placed);
  return region.length && things.every((t) => t === outer || liesInside(t.placed, region)) ? outer.id : null;
}
