import { flatten } from '../geometry/path';
import { loopArea } from '../geometry/region';
import { flatPlaces } from './flats';
import { gridOf } from './field';

const cell = 0.2;
const grid = gridOf(60, 40, cell);
const made = (at: (x: number, y: number) => number) => ({
  ...grid,
  z: Float32Array.from({ length: grid.cols * grid.rows }, (_, i) =>
    at((i % grid.cols) * cell, Math.floor(i / grid.cols) * cell),
  ),
});
const options = { tolerance: 0.02, smallest: 10 };
const area = (paths: ReturnType<typeof flatPlaces>[number]['paths']) =>
  paths.reduce((s, p) => s + loopArea(flatten(p, 0.001)), 0);

describe('flat places', () => {
  it('are floors and faces with their depth and area, the largest first; domes and slopes are none', () => {
    const mould = made((x, y) => {
      if (x < 2 || x > 58 || y < 2 || y > 38) return NaN;
      // A pocket with leaning walls and an island in its floor; a dome.
      const d = Math.min(x - 6, 30 - x, y - 6, 34 - y);
      const island = Math.hypot(x - 18, y - 20) < 4;
      if (d > 0) return island ? -1 : -Math.min(4, 2 * d);
      const q = Math.hypot(x - 45, y - 20);
      return q < 9 ? Math.sqrt(225 - q * q) - 12 : 0;
    });
    const found = flatPlaces(mould, options);
    expect(found.map((p) => Math.round(p.height * 1000) / 1000)).toEqual([0, -4, -1]);
    const floor = 20 * 24 - Math.PI * 16;
    expect(Math.abs(found[1].area - floor)).toBeLessThan(0.03 * floor);
    // Round the floor and round the island in it.
    expect(found[1].paths).toHaveLength(2);
    for (const p of found) expect(Math.abs(area(p.paths) - p.area)).toBeLessThan(0.03 * p.area);
    expect(found[1].paths.every((p) => p.segments.length < 40)).toBe(true);
  });
  it('smaller than is asked for are left out; where nothing is level there are none', () => {
    const slope = made((x, y) => x / 3 + y / 5);
    expect(flatPlaces(slope, options)).toEqual([]);
    const tag = made((x, y) => (x > 10 && x < 13 && y > 10 && y < 13 ? 1 : x / 3));
    expect(flatPlaces(tag, { ...options, smallest: 5 })).toHaveLength(1);
    expect(flatPlaces(tag, options)).toHaveLength(0);
    expect(
      flatPlaces(
        made(() => NaN),
        options,
      ),
    ).toEqual([]);
  });
  it('may be the whole blank', () => {
    const [all] = flatPlaces(
      made(() => -2),
      options,
    );
    expect(area(all.paths)).toBeCloseTo(60 * 40, 1);
  });
});
