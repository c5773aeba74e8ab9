import fc from 'fast-check';
import { formContext } from '../testing/forms';
import { seeded } from '../testing/seeded';
import { gridOf, type Grid } from './field';
import { formKindOf } from './registry';
import { boxMeansWithin, dabsOf, falloff, layDabs, type BrushStroke } from './sculpt';

const grid = gridOf(60, 40, 0.25);
const level = (h: number, g: Grid = grid) => new Float32Array(g.cols * g.rows).fill(h);
const at = (z: Float32Array, x: number, y: number, g: Grid = grid) =>
  z[Math.round(y / g.cell) * g.cols + Math.round(x / g.cell)];
const stroke = (points: number[], more: Partial<BrushStroke> = {}): BrushStroke => ({
  tool: 'raise',
  radius: 4,
  height: 1,
  share: 1,
  soft: 1,
  level: 0,
  mirror: 'none',
  points,
  ...more,
});
const across = [10, 20, 1, 50, 20, 1];
const laid = (under: Float32Array, ...strokes: BrushStroke[]) => {
  const z = under.slice();
  layDabs(z, grid, strokes, dabsOf(strokes));
  return z;
};

/** At how many nodes two fields differ. */
const differ = (a: Float32Array, b: Float32Array) => a.reduce((n, h, i) => n + Number(h !== b[i]), 0);

describe('a brush that grabs', () => {
  const bump = () => {
    const z = level(1);
    for (let r = 0; r < grid.rows; r++)
      for (let c = 0; c < grid.cols; c++) {
        const d = Math.hypot(c * grid.cell - 15, r * grid.cell - 20);
        if (d < 2) z[r * grid.cols + c] += 1 + Math.cos((Math.PI * d) / 2);
      }
    return z;
  };
  const grab = (points: number[], more: Partial<BrushStroke> = {}) =>
    stroke(points, { tool: 'grab', radius: 6, soft: 0.5, ...more });
  it('(long) leaves level ground as it is', () => {
    for (const h of laid(level(2), grab([10, 20, 1, 40, 23, 1]))) expect(h).toBeCloseTo(2, 6);
  });
  it('carries what is under it along, and nothing beyond its radius', () => {
    const z = laid(bump(), grab([15, 20, 1, 25, 20, 1]));
    // Its highest place has come along, nearly as high; the last bit of the way is no whole dab.
    expect(at(z, 25, 20)).toBeGreaterThan(2.8);
    expect(at(z, 15, 20)).toBeLessThan(2);
    expect(at(z, 25, 26.25)).toBe(1);
    const half = laid(bump(), grab([15, 20, 1, 25, 20, 1], { share: 0.5 }));
    const top = half.indexOf(Math.max(...half)) % grid.cols;
    // Half as fast it is passed by the brush, and left behind.
    expect(top * grid.cell).toBeGreaterThan(17);
    expect(top * grid.cell).toBeLessThan(23);
  });
  it('does so on the other side too where it is mirrored', () => {
    const under = bump();
    const both = laid(
      under.map((h, i) => Math.max(h, under[Math.floor(i / grid.cols) * grid.cols + grid.cols - 1 - (i % grid.cols)])),
      grab([15, 20, 1, 20, 24, 1], { mirror: 'across' }),
    );
    for (const [x, y] of [
      [20, 24],
      [17, 22],
      [14, 20],
    ])
      expect(at(both, 60 - x, y)).toBeCloseTo(at(both, x, y), 5);
    expect(at(both, 20, 24)).toBeGreaterThan(2.5);
  });
  it('leaves empty places empty', () => {
    const z = bump();
    for (let i = 0; i < z.length; i++) if (i % grid.cols > 90) z[i] = NaN;
    const to = laid(z, grab([15, 20, 1, 30, 20, 1]));
    to.forEach((h, i) => expect(h === h).toBe(i % grid.cols <= 90));
  });
});

