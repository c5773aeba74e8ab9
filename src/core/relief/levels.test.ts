import fc from 'fast-check';
import { flatten, type Path } from '../geometry/path';
import { loopArea, type Loop } from '../geometry/region';
import { heightFacts } from './facts';
import { gridOf, type HeightField } from './field';
import { borderLines, evenLevels, levelLines } from './levels';

const field = (width: number, height: number, cell: number, at: (x: number, y: number) => number): HeightField => {
  const g = gridOf(width, height, cell);
  const z = Float32Array.from({ length: g.cols * g.rows }, (_, i) =>
    at((i % g.cols) * cell, Math.floor(i / g.cols) * cell),
  );
  return { ...g, z };
};
const loops = (paths: readonly Path[]): Loop[] => paths.map((p) => flatten(p, 0.0005));
const options = { tolerance: 0.005, smallest: 0.01 };
const each = (l: Loop, f: (x: number, y: number) => void) => {
  // Corners of chords and places between them.
  for (let i = 0; i < l.length; i += 2) {
    const j = (i + 2) % l.length;
    for (const t of [0, 0.25, 0.5, 0.75]) f(l[i] + t * (l[j] - l[i]), l[i + 1] + t * (l[j + 1] - l[i + 1]));
  }
};

describe('level lines', () => {
  it('of a dome are circles, within 0.01 mm, and run with what is higher on their left', () => {
    const dome = field(40, 40, 0.2, (x, y) => Math.sqrt(Math.max(0, 900 - (x - 20) ** 2 - (y - 20) ** 2)) - 30);
    const facts = heightFacts(dome.z);
    for (const h of [-1, -2, -4.5]) {
      const { paths } = levelLines(dome, h, facts, options);
      expect(paths).toHaveLength(1);
      // A circle is one: two arcs, not hundreds of steps.
      expect(paths[0].segments.length).toBeLessThanOrEqual(2);
      const [l] = loops(paths);
      const r = Math.sqrt(900 - (30 + h) ** 2);
      each(l, (x, y) => expect(Math.abs(Math.hypot(x - 20, y - 20) - r)).toBeLessThan(0.01));
      expect(loopArea(l)).toBeGreaterThan(0);
    }
  });
  it('of a pyramid are squares with four corners', () => {
    const pyramid = field(30, 30, 0.25, (x, y) => Math.min(x - 5, 25 - x, y - 5, 25 - y));
    const { paths } = levelLines(pyramid, 3.1, heightFacts(pyramid.z), options);
    const [l] = loops(paths);
    expect(paths[0].segments.length).toBeLessThanOrEqual(8);
    each(l, (x, y) => {
      const d = Math.min(x - 8.1, 21.9 - x, y - 8.1, 21.9 - y);
      expect(Math.abs(d)).toBeLessThan(0.02);
    });
    expect(loopArea(l)).toBeCloseTo(13.8 * 13.8, 1);
  });
  it('that lie exactly on a level floor or face go round it', () => {
    const pocket = field(40, 30, 0.25, (x, y) => (x >= 10 && x <= 30 && y >= 10 && y <= 20 ? -5 : 0));
    const facts = heightFacts(pocket.z);
    for (const h of [-5, 0]) {
      const { paths } = levelLines(pocket, h, facts, options);
      // The whole blank, and the floor as a hole in it.
      expect(paths).toHaveLength(2);
      const areas = loops(paths).map(loopArea);
      expect(Math.max(...areas)).toBeCloseTo(40 * 30, 1);
      // Within half a cell round the whole floor.
      expect(Math.abs(Math.min(...areas) + 20 * 10)).toBeLessThan(60 * 0.26);
    }
    expect(levelLines(pocket, -7, facts, options).paths).toHaveLength(1);
    expect(levelLines(pocket, 1, facts, options).paths).toHaveLength(0);
  });
  it('beside empty places keep to half a cell and have no steps', () => {
    const round = (x: number, y: number) => Math.hypot(x - 20, y - 15) <= 12.03;
    const disc = field(40, 30, 0.25, (x, y) => (round(x, y) ? -1 - 0.05 * x : NaN));
    const { paths } = borderLines(disc, options);
    expect(paths).toHaveLength(1);
    // A staircase would have hundreds.
    expect(paths[0].segments.length).toBeLessThan(24);
    each(loops(paths)[0], (x, y) => expect(Math.abs(Math.hypot(x - 20, y - 15) - 12.03)).toBeLessThan(0.25));
    // Half of it lies above a level: straight through, and round along the border.
    const half = levelLines(disc, -2, heightFacts(disc.z), options);
    expect(half.paths).toHaveLength(1);
    let straight = 0;
    each(loops(half.paths)[0], (x, y) => {
      const off = Math.min(Math.abs(x - 20), Math.abs(Math.hypot(x - 20, y - 15) - 12.03));
      expect(off).toBeLessThan(0.25);
      if (Math.abs(x - 20) < 0.01) straight++;
    });
    expect(straight).toBeGreaterThan(2);
  });
  it('leave small islands out, and say how many', () => {
    const two = field(40, 20, 0.2, (x, y) =>
      Math.max(4 - Math.hypot(x - 10, y - 10), 0.8 - Math.hypot(x - 30, y - 10)),
    );
    const facts = heightFacts(two.z);
    expect(levelLines(two, 0.1, facts, options)).toMatchObject({ left: 0, paths: { length: 2 } });
    expect(levelLines(two, 0.1, facts, { ...options, smallest: 3 })).toMatchObject({ left: 1, paths: { length: 1 } });
  });
  it('run along the blank where the relief goes on to its edge', () => {
    const ramp = field(20, 10, 0.5, (x) => x / 10);
    const { paths } = levelLines(ramp, 0.53, heightFacts(ramp.z), options);
    const [l] = loops(paths);
    each(l, (x, y) => {
      const off = Math.min(Math.abs(x - 5.3), Math.abs(x - 20), Math.abs(y), Math.abs(y - 10));
      expect(off).toBeLessThan(0.01);
    });
    expect(loopArea(l)).toBeCloseTo(14.7 * 10, 1);
  });
  it('are curves of numbers where one runs to the rim and back to where it was', () => {
    const z = new Float32Array(48);
    for (const [i, h] of [
      [1, -4],
      [12, NaN],
      [34, -3],
      [42, -4],
    ])
      z[i] = h;
    const f: HeightField = { cols: 8, rows: 6, cell: 1, x0: 0, y0: 0, z };
    const { paths } = levelLines(f, -3.5, { lowest: -4, highest: 4 }, { tolerance: 1e-6, smallest: 0 });
    expect(paths).toHaveLength(2);
    const numbers = paths.flatMap((p) =>
      p.segments.flatMap((s) => Object.values(s).filter((v) => typeof v === 'number')),
    );
    expect(numbers.every(Number.isFinite)).toBe(true);
  });
  it('enclose what is at least so high, on any ground', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            { weight: 40, arbitrary: fc.integer({ min: -4, max: 4 }) },
            { weight: 1, arbitrary: fc.constant(NaN) },
          ),
          { minLength: 48, maxLength: 48 },
        ),
        fc.constantFrom(-3.5, -1, 0, 0.5, 2),
        (all, level) => {
          const f: HeightField = { cols: 8, rows: 6, cell: 1, x0: 0, y0: 0, z: Float32Array.from(all) };
          const { paths } = levelLines(f, level, { lowest: -4, highest: 4 }, { tolerance: 1e-6, smallest: 0 });
          // Every place has as many loops round it as it should: winding numbers of nodes that are clearly in or out.
          const ls = loops(paths);
          for (let i = 0; i < 48; i++) {
            const [x, y] = [i % 8, Math.floor(i / 8)];
            if (x === 0 || x === 7 || y === 0 || y === 5) continue;
            let winding = 0;
            for (const l of ls)
              for (let k = 0; k < l.length; k += 2) {
                const j = (k + 2) % l.length;
                const [ay, by] = [l[k + 1] - y, l[j + 1] - y];
                if (ay <= 0 === by <= 0) continue;
                const at = l[k] - x + (-ay / (by - ay)) * (l[j] - l[k]);
                if (at > 0) winding += ay <= 0 ? 1 : -1;
              }
            // No line runs near a node all of whose neighbours are on its side.
            let near = false;
            for (let k = 0; k < 48; k++)
              if (Math.abs((k % 8) - x) < 2 && Math.abs(Math.floor(k / 8) - y) < 2)
                near ||= f.z[k] >= level !== f.z[i] >= level || Math.abs(f.z[k] - level) < 0.3;
            if (!near) expect(winding).toBe(f.z[i] >= level ? 1 : 0);
          }
        },
      ),
      { numRuns: 400 },
    );
  });
  it('part a height evenly', () => {
    expect(evenLevels({ lowest: -8, highest: 0 }, 3)).toEqual([-2, -4, -6]);
    expect(evenLevels({ lowest: -8, highest: 0 }, 0)).toEqual([]);
  });
});
