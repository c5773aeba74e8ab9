import { cutGrid, type TestGrid } from '../../testing/grid';
import { readMoves, testShape } from '../../testing/independent';
import { cutterOf, planOn, programOf } from '../../testing/job';
import { box, circleLoop } from '../../testing/shapes';
import { contains, type Region } from '../../geometry/region';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { flatField } from '../../relief/field';
import { riddenPaths, riddenWanted } from './ride';

const [WIDTH, HEIGHT, CELL, R] = [24, 12, 0.05, 30];
/** A barrel along Y, highest in its middle. */
const barrel = (x: number) => Math.sqrt(R * R - (x - WIDTH / 2) ** 2) - R;
/** Its slope. */
const lean = (x: number) => -(x - WIDTH / 2) / Math.sqrt(R * R - (x - WIDTH / 2) ** 2);
/** Of the half angle of the V-bits. */
const tan = Math.tan(Math.PI / 6);
const field = flatField(WIDTH, HEIGHT, CELL);
for (let i = 0; i < field.z.length; i++) field.z[i] = barrel((i % field.cols) * CELL);

function ridden(kind: string, values: Record<string, unknown>, region: Region, cell = 0.1) {
  const blank = { width: WIDTH, height: HEIGHT, thickness: 12 };
  const { plan, job, wanted } = planOn(kind, values, region, blank);
  const toolpaths = riddenPaths(plan.toolpaths, field, cutterOf);
  const { text, tools } = programOf({ ...plan, toolpaths }, job);
  const shapes = Object.fromEntries(
    Object.entries(tools).map(([n, id]) => [n, testShape(cutterOf(id).shape, cutterOf(id).values)]),
  );
  const [cols, rows] = [Math.floor(WIDTH / cell), Math.floor(HEIGHT / cell)];
  const grid: TestGrid = { cols, rows, cell, x0: 0.03, y0: 0.02, z: new Float64Array(cols * rows) };
  const moves = readMoves(text);
  cutGrid(grid, moves, shapes);
  const cutters = plan.toolpaths.map((t) => cutterOf(t.cutterId));
  const at = (visit: (x: number, y: number, z: number) => void) =>
    grid.z.forEach((z, i) => visit(grid.x0 + (i % cols) * cell, grid.y0 + Math.floor(i / cols) * cell, z));
  return { at, moves, wanted: (depth: number) => riddenWanted(wanted(), field, cutters, depth) };
}

it('engraves a line as deep below a barrel as it says, all along it', () => {
  const { moves } = ridden('line', { cutter: 'v-6-60-0', depth: 0.5 }, [box(2, 2, 22, 10)]);
  let n = 0;
  for (const m of moves) {
    if (m.rapid || m.a[2] > -0.4 || m.b[2] > -0.4) continue;
    for (let t = 0; t <= 1; t += 0.1) {
      const x = m.a[0] + (m.b[0] - m.a[0]) * t;
      // Where it turns it comes from one share of its depth to the other.
      if (x < 2.2 || x > 21.8) continue;
      const deep = 0.5 * Math.sqrt(1 - (lean(x) * tan) ** 2);

      expect(Math.abs(m.a[2] + (m.b[2] - m.a[2]) * t - (barrel(x) - deep))).toBeLessThan(0.005);
      n++;
    }
  }
  expect(n).toBeGreaterThan(100);
});

it('carves a groove across a barrel whose width at the surface is as it is drawn', () => {
  const [y0, y1] = [5, 7.4];
  const { at, wanted } = ridden('vcarve', { cutter: 'v-12-60-0', limit: null }, [box(2, y0, 22, y1)]);
  const w = wanted(3);
  let inside = 0;
  at((x, y, z) => {
    // Away from its ends.
    if (x < 5 || x > 19) return;
    const d = Math.min(y - y0, y1 - y);
    // What stands over the barrel is not there any more when this is cut.
    if (d < -0.01) return expect(z).toBeGreaterThan(barrel(x) - 0.005);
    if (d <= 0.01) return;
    // A cone that goes along a slope: at the outline its side is where the surface is.
    expect(Math.abs(z - (barrel(x) - d * Math.sqrt(1 / tan ** 2 - lean(x) ** 2)))).toBeLessThan(0.005);
    expect(z).toBeGreaterThan(w.least!(x, y) - 0.005);
    expect(z).toBeLessThan(w.stays!(x, y) + 0.005);
    inside++;
  });
  expect(inside).toBeGreaterThan(2000);
});

