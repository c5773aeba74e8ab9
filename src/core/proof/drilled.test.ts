import { gridOf, type HeightField } from '../relief/field';
import { standingAlone, withoutHoles, type Hole } from './drilled';

const cell = 0.25;
const grid = gridOf(40, 20, cell);
/** A pocket of radius 6 about (12, 10), and holes through 8 mm. */
const mould = (holes: readonly Hole[]): HeightField => ({
  ...grid,
  z: Float32Array.from({ length: grid.cols * grid.rows }, (_, i) => {
    const [x, y] = [(i % grid.cols) * cell, Math.floor(i / grid.cols) * cell];
    if (holes.some((h) => Math.hypot(x - h.x, y - h.y) < h.radius)) return -8;
    return Math.hypot(x - 12, y - 10) < 6 ? -3 : 0;
  }),
});
const at = (x: number, y: number, radius = 1.5): Hole => ({ x, y, radius });

describe('drilled holes of a mould', () => {
  it('stand alone beside it, and where they meet one another; what is cast comes to those in it and at its edge', () => {
    const [beside, pair, other, gate, edge] = [at(30, 15), at(30, 5), at(32, 5), at(12, 10), at(18.5, 10)];
    const all = [beside, pair, other, gate, edge];
    expect(standingAlone(mould(all), all, 0)).toEqual([beside, pair, other]);
    // Filled to below the edge of the pocket, but not of its floor.
    expect(standingAlone(mould(all), all, -2)).toEqual([beside, pair, other]);
    expect(standingAlone(mould(all), all, -5)).toEqual(all);
  });
  it('are filled to the face, and nothing else is', () => {
    const all = [at(30, 15), at(12, 10)];
    const { mould: filled, holes } = withoutHoles(mould(all), all, null);
    expect(holes).toEqual([all[0]]);
    expect([...filled.z]).toEqual([...mould([all[1]]).z]);
    // None that are off the blank, or were not cut.
    const sound = mould([]);
    expect(withoutHoles(sound, [at(30, 15), at(90, 15)], null)).toEqual({ mould: sound, holes: [] });
  });
});
