import fc from 'fast-check';
import { real } from '../testing/real';
import { bruteDistance, bruteInside } from '../testing/independent';
import { box, circleLoop, combLoop, hole, loop, starLoop, turned } from '../testing/shapes';
import { insetsOf } from './insets';
import { makeSegmentIndex } from './segmentIndex';
import { clearWay } from './lines';
import {
  boundsOf,
  components,
  contains,
  intersect,
  lineLength,
  loopArea,
  normalise,
  offset,
  regionArea,
  simplifyRegion,
  subtract,
  thicken,
  unite,
  type Region,
  clipLines,
} from './region';

const at = fc.integer({ min: -30, max: 30 });
const shape: fc.Arbitrary<Region> = fc.oneof(
  fc
    .tuple(at, at, fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 30 }))
    .map(([x, y, w, h]) => [box(x, y, x + w, y + h)]),
  fc
    .tuple(at, at, fc.integer({ min: 3, max: 9 }), fc.integer({ min: 3, max: 20 }), real(-90, 90))
    .map(([x, y, k, r, a]) => turned([starLoop(k, r, r * 0.45, x, y)], a)),
  fc
    .tuple(at, at, fc.integer({ min: 8, max: 20 }))
    .map(([x, y, r]) => [circleLoop(48, r, x, y), hole(circleLoop(36, r / 2, x, y))]),
);
const region = fc.array(shape, { minLength: 1, maxLength: 4 }).map((s) => normalise(s.flat()));
const place = fc.record({
  x: real(-60, 60),
  y: real(-60, 60),
});

describe('regions', () => {
  it('united and intersected have the areas of their parts together', () => {
    fc.assert(
      fc.property(region, region, (a, b) => {
        const [u, i] = [regionArea(unite(a, b)), regionArea(intersect(a, b))];
        expect(u + i).toBeCloseTo(regionArea(a) + regionArea(b), 2);
        expect(regionArea(subtract(a, b))).toBeCloseTo(regionArea(a) - i, 2);
      }),
    );
  });
  it('hold what they say: a point is inside as a count of crossings has it', () => {
    fc.assert(
      fc.property(region, region, place, (list, b, { x, y }) => {
        fc.pre(bruteDistance([...list, ...b], x, y) > 1e-3);
        const [inA, inB] = [bruteInside(list, x, y), bruteInside(b, x, y)];
        expect(contains(list, x, y)).toBe(inA);
        expect(contains(unite(list, b), x, y)).toBe(inA || inB);
        expect(contains(intersect(list, b), x, y)).toBe(inA && inB);
        expect(contains(subtract(list, b), x, y)).toBe(inA && !inB);
      }),
    );
  });
  it('fall into components that do not meet and are all there is', () => {
    fc.assert(
      fc.property(region, (r) => {
        const parts = components(r);
        expect(parts.reduce((s, p) => s + regionArea(p), 0)).toBeCloseTo(regionArea(r), 4);
        for (const p of parts) {
          expect(loopArea(p[0])).toBeGreaterThan(0);
          for (const h of p.slice(1)) expect(loopArea(h)).toBeLessThan(0);
        }
        for (let i = 0; i < parts.length; i++)
          for (let j = i + 1; j < parts.length; j++)
            expect(regionArea(intersect(parts[i], parts[j]))).toBeLessThan(1e-3);
      }),
      { numRuns: 60 },
    );
  });
  it('of a convex outline grow as Steiner says: A + P d + pi d^2', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 12 }), real(2, 20), real(0.1, 6), (k, r, d) => {
        const l = circleLoop(k, r);
        const grown = regionArea(offset([l], d, 0.0005));
        expect(grown).toBeCloseTo(loopArea(l) + lineLength(l, true) * d + Math.PI * d * d, 1);
        // Sharp corners add what lies between the arc and the meeting of the sides.
        expect(regionArea(offset([l], d, 0.0005, 'sharp'))).toBeGreaterThan(grown);
      }),
    );
  });
  it('of a thick line are its sides and two half discs', () => {
    expect(regionArea(thicken(loop(0, 0, 30, 0), 4, 0.0002))).toBeCloseTo(240 + Math.PI * 16, 1);
  });
  it('simplified lie within the tolerance of what they were', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 400 }), real(0.01, 0.5), (k, tolerance) => {
        const l = circleLoop(k, 25);
        const [s] = simplifyRegion([l], tolerance);
        expect(s.length).toBeLessThanOrEqual(l.length);
        for (let i = 0; i < l.length; i += 2) expect(bruteDistance([s], l[i], l[i + 1])).toBeLessThan(tolerance + 2e-5);
      }),
    );
  });
  it('refuse what is no number', () => {
    expect(() => normalise([loop(0, 0, NaN, 1, 5, 5)])).toThrow(/not a number/);
    expect(() => normalise([loop(0, 0, 1e9, 1, 5, 5)])).toThrow(/10 km/);
    expect(normalise([loop(0, 0, 5, 0, 9, 0)])).toEqual([]);
    expect(boundsOf([])).toBeNull();
  });
});

