import type { Wanted } from '../cuts/wanted';
import { flatField, type HeightField } from '../relief/field';
import { made, type Ground } from '../testing/reliefCuts';
import { circleLoop } from '../testing/shapes';
import type { CheckInput } from './check';
import { compare, type Compared } from './compare';
import { stays } from './stays';

/** What the tests' own machine makes of a relief finishing is held against the relief. */
function keptBy(ground: Ground, values: Record<string, unknown>, more: Parameters<typeof made>[3] = {}): Compared {
  const { grid, wanted } = made('reliefFinish', { stepOver: 0.1, rim: 'over', ...values }, ground, more);
  const field: HeightField = { ...grid, z: Float32Array.from(grid.z) };
  const [cut] = compare(field, new Map([['f', wanted]])).cuts;
  expect(cut.left).toEqual([]);
  return cut;
}
const areaOf = (places: Compared['kept']['shape']) => places.reduce((sum, p) => sum + p.area, 0);
const mostOf = (places: Compared['kept']['shape']) => Math.max(...places.map((p) => p.height));

/** Where a falling function has come down to a value, between 0 and `to`. */
function where(f: (x: number) => number, value: number, to: number): number {
  let [a, b] = [0, to];
  for (let k = 0; k < 50; k++) {
    const m = (a + b) / 2;
    if (f(m) > value) a = m;
    else b = m;
  }
  return a;
}

