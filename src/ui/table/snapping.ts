import type { PlacedItem } from '@/core/artwork/item';
import type { GuideLine } from '@/core/artwork/snap';
import type { Blank } from '@/core/job/job';

export interface Snap {
  dx: number;
  dy: number;
  /** Guides to draw: positions of vertical and horizontal lines that were caught. */
  xs: number[];
  ys: number[];
}

/** Left, middle, right and bottom, middle, top of some corners. */
export function spanOf(corners: readonly { x: number; y: number }[]): { xs: number[]; ys: number[] } {
  const x = corners.map((c) => c.x);
  const y = corners.map((c) => c.y);
  const three = (a: number, b: number) => [a, (a + b) / 2, b];
  return { xs: three(Math.min(...x), Math.max(...x)), ys: three(Math.min(...y), Math.max(...y)) };
}

/** Moves a shift so that an edge or middle of what is moved meets one of the blank, of another item, or a guide within `reach` mm. */
export function snapMove(
  moving: readonly { x: number; y: number }[],
  dx: number,
  dy: number,
  blank: Blank,
  others: readonly PlacedItem[],
  guides: readonly GuideLine[],
  reach: number,
): Snap {
  const mine = spanOf(moving);
  const spans = [
    { xs: [0, blank.width / 2, blank.width], ys: [0, blank.height / 2, blank.height] },
    ...others.map((o) => spanOf(o.corners)),
    {
      xs: guides.filter((g) => g.axis === 'x').map((g) => g.at),
      ys: guides.filter((g) => g.axis === 'y').map((g) => g.at),
    },
  ];
  const best = (values: number[], shift: number, goals: number[]) => {
    let d = reach;
    let at: number | null = null;
    let move = 0;
    for (const v of values)
      for (const g of goals)
        if (Math.abs(g - v - shift) < d) {
          d = Math.abs(g - v - shift);
          move = g - v - shift;
          at = g;
        }
    return { move, at };
  };
  const x = best(
    mine.xs,
    dx,
    spans.flatMap((s) => s.xs),
  );
  const y = best(
    mine.ys,
    dy,
    spans.flatMap((s) => s.ys),
  );
  return { dx: dx + x.move, dy: dy + y.move, xs: x.at === null ? [] : [x.at], ys: y.at === null ? [] : [y.at] };
}
