import { reversePath, type Path } from './path';

/**
 * Joins open paths whose ends lie within `tolerance` mm of each other into longer ones, and closes those whose
 * ends meet. Where more than two ends meet, the nearest pair is joined first come, first served. Closed
 * paths are handed through. An end is moved onto the other by at most the tolerance.
 */
export function joinPaths(paths: readonly Path[], tolerance: number): Path[] {
  const out: Path[] = [];
  const open: (Path | null)[] = [];
  for (const p of paths) (p.closed || !p.segments.length ? out : open).push(p);
  const cell = Math.max(tolerance, 1e-9) * 2;
  const key = (x: number, y: number) => `${Math.floor(x / cell)},${Math.floor(y / cell)}`;
  const ends = new Map<string, { path: number; atEnd: boolean; x: number; y: number }[]>();
  const endOf = (p: Path) => p.segments[p.segments.length - 1];
  open.forEach((p, i) => {
    for (const atEnd of [false, true]) {
      const q = atEnd ? endOf(p!) : p!;
      const k = key(q.x, q.y);
      const list = ends.get(k) ?? [];
      list.push({ path: i, atEnd, x: q.x, y: q.y });
      ends.set(k, list);
    }
  });
  const near = (x: number, y: number, not: number) => {
    let best: { path: number; atEnd: boolean } | null = null;
    let d = tolerance;
    for (let ix = -1; ix <= 1; ix++)
      for (let iy = -1; iy <= 1; iy++)
        for (const e of ends.get(key(x + ix * cell, y + iy * cell)) ?? []) {
          if (e.path === not || !open[e.path]) continue;
          const l = Math.hypot(e.x - x, e.y - y);
          if (l <= d) {
            d = l;
            best = e;
          }
        }
    return best;
  };
  for (let i = 0; i < open.length; i++) {
    let chain = open[i];
    if (!chain) continue;
    open[i] = null;
    // Onwards from the end, then from the start.
    for (const side of [0, 1]) {
      for (;;) {
        const last: { x: number; y: number } = endOf(chain);
        if (Math.hypot(last.x - chain.x, last.y - chain.y) <= tolerance && chain.segments.length > 1) break;
        const hit = near(last.x, last.y, i);
        if (!hit) break;
        const other: Path = hit.atEnd ? reversePath(open[hit.path]!) : open[hit.path]!;
        open[hit.path] = null;
        chain = { ...chain, segments: [...chain.segments, ...startingAt(other, last.x, last.y)] };
      }
      if (side === 0) chain = reversePath(chain);
    }
    chain = reversePath(chain);
    const last = endOf(chain);
    const whole = chain.segments.length > 1 || last.k !== 'line';
    if (whole && Math.hypot(last.x - chain.x, last.y - chain.y) <= tolerance) {
      const segments = chain.segments.slice();
      segments[segments.length - 1] = { ...last, x: chain.x, y: chain.y };
      out.push({ ...chain, segments, closed: true });
    } else out.push(chain);
  }
  return out;
}

/** Segments of a path that begins within the tolerance of a point: a step to its true start where they differ. */
function startingAt(p: Path, x: number, y: number): Path['segments'] {
  if (Math.hypot(p.x - x, p.y - y) < 1e-9) return p.segments;
  const [first] = p.segments;
  // A line simply begins elsewhere; an arc or cubic keeps its shape and is reached by a short line.
  return first.k === 'line' ? p.segments : [{ k: 'line', x: p.x, y: p.y }, ...p.segments];
}