describe('what stays on a relief', () => {
  it('is told of a groove that a ball is too wide for: as thick and as wide as its round stands over it', () => {
    const [steep, R, more] = [2, 1, 0.05];
    const { kept } = keptBy((x) => Math.min(-0.1, -2.9 + steep * Math.abs(x - 3.02)), {
      cutters: ['ball-2'],
      stepOver: 0.05,
      rest: more,
    });
    const long = Math.hypot(1, steep);
    // Across a side of the groove: up and down it is so many times as much.
    const above = (x: number) => R - (Math.sqrt(R * R - x * x) + steep * x) / long;
    expect(mostOf(kept.shape)).toBeGreaterThan(above(0.034));
    expect(mostOf(kept.shape)).toBeLessThan(above(0) + 0.01);
    // The grid of the tests' machine lies 0.01 and more within the blank.
    const area = 2 * where(above, more, (R * steep) / long) * 5;
    expect(areaOf(kept.shape)).toBeGreaterThan(0.93 * area);
    expect(areaOf(kept.shape)).toBeLessThan(1.03 * area);
    expect([kept.boundary, kept.rows]).toEqual([[], []]);
  });

  it('is told of ridges where rows lie too far apart, and not where they stand lower than so much', () => {
    const [steep, R, step] = [0.4, 0.5, 0.6];
    const long = Math.hypot(1, steep);
    const ridge = R - Math.sqrt(R * R - ((step * long) / 2) ** 2);
    const slope: Ground = (x) => -0.3 - steep * x;
    const values = { cutters: ['ball-1'], stepOver: step, angle: 90 };
    const { kept } = keptBy(slope, { ...values, rest: 0.05 });
    expect(mostOf(kept.rows)).toBeLessThan(ridge + 0.005);
    expect(mostOf(kept.rows)).toBeGreaterThan(ridge - 0.03);
    expect([kept.boundary, kept.shape]).toEqual([[], []]);
    expect(keptBy(slope, { ...values, rest: ridge + 0.006 }).kept.rows).toEqual([]);
  });

  it('is told of a round beside a boundary that the cutter stays within', () => {
    const [r, R, more] = [1.8, 1, 0.05];
    const { kept } = keptBy(
      () => -1,
      { cutters: ['ball-2'], where: 'inside', rim: 'edge', rest: more },
      { region: [circleLoop(400, r, 3, 2.5)] },
    );
    const from = r - R + Math.sqrt(R * R - (R - more) ** 2);
    expect(areaOf(kept.boundary)).toBeGreaterThan(0.96 * Math.PI * (r * r - from * from));
    expect(areaOf(kept.boundary)).toBeLessThan(1.04 * Math.PI * (r * r - from * from));
    expect(mostOf(kept.boundary)).toBeGreaterThan(0.7);
    expect([kept.rows, kept.shape]).toEqual([[], []]);
  });

  it('is told of the boundary where a slope runs down to it: a cutter that stood further out would take it', () => {
    const [steep, R] = [1, 1];
    const down: Ground = (x) => -0.5 - steep * x;
    const { kept } = keptBy(down, { cutters: ['ball-2'], rim: 'middle', stepOver: 0.05, rest: 0.05 });
    // Its middle over the edge, it stands where it touches the slope further in.
    const high = R * (1 - 1 / Math.hypot(1, steep));
    expect(mostOf(kept.boundary)).toBeGreaterThan(high - 0.15);
    expect(mostOf(kept.boundary)).toBeLessThan(high + 0.01);
    expect([kept.rows, kept.shape]).toEqual([[], []]);
    expect(keptBy(down, { cutters: ['ball-2'], rim: 'over', stepOver: 0.05, rest: 0.05 }).kept.boundary).toEqual([]);
  });

  it('is told beside a wall by its thickness: up and down there are millimetres of a hair', () => {
    const [high, R] = [2.5, 1];
    const wall: Ground = (x) => (x > 3.02 ? -0.3 : -0.3 - high);
    const { kept } = keptBy(wall, { cutters: ['ball-2'], stepOver: 0.05, rest: 0.05 });
    const all = Object.values(kept).flat();
    // What a round leaves in an upright corner, where it is as far from the wall as from the floor.
    expect(mostOf(all)).toBeLessThan(R * (1 - Math.SQRT1_2) + 0.03);
    expect(mostOf(all)).toBeGreaterThan(R * (1 - Math.SQRT1_2) - 0.05);
    // No more than that is anywhere, however high the wall.
    expect(keptBy(wall, { cutters: ['ball-2'], stepOver: 0.05, rest: 0.33 }).kept.shape).toEqual([]);
  });

  it('is less where a finer cutter follows', () => {
    const groove: Ground = (x) => Math.min(-0.1, -2 + 1.5 * Math.abs(x - 3.02));
    const one = keptBy(groove, { cutters: ['ball-2'], rest: 0.05 });
    const two = keptBy(groove, { cutters: ['ball-2', 'ball-1'], rest: 0.05 });
    // Half the ball stands half as high, over half the width.
    expect(mostOf(two.kept.shape) / mostOf(one.kept.shape)).toBeCloseTo(0.5, 1);
    expect(areaOf(two.kept.shape)).toBeLessThan(0.6 * areaOf(one.kept.shape));
  });

  it('is told of an allowance all over it, and above that of what the shape leaves besides', () => {
    const [steep, R, allowance, more] = [2, 1, 0.3, 0.05];
    const groove: Ground = (x) => Math.min(-0.6, -3.4 + steep * Math.abs(x - 3.02));
    const { kept } = keptBy(groove, { cutters: ['ball-2'], stepOver: 0.05, rest: more, allowance });
    const long = Math.hypot(1, steep);
    // A ball that keeps so far from it is a ball that is so much wider.
    const above = (x: number) => R + allowance - (Math.sqrt(R * R - x * x) + steep * x) / long;
    expect(mostOf(kept.shape)).toBeGreaterThan(above(0.034));
    expect(mostOf(kept.shape)).toBeLessThan(above(0) + 0.01);
    expect(mostOf(kept.allowance)).toBeLessThan(allowance + more + 0.01);
    // The level ground and the slopes beside the groove: all of the grid but the groove and its rims.
    expect(areaOf(kept.allowance) + areaOf(kept.shape)).toBeGreaterThan(0.97 * 6 * 5);
    expect([kept.boundary, kept.rows, kept.levels]).toEqual([[], [], []]);
    const flat = keptBy(() => -1, { cutters: ['ball-2'], stepOver: 0.05, rest: more, allowance }).kept;
    expect(mostOf(flat.allowance)).toBeCloseTo(allowance, 2);
    // Less than is minded is not told.
    expect(keptBy(() => -1, { cutters: ['ball-2'], rest: 0.05, allowance: 0.04 }).kept.allowance).toEqual([]);
  });

  it('is told of a roughing that nothing smooths, and of the smoothing where there is one', () => {
    const [slope, down, allowance] = [0.5, 0.4, 0.1];
    const ground: Ground = (x) => -0.6 - slope * Math.min(x, 2.5);
    const rough = made('reliefRough', { cutters: ['flat-3'], rim: 'over', allowance }, ground, {
      presets: { 'flat-3': { stepDown: down } },
    });
    const field: HeightField = { ...rough.grid, z: Float32Array.from(rough.grid.z) };
    const [alone] = compare(field, new Map([['r', rough.wanted]])).cuts;
    expect(alone.left).toEqual([]);
    // A level's height and the allowance, that across the surface; everywhere, for nowhere it goes nearer.
    const high = down + allowance * Math.hypot(1, slope);
    expect(mostOf(alone.kept.levels)).toBeLessThan(high + 0.03);
    expect(mostOf(alone.kept.levels)).toBeGreaterThan(high - 0.1);
    expect(areaOf(alone.kept.levels)).toBeGreaterThan(0.97 * 6 * 5);
    const fine = made('reliefFinish', { cutters: ['ball-2'], rim: 'over', stepOver: 0.1 }, ground);
    for (const order of [
      [rough, fine],
      [fine, rough],
    ]) {
      const { cuts } = compare(field, new Map(order.map((m, i) => [String(i), m.wanted])));
      expect(cuts[order.indexOf(rough)].kept.levels).toEqual([]);
    }
    // Of two roughings over the same place the last is told.
    const twice = compare(field, new Map(['a', 'b'].map((id) => [id, { ...rough.wanted }]))).cuts;
    expect(twice.map((c) => c.kept.levels.length > 0)).toEqual([false, true]);
  });

  it('is told of the last cut that is to take it', () => {
    const field = flatField(4, 3, 0.1, -0.8);
    const level = (z: number): Wanted => ({
      box: { x0: 1, y0: 1, x1: 3, y1: 2 },
      surface: (x, y) => (x > 0.99 && x < 3.01 && y > 0.99 && y < 2.01 ? z : 0),
      stays: () => 0,
      kept: { more: 0.05, lift: 0, smooth: () => NaN, why: () => 'shape' },
    });
    const told = (...cuts: Wanted[]) =>
      compare(field, new Map(cuts.map((w, i) => [String(i), w]))).cuts.map((c) => c.kept.shape.map((p) => p.height));
    expect(told(level(-1))).toEqual([[expect.closeTo(0.2, 5)]]);
    expect(told(level(-1), level(-1.1))).toEqual([[], [expect.closeTo(0.3, 5)]]);
    // One that is to leave more does not see to it; one that goes deeper does.
    const plain = (z: number): Wanted => ({ ...level(z), kept: undefined });
    expect(told(level(-1), plain(-0.95))[0]).toHaveLength(1);
    expect(told(level(-1), plain(-1.5))).toEqual([[], []]);
    // One that wants more elsewhere does not matter, nor one that minds less.
    expect(
      told(level(-0.9), {
        ...level(-1),
        kept: { more: 0.3, lift: 0, smooth: () => NaN, why: () => 'shape' },
      }),
    ).toEqual([[], []]);
    const aside: Wanted = { ...level(-2), surface: (x) => (x > 3.05 ? -2 : 0), box: { x0: 3, y0: 0, x1: 4, y1: 3 } };
    expect(told(level(-1), aside)[0]).toHaveLength(1);
  });

  it('is said with its height, its size, its number of places, the worst first, and what can be done', () => {
    const place = (x: number, area: number, height: number) => ({ x, y: 1, area, height });
    const kept = {
      shape: [place(1, 3, 0.2), place(2, 1, 0.5)],
      boundary: [place(3, 0.04, 1)],
      rows: [place(4, 2, 0.1)],
      allowance: [place(5, 9, 0.3)],
      levels: [place(6, 8, 0.7)],
    };
    const compared = { cuts: [{ cutId: 'f', left: [], kept, untouched: 0, idle: false }], below: [] };
    const job = { unit: 'mm', cuts: [{ id: 'f', name: 'Fine', values: { rest: 0.05 } }] };
    const said = stays({ job, compared } as unknown as CheckInput);
    expect(said.map((f) => f.text)).toEqual([
      expect.stringMatching(
        /^Up to 0\.5 mm \(4(\.00)? mm\u00b2, 2 places\) where the cutter of "Fine" .* it takes more than 0\.05 mm\.$/,
      ),
      expect.stringMatching(/^Up to 0\.1 mm \(2(\.00)? mm\u00b2, 1 place\) between the rows of "Fine"\./),
      expect.stringMatching(/^Up to 0\.3 mm \(9(\.00)? mm\u00b2, 1 place\) as "Fine" is told by its allowance/),
      expect.stringMatching(
        /^Up to 0\.7 mm \(8(\.00)? mm\u00b2, 1 place\) by the levels .* "Fine", and nothing smooths/,
      ),
    ]);
    expect(said.map((f) => f.mend)).toEqual(['finer', undefined, undefined, 'smooth']);
    // The place beside the boundary is too small to be told.
    expect(said[0].places).toEqual([
      { x: 2, y: 1 },
      { x: 1, y: 1 },
    ]);
    expect(stays({ job } as unknown as CheckInput)).toEqual([]);
  });
});
