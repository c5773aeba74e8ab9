'use client';
import { useState, type PointerEvent } from 'react';
import { placementOf } from '@/core/artwork/item';
import { nearest } from '@/core/artwork/nodes';
import { trimAt } from '@/core/artwork/trim';
import { inverse, pathData, transformPath, type Path } from '@/core/geometry/path';
import { changeItem } from '@/ui/actions/edits';
import { tell } from '@/ui/actions/tell';
import { toWorld } from '../viewport';
import { PointerSurface } from './PointerSurface';
import type { LayerProps } from './usePointer';

interface Hit {
  readonly id: string;
  readonly path: number;
  readonly kind: string;
  readonly name: string;
  readonly left: Path[];
  readonly whole: Path;
}

/** A press on a drawn line takes it away up to where it crosses others; what would be left is shown before. */
export function TrimLayer({ job, ...on }: LayerProps) {
  const { view, local, index } = on;
  const [hit, setHit] = useState<Hit | null>(null);
  const find = (e: PointerEvent): Hit | null => {
    const p = local(e);
    const w = toWorld(view, p.x, p.y);
    const reach = 9 / view.k;
    const near = index.around({ x0: w.x - reach, y0: w.y - reach, x1: w.x + reach, y1: w.y + reach });
    let best: { id: string; path: number; distance: number } | null = null;
    for (const { id, placed } of near)
      placed.paths.forEach((q, k) => {
        const d = nearest(q, w.x, w.y).distance;
        if (d <= reach && (!best || d < best.distance)) best = { id, path: k, distance: d };
      });
    const found = best as { id: string; path: number; distance: number } | null;
    if (!found) return null;
    const item = job.items.find((i) => i.id === found.id)!;
    const mine = near.find((n) => n.id === found.id)!.placed;
    const whole = mine.paths[found.path];
    const box = {
      x0: Math.min(...mine.corners.map((c) => c.x)),
      y0: Math.min(...mine.corners.map((c) => c.y)),
      x1: Math.max(...mine.corners.map((c) => c.x)),
      y1: Math.max(...mine.corners.map((c) => c.y)),
    };
    const others = index
      .around(box)
      .flatMap((n) => n.placed.paths)
      .filter((q) => q !== whole);
    return {
      id: item.id,
      path: found.path,
      kind: item.kind,
      name: item.name,
      whole,
      left: trimAt(whole, others, w.x, w.y),
    };
  };
  const shape = `matrix(${view.k} 0 0 ${-view.k} ${view.ox} ${view.oy})`;
  return (
    <g>
      <PointerSurface
        onPress={(e) => {
          const h = find(e);
          if (!h) return;
          if (h.kind !== 'drawing')
            return tell(
              'info',
              `"${h.name}" keeps its own measures. Convert to outlines of it first (Ctrl+K, "Convert to outlines").`,
            );
          changeItem(h.id, 'Trim', (i) => {
            const back = inverse(placementOf(i));
            (i.values as { paths: Path[] }).paths.splice(h.path, 1, ...h.left.map((q) => transformPath(q, back)));
          });
          setHit(null);
        }}
        onMove={(e) => setHit(find(e))}
        onLeave={() => setHit(null)}
      />
      {hit && (
        <g transform={shape} fill="none" pointerEvents="none">
          <path
            d={pathData([hit.whole])}
            stroke="var(--mui-palette-error-main)"
            strokeWidth="3"
            vectorEffect="non-scaling-stroke"
          />
          <path
            d={pathData(hit.left)}
            stroke="var(--mui-palette-primary-main)"
            strokeWidth="3.5"
            vectorEffect="non-scaling-stroke"
          />
        </g>
      )}
    </g>
  );
}
