import { makeArcLengthPath } from '../geometry/arcLengthPath';
import type { Affine, Path } from '../geometry/path';
import { wrap } from './arrange';
import type { Item } from './item';
import { itemKindOf } from './registry';

/**
 * An item scaled about a point by sx across and sy up. It keeps its kind and measures where it can; null when it would
 * be skewed (turned by other than quarters and scaled unevenly) and must become a drawing.
 */
export function scaledItem(item: Item, sx: number, sy: number, cx: number, cy: number): Item | null {
  const even = Math.abs(sx - sy) < 1e-12;
  const quarter = Math.abs(wrap(item.angle) % 90) < 1e-9;
  if (!even && !quarter) return null;
  const swap = Math.abs(Math.abs(wrap(item.angle)) - 90) < 1e-9;
  return {
    ...item,
    x: cx + (item.x - cx) * sx,
    y: cy + (item.y - cy) * sy,
    values: itemKindOf(item.kind).scaled(item.values, swap ? sy : sx, swap ? sx : sy) as Item['values'],
  };
}

/** A shear about a point by degrees: uprights lean along X, or levels rise along Y. */
export function shear(degrees: number, way: 'across' | 'up', cx: number, cy: number): Affine {
  const k = Math.tan((degrees * Math.PI) / 180);
  return way === 'across' ? { a: 1, b: 0, c: k, d: 1, e: -k * cy, f: 0 } : { a: 1, b: k, c: 0, d: 1, e: 0, f: -k * cx };
}

/** Places of `count` things evenly along a path, from end to end (round it when it is closed), with the path's direction there in degrees. */
export function placesAlong(path: Path, count: number): { x: number; y: number; angle: number }[] {
  const g = makeArcLengthPath(path);
  const gaps = g.closed ? count : Math.max(1, count - 1);
  return Array.from({ length: count }, (_, k) => {
    const p = g.at((g.length * k) / gaps);
    return { x: p.x, y: p.y, angle: (Math.atan2(p.ty, p.tx) * 180) / Math.PI };
  });
}
