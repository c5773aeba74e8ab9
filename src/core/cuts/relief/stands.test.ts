import fc from 'fast-check';
import { contours } from '../../geometry/levels/contours';
import { loopArea, regionArea } from '../../geometry/region';
import { linesOver, regionOver } from './stands';

const grid = (cols: number, rows: number, cell = 0.5, x0 = -1, y0 = 2) => ({
  cols,
  rows,
  cell,
  x0,
  y0,
  z: new Float32Array(),
});

describe('where heights are not below a level', () => {
  it('all of a field is its rectangle, by its four corners', () => {
    const [region, ...others] = regionOver(new Float32Array(15 * 9).fill(3), grid(15, 9), 3);
    expect(others).toHaveLength(0);
    const corners = [...Array(region.length / 2).keys()].map((i) => `${region[2 * i]} ${region[2 * i + 1]}`);
    expect(corners.sort()).toEqual(['-1 2', '-1 6', '6 2', '6 6']);
  });

  it('holds the same area as the lines through every node, to the rims and corners of a field', () => {
    const heights = fc.constantFrom(-1, 0, 0, 1, 1, 1, 2, NaN);
    fc.assert(
      fc.property(
        fc
          .integer({ min: 2, max: 7 })
          .chain((cols) =>
            fc
              .integer({ min: 2, max: 7 })
              .chain((rows) =>
                fc.tuple(
                  fc.constant(cols),
                  fc.constant(rows),
                  fc.array(heights, { minLength: cols * rows, maxLength: cols * rows }),
                ),
              ),
          ),
        fc.constantFrom(0, 0.5, 1, 1.5),
        ([cols, rows, z], level) => {
          const area = (loops: readonly Float64Array[]) => Math.abs(loops.reduce((sum, l) => sum + loopArea(l), 0));
          const field = Float32Array.from(z);
          const through = area(contours(field, cols, rows, level, -Infinity)) * 0.25;
          const lines = linesOver(field, grid(cols, rows), level);
          expect(area(lines)).toBeCloseTo(through, 9);
          expect(regionArea(regionOver(field, grid(cols, rows), level))).toBeCloseTo(through, 3);
          for (const l of lines)
            for (let i = 0; i < l.length; i += 2) {
              const [a, b] = [(i + l.length - 2) % l.length, (i + 2) % l.length];
              expect([0, 1].some((k) => l[i + k] === l[a + k] && l[i + k] === l[b + k])).toBe(false);
            }
        },
      ),
      { numRuns: 400 },
    );
  });
});
