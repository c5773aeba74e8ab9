import type { Path } from '../geometry/path';
import { stillWanted } from '../units/stillWanted';
import type { HeightField } from './field';
import { flatPlaces, LEVEL, type FlatPlace } from './flats';
import { linesBelow, type LevelOptions } from './levels';

/** A level floor, and the outlines round all that is taken away down to it. */
export interface FloorPlace extends FlatPlace {
  /**
   * Round the floor and what lies deeper beside it: where walls begin to lean, or within half of how far nodes lie apart beside
   * upright and low ones. Floors of one height that what is deeper joins share them.
   *
   *     ______                        ______
   *           \______      __________/           `paths` go round each of both floors,
   *            floor \____/  floor               `below` once round all of it
   */
  readonly below?: readonly Path[];
}

/** A wall that goes on to rise by less than this part of the step before is at its end. */
const UPRIGHT = 0.1;

/** All level places, the largest first, and what is to be cleared for the `most` largest of them. */
export function floorPlaces(f: HeightField, o: LevelOptions, most: number): FloorPlace[] {
  const basins: { readonly height: number; readonly held: Uint8Array; readonly below: readonly Path[] }[] = [];
  return flatPlaces(f, o).map((place, k) => {
    if (k >= most) return place;
    const before = basins.find((b) => Math.abs(b.height - place.height) <= LEVEL && b.held[place.node]);
    if (before) return { ...place, below: before.below };
    const held = basin(f, place);
    const below = roundBasin(f, held, place.height, o);
    basins.push({ height: place.height, held, below });
    return { ...place, below };
  });
}

/** Nodes that are no higher than a place and hang together with it. */
function basin({ z, cols, rows }: HeightField, { node, height }: FlatPlace): Uint8Array {
  const held = new Uint8Array(z.length);
  const stack = [node];
  const take = (i: number) => {
    if (held[i] || !(z[i] <= height + LEVEL)) return;
    held[i] = 1;
    stack.push(i);
  };
  held[node] = 1;
  for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
    stillWanted();
    const c = i % cols;
    if (c > 0) take(i - 1);
    if (c < cols - 1) take(i + 1);
    if (i >= cols) take(i - cols);
    if (i < cols * (rows - 1)) take(i + cols);
  }
  return held;
}

/**
 * Outlines round them. Between the last node of a floor and the first of its wall they lie where the wall, gone on with, meets the
 * floor; where it has its height within two nodes it is as good as upright, and heights say no more than that it lies between.
 *
 *         wall  o             o---o         the last node is put as low as the wall goes on to (x): heights
 *              /             :              between both are those of the wall then
 *       o--o--/-o      o--o--:
 *          x /
 */
function roundBasin(f: HeightField, held: Uint8Array, height: number, o: LevelOptions): readonly Path[] {
  const { cols, rows } = f;
  // What is as low elsewhere is as good as high.
  const z = f.z.map((h, i) => (!held[i] && h <= height + LEVEL ? height + 1 : h));
  const out = z.slice();
  const rise = (c: number, r: number) => (c < 0 || r < 0 || c >= cols || r >= rows ? NaN : z[r * cols + c] - height);
  for (let r = 0, i = 0; r < rows; r++)
    for (let c = 0; c < cols; c++, i++) {
      if (!held[i] || height - z[i] > LEVEL) continue;
      let [sum, count] = [0, 0];
      for (const [x, y] of [
        [c + 1, r],
        [c - 1, r],
        [c, r + 1],
        [c, r - 1],
      ]) {
        const first = rise(x, y);
        if (!(first > LEVEL)) continue;
        const second = rise(2 * x - c, 2 * y - r);
        const third = rise(3 * x - 2 * c, 3 * y - 2 * r);
        // Both of the first two lie on it only if it goes on beyond them.
        if (!(second - first > UPRIGHT * first && third - second > UPRIGHT * (second - first))) {
          out[y * cols + x] = NaN;
          continue;
        }
        sum += Math.min(0, 2 * first - second);
        count++;
      }
      if (count) out[i] = height + sum / count;
    }
  return linesBelow({ ...f, z: out }, height + LEVEL, { ...o, smallest: 0 }).paths;
}