describe('distance to an outline', () => {
  it('is what every segment by itself says, near and far', () => {
    fc.assert(
      fc.property(region, fc.array(place, { minLength: 1, maxLength: 20 }), (r, places) => {
        fc.pre(r.length > 0);
        const o = makeSegmentIndex(r);
        for (const { x, y } of places) expect(o.distance(x, y)).toBeCloseTo(bruteDistance(r, x, y), 9);
        expect(o.distance(1000, -2000)).toBeCloseTo(bruteDistance(r, 1000, -2000), 6);
      }),
      { numRuns: 60 },
    );
  });
});

describe('insets', () => {
  it('lie at their distance from the outline, everywhere, and hold what is deeper', () => {
    fc.assert(
      fc.property(region, real(0.2, 5), place, (r, d, { x, y }) => {
        const inset = insetsOf(r).at(d, 0.0005);
        for (const l of inset)
          for (let i = 0; i < l.length; i += 2)
            expect(Math.abs(bruteDistance(r, l[i], l[i + 1]) - d)).toBeLessThan(0.0012);
        const deep = bruteInside(r, x, y) ? bruteDistance(r, x, y) : -1;
        if (Math.abs(deep - d) > 0.01) expect(contains(inset, x, y)).toBe(deep > d);
      }),
      { numRuns: 80 },
    );
  });
  it('of a comb reach into every tooth', () => {
    const r = normalise([combLoop(40, 2, 8)]);
    // Teeth are half the pitch wide: an inset by a little less than half of that has an arm in each.
    const inset = insetsOf(r).at(0.45, 0.0005);
    for (let i = 0; i < 40; i++) expect(contains(inset, (i + 0.5) * 2, 6)).toBe(true);
    expect(contains(inset, 2, 6)).toBe(false);
  });
});

describe('lines and regions', () => {
  it('parts of lines inside have the length that lies inside', () => {
    const ring = normalise([circleLoop(720, 20), hole(circleLoop(720, 10))]);
    const parts = clipLines([Float64Array.of(-30, 0, 30, 0), Float64Array.of(-30, 15, 30, 15)], ring);
    const sum = parts.reduce((s, p) => s + lineLength(p, false), 0);
    expect(sum).toBeCloseTo(20 + 2 * Math.sqrt(400 - 225), 2);
    expect(clipLines([Float64Array.of(100, 0, 200, 0)], ring)).toEqual([]);
  });
  it('a way is clear when it meets no outline', () => {
    const ring = normalise([box(0, 0, 40, 40), hole(box(10, 10, 30, 30))]);
    expect(clearWay(ring, 5, 5, 5, 35)).toBe(true);
    expect(clearWay(ring, 5, 20, 35, 20)).toBe(false);
    expect(clearWay(ring, 5, 5, 50, 5)).toBe(false);
  });
});
