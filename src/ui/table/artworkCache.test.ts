import fc from 'fast-check';
import { newItem, placeItem, placeShape, type PlacedItem } from '@/core/artwork/item';
import type { Path } from '@/core/geometry/path';
import { itemKindOf } from '@/core/artwork/registry';
import { testArt } from '@/core/testing/fonts';
import { goneSince, type Batch } from './artworkCache';
import { inStretches } from './outlinePath';

/** An open or closed outline whose k-th segment ends at (k + 1, its number). */
const outline = (n: number, segments: number, closed: boolean): Path => ({
  x: 0,
  y: n,
  segments: Array.from({ length: segments }, (_, k) => ({ k: 'line', x: k + 1, y: n })),
  closed,
});
/** Each segment that is drawn, from where to where, and after which one. */
const drawn = (p: Path): string[] => {
  const ends = [p, ...p.segments];
  if (p.closed) ends.push(p, p.segments[0] ?? p);
  const lines = ends.slice(1).map((e, k) => `${ends[k].x} ${ends[k].y} > ${e.x} ${e.y}`);
  return [...lines, ...lines.slice(1).map((l, k) => `${lines[k]}, ${l}`)];
};

describe('an outline that is stroked in parts', () => {
  it('has every segment and every corner that it has as a whole, none other, and no part is longer than asked for', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(40), fc.boolean()), { maxLength: 6 }),
        fc.integer({ min: 1, max: 12 }),
        (sizes, most) => {
          const paths = sizes.map(([n, closed], k) => outline(k, n, closed && n > 1));
          const parts = inStretches(paths, most);
          for (const part of parts) {
            const whole = part.reduce((n, p) => n + p.segments.length, 0);
            // Each outline that is parted repeats the segment before, what closes it and its first.
            expect(whole).toBeLessThanOrEqual(most + 3 * part.length);
          }
          expect(new Set(parts.flat().flatMap(drawn))).toEqual(new Set(paths.flatMap(drawn)));
        },
      ),
    );
  });
});

describe('what has moved as a whole', () => {
  const rectangle = (x: number, y: number, width = 8, angle = 0): PlacedItem =>
    placeItem(
      newItem({
        id: 'a',
        name: 'a',
        kind: 'rectangle',
        x,
        y,
        angle,
        values: { ...(itemKindOf('rectangle').defaults as object), width },
      }),
      testArt,
    );
  const moved = (p: PlacedItem, x: number, y: number, angle = 0): PlacedItem =>
    placeShape({ values: p.values, x, y, angle, mirror: false }, p.shape);
  const look = (...items: PlacedItem[]): Batch[] => [{ ink: 'red', wide: 1, fill: null, items }];
  const [a, b] = [rectangle(1, 2), rectangle(30, 4, 5)];

  it('tells how far; what is turned, drawn anew, or moved by itself has not', () => {
    expect(goneSince(look(a, b), look(a, b))).toEqual({ dx: 0, dy: 0 });
    expect(goneSince(look(a, b), look(moved(a, 4, -2), moved(b, 33, 0)))).toEqual({ dx: 3, dy: -4 });
    expect(goneSince(look(a, b), look(moved(a, 4, -2), b))).toBeNull();
    expect(goneSince(look(a, b), look(a, moved(b, 30, 4.001)))).toBeNull();
    expect(goneSince(look(a), look(moved(a, 1, 2, 45)))).toBeNull();
    expect(goneSince(look(a), look(rectangle(1, 2)))).toBeNull();
    expect(goneSince(look(a), look(a, b))).toBeNull();
    expect(goneSince(look(a), [{ ...look(a)[0], ink: 'blue' }])).toBeNull();
    expect(goneSince([], look(a))).toBeNull();
  });
});
