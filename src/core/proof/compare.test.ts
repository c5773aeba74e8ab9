import type { Wanted } from '../cuts/wanted';
import { flatField } from '../relief/field';
import { compare } from './compare';

/** A pocket 1 mm deep from (4, 3) to (16, 9), and how often it was asked. */
function pocket(): Wanted & { asked: number } {
  const w = {
    asked: 0,
    box: { x0: 4, y0: 3, x1: 16, y1: 9 },
    surface(x: number, y: number) {
      w.asked++;
      return x >= 4 && x <= 16 && y >= 3 && y <= 9 ? -1 : 0;
    },
  };
  return w;
}

/**
 * A proof of 20 x 12 mm in which the pocket is cut, with or without an island of 2 x 1 mm left at (10, 6), and a slip
 * 0.5 mm deep at (18, 2).
 */
function proof(island: boolean, slip: boolean, cell = 0.1) {
  const f = flatField(20, 12, cell);
  for (let r = 0; r < f.rows; r++)
    for (let c = 0; c < f.cols; c++) {
      const [x, y] = [c * cell, r * cell];
      const near = (v: number, at: number, half: number) => Math.abs(v - at) <= half + 1e-9;
      if (x >= 4 && x <= 16 && y >= 3 && y <= 9 && !(island && near(x, 10, 1) && near(y, 6, 0.5)))
        f.z[r * f.cols + c] = -1;
      if (slip && near(x, 18, 0.5) && near(y, 2, 0.5)) f.z[r * f.cols + c] = -0.5;
    }
  return f;
}

describe('a proof held against what is wanted', () => {
  it('tells what is left and what is too deep, by place and size', () => {
    const { cuts, below } = compare(proof(true, true), new Map([['a', pocket()]]));
    expect(cuts[0].left).toHaveLength(1);
    expect(cuts[0].left[0].height).toBeCloseTo(1, 6);
    // 21 x 11 nodes, each of which stands for a cell.
    expect(cuts[0].left[0].area).toBeCloseTo(21 * 11 * 0.01, 6);
    expect(cuts[0].untouched).toBeCloseTo((21 * 11) / (121 * 61), 6);
    expect(below).toHaveLength(1);
    expect(below[0]).toMatchObject({ height: 0.5 });
    expect(Math.hypot(below[0].x - 18, below[0].y - 2)).toBeLessThan(0.8);
  });
  it('asks a cut once as long as it wants the same, whatever was cut since', () => {
    const w = pocket();
    const wanted = new Map([['a', w]]);
    expect(compare(proof(false, false), wanted).cuts[0].left).toEqual([]);
    const asked = w.asked;
    expect(asked).toBeGreaterThan(7000);
    const again = compare(proof(false, false), wanted);
    expect(w.asked).toBe(asked);
    expect(again.below).toEqual([]);
    // Only the places that stand too high are asked about, with their neighbours.
    const { cuts } = compare(proof(true, false), wanted);
    expect(cuts[0].left).toHaveLength(1);
    expect(w.asked - asked).toBeLessThan(6 * 21 * 11);
    // Other nodes are other questions, and another cut that wants it too has nothing to do.
    expect(compare(proof(true, false, 0.2), wanted).cuts[0].left).toHaveLength(1);
    const two = compare(
      proof(false, false),
      new Map([
        ['a', w],
        ['b', pocket()],
      ]),
    );
    expect(two.cuts.map((c) => c.idle)).toEqual([false, true]);
  });
  it('begins anew where it was given up half-way', () => {
    const w = pocket();
    const wanted = new Map([['a', w]]);
    expect(() =>
      compare(proof(true, false), wanted, () => {
        throw new Error('given up');
      }),
    ).toThrow('given up');
    expect(compare(proof(true, false), wanted).cuts[0].left).toHaveLength(1);
  });
});
