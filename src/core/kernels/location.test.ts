import fc from 'fast-check';
import { real } from '../testing/real';
import { cutterShapes, shapeOf } from '../cutters/registry';
import { heightOf, type CutterForm } from '../cutters/form';
import { flatField, type HeightField } from '../relief/field';
import { locationsOver, prunedLocations, type Locations } from './location';
import { locationKernel } from './locationKernel';

const shapes = cutterShapes.map((s) => [s.id, s.defaults as object] as const);
const formOf = (id: string, values: object): CutterForm => shapeOf(id).form(values);
const ball = (diameter: number) => formOf('ball', { ...(shapeOf('ball').defaults as object), diameter });

/** The greatest over all nodes of the surface, one by one, as it is written down. */
function judge(f: HeightField, form: CutterForm, row: number, col: number): number {
  let most = -Infinity;
  for (let r = 0; r < f.rows; r++)
    for (let c = 0; c < f.cols; c++) {
      const rho = f.cell * Math.hypot(c - col, r - row);
      if (rho > form.radius + 1e-9) continue;
      const outline = Math.fround(heightOf(form, Math.min(rho, form.radius)));
      most = Math.max(most, Math.fround(f.z[r * f.cols + c] - outline));
    }
  return most;
}
type Make = (f: HeightField, step: number) => (form: CutterForm) => Locations;
const ways: Record<string, Make> = {
  kernel: (f, step) => (form) => locationKernel(f, step)!(form)!,
  TypeScript: prunedLocations,
};

/** Surfaces with what misleads: waves, walls, needles, level ground, the grain of it, a deep pit. */
const surface = fc
  .record({
    width: real(0.5, 9),
    height: real(0.5, 7),
    cell: fc.constantFrom(0.1, 0.25, 0.5),
    kind: fc.constantFrom('waves', 'walls', 'needles', 'level', 'grain', 'pit'),
    seed: fc.integer({ min: 0, max: 1e6 }),
  })
  .map(({ width, height, cell, kind, seed }) => {
    const f = flatField(width, height, cell);
    const noise = (i: number) => Math.abs((Math.sin(i * 12.9898 + seed) * 43758.5453) % 1);
    f.z.forEach((_, i) => {
      const [x, y] = [(i % f.cols) * cell, Math.floor(i / f.cols) * cell];
      f.z[i] = {
        waves: -1 + Math.sin(1.3 * x + seed) * Math.cos(0.9 * y) + 0.05 * noise(i),
        walls: x + y > (width + height) / 2 ? 0 : -4,
        needles: noise(i) > 0.98 ? 0 : -5 + noise(i + 7),
        level: -0.5,
        grain: -0.5 + 5e-5 * noise(i),
        pit: Math.hypot(x - width / 2, y - height / 2) < 1 ? -900 : 0,
      }[kind];
    });
    return f;
  });

describe.each(Object.keys(ways))('cutter location by the %s', (way) => {
  it('is the greatest over all nodes to the last bit, of every cutter, at every step, over the borders too', () => {
    fc.assert(
      fc.property(surface, fc.constantFrom(...shapes), fc.integer({ min: 1, max: 5 }), (f, [id, values], step) => {
        const form = formOf(id, values);
        const at = ways[way](f, step)(form);
        expect(at.count).toBe(Math.ceil(f.cols / step));
        for (const r of new Set([0, 1, f.rows >> 1, f.rows - 1].filter((q) => q < f.rows))) {
          const row = at.row(r);
          for (let i = 0; i < at.count; i++) {
            const z = judge(f, form, r, i * step);
            if (row[i] !== z) throw new Error(`${id}, row ${r}, column ${i * step}: ${row[i]}, not ${z}`);
          }
        }
      }),
      { numRuns: 120 },
    );
  });
  it('of a ball over a sphere is as high as a ball over a ball, less what lies between nodes', () => {
    const [R, r, cell] = [20, 3, 0.1];
    const f = flatField(20, 20, cell);
    f.z.forEach((_, i) => {
      const rho = Math.hypot((i % f.cols) * cell - 10, Math.floor(i / f.cols) * cell - 10);
      f.z[i] = Math.sqrt(R * R - rho * rho) - R;
    });
    const at = ways[way](f, 2)(ball(2 * r));
    for (const y of [80, 100, 120]) {
      const row = at.row(y);
      for (let i = 30; i <= 70; i++) {
        const rho = Math.hypot(2 * i * cell - 10, y * cell - 10);
        // The centre of the ball runs on a sphere of both radii.
        const z = Math.sqrt((R + r) ** 2 - rho * rho) - R - r;
        expect(row[i]).toBeLessThan(z + 1e-5);
        // The node that is nearest to where they touch is at most 0.7 of a cell away.
        expect(row[i]).toBeGreaterThan(z - ((0.71 * cell) ** 2 / 2) * (1 / r + 1 / R) * 1.2);
      }
    }
  });
  it('stands on one needle as the outline of the cutter turned over', () => {
    const f = flatField(12, 12, 0.2, -50);
    f.z[30 * f.cols + 30] = 0;
    for (const [id, values] of shapes) {
      const form = formOf(id, values);
      const make = ways[way](f, 3)(form);
      for (const r of [30, 33, 36]) {
        const row = make.row(r);
        for (let i = 0; i < make.count; i++) {
          const h = heightOf(form, 0.2 * Math.hypot(3 * i - 30, r - 30));
          expect(row[i]).toBeCloseTo(h < 50 ? -h : -50, 5);
        }
      }
    }
  });
});

it('goes from cutter to cutter, and to one that is wider than was laid out for, and finds the same', () => {
  const f = flatField(60, 8, 0.5);
  f.z.forEach((_, i) => (f.z[i] = -2 * Math.abs(Math.sin(i / 7))));
  const over = locationsOver(f, 2);
  const slow = prunedLocations(f, 2);
  const forms = [3, 40, 6].map(ball);
  const ats = forms.map((form) => [over(form), slow(form)] as const);
  for (const r of [0, 7, 16]) for (const [a, b] of [...ats, ...ats]) expect([...a.row(r)]).toEqual([...b.row(r)]);
});

it('refuses a step that is none', () => {
  for (const step of [0, 1.5, 65, NaN]) expect(() => locationsOver(flatField(5, 5, 0.5), step)).toThrow(RangeError);
});
