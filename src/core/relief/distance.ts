import Flatbush from 'flatbush';
import FlatQueue from 'flatqueue';
import { makeCrossings, makeInside } from '../geometry/inside';
import { derived } from '../geometry/hash';
import { boundsOf } from '../geometry/loop';
import type { Region } from '../geometry/region';
import { makeSegmentIndex } from '../geometry/segmentIndex';
import { stillWanted } from '../units/stillWanted';
import { endsOf, RowNearest, type Ends } from './envelopes';
import { yOf, type Grid } from './field';
import type { Line } from './form';

/** Nodes along a side of the squares that are begun with, and of those that are not parted any more: powers of two. */
const LARGEST = 64;
const SMALLEST = 8;
/** For so few segments each node of a square asks each of them. */
const FEW = 3;

/** Shorter segments (mm2) are points: what is divided by their square may be no number. */
const SHORTEST = 1e-300;

/** Segments in flat columns, with what their distances are worked out from: corner, way, and 1 / length squared. */
export function columnsOf(lines: readonly Line[]): { readonly count: number; readonly s: Float64Array } {
  const ends = ({ points, closed }: Line) => points.length - (closed ? 0 : 2);
  const count = lines.reduce((n, l) => n + ends(l) / 2, 0);
  const s = new Float64Array(5 * count);
  let k = 0;
  for (const line of lines)
    for (let i = 0, l = line.points; i < ends(line); i += 2) {
      const j = (i + 2) % l.length;
      const [ex, ey] = [l[j] - l[i], l[j + 1] - l[i + 1]];
      const ll = ex * ex + ey * ey;
      s.set([l[i], l[i + 1], ex, ey, ll > SHORTEST ? 1 / ll : 0], k);
      k += 5;
    }
  return { count, s };
}

/**
 * Distance from each node to the outline's segments, mm: positive inside the region, negative outside; beyond `most` it may be
 * any number at least as large. Exact: to segments, never to other nodes.
 */
export function distances(region: Region, g: Grid, most = Infinity): Float32Array {
  const out = new Float32Array(g.cols * g.rows).fill(-Infinity);
  const tell = (i: number, square: number) => void (out[i] = -Math.sqrt(square));
  nearestSegments(closed(region), g, tell, { most });
  const inside = nodesInside(region, g);
  for (let i = 0; i < out.length; i++) if (inside[i]) out[i] = -out[i];
  return out;
}

/** The same for nodes inside alone; NaN for all others, which cost nothing. */
export function insideDistances(region: Region, g: Grid): Float32Array {
  const out = new Float32Array(g.cols * g.rows).fill(NaN);
  const tell = (i: number, square: number) => void (out[i] = Math.sqrt(square));
  nearestSegments(closed(region), g, tell, { wanted: nodesInside(region, g) });
  return out;
}

const loops = derived<Region, Line[]>();
const closed = (region: Region): Line[] => loops(region, '', () => region.map((points) => ({ points, closed: true })));
const insides = derived<Region, ReturnType<typeof makeCrossings>>();

/** What is asked of lines again and again, band by band: kept with them. */
interface Asked {
  readonly count: number;
  readonly s: Float64Array;
  readonly index: ReturnType<typeof makeSegmentIndex>;
  readonly tree: Flatbush;
  readonly ends: Ends;
}
const askedOf = derived<readonly Line[], Asked | null>();
const askedLines = (lines: readonly Line[]): Asked | null =>
  askedOf(lines, '', () => {
    const { count, s } = columnsOf(lines);
    if (!count) return null;
    // An open line is gone along and back, so that nothing closes it.
    const index = makeSegmentIndex(lines.map((l) => (l.closed ? l.points : thereAndBack(l.points))));
    const tree = new Flatbush(count);
    for (let i = 0; i < 5 * count; i += 5) {
      const [x, y] = [s[i] + s[i + 2], s[i + 1] + s[i + 3]];
      tree.add(Math.min(s[i], x), Math.min(s[i + 1], y), Math.max(s[i], x), Math.max(s[i + 1], y));
    }
    tree.finish();
    const each = lines.map((l) => ({ count: l.points.length / 2 - (l.closed ? 0 : 1), closed: l.closed }));
    return { count, s, index, tree, ends: endsOf(s, each) };
  });

/**
 * Tells for each node the nearest segment of some lines: the node, the squared distance, mm2, and the segment's place in their
 * columns (`columnsOf`). Nodes that lie further than `most` from all of them may be left out, and so are those that are not `wanted`.
 * Squares of nodes are parted in four as long as that leaves fewer segments to a row of nodes, each part keeping only those that can
 * be nearest to one of its nodes; then its rows are gone along (`./envelopes.ts`).
 *
 *      +-------+        d: distance of the middle; r: radius of the square
 *      |   .---|--d--   a node lies at most r from the middle, so its nearest segment at most
 *      +-----r-+        d + r from the node, and d + 2 r from the middle
 */
