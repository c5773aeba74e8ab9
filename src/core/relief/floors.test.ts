import { flatten } from '../geometry/path';
import { lineLength, loopArea } from '../geometry/region';
import { gridOf, type HeightField } from './field';
import { floorPlaces, type FloorPlace } from './floors';

const cell = 0.2;
const grid = gridOf(60, 40, cell);
const made = (at: (x: number, y: number) => number): HeightField => ({
  ...grid,
  z: Float32Array.from({ length: grid.cols * grid.rows }, (_, i) =>
    at((i % grid.cols) * cell, Math.floor(i / grid.cols) * cell),
  ),
});
const options = { tolerance: 0.01, smallest: 6 };
const area = (paths: FloorPlace['below']) => paths!.reduce((s, p) => s + loopArea(flatten(p, 0.001)), 0);
const depth = (p: FloorPlace) => Math.round(p.height * 1000) / 1000;
/** Inside of a disc of a mould: how deep, walls leaning by 1 in `lean`. */
const disc = (x: number, y: number, r: number, deep: number, lean: number) =>
  Math.min(deep, Math.max(0, lean * (r - Math.hypot(x - 20, y - 20))));

describe('level floors of a relief', () => {
  it('are cleared with what lies deeper in them, up to where walls begin that lean', () => {
    // A floor of radius 12 where its walls begin, a trough round its middle, an island, and a pit of its own that is no floor.
    const f = made((x, y) => {
      const q = Math.hypot(x - 20, y - 20);
      const trough = Math.min(1, 1.6 * Math.max(0, 1.875 - Math.abs(q - 6)));
      const island = Math.max(0, Math.min(3, 4 * (2.25 - q)));
      const pit = Math.max(0, 5 - Math.hypot(x - 50, y - 20));
      return -disc(x, y, 12.5, 3, 6) - trough + island - pit;
    });
    const floors = floorPlaces(f, options, 9).filter((p) => p.height < -0.1);
    expect(floors.map(depth)).toEqual([-3, -4, -3]);
    // Both parts of the floor, on either side of the trough, are cleared at once: the island alone stays.
    expect(floors[2].below).toBe(floors[0].below);
    expect(floors[0].below).toHaveLength(2);
    // Within a fortieth of how far nodes lie apart, all along.
    expect(Math.abs(area(floors[0].below) - Math.PI * (144 - 2.25 ** 2))).toBeLessThan(
      (2 * Math.PI * 14.25 * cell) / 40,
    );
    expect(Math.abs(area(floors[1].below) - 2 * Math.PI * 6 * 2.5)).toBeLessThan((2 * Math.PI * 12 * cell) / 40);
  });

  it.each([3, 0.6])('beside upright walls %s mm high are known within half of how far nodes lie apart', (high) => {
    const f = made((x, y) => (Math.hypot(x - 20, y - 20) < 12 ? -high : 0));
    const [floor] = floorPlaces(f, options, 9).filter((p) => p.height < -0.1);
    const r = Math.sqrt(area(floor.below) / Math.PI);
    expect(r - 12).toBeLessThan(cell / 2);
    expect(r - 12).toBeGreaterThan(-cell / 2);
  });

  it.each([0.5, 0.8, 1.3, 2.5])('beside walls %s mm high that lean are smooth, and as near', (high) => {
    const f = made((x, y) => -disc(x, y, 12 + high / 5.67, high, 5.67));
    const [floor] = floorPlaces(f, options, 9).filter((p) => p.height < -0.001);
    const [round] = floor.below!.map((p) => flatten(p, 0.001));
    for (let i = 0; i < round.length; i += 2) {
      const off = Math.hypot(round[i] - 20, round[i + 1] - 20) - 12;
      expect(Math.abs(off)).toBeLessThan((high > 2 ? 0.1 : 0.501) * cell);
    }
    expect(lineLength(round, true) / (2 * Math.PI * Math.sqrt(area(floor.below) / Math.PI))).toBeLessThan(1.02);
  });

  it('as low as others that they do not hang together with are cleared alone; none are where nothing is level', () => {
    const f = made((x, y) => (Math.abs(y - 20) < 10 && (Math.abs(x - 12) < 8 || Math.abs(x - 42) < 8) ? -2 : 0));
    const floors = floorPlaces(f, options, 9).filter((p) => p.height < -0.1);
    expect(floors).toHaveLength(2);
    for (const p of floors) {
      expect(p.below).toHaveLength(1);
      expect(Math.abs(area(p.below) - 16 * 20)).toBeLessThan(36 * cell);
    }
    expect(floorPlaces(f, options, 1).map((p) => !!p.below)).toEqual([true, false, false]);
    expect(
      floorPlaces(
        made((x) => x / 9),
        options,
        9,
      ),
    ).toEqual([]);
  });
});
