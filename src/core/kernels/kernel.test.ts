import fc from 'fast-check';
import { real } from '../testing/real';
import { cutterShapes, shapeOf } from '../cutters/registry';
import { flatField, type HeightField } from '../relief/field';
import { SweepKernel } from './kernel';
import { makeRemover, type Rows } from './removal';

const shapes = cutterShapes.map((s) => [s.id, s.defaults as object] as const);
const formOf = (id: string, values: object) => shapeOf(id).form(values);
const near = (width: number, height: number, cell: number) => SweepKernel.at(flatField(width, height, cell))!;

type P = readonly [number, number, number];
function cut(f: HeightField, id: string, values: object, chain: readonly P[], rows?: Rows): void {
  const r = makeRemover(f, formOf(id, values), rows);
  for (let k = 1; k < chain.length; k++) r.cut(...chain[k - 1], ...chain[k]);
  r.flush();
}

/** Short moves that wander over a blank and beyond its borders, in waves of depth, with turns; of odd seeds also with stops and lifts. */
const wander = (seed: number, count: number, size: number): P[] => {
  const next = fc.sample(real(-1, 1), { numRuns: 3 * count, seed });
  const out: P[] = [[size / 2, size / 2, -0.5]];
  let heading = 0;
  for (let i = 1; i < count; i++) {
    const [x, y] = out[i - 1];
    heading += i % 97 ? next[3 * i] * 0.2 : Math.PI * next[3 * i];
    const far = i % 53 || seed % 2 === 0 ? 0.13 : 0;
    const turn = Math.hypot(x - size / 2, y - size / 2) > 0.6 * size ? Math.PI : 0;
    heading += turn;
    out.push([
      x + far * Math.cos(heading),
      y + far * Math.sin(heading),
      -0.8 + (seed % 2 ? 0.85 : 0.7) * Math.sin(i / 40) + 0.05 * next[3 * i + 1],
    ]);
  }
  return out;
};

describe('the compiled sweep', () => {
  it.each(shapes)('cuts a long chain of short moves of a %s as doubles do, over the borders too', (id, values) => {
    for (const seed of [1, 2]) {
      // More points than are cut at once, twice over.
      const chain = wander(seed, 2600, 12);
      const one = flatField(12, 9, 0.15);
      const other = near(12, 9, 0.15);
      cut(one, id, values, chain);
      cut(other, id, values, chain);
      let lowered = 0;
      for (let i = 0; i < one.z.length; i++) {
        if (one.z[i] < -0.1) lowered++;
        if (Math.abs(one.z[i] - other.z[i]) > 2e-5)
          throw new Error(`node ${i % one.cols} ${Math.floor(i / one.cols)}: ${one.z[i]} and ${other.z[i]}`);
      }
      expect(lowered).toBeGreaterThan(500);
    }
  });

  it.each(shapes)('gives bands of rows of a %s the very bits that all rows have', (id, values) => {
    const chain = wander(3, 700, 12);
    const all = near(12, 9, 0.15);
    cut(all, id, values, chain);
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: all.rows - 1 }), { maxLength: 6 }), (ends) => {
        const bands = near(12, 9, 0.15);
        const at = [0, ...ends.sort((a, b) => a - b), all.rows];
        for (let k = 1; k < at.length; k++) cut(bands, id, values, chain, { from: at[k - 1], to: at[k] });
        expect(bands.z.findIndex((v, i) => v !== all.z[i])).toBe(-1);
      }),
      { numRuns: 10 },
    );
  });

  it('lets cutters take turns in a field: what one has begun is cut before the other goes on', () => {
    const f = near(12, 9, 0.15);
    const judge = flatField(12, 9, 0.15);
    for (const field of [f, judge]) {
      const a = makeRemover(field, formOf('ball', { diameter: 3 }));
      const b = makeRemover(field, formOf('flat', { diameter: 2 }));
      for (let k = 0; k < 20; k++) {
        a.cut(2 + 0.3 * k, 3, -0.5, 2.3 + 0.3 * k, 3, -0.5);
        b.cut(2, 1 + 0.3 * k, -0.3, 2, 1.3 + 0.3 * k, -0.3);
        if (k % 5 === 0) expect(b.collision(5, 5, -0.2, 6, 6, -0.2)).toBeCloseTo(0.2, 6);
      }
      a.flush();
      b.flush();
    }
    expect(f.z.findIndex((v, i) => Math.abs(v - judge.z[i]) > 2e-5)).toBe(-1);
  });

  it('covers nodes on the very edge of a ball, whichever way they were rounded', () => {
    // Axis deeper than the radius, nodes as far from it as the radius: they are cut down to its middle.
    for (let u = -3; u <= 3; u++)
      for (const field of [flatField(12, 9, 0.5), near(12, 9, 0.5)]) {
        cut(field, 'ball', { diameter: 3 }, [
          [2 + u * 4e-16, 4.5 + u * 9e-16, -2],
          [7, 4.5 - u * 9e-16, -2],
          [7, 4.5, -2],
          [9, 4.5, -2],
        ]);
        for (const y of [3, 6])
          for (let c = 6; c <= 16; c++) expect(field.z[2 * y * field.cols + c]).toBeCloseTo(-0.5, 2);
      }
  });

  it.each(shapes)('is exact however steeply a %s comes down, over however short a way', (id, values) => {
    fc.assert(
      fc.property(
        real(0, 3).map((e) => 10 ** e),
        real(0, 7),
        real(0.3, 2.5),
        fc.boolean(),
        (slope, angle, fall, up) => {
          const far = fall / slope;
          const ends: P[] = [
            [4.0371, 4.0193, -0.1],
            [4.0371 + far * Math.cos(angle), 4.0193 + far * Math.sin(angle), -0.1 - fall],
            [6, 5, -0.1 - fall],
          ];
          if (up) ends.reverse();
          const one = flatField(8, 8, 0.2);
          const other = near(8, 8, 0.2);
          cut(one, id, values, ends);
          cut(other, id, values, ends);
          // Where the edge of the cutter passes over a node, either may be right; off the grid that is rare.
          const off = [...one.z].filter((v, i) => Math.abs(v - other.z[i]) > 2e-5).length;
          expect(off).toBeLessThanOrEqual(2);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is exact far along a long move', () => {
    for (const [id, values] of shapes) {
      const one = flatField(900, 4, 0.5);
      const other = near(900, 4, 0.5);
      const long: P[] = [
        [-3000, 1.2, -0.2],
        [900, 2.9, -1.7],
      ];
      cut(one, id, values, long);
      cut(other, id, values, long);
      expect([id, other.z.findIndex((v, i) => Math.abs(v - one.z[i]) > 2e-5)]).toEqual([id, -1]);
    }
  });

  it('is not for fields of fewer columns than it takes at once, nor without room', () => {
    expect(SweepKernel.at(flatField(2, 30, 1))).toBeNull();
    expect(SweepKernel.at({ cols: 60000, rows: 60000, cell: 1, x0: 0, y0: 0 })).toBeNull();
  });
});