export function nearestSegments(
  lines: readonly Line[],
  g: Grid,
  tell: (node: number, square: number, segment: number) => void,
  { most = Infinity, wanted }: { readonly most?: number; readonly wanted?: Uint8Array } = {},
): void {
  const asked = askedLines(lines);
  if (!asked) return;
  const { count, s, index, tree, ends } = asked;
  const { first = 0 } = g;
  const far = (i: number, x: number, y: number): number => {
    const px = x - s[i];
    const py = y - s[i + 1];
    let t = (px * s[i + 2] + py * s[i + 3]) * s[i + 4];
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    const dx = px - t * s[i + 2];
    const dy = py - t * s[i + 3];
    return dx * dx + dy * dy;
  };
  // What is left at each depth of parting for each of the four parts, and how far each of it is from the middle.
  const left: Int32Array[][] = [];
  const away = new Float64Array(count);
  const rows = new RowNearest(s, ends, LARGEST);
  const radius = (size: number) => Math.SQRT1_2 * (size - 1) * g.cell;
  /** Whether any node of a square is wanted. */
  const anyWanted = (col: number, row: number, wide: number, high: number): boolean => {
    if (!wanted) return true;
    const to = Math.min(g.cols, col + wide);
    for (let j = row; j < Math.min(g.rows, row + high); j++)
      for (let i = j * g.cols + col; i < j * g.cols + to; i++) if (wanted[i]) return true;
    return false;
  };
  const middle = (first: number, at: number, size: number) => first + (at + (size - 1) / 2) * g.cell;

  /** Each node asks each of the `n` segments. */
  function askAll(col: number, row: number, size: number, from: Int32Array, n: number): void {
    for (let j = row; j < Math.min(g.rows, row + size); j++)
      for (let c = col; c < Math.min(g.cols, col + size); c++) {
        if (wanted && !wanted[j * g.cols + c]) continue;
        const x = g.x0 + c * g.cell;
        const y = yOf(g, j);
        let best = Infinity;
        let which = 0;
        for (let q = 0; q < n; q++) {
          const f = far(from[q], x, y);
          if (f >= best) continue;
          best = f;
          which = from[q];
        }
        tell(j * g.cols + c, best, which);
      }
  }

  function goAlong(col: number, row: number, size: number, from: Int32Array, n: number): void {
    const wide = Math.min(size, g.cols - col);
    const high = Math.min(size, g.rows - row);
    const x = g.x0 + col * g.cell;
    rows.take(from, n, x, yOf(g, row), x + (wide - 1) * g.cell, yOf(g, row + high - 1));
    for (let j = row; j < row + high; j++) {
      if (!anyWanted(col, j, wide, 1)) continue;
      rows.find({ count: wide, x, y: yOf(g, j), cell: g.cell });
      for (let c = 0, i = j * g.cols + col; c < wide; c++, i++)
        if (!wanted || wanted[i]) tell(i, rows.square[c], rows.which[c]);
    }
  }

  /** The `n` segments are all that can be nearest within a square. */
  function fill(col: number, row: number, size: number, depth: number, from: Int32Array, n: number): void {
    if (n <= FEW) return askAll(col, row, size, from, n);
    if (size <= SMALLEST || n <= size / 2) return goAlong(col, row, size, from, n);
    const half = size / 2;
    const into = (left[depth] ??= Array.from({ length: 4 }, () => new Int32Array(count)));
    const kept = [0, 0, 0, 0];
    for (let part = 0; part < 4; part++) {
      const c = col + (part & 1 ? half : 0);
      const r = row + (part & 2 ? half : 0);
      if (c >= g.cols || r >= g.rows || !anyWanted(c, r, half, half)) continue;
      const [x, y] = [middle(g.x0, c, half), middle(g.y0, first + r, half)];
      let near = Infinity;
      for (let q = 0; q < n; q++) {
        const f = far(from[q], x, y);
        away[q] = f;
        if (f < near) near = f;
      }
      // A little more, so that rounding leaves none out.
      const reach = (Math.sqrt(near) + 2 * radius(half)) * (1 + 1e-9);
      for (let q = 0; q < n; q++) if (away[q] <= reach * reach) into[part][kept[part]++] = from[q];
    }
    // A row of a part is half as long: parting pays where less than half of the segments is left on the mean.
    if (kept[0] + kept[1] + kept[2] + kept[3] >= 2 * n) return goAlong(col, row, size, from, n);
    for (let part = 0; part < 4; part++)
      if (kept[part])
        fill(col + (part & 1 ? half : 0), row + (part & 2 ? half : 0), half, depth + 1, into[part], kept[part]);
  }

  const r = radius(LARGEST);
  const begun = new Int32Array(count);
  for (let row = 0; row < g.rows; row += LARGEST)
    for (let col = 0; col < g.cols; col += LARGEST) {
      stillWanted(LARGEST);
      if (!anyWanted(col, row, LARGEST, LARGEST)) continue;
      const [x, y] = [middle(g.x0, col, LARGEST), middle(g.y0, first + row, LARGEST)];
      const d = index.distance(x, y, most + r);
      if (d > most + r) continue;
      const reach = (d + 2 * r) * (1 + 1e-9);
      const near = tree.search(x - reach, y - reach, x + reach, y + reach);
      for (let q = 0; q < near.length; q++) begun[q] = 5 * near[q];
      fill(col, row, LARGEST, 0, begun, near.length);
    }
}

