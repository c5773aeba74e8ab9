import { gridOf } from './field';
import { outlinesOf } from './outlined';

const grid = gridOf(40, 30, 0.5);
const field = (at: (x: number, y: number) => number) => ({
  ...grid,
  z: Float32Array.from({ length: grid.cols * grid.rows }, (_, i) =>
    at((i % grid.cols) * 0.5, Math.floor(i / grid.cols) * 0.5),
  ),
});
const options = { tolerance: 0.01, smallest: 1 };
const panel = field((x, y) => (x < 2 ? NaN : x > 8 && x < 30 && y > 8 && y < 22 ? -4 : -1 - x / 40));

describe('outlines of a relief', () => {
  it('are made at the depths that are asked for; beyond its lowest and highest there are none', () => {
    const found = outlinesOf(panel, { of: 'heights', heights: [-4, -3, -1.5, 0, -9] }, options);
    expect(found.map((o) => o.height)).toEqual([-4, -3, -1.5, 0, -9]);
    expect(found.map((o) => o.paths.length > 0)).toEqual([true, true, true, false, false]);
  });
  it('part its height evenly, and go round its border and its flat places', () => {
    expect(outlinesOf(panel, { of: 'even', count: 3 }, options).every((o) => o.paths.length)).toBe(true);
    const [border] = outlinesOf(panel, { of: 'border' }, options);
    expect(border).toMatchObject({ height: null, paths: { length: 1 } });
    const flats = outlinesOf(panel, { of: 'flats' }, options);
    expect(flats.map((o) => o.height)).toEqual([-4]);
    expect(Math.abs(flats[0].area! - 22 * 14)).toBeLessThan(25);
  });
  it('of nothing are nothing', () => {
    const nothing = field(() => NaN);
    for (const asked of [{ of: 'heights', heights: [-1] }, { of: 'even', count: 4 }, { of: 'flats' }] as const)
      expect(outlinesOf(nothing, asked, options)).toEqual([]);
    expect(outlinesOf(nothing, { of: 'border' }, options)[0].paths).toEqual([]);
  });
});
