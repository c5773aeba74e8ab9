import Flatbush from 'flatbush';
import { makeInside } from '../geometry/inside';
import { boundsOf } from '../geometry/loop';
import type { Region } from '../geometry/region';
import { makeSegmentIndex } from '../geometry/segmentIndex';
import { stillWanted } from '../units/stillWanted';
import type { Grid } from './field';

/** Nodes along a side of the squares that are asked together. */
const SQUARE = 16;

/**
 * Distance from each node to the outline's segments, mm: positive inside the region, negative outside; beyond `most` it may be
 * any number at least as large. Exact: for each square of nodes, only segments that can be nearest to one of them are asked
 * (those within the middle's own distance and twice the square's radius), each by itself.
 *
 *      +-------+        d: distance of the middle
 *      |   .---|--d--   a node lies at most r from the middle, so its nearest segment at most
 *      +-----r-+        d + r from the node, and d + 2 r from the middle
 */
export function distances(region: Region, g: Grid, most = Infinity): Float32Array {
  const out = new Float32Array(g.cols * g.rows).fill(-Infinity);
  const count = region.reduce((n, l) => n + l.length / 2, 0);
  if (!count) return out;
  const s = new Float64Array(4 * count);
  const tree = new Flatbush(count);
  let k = 0;
  for (const l of region)
    for (let i = 0; i < l.length; i += 2) {
      const j = (i + 2) % l.length;
      s.set([l[i], l[i + 1], l[j], l[j + 1]], k);
      tree.add(Math.min(l[i], l[j]), Math.min(l[i + 1], l[j + 1]), Math.max(l[i], l[j]), Math.max(l[i + 1], l[j + 1]));
      k += 4;
    }
  tree.finish();
  const index = makeSegmentIndex(region);
  const inside = makeInside(region);
  const far = (i: number, x: number, y: number): number => {
    const ex = s[4 * i + 2] - s[4 * i];
    const ey = s[4 * i + 3] - s[4 * i + 1];
    const l = ex * ex + ey * ey;
    const t = l > 0 ? Math.min(1, Math.max(0, ((x - s[4 * i]) * ex + (y - s[4 * i + 1]) * ey) / l)) : 0;
    const dx = x - s[4 * i] - t * ex;
    const dy = y - s[4 * i + 1] - t * ey;
    return dx * dx + dy * dy;
  };
  const r = Math.SQRT1_2 * (SQUARE - 1) * g.cell;
  for (let row = 0; row < g.rows; row += SQUARE)
    for (let col = 0; col < g.cols; col += SQUARE) {
      stillWanted(SQUARE);
      const x = g.x0 + (col + (SQUARE - 1) / 2) * g.cell;
      const y = g.y0 + (row + (SQUARE - 1) / 2) * g.cell;
      const d = index.distance(x, y, most + r);
      const [rows, cols] = [Math.min(g.rows, row + SQUARE), Math.min(g.cols, col + SQUARE)];
      if (d > most + r) continue;
      // A little more, so that rounding leaves none out.
      const reach = (d + 2 * r) * (1 + 1e-9);
      const near = tree.search(x - reach, y - reach, x + reach, y + reach).filter((i) => far(i, x, y) <= reach * reach);
      for (let j = row; j < rows; j++)
        for (let c = col; c < cols; c++) {
          const [px, py] = [g.x0 + c * g.cell, g.y0 + j * g.cell];
          let best = Infinity;
          for (let q = 0; q < near.length; q++) {
            const f = far(near[q], px, py);
            if (f < best) best = f;
          }
          out[j * g.cols + c] = -Math.sqrt(best);
        }
    }
  // Row by row: the crossings of a row are looked for once. A node that was not asked, inside, is deep.
  for (let j = 0; j < g.rows; j++)
    for (let c = 0; c < g.cols; c++)
      if (inside(g.x0 + c * g.cell, g.y0 + j * g.cell)) out[j * g.cols + c] = -out[j * g.cols + c];
  return out;
}

/**
 * The radius of the largest circle inside a region, mm, to within `within`: squares are halved, most promising first, as long as
 * one may hold a better middle (branch and bound on distances, which change by no more than one goes).
 */
export function deepest(region: Region, within = 1e-4): number {
  const box = boundsOf(region);
  if (!box) return 0;
  const index = makeSegmentIndex(region);
  const inside = makeInside(region);
  const clearance = (x: number, y: number) => (inside(x, y) ? index.distance(x, y) : -index.distance(x, y));
  const size = Math.max(1e-9, Math.min(box.x1 - box.x0, box.y1 - box.y0));
  type Square = { x: number; y: number; half: number; best: number; most: number };
  const square = (x: number, y: number, half: number): Square => {
    const best = clearance(x, y);
    return { x, y, half, best, most: best + half * Math.SQRT2 };
  };
  const heap: Square[] = [];
  const push = (q: Square) => {
    heap.push(q);
    for (let i = heap.length - 1; i > 0; ) {
      const up = (i - 1) >> 1;
      if (heap[up].most >= heap[i].most) break;
      [heap[up], heap[i]] = [heap[i], heap[up]];
      i = up;
    }
  };
  const pop = (): Square => {
    const top = heap[0];
    const last = heap.pop()!;
    if (heap.length) {
      heap[0] = last;
      for (let i = 0; ; ) {
        let to = i;
        for (const c of [2 * i + 1, 2 * i + 2]) if (c < heap.length && heap[c].most > heap[to].most) to = c;
        if (to === i) break;
        [heap[to], heap[i]] = [heap[i], heap[to]];
        i = to;
      }
    }
    return top;
  };
  for (let y = box.y0; y < box.y1; y += size)
    for (let x = box.x0; x < box.x1; x += size) push(square(x + size / 2, y + size / 2, size / 2));
  let best = 0;
  while (heap.length) {
    stillWanted();
    const q = pop();
    if (q.best > best) best = q.best;
    if (q.most - best <= within) break;
    const h = q.half / 2;
    for (const [dx, dy] of [
      [-h, -h],
      [h, -h],
      [-h, h],
      [h, h],
    ])
      push(square(q.x + dx, q.y + dy, h));
  }
  return best;
}
