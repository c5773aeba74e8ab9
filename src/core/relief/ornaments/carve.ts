import { stillWanted } from '../../units/stillWanted';
import { yOf, type Grid } from '../field';
import { smallPicture, type SmallPicture } from '../small';
import { met, type Stroke } from './kit';
import { ornaments } from './ornaments';

/** An ornament as it was carved: its strokes, the box that they fill, and their highest point, all in its own frame. */
export interface Carved {
  readonly strokes: readonly Stroke[];
  readonly box: readonly [number, number, number, number];
  readonly deep: number;
}

/** Places along the longer side on which the size and the height of an ornament are found, once. */
const LOOKS = 200;
const carved = new Map<string, Carved | null>();

/** An ornament, carved when it is first asked for; null for an id that there is not. */
export function carvedOf(id: string): Carved | null {
  let c = carved.get(id);
  if (c === undefined) carved.set(id, (c = Object.hasOwn(ornaments, id) ? carve(ornaments[id].strokes()) : null));
  return c;
}

function carve(strokes: readonly Stroke[]): Carved {
  const rough = strokes.reduce<[number, number, number, number]>(
    ([a, b, c, d], { box }) => [Math.min(a, box[0]), Math.min(b, box[1]), Math.max(c, box[2]), Math.max(d, box[3])],
    [Infinity, Infinity, -Infinity, -Infinity],
  );
  const cell = Math.max(rough[2] - rough[0], rough[3] - rough[1]) / LOOKS;
  const g: Grid = {
    cols: Math.ceil((rough[2] - rough[0]) / cell) + 1,
    rows: Math.ceil((rough[3] - rough[1]) / cell) + 1,
    cell,
    x0: rough[0],
    y0: rough[1],
  };
  const z = heightsOn(strokes, g, { x: 0, y: 0, scale: 1, turn: 0, mirror: false });
  let deep = 0;
  let [left, low, right, high] = [g.cols, g.rows, 0, 0];
  for (let r = 0, i = 0; r < g.rows; r++)
    for (let c = 0; c < g.cols; c++, i++) {
      if (z[i] !== z[i]) continue;
      if (z[i] > deep) deep = z[i];
      if (c < left) left = c;
      if (c > right) right = c;
      if (r < low) low = r;
      if (r > high) high = r;
    }
  const x = (c: number) => g.x0 + c * cell;
  const y = (r: number) => g.y0 + r * cell;
  return { strokes, deep, box: [x(left - 0.5), y(low - 0.5), x(right + 0.5), y(high + 0.5)] };
}

/** How an ornament lies on a grid: the middle of its frame, how large a unit of it is, mm, its turn, and whether it is mirrored. */
export interface Laid {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
  /** Degrees. */
  readonly turn: number;
  readonly mirror: boolean;
}

/** Heights of strokes at the nodes of a grid, in the ornament's own unit; NaN where there is nothing. Each stroke asks its own nodes only. */
export function heightsOn(strokes: readonly Stroke[], g: Grid, { x, y, scale, turn, mirror }: Laid): Float32Array {
  const z = new Float32Array(g.cols * g.rows).fill(NaN);
  const a = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  const side = mirror ? -1 : 1;
  for (const s of strokes) {
    const [x0, y0, x1, y1] = s.box;
    // Its corners on the grid.
    const us = [x0, x1, x1, x0].map((u) => side * u * scale);
    const vs = [y0, y0, y1, y1].map((v) => v * scale);
    const cs = us.map((u, k) => (x + u * cos - vs[k] * sin - g.x0) / g.cell);
    const rs = us.map((u, k) => (y + u * sin + vs[k] * cos - g.y0) / g.cell - (g.first ?? 0));
    const [c0, c1] = [Math.max(0, Math.ceil(Math.min(...cs))), Math.min(g.cols - 1, Math.floor(Math.max(...cs)))];
    const [r0, r1] = [Math.max(0, Math.ceil(Math.min(...rs))), Math.min(g.rows - 1, Math.floor(Math.max(...rs)))];
    for (let r = r0; r <= r1; r++) {
      stillWanted(c1 - c0);
      const dy = yOf(g, r) - y;
      for (let c = c0, i = r * g.cols + c0; c <= c1; c++, i++) {
        const dx = g.x0 + c * g.cell - x;
        const u = (side * (dx * cos + dy * sin)) / scale;
        const v = (dy * cos - dx * sin) / scale;
        if (u < x0 || u > x1 || v < y0 || v > y1) continue;
        z[i] = met(z[i], s.at(u, v), s);
      }
    }
  }
  return z;
}

/** An ornament as it looks, small; of no pixels for an id that there is not. */
export function ornamentLook(id: string, most: number): SmallPicture {
  const c = carvedOf(id);
  if (!c) return { cols: 0, rows: 0, light: new Uint8Array() };
  const [x0, y0, x1, y1] = c.box;
  // Two nodes for a pixel.
  const cell = Math.max(x1 - x0, y1 - y0) / (2 * most);
  const g: Grid = { cols: Math.ceil((x1 - x0) / cell) + 1, rows: Math.ceil((y1 - y0) / cell) + 1, cell, x0, y0 };
  return smallPicture(heightsOn(c.strokes, g, { x: 0, y: 0, scale: 1, turn: 0, mirror: false }), g, most);
}
