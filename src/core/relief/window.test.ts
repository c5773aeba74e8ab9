import fc from 'fast-check';
import { flatField, type HeightField } from './field';
import { chance } from './noise';
import { aroundChanges, windowOf } from './window';

const field = (seed: number): HeightField => {
  const f = flatField(20, 12, 0.25);
  return { ...f, z: f.z.map((_, i) => chance(i, 0, seed)) };
};

it('looks at a part of a surface by the same nodes', () => {
  const f = field(1);
  const part = windowOf(f, { x0: 5, y0: 3, x1: 9, y1: 6 }, 1);
  expect(part.z.length).toBeLessThan(f.z.length / 2);
  for (let r = 0; r < part.rows; r++)
    for (let c = 0; c < part.cols; c++) {
      const [i, j] = [part.x0 + c * part.cell, part.y0 + r * part.cell].map((v) => Math.round(v / f.cell));
      expect(part.z[r * part.cols + c]).toBe(f.z[j * f.cols + i]);
    }
  expect([part.x0 <= 4, part.y0 <= 2, part.x0 + (part.cols - 1) * part.cell >= 10]).toEqual([true, true, true]);
  expect(windowOf(f, { x0: 0, y0: 0, x1: 20, y1: 12 }, 1)).toBe(f);
  expect(windowOf(f, { x0: -9, y0: -9, x1: -5, y1: -5 }, 1)).toBe(f);
});

describe('numbers made of what lies round each node', () => {
  /** The greatest of the nodes within a reach, and where the node is: beyond the field there is nothing. */
  const greatest = (f: HeightField, reach: number): Float32Array => {
    const n = Math.floor(reach / f.cell + 1e-9);
    return f.z.map((_, i) => {
      const [c, r] = [i % f.cols, Math.floor(i / f.cols)];
      let most = -Infinity;
      for (let q = Math.max(0, r - n); q <= Math.min(f.rows - 1, r + n); q++)
        for (let p = Math.max(0, c - n); p <= Math.min(f.cols - 1, c + n); p++)
          if (f.z[q * f.cols + p] > most) most = f.z[q * f.cols + p];
      return most + f.x0 + c * f.cell + 3 * (f.y0 + r * f.cell);
    });
  };

  it('are the same where only what has changed is made anew, and less is made', () => {
    let parts = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 80 }),
        fc.integer({ min: 0, max: 48 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 12 }),
        fc.constantFrom(0, 0.25, 0.6, 1),
        fc.boolean(),
        (c, r, cols, rows, reach, empty) => {
          const made: number[] = [];
          const around = aroundChanges(2);
          const of = (f: HeightField) =>
            around(f, 'key', reach, (part) => (made.push(part.z.length), greatest(part, reach)));
          const was = field(7);
          of(was);
          const now = { ...was, z: was.z.slice() };
          for (let q = r; q < Math.min(now.rows, r + rows); q++)
            for (let p = c; p < Math.min(now.cols, c + cols); p++)
              now.z[q * now.cols + p] = empty ? NaN : 2 + chance(p, q, 3);
          const [got, wanted] = [of(now), greatest(now, reach)];
          // Where a part begins is rounded.
          expect(got.findIndex((v, i) => v !== wanted[i] && !(Math.abs(v - wanted[i]) < 1e-4))).toBe(-1);
          expect(made.length).toBe(2);
          if (made[1] < was.z.length) parts++;
        },
      ),
      { numRuns: 150 },
    );
    expect(parts).toBeGreaterThan(100);
  });

  it('are made anew where a field does not lie above what they depend on, and nowhere else', () => {
    const around = aroundChanges(2);
    const f = { ...field(7), z: field(7).z.map((_, i) => (i % 97 === 3 && i < 900 ? -3 : -1)) };
    const made: number[] = [];
    const of = (least: number) =>
      around(f, 'key', 0, (part) => (made.push(part.z.length), part.z.map((h) => Math.max(h, least))), least);
    of(-5);
    for (const least of [-4, -2, -2.5, -3.5])
      expect([...of(least)]).toEqual(Array.from(f.z, (h) => Math.max(h, least)));
    // Nothing lies as low as -4; the others made a part anew.
    expect(made).toHaveLength(4);
    for (const n of made.slice(1)) expect(n).toBeLessThan(f.z.length / 2);
    of(0);
    expect(made[4]).toBe(f.z.length);
  });

  it('are kept where nothing has changed, and made anew for another key, another grid and where all has changed', () => {
    const around = aroundChanges(4);
    let made = 0;
    const of = (f: HeightField, key: string) => around(f, key, 0.5, (part) => (made++, greatest(part, 0.5)));
    const first = of(field(1), 'a');
    expect(of(field(1), 'a')).toBe(first);
    expect(made).toBe(1);
    expect([...of(field(2), 'a')]).toEqual([...greatest(field(2), 0.5)]);
    expect(of({ ...field(2), x0: 1 }, 'a')[0]).toBeCloseTo(greatest(field(2), 0.5)[0] + 1, 5);
    of(field(1), 'b');
    expect(made).toBe(4);
  });
});
