import { crossingsOf } from '../geometry/crossings';
import { sealed, type Path, type Segment } from '../geometry/path';
import { partOf, type Point } from '../geometry/segment';
import { nearest } from './nodes';

/** The part of a path from one place to a later one (segment + t each); round its start when it is closed and `to` is less. */
function subpath(p: Path, from: number, to: number): Path | null {
  const n = p.segments.length;
  const at = (i: number): Point => (i === 0 ? p : p.segments[i - 1]);
  const segments: Segment[] = [];
  let start: Point | null = null;
  const take = (a: number, b: number) => {
    for (let i = Math.floor(a); i < n && i < b; i++) {
      const t0 = Math.max(0, a - i);
      const t1 = Math.min(1, b - i);
      if (t1 - t0 < 1e-9) continue;
      const part = partOf(at(i), p.segments[i], t0, t1);
      start ??= part.from;
      segments.push(part.segment);
    }
  };
  if (to >= from) take(from, to);
  else {
    take(from, n);
    take(0, to);
  }
  const first = start as Point | null;
  return first && segments.length ? { x: first.x, y: first.y, segments, closed: false } : null;
}

/**
 * Takes away the piece of a path that lies nearest to a point, up to where it meets the other paths or itself. Gives what
 * is left of it: nothing when it meets none.
 */
export function trimAt(path: Path, others: readonly Path[], x: number, y: number): Path[] {
  const p = sealed(path);
  const n = p.segments.length;
  const cuts = crossingsOf(p, others).map((c) => c.segment + c.t);
  const hit = nearest(p, x, y);
  const at = hit.segment + hit.t;
  if (p.closed) {
    if (cuts.length < 2) return [];
    const after = cuts.find((c) => c > at) ?? cuts[0];
    const before = [...cuts].reverse().find((c) => c <= at) ?? cuts[cuts.length - 1];
    const left = subpath(p, after, before);
    return left ? [left] : [];
  }
  const before = [...cuts].reverse().find((c) => c <= at && c > 1e-9) ?? null;
  const after = cuts.find((c) => c > at && c < n - 1e-9) ?? null;
  return [before === null ? null : subpath(p, 0, before), after === null ? null : subpath(p, after, n)].flatMap(
    (q) => q ?? [],
  );
}
