import { gridOf, type HeightField } from './field';
import { besideEachOther } from './split';

const field = (cell: number, at: (x: number, y: number) => number): HeightField => {
  const g = gridOf(10, 6, cell);
  return {
    ...g,
    z: Float32Array.from({ length: g.cols * g.rows }, (_, i) => at((i % g.cols) * cell, Math.floor(i / g.cols) * cell)),
  };
};

describe('two fields beside each other', () => {
  const right = field(0.5, () => -1);
  it.each([0.5, 0.75, 2])('have the left one left of the line, whose nodes lie %d apart', (cell) => {
    const left = field(cell, (x, y) => x + y / 10);
    const both = besideEachOther(left, right, 4.25);
    expect([both.cols, both.rows, both.cell]).toEqual([right.cols, right.rows, 0.5]);
    both.z.forEach((h, i) => {
      const [x, y] = [(i % both.cols) * 0.5, Math.floor(i / both.cols) * 0.5];
      expect(h).toBeCloseTo(x < 4.25 ? x + Math.min(y, left.cell * (left.rows - 1)) / 10 : -1, 5);
    });
  });
  it('are one of them where the line stands beside both, and stay what they were', () => {
    const left = field(0.5, () => 3);
    expect(besideEachOther(left, right, -1).z).toEqual(right.z);
    expect(besideEachOther(left, right, 11).z).toEqual(left.z);
    expect(right.z.every((h) => h === -1)).toBe(true);
  });
  it('leave empty what is', () => {
    const both = besideEachOther(
      field(1, (x) => (x < 2 ? NaN : 1)),
      right,
      5,
    );
    expect(both.z[0]).toBeNaN();
    expect(both.z[6]).toBe(1);
  });
});