describe('a brush', () => {
  it('raises and lowers a straight line by what was typed, by less beside it, and nothing beyond its radius', () => {
    for (const soft of [0.2, 0.5, 1])
      for (const [tool, sense] of [
        ['raise', 1],
        ['lower', -1],
      ] as const) {
        const z = laid(level(2), stroke(across, { soft, tool, height: 1.5 }));
        for (const x of [20, 27.5, 31.25, 40]) {
          expect(Math.abs(sense * (at(z, x, 20) - 2) - 1.5)).toBeLessThan(0.03);
          expect(sense * (at(z, x, 22) - 2)).toBeGreaterThan(0.1);
          expect(sense * (at(z, x, 22) - 2)).toBeLessThan(1.5);
          expect(at(z, x, 24.25)).toBe(2);
          // As much on either side.
          expect(at(z, x, 22)).toBeCloseTo(at(z, x, 18), 4);
        }
        expect(at(z, 5.5, 20)).toBe(2);
      }
  });
  it('does the same on finer nodes, and half as much where it is pressed half as hard', () => {
    const fine = gridOf(60, 40, 0.125);
    const z = level(0, fine);
    const s = [stroke(across)];
    layDabs(z, fine, s, dabsOf(s));
    const coarse = laid(level(0), ...s);
    for (let y = 16; y <= 24; y += 0.5) expect(at(z, 30, y, fine)).toBeCloseTo(at(coarse, 30, y), 4);
    const light = laid(level(0), stroke([10, 20, 0.5, 50, 20, 0.5]));
    expect(at(light, 30, 20)).toBeCloseTo(0.5, 2);
    // From light to hard: as hard as it is in between.
    const swelling = laid(level(0), stroke([10, 20, 0, 50, 20, 1]));
    expect(at(swelling, 30, 20)).toBeCloseTo(0.5, 1);
  });
  it('pulls to a height and flattens by the share that was typed', () => {
    for (const share of [0.3, 0.9]) {
      const z = laid(level(2), stroke(across, { tool: 'pull', level: -1, share, soft: 0.2 }));
      expect(at(z, 30, 20)).toBeCloseTo(2 - 3 * share, 1);
      expect(at(z, 30, 25)).toBe(2);
    }
    expect(at(laid(level(2), stroke(across, { tool: 'pull', level: -1 })), 30, 20)).toBeCloseTo(-1, 5);
    // A plane that is flattened in one place is a plane without its slope; what is level stays as it is.
    expect(at(laid(level(2), stroke(across, { tool: 'flatten' })), 30, 20)).toBe(2);
    const slope = level(0).map((_, i) => (i % grid.cols) * grid.cell);
    const flat = laid(slope, stroke([30, 20, 1], { tool: 'flatten', soft: 0.2, radius: 6 }));
    expect(at(flat, 33, 20) - at(flat, 27, 20)).toBeLessThan(5);
    expect(at(flat, 33, 20) + at(flat, 27, 20)).toBeCloseTo(60, 3);
  });
  it('smooths steps, keeps slopes and what is level, and never leaves the range of what was there', () => {
    const slope = level(0).map((_, i) => (i % grid.cols) * 0.1);
    const kept = laid(slope, stroke(across, { tool: 'smooth' }));
    for (const x of [20, 30, 40]) expect(at(kept, x, 20)).toBeCloseTo(at(slope, x, 20), 3);
    const step = level(0).map((_, i) => (i % grid.cols > grid.cols / 2 ? 1 : 0));
    const z = laid(step, stroke(across, { tool: 'smooth', share: 0.8 }));
    for (const h of z) expect(h >= -1e-6 && h <= 1 + 1e-6).toBe(true);
    const steepest = (f: Float32Array) => {
      let most = 0;
      for (let x = 20; x < 40; x += 0.25) most = Math.max(most, at(f, x + 0.25, 20) - at(f, x, 20));
      return most;
    };
    expect(steepest(step)).toBe(1);
    expect(steepest(z)).toBeLessThan(0.4);
    expect(at(z, 15, 20)).toBe(0);
  });
  it('means of boxes are those of the nodes that are there', () => {
    const random = seeded(3);
    const g = gridOf(8, 6, 0.5);
    const z = level(0, g).map(() => (random() < 0.2 ? NaN : random()));
    const box = [3, 0, 12, 9] as const;
    const means = boxMeansWithin(z, g, box, 2);
    for (let r = 0; r <= 9; r++)
      for (let c = 3; c <= 12; c++) {
        const near: number[] = [];
        for (let j = Math.max(0, r - 2); j <= Math.min(g.rows - 1, r + 2); j++)
          for (let i = Math.max(0, c - 2); i <= Math.min(g.cols - 1, c + 2); i++)
            if (z[j * g.cols + i] === z[j * g.cols + i]) near.push(z[j * g.cols + i]);
        expect(means[r * 10 + c - 3]).toBeCloseTo(near.reduce((a, b) => a + b, 0) / near.length, 9);
      }
  });
  it('is mirrored about the middle of the blank', () => {
    const random = seeded(4);
    const points = Array.from({ length: 5 }, () => [25 * random(), 40 * random(), 1]).flat();
    const z = laid(level(0), stroke(points, { mirror: 'across' }));
    const y = laid(
      level(0),
      stroke(
        points.map((v, i) => (i % 3 === 0 ? v + 10 : i % 3 === 1 ? v / 2 : v)),
        { mirror: 'along' },
      ),
    );
    let worst = 0;
    for (let r = 0; r < grid.rows; r++)
      for (let c = 0; c < grid.cols; c++)
        worst = Math.max(
          worst,
          Math.abs(z[r * grid.cols + c] - z[r * grid.cols + grid.cols - 1 - c]),
          Math.abs(y[r * grid.cols + c] - y[(grid.rows - 1 - r) * grid.cols + c]),
        );
    expect(worst).toBeLessThan(1e-4);
    expect(Math.max(...z)).toBeGreaterThan(0.5);
  });
  it('leaves its dabs evenly along a stroke, however many places the hand has told', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 399 }), { maxLength: 20 }), (cuts) => {
        const xs = [10, ...[...new Set(cuts)].sort((a, b) => a - b).map((c) => 10 + c / 10), 50.1];
        const dabs = dabsOf([stroke(xs.flatMap((x) => [x, 20, 1]))]);
        // A dab every eighth of 4 mm, from the first place to the last.
        expect(dabs.length / 4).toBe(81);
        for (let k = 0; k < 81; k++) expect(dabs[4 * k + 1]).toBeCloseTo(10 + k / 2, 6);
      }),
    );
  });
  it('runs from one to nothing', () => {
    expect(falloff(0, 1)).toBe(1);
    expect(falloff(0.5, 1)).toBeCloseTo(0.5, 12);
    expect(falloff(1, 0.3)).toBeCloseTo(0, 12);
    expect(falloff(0.69, 0.3)).toBe(1);
  });
});

