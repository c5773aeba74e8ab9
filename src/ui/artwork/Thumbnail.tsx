import { memo } from 'react';
import { itemBounds, type PlacedItem } from '@/core/artwork/item';
import type { Shape } from '@/core/artwork/kind';
import { derived } from '@/core/geometry/hash';
import { flatten } from '@/core/geometry/path';

const SIZE = 22;
interface Drawing {
  readonly d: string;
  readonly closed: boolean;
}
/** By shape, and how that is turned. */
const kept = derived<Shape, Drawing>();

/** What an item draws, as a path in a square of `SIZE` pixels; detail finer than a pixel is left out. */
const drawingOf = (p: PlacedItem): Drawing => {
  const { a, b, c, d } = p.at;
  return kept(p.shape, [a, b, c, d].join(' '), () => draw(p));
};
function draw(p: PlacedItem): Drawing {
  const b = itemBounds(p);
  const k = (SIZE - 2) / Math.max(b.x1 - b.x0, b.y1 - b.y0, 1e-6);
  const [mx, my] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  const at = (x: number, y: number) =>
    `${(SIZE / 2 + (x - mx) * k).toFixed(1)} ${(SIZE / 2 - (y - my) * k).toFixed(1)}`;
  let d = '';
  for (const path of p.paths) {
    const l = flatten(path, 0.3 / k);
    let [x, y] = [l[0], l[1]];
    let part = `M${at(x, y)}`;
    for (let i = 2; i < l.length; i += 2) {
      if (Math.hypot(l[i] - x, l[i + 1] - y) * k < 0.5 && i < l.length - 2) continue;
      [x, y] = [l[i], l[i + 1]];
      part += `L${at(x, y)}`;
    }
    d += path.closed ? `${part}Z` : part;
  }
  return { d, closed: p.paths.length > 0 && p.paths.every((q) => q.closed) };
}

/** An item in small, before its name in the list. */
export const Thumbnail = memo(function Thumbnail({
  placed,
  picture,
}: {
  placed: PlacedItem | undefined;
  picture: boolean;
}) {
  const t = placed && drawingOf(placed);
  return (
    <svg width={SIZE} height={SIZE} aria-hidden style={{ flex: 'none' }}>
      {picture ? (
        <path
          d="M3 4.5h16v13H3zM3 15l4.5-4.5L12 15l3-3 4 4"
          fill="none"
          stroke="currentColor"
          strokeOpacity="0.55"
          strokeWidth="1.3"
          strokeLinejoin="round"
        />
      ) : (
        t && (
          <path
            d={t.d}
            fill={t.closed ? 'currentColor' : 'none'}
            fillOpacity="0.16"
            fillRule={placed.fill}
            stroke="currentColor"
            strokeOpacity="0.8"
            strokeWidth="1"
            strokeLinejoin="round"
          />
        )
      )}
    </svg>
  );
});
