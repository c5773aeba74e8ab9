import { gridOf, type HeightField } from '../relief/field';
import { putTogether, type Half } from './fit';
import { seamAlong } from './seam';

const [WIDTH, HEIGHT] = [40, 20];
const TAN = Math.tan(Math.PI / 6);
/** How far inside of a rectangle about (`x`, 10) a place lies, mm. */
const inside = (x: number, y: number, mid: number, half: number) =>
  Math.min(half - Math.abs(x - mid), 5 - Math.abs(y - 10));
/** A half of which all was cut by another set-up. */
const found = (at: (x: number, y: number) => number): Half => {
  const grid = gridOf(WIDTH, HEIGHT, 0.05);
  const z = Float32Array.from({ length: grid.cols * grid.rows }, (_, i) =>
    at((i % grid.cols) * grid.cell, Math.floor(i / grid.cols) * grid.cell),
  );
  const field: HeightField = { ...grid, z };
  return { blank: { width: WIDTH, height: HEIGHT }, programs: [], tools: new Map(), found: field };
};
const [DEEP, LEVEL, GAP] = [2, 0.3, 0.08];
const pocket = found((x, y) => -Math.min(DEEP, Math.max(0, inside(x, y, 15, 6) / TAN)));
// Turned over about Y it lies at 40 - x; its walls stand off by the gap.
const plug = found((x, y) => -Math.min(DEEP, Math.max(0, (DEEP * TAN + GAP - inside(x, y, 25, 6)) / TAN)));

describe('halves that start from what another set-up has left', () => {
  it('are put together with that', () => {
    const { pocket: p, plugAt } = putTogether({ pocket, plug, turned: 'y' });
    for (let r = 0; r < p.rows; r += 37)
      for (let c = 0; c < p.cols; c += 41) {
        const [x, y] = [c * p.cell, r * p.cell];
        // Bilinear between nodes that lie 0.05 mm apart.
        expect(Math.abs(p.z[r * p.cols + c] + Math.min(DEEP, Math.max(0, inside(x, y, 15, 6) / TAN)))).toBeLessThan(
          0.05,
        );
        const wanted = -Math.min(DEEP, Math.max(0, (DEEP * TAN + GAP - inside(x, y, 15, 6)) / TAN));
        expect(Math.abs(plugAt(c, r) - wanted)).toBeLessThan(0.05);
      }
  });

  it('show the seam between its walls', () => {
    const seam = seamAlong({
      ...{ pocket, plug, turned: 'y' as const, lean: Math.PI / 6, within: 1, outside: 1 },
      ...{ pocketAt: -LEVEL, plugAt: -(DEEP - LEVEL) },
      outlines: [Float64Array.of(9, 5, 21, 5, 21, 15, 9, 15)],
    });
    // Away from the corners.
    const sides = seam.filter((p) => Math.abs(p.y - 10) < 3 || Math.abs(p.x - 15) < 4);
    expect(sides.length).toBeGreaterThan(50);
    for (const p of sides) expect(p.wide).toBeCloseTo(GAP * Math.cos(Math.PI / 6), 2);
  });
});
