import { cutGrid, type TestGrid } from './grid';
import { readMoves, testShape, type TestMove } from './independent';
import { cutterOf, planOn, programOf } from './job';
import { flatField, heightAt, type HeightField } from '../relief/field';
import type { Region } from '../geometry/region';
import type { Wanted } from '../cuts/wanted';

/** A small blank whose relief the tests' own machine cuts, and what it finds there. mm. */
export const [WIDTH, HEIGHT, CELL] = [6, 5, 0.05];
export const blank = { width: WIDTH, height: HEIGHT, thickness: 10 };
export type Ground = (x: number, y: number) => number;

/** Grounds by their closed forms, mm from the top face. */
export const grounds = {
  hemisphere: (x, y) => Math.max(-1.8, Math.sqrt(Math.max(0, 4 - (x - 3) ** 2 - (y - 2.5) ** 2)) - 2.1),
  wedge: (x) => -0.2 - 0.5 * Math.abs(x - 2.3),
  cosine: (x, y) => -1.2 + Math.cos(1.7 * x) * Math.cos(1.3 * y) * 0.7,
  pyramid: (x, y) => -Math.max(0.2, 0.8 * Math.max(Math.abs(x - 3), Math.abs(y - 2.5))),
  step: (x, y) => (x > 3.02 && y > 1.27 ? -0.3 : -1.6),
} satisfies Record<string, Ground>;
export type GroundId = keyof typeof grounds;

export function fieldOf(ground: Ground): HeightField {
  const f = flatField(WIDTH, HEIGHT, CELL);
  for (let r = 0, i = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++, i++) f.z[i] = ground(c * CELL, r * CELL);
  return f;
}
/** How steep a relief is about a place: what lies up and down is so many times as far as across. */
export function lean(f: HeightField, x: number, y: number): number {
  const e = CELL / 2;
  const gx = (heightAt(f, x + e, y) - heightAt(f, x - e, y)) / (2 * e) || 0;
  const gy = (heightAt(f, x, y + e) - heightAt(f, x, y - e)) / (2 * e) || 0;
  return Math.sqrt(1 + gx * gx + gy * gy);
}

export interface Made {
  readonly field: HeightField;
  /** Height at which the material stood before, mm. */
  readonly top: number;
  readonly grid: TestGrid;
  readonly moves: readonly TestMove[];
  readonly tools: Record<number, ReturnType<typeof testShape>>;
  readonly remarks: readonly string[];
  readonly wanted: Wanted;
  readonly stays: (x: number, y: number) => number;
}

export const emptyGrid = (cell: number, top = 0): TestGrid => {
  const [cols, rows] = [Math.floor((WIDTH - 0.02) / cell), Math.floor((HEIGHT - 0.02) / cell)];
  // Nodes lie off those of the relief.
  return { cols, rows, cell, x0: 0.01, y0: 0.013, z: new Float64Array(cols * rows).fill(top) };
};

/** What the tests' own machine makes of the program of a cut. */
export function made(
  kind: string,
  values: Record<string, unknown>,
  ground: Ground,
  { region = [] as Region, cell = 0.067, presets = {} as Record<string, object>, top = 0 } = {},
): Made {
  const field = fieldOf(ground);
  const { plan, job, wanted } = planOn(kind, values, region, blank, (id) => presets[id] ?? {}, undefined, field);
  const { text, tools } = programOf(plan, job);
  const grid = emptyGrid(cell, top);
  const moves = readMoves(text);
  const shapes = Object.fromEntries(
    Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)]),
  );
  cutGrid(grid, moves, shapes);
  const w = wanted();
  return {
    field,
    top,
    grid,
    moves,
    tools: shapes,
    remarks: plan.remarks.map((r) => r.text),
    wanted: w,
    stays: (x, y) => (w.stays ?? w.surface)(x, y),
  };
}
export const placeOf = (g: TestGrid, i: number): [x: number, y: number] => [
  g.x0 + (i % g.cols) * g.cell,
  g.y0 + Math.floor(i / g.cols) * g.cell,
];
/** Most that is cut into the relief, and its allowance, across its surface. */
export function gouge({ field, top, grid }: Made, allowance = 0): number {
  let most = 0;
  grid.z.forEach((z, i) => {
    const [x, y] = placeOf(grid, i);
    const s = Math.min(top, heightAt(field, x, y));
    most = Math.max(most, (s - z) / lean(field, x, y) + (z < top ? allowance : 0));
  });
  return most;
}
/** Most that stands above what a cut says that it leaves; a little beside the place counts as the place. */
export function over({ grid, stays }: Made): number {
  let most = 0;
  grid.z.forEach((z, i) => {
    const [x, y] = placeOf(grid, i);
    if (z - stays(x, y) <= most) return;
    const beside = Math.max(stays(x + 0.006, y), stays(x - 0.006, y), stays(x, y + 0.006), stays(x, y - 0.006));
    most = Math.max(most, z - Math.max(stays(x, y), beside));
  });
  return most;
}

export const finishPatterns = ['rows', 'crossed', 'spiral', 'rings', 'slopes'];

/** Deepest that a cutter goes into what stands there, at once, mm. */
export function engaged({ moves, tools, top }: Made): number {
  const grid = emptyGrid(0.1, top);
  let most = 0;
  for (const m of moves) {
    const before = grid.z.slice();
    cutGrid(grid, [m], tools);
    if (m.rapid) {
      if (before.some((z, i) => z - grid.z[i] > 1e-6)) throw new Error(`By rapid into material at ${m.b.join(' ')}`);
      continue;
    }
    // Straight down counts as any other way: what was there and is not now.
    before.forEach((z, i) => (most = Math.max(most, z - grid.z[i])));
  }
  return most;
}
