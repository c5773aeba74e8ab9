import { box } from '../testing/shapes';
import { AxisError, axisOf } from './medial/axis';
import { contains, normalise, regionArea, type Region } from './region';
import { traceable } from './traceable';

const region = normalise([box(0, 0, 40, 10), box(50, 0, 60, 10)]);
/** Finds no axis while a point lies inside or on the outline. */
const blindAt = (x: number, y: number) => (part: Region) => {
  if (contains(part, x, y)) throw new AxisError(x, y, 'made to fail');
  return axisOf(part);
};

describe('a region is made traceable', () => {
  it('by nothing where all is well', () => {
    expect(traceable(region)).toEqual({ region, lost: [] });
    expect(traceable(region).region).toBe(region);
  });

  it('by giving up one small place, not the outline or its neighbours', () => {
    const { region: rest, lost } = traceable(region, blindAt(20, 5));
    expect(lost).toHaveLength(1);
    expect(lost[0]).toMatchObject({ x: 20, y: 5, side: 0.05 });
    expect(regionArea(rest)).toBeCloseTo(500 - 0.0025, 4);
    expect(lost[0].area).toBeCloseTo(0.0025, 6);
    for (const [x, y] of [
      [19.9, 5],
      [20.1, 5],
      [1, 1],
      [55, 5],
    ])
      expect(contains(rest, x, y)).toBe(true);
  });

  it('also where the place lies on the outline, so that no loop is added', () => {
    const { region: rest, lost } = traceable(region, (part) => {
      // A corner at 20, 0 that no axis can pass.
      if (contains(part, 20, 0.001)) throw new AxisError(20, 0, 'made to fail');
      return axisOf(part);
    });
    expect(rest).toHaveLength(region.length);
    expect(lost).toHaveLength(1);
    expect(regionArea(rest)).toBeCloseTo(500 - 0.00125, 5);
    expect(contains(rest, 20, 0.001)).toBe(false);
  });

  it('by one small square for each of many places', () => {
    const places = Array.from({ length: 20 }, (_, i) => [1 + 1.9 * i, 5] as const);
    const { region: rest, lost } = traceable(region, (part) => {
      const at = places.find(([x, y]) => contains(part, x, y));
      if (at) throw new AxisError(at[0], at[1], 'made to fail');
      return axisOf(part);
    });
    expect(lost).toHaveLength(20);
    for (const l of lost) expect(l.side).toBe(0.05);
    expect(regionArea(rest)).toBeCloseTo(500 - 20 * 0.0025, 4);
  });

  it('by a larger square where the trouble comes again beside it, told as one place', () => {
    const { region: rest, lost } = traceable(region, (part) => {
      for (const x of [20, 20.03, 20.3])
        if (contains(part, x, 5)) throw new AxisError(x === 20.3 ? 20.15 : x, 5, 'made to fail');
      return axisOf(part);
    });
    expect(lost).toHaveLength(1);
    expect(lost[0]).toMatchObject({ x: 20, y: 5, side: 0.8 });
    expect(500 - regionArea(rest)).toBeCloseTo(0.64, 4);
    expect(lost[0].area).toBeCloseTo(0.64, 4);
  });

  it('or the whole piece where no place helps, and says how much that is', () => {
    const all = (part: Region) => {
      if (contains(part, 55, 5) || regionArea(part) < 100) throw new AxisError(57, 5, 'made to fail');
      return axisOf(part);
    };
    const { region: rest, lost } = traceable(region, all);
    expect(regionArea(rest)).toBeCloseTo(400, 4);
    expect(lost).toHaveLength(1);
    expect(lost[0].area).toBeCloseTo(100, 3);
  });

  it('without a word about slivers that rounding leaves', () => {
    const sliver = Float64Array.of(0, 20, 3, 20, 3, 20.00002, 1, 20.00001, 0, 20.00001);
    const blind = (part: Region) => {
      if (part[0][1] === 20) throw new AxisError(1, 20, 'made to fail');
      return axisOf(part);
    };
    const { region: rest, lost } = traceable([...region, sliver], blind);
    expect(lost).toEqual([]);
    expect(regionArea(rest)).toBeCloseTo(500, 6);
  });

  it('lets other errors through', () => {
    expect(() =>
      traceable(region, () => {
        throw new TypeError('not an axis');
      }),
    ).toThrow(TypeError);
  });
});