it('carves a groove along the side of a barrel as wide at the surface as it is drawn, and where it is drawn', () => {
  const [x0, x1] = [17, 19.4];
  const { at } = ridden('vcarve', { cutter: 'v-12-60-0', limit: null }, [box(x0, 1, x1, 11)], 0.05);
  let [inside, beside] = [0, 0];
  at((x, y, z) => {
    if (y < 4 || y > 8) return;
    const d = Math.min(x - x0, x1 - x);
    if (d < 0) {
      // Nothing of the surface beside it is taken.
      expect(z).toBeGreaterThan(barrel(x) - 0.006);
      if (d > -0.1) beside++;
    } else if (d > 0.02 && d < 0.2) {
      // Within it all is: at the outline the wall begins.
      expect(z).toBeLessThan(barrel(x) - d);
      inside++;
    }
  });
  expect(Math.min(inside, beside)).toBeGreaterThan(200);
});

it('cuts a dot on the side of a barrel no wider than it is drawn, and a cross of strokes no wider either', () => {
  const dot = circleLoop(60, 1.1, 19, 6);
  const cross = Float64Array.of(3, 5, 5, 5, 5, 3, 6.6, 3, 6.6, 5, 8, 5, 8, 6.6, 6.6, 6.6, 6.6, 9, 5, 9, 5, 6.6, 3, 6.6);
  const region = [dot, cross];
  const wall = makeSegmentIndex(region);
  const { at } = ridden('vcarve', { cutter: 'v-12-60-0', limit: null }, region, 0.06);
  let [deep, beside] = [0, 0];
  at((x, y, z) => {
    const d = wall.distance(x, y);
    if (contains(region, x, y)) {
      if (d > 0.6 && z < barrel(x) - 0.7) deep++;
    } else if (d < 1) {
      beside++;
      expect(z).toBeGreaterThan(barrel(x) - 0.03);
    }
  });
  expect(Math.min(deep, beside)).toBeGreaterThan(50);
});

it('clears a floor that lies nowhere deeper below a barrel than it should, and no more stays than it says', () => {
  const { at, wanted } = ridden('area', { cutters: ['flat-3'], depth: 0.8, stepOver: 1 }, [
    circleLoop(120, 4.5, 12, 6),
  ]);
  const w = wanted(0.8);
  let floor = 0;
  at((x, y, z) => {
    if (z < -0.01) expect(z).toBeGreaterThan(barrel(x) - 0.8 - 0.006);
    expect(z).toBeGreaterThan(w.least!(x, y) - 0.006);
    if (Math.abs(Math.hypot(x - 12, y - 6) - 4.5) > 0.01) expect(z).toBeLessThan(w.stays!(x, y) + 0.03);
    if (Math.hypot(x - 12, y - 6) < 4.4) {
      floor++;
      expect(z).toBeLessThan(barrel(x) - 0.5);
    }
  });
  expect(floor).toBeGreaterThan(3000);
});

it('leaves lifts where they are, and lies flat where there is no relief', () => {
  const empty = { ...field, z: field.z.map(() => NaN) };
  const { plan } = planOn('line', { cutter: 'v-6-60-0', depth: 0.5 }, [box(2, 2, 22, 10)], {
    width: WIDTH,
    height: HEIGHT,
  });
  const [a] = plan.toolpaths;
  const [b] = riddenPaths(plan.toolpaths, empty, cutterOf);
  // A turn may be gone to twice, by what is left of a rounding.
  const heights = (m: typeof a.motion) => [...new Set([...m.z].map((z) => z.toFixed(6)))].sort();
  expect(heights(b.motion)).toEqual(heights(a.motion));
  const [c] = riddenPaths(plan.toolpaths, field, cutterOf);
  expect(Math.max(...c.motion.z)).toBe(Math.max(...a.motion.z));
});