function thereAndBack(l: Float64Array): Float64Array {
  const out = new Float64Array(2 * l.length - 4);
  out.set(l);
  for (let i = l.length - 4, k = l.length; i >= 2; i -= 2, k += 2) out.set([l[i], l[i + 1]], k);
  return out;
}

/** For each node: 1 inside a region, else 0; one that lies on a side of it counts where the inside begins, not where it ends. */
export function nodesInside(region: Region, g: Grid): Uint8Array {
  const out = new Uint8Array(g.cols * g.rows);
  const crossings = insides(region, '', () => makeCrossings(region));
  for (let j = 0; j < g.rows; j++) {
    stillWanted();
    const { xs, winding } = crossings(yOf(g, j));
    for (let k = 0; k + 1 < xs.length; k++)
      if (winding[k]) out.fill(1, j * g.cols + columnFrom(g, xs[k].x), j * g.cols + columnFrom(g, xs[k + 1].x));
  }
  return out;
}

/** The first column whose nodes do not lie left of `x`. */
function columnFrom({ x0, cell, cols }: Grid, x: number): number {
  let c = Math.min(cols, Math.max(0, Math.ceil((x - x0) / cell)));
  // However the quotient was rounded.
  while (c > 0 && x0 + (c - 1) * cell >= x) c--;
  while (c < cols && x0 + c * cell < x) c++;
  return c;
}

/**
 * The radius of the largest circle inside a region, mm, to within `within`: squares are halved, most promising first, as long as
 * one may hold a better middle (branch and bound). What a square may hold is bounded twice: by the distance at its middle, which
 * changes by no more than one goes; and by the mean of the distances to two segments, the nearest and one across from it, which is a
 * convex function and greatest at a corner. Between walls that run beside each other the second is the same all along, where the first
 * would have squares halved along the whole ridge until each is as small as `within`.
 *
 * ```
 *   T ----------+------------     the mean of both is half the width wherever
 *               | c'              the square lies; the middle between their
 *   - - - - - - x - - - - - -     feet is tried as a middle at once
 *               | c
 *   S ----------+------------
 * ```
 */
export function deepest(region: Region, within = 1e-4): number {
  const index = makeSegmentIndex(region);
  const box = boundsOf(region);
  if (!box) return 0;
  const inside = makeInside(region);
  const clearance = (x: number, y: number) => (inside(x, y) ? index.distance(x, y) : -index.distance(x, y));
  const size = Math.max(1e-9, Math.min(box.x1 - box.x0, box.y1 - box.y0));
  let best = 0;
  const heap = new FlatQueue<readonly [x: number, y: number, half: number]>();
  const push = (x: number, y: number, half: number): void => {
    const near = index.nearest(x, y);
    const away = index.distanceTo(near, x, y);
    const here = inside(x, y) ? away : -away;
    if (here > best) best = here;
    let most = here + half * Math.SQRT2;
    if (most - best <= within) return;
    const foot = index.foot(near, x, y);
    // Twice as far from it there are the walls across, if this is anywhere near the middle between them.
    const across = index.nearest(2 * x - foot.x, 2 * y - foot.y);
    if (across !== near) {
      const other = index.foot(across, x, y);
      best = Math.max(best, clearance((foot.x + other.x) / 2, (foot.y + other.y) / 2));
      let mean = 0;
      for (let k = 0; k < 4; k++) {
        const [cx, cy] = [x + (k & 1 ? half : -half), y + (k & 2 ? half : -half)];
        mean = Math.max(mean, (index.distanceTo(near, cx, cy) + index.distanceTo(across, cx, cy)) / 2);
      }
      most = Math.min(most, mean);
    }
    if (most - best > within) heap.push([x, y, half], -most);
  };
  for (let y = box.y0; y < box.y1; y += size)
    for (let x = box.x0; x < box.x1; x += size) push(x + size / 2, y + size / 2, size / 2);
  while (heap.length) {
    stillWanted();
    const most = -heap.peekValue()!;
    const [x, y, half] = heap.pop()!;
    if (most - best <= within) break;
    const h = half / 2;
    push(x - h, y - h, h);
    push(x + h, y - h, h);
    push(x - h, y + h, h);
    push(x + h, y + h, h);
  }
  return best;
}