describe('sculpting', () => {
  const kind = formKindOf('sculpt');
  const make = (strokes: BrushStroke[], under: Float32Array) =>
    kind.evaluate({ strokes }, formContext(grid, { under }));
  it('leaves empty places empty, and says when all of it met nothing', () => {
    const none = make([stroke(across)], level(NaN));
    expect(none.z.every((h) => h !== h)).toBe(true);
    expect(none.remark).toMatch(/met nothing/);
    const half = level(0).map((_, i) => (i % grid.cols > grid.cols / 2 ? 0 : NaN));
    const some = make([stroke(across)], half);
    expect(some.remark).toBe('');
    expect(at(some.z, 20, 20)).toBeNaN();
    expect(at(some.z, 40, 20)).toBeCloseTo(1, 2);
    expect(make([], level(NaN)).remark).toBe('');
  });
  it('(long) comes out the same whether a stroke was laid on what was there before, or all of them anew', () => {
    const places = fc.array(fc.tuple(fc.integer({ min: -2, max: 62 }), fc.integer({ min: -2, max: 42 })), {
      minLength: 1,
      maxLength: 6,
    });
    const one = fc.record({
      tool: fc.constantFrom('raise', 'lower', 'smooth', 'flatten', 'pull'),
      radius: fc.constantFrom(0.3, 2, 5),
      soft: fc.constantFrom(0.2, 1),
      mirror: fc.constantFrom('none', 'across', 'along'),
      places,
    });
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 4 }), fc.constantFrom(0, 3), (list, h) => {
        const strokes = list.map(({ places: p, ...more }) =>
          stroke(
            p.flatMap(([x, y]) => [x, y, 1]),
            { ...(more as Partial<BrushStroke>), level: 1, share: 0.5 },
          ),
        );
        const under = level(h);
        const want = laid(under, ...strokes);
        // Stroke by stroke and place by place, as a hand draws them; then one is taken back, and all at once.
        for (let n = 1; n <= strokes.length; n++) {
          const before = strokes.slice(0, n - 1);
          const now = strokes[n - 1];
          for (let k = 3; k < now.points.length; k += 9)
            make([...before, { ...now, points: now.points.slice(0, k) }], under);
        }
        expect(differ(make(strokes, under).z, want)).toBe(0);
        expect(differ(make(strokes.slice(0, -1), under).z, laid(under, ...strokes.slice(0, -1)))).toBe(0);
        // Another ground under the same strokes, or another brush in the same places.
        const other = level(h + 1);
        expect(differ(make(strokes, other).z, laid(other, ...strokes))).toBe(0);
        const wider = strokes.map((s) => ({ ...s, height: 2 }));
        expect(differ(make(wider, other).z, laid(other, ...wider))).toBe(0);
      }),
      { numRuns: 15 },
    );
  });
  it('follows a stack that is made higher', () => {
    const { strokes } = kind.higher!({ strokes: [stroke(across, { height: 2, level: 3 })] } as never, 2) as {
      strokes: BrushStroke[];
    };
    expect([strokes[0].height, strokes[0].level]).toEqual([4, 6]);
  });
});
