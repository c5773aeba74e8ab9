import fc from 'fast-check';
import { loopArea } from '../region';
import { contours } from './contours';

/** Fields of round values, empty ones among them, so that neighbours are often alike. */
const fields = fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })).chain(([width, height]) =>
  fc.record({
    width: fc.constant(width),
    height: fc.constant(height),
    z: fc
      .array(fc.constantFrom(0, 0, 1, 1, 2, NaN), { minLength: width * height, maxLength: width * height })
      .map((v) => Float32Array.from(v)),
  }),
);

/** How often loops go round a place. */
function windingAt(loops: readonly Float64Array[], x: number, y: number): number {
  let turns = 0;
  for (const l of loops)
    for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2)
      if (l[i + 1] <= y !== l[j + 1] <= y) {
        const at = l[j] + ((y - l[j + 1]) / (l[i + 1] - l[j + 1])) * (l[i] - l[j]);
        if (at > x) turns += l[i + 1] > l[j + 1] ? 1 : -1;
      }
  return turns;
}

describe('level lines by marching squares', () => {
  it('go once round every node that is as high as the level, and round no other, from one gap between such two to the next', () => {
    fc.assert(
      fc.property(fields, fc.constantFrom(0.5, 0.75, 1.5, 1.9), ({ width, height, z }, level) => {
        const loops = contours(z, width, height, level);
        for (let r = 0, i = 0; r < height; r++)
          for (let c = 0; c < width; c++, i++) {
            const turns = Math.abs(windingAt(loops, c + 0.5, r + 0.5 + 1e-7));
            expect([c, r, turns]).toEqual([c, r, z[i] >= level ? 1 : 0]);
          }
        const isIn = (c: number, r: number) => c >= 0 && r >= 0 && c < width && r < height && z[r * width + c] >= level;
        for (const l of loops)
          for (let i = 0; i < l.length; i += 2) {
            const [x, y] = [l[i] - 0.5, l[i + 1] - 0.5];
            const here = isIn(Math.floor(x), Math.floor(y));
            expect([x, y, here]).toEqual([x, y, !isIn(Math.ceil(x), Math.ceil(y))]);
          }
      }),
      { numRuns: 400 },
    );
  });

  it('run along the outermost nodes where there is nothing beyond: all of a level field has the area between them', () => {
    for (const [width, height] of [
      [2, 2],
      [7, 3],
      [40, 25],
    ]) {
      const loops = contours(new Float32Array(width * height).fill(1), width, height, 0.5, -Infinity);
      expect(loops).toHaveLength(1);
      expect(Math.abs(loopArea(loops[0]))).toBeCloseTo((width - 1) * (height - 1), 9);
    }
  });
});
