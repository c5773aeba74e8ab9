import { gridOf } from './field';
import { smallPicture } from './small';

const grid = gridOf(60, 40, 0.25);
const field = (at: (x: number, y: number) => number) =>
  Float32Array.from({ length: grid.cols * grid.rows }, (_, i) =>
    at((i % grid.cols) * grid.cell, Math.floor(i / grid.cols) * grid.cell),
  );

describe('the small picture of a form', () => {
  it('is cut to where the form is, upright, and clear where it is empty', () => {
    // A half disc: its straight side looks down.
    const z = field((x, y) => (Math.hypot(x - 20, y - 10) < 8 && y >= 10 ? 2 : NaN));
    const { cols, rows, light } = smallPicture(z, grid, 40);
    expect(cols).toBe(40);
    expect(Math.abs(rows - 20)).toBeLessThanOrEqual(1);
    const row = (r: number) => light.subarray(r * cols, (r + 1) * cols).filter((l) => l > 0).length;
    expect(row(rows - 1)).toBeGreaterThan(36);
    expect(row(0)).toBeLessThan(20);
    expect(light[0]).toBe(0);
  });
  it('is lit from the upper left, whatever it is high', () => {
    for (const high of [0.05, 5]) {
      const z = field((x, y) => high * Math.sqrt(Math.max(0, 1 - ((x - 30) / 15) ** 2 - ((y - 20) / 15) ** 2)));
      const { cols, rows, light } = smallPicture(z, grid, 44);
      const at = (x: number, y: number) => light[Math.round((1 - y / 40) * rows) * cols + Math.round((x / 60) * cols)];
      expect(at(21, 29)).toBeGreaterThan(at(39, 11) + 20);
    }
  });
  it('shows what is thin', () => {
    const z = field((x, y) => (y % 8 === 0 ? 1 : x === 0 || x === 60 ? 0 : NaN));
    const { cols, rows, light } = smallPicture(z, grid, 30);
    const lines = Array.from({ length: rows }, (_, r) => light[r * cols + (cols >> 1)]).filter((l) => l > 0);
    expect(lines).toHaveLength(6);
  });
  it('of nothing has no pixels; of a point it has one', () => {
    expect(
      smallPicture(
        field(() => NaN),
        grid,
      ),
    ).toMatchObject({ cols: 0, rows: 0 });
    const one = smallPicture(
      field((x, y) => (x === 3 && y === 4 ? 1 : NaN)),
      grid,
    );
    expect([one.cols, one.rows, one.light.length]).toEqual([1, 1, 1]);
    expect(one.light[0]).toBeGreaterThan(0);
  });
});
