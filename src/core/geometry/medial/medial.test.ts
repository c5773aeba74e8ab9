import fc from 'fast-check';
import { real } from '../../testing/real';
import { bruteDistance } from '../../testing/independent';
import { circleLoop, combLoop, hole, box, loop, provingShapes, starLoop, turned } from '../../testing/shapes';
import { makeBranches } from './branches';
import { components, normalise, offset, regionArea, type Loop } from '../region';
import { insetsOf } from '../insets';
import { medialAxis, type Axis } from './axis';
import { traceDefaults } from '../../artwork/trace/options';
import { trace } from '../../artwork/trace/trace';
import { softPicture } from '../../testing/pictures';
import { seeded } from '../../testing/seeded';
import { flatten, transformPath } from '../path';

/** Every sampled point of the axis is as far from the outline as it says. */
function worstClearance(axis: Axis, loops: readonly Loop[]): number {
  const { trace: t, sites: s } = axis;
  let worst = 0;
  const step = Math.max(1, Math.floor(t.pieces / 400));
  for (let p = 0; p < t.pieces; p += step) {
    worst = Math.max(
      worst,
      Math.abs(bruteDistance(loops, t.x0[p] + s.originX, t.y0[p] + s.originY) - t.r0[p]),
      Math.abs(bruteDistance(loops, t.x1[p] + s.originX, t.y1[p] + s.originY) - t.r1[p]),
    );
  }
  return worst;
}

/** Integral of clearance over the axis: a figure that turns, starts and senses must not change. */
const weight = (axes: readonly Axis[]): number =>
  axes.reduce((sum, { trace: t }) => {
    let w = 0;
    for (let p = 0; p < t.pieces; p++)
      w += (Math.hypot(t.x1[p] - t.x0[p], t.y1[p] - t.y0[p]) * (t.r0[p] + t.r1[p])) / 2;
    return sum + w;
  }, 0);

const all = {
  ...provingShapes,
  'a comb of 200 slots': { loops: [combLoop(200)], fill: 'nonzero' as const },
  'a circle of 4,096 segments': { loops: [circleLoop(4096, 30)], fill: 'nonzero' as const },
  'a ring of circles': { loops: [circleLoop(500, 20), hole(circleLoop(300, 10))], fill: 'nonzero' as const },
};

describe('the medial axis', () => {
  it.each(Object.entries(all))('is complete and exact on %s', (_name, { loops, fill }) => {
    const region = normalise(loops, fill);
    const axes = medialAxis(region);
    expect(axes.length).toBe(components(region).length);
    for (const a of axes) {
      expect(worstClearance(a, region)).toBeLessThan(1e-6);
      if (!a.sites.weaklySimple) expect(a.trace.edges - a.trace.nodes + 1).toBe(a.sites.loops - 1);
    }
  });

  it('of a rectangle is the one everybody knows', () => {
    const [a] = medialAxis(normalise([box(0, 0, 20, 10)]));
    const inner = [...a.trace.nodeR].filter((r) => r > 1e-3);
    expect(inner.length).toBe(2);
    for (const r of inner) expect(r).toBeCloseTo(5, 6);
    // Four diagonals of 5 sqrt 2 whose clearance is 2.5 on average, and the middle line of 10 at 5.
    expect(weight([a])).toBeCloseTo(4 * Math.SQRT2 * 5 * 2.5 + 10 * 5, 4);
  });

  it('does not depend on turn, start or sense of the loops', () => {
    const base = weight(medialAxis(normalise([starLoop(7, 12, 5)])));
    const l = starLoop(7, 12, 5);
    const shifted = Float64Array.from([...l.slice(6), ...l.slice(0, 6)]);
    for (const loops of [[shifted], [hole(l)], ...[11, 37, 90, 123.4].map((d) => turned([l], d))])
      expect(Math.abs(weight(medialAxis(normalise(loops))) - base)).toBeLessThan(2e-3);
  });

  it('of a finely divided circle prunes to one plunge', () => {
    const [a] = medialAxis(normalise([circleLoop(512, 20, 3, 4)]));
    const b = makeBranches(a, 0.001);
    expect(b.count).toBe(0);
    expect(b.plunges.length).toBe(3);
    expect(b.plunges[0]).toBeCloseTo(3, 1);
    expect(Math.abs(b.plunges[2] - 20)).toBeLessThan(0.01);
  });

  it('closes up on any tangle of boxes and stars', () => {
    const coord = fc.integer({ min: 0, max: 40 });
    const shape = fc.oneof(
      fc
        .tuple(coord, coord, fc.integer({ min: 1, max: 25 }), fc.integer({ min: 1, max: 25 }))
        .map(([x, y, w, h]) => box(x, y, x + w, y + h)),
      fc
        .tuple(fc.integer({ min: 3, max: 9 }), real(2, 15), real(0.05, 1.5), coord, coord)
        .map(([n, r, k, x, y]) => starLoop(n, r, r * k, x, y)),
      fc.array(fc.tuple(coord, coord), { minLength: 3, maxLength: 9 }).map((p) => loop(...p.flat())),
    );
    fc.assert(
      fc.property(
        fc.array(shape, { minLength: 1, maxLength: 7 }),
        fc.constantFrom('evenodd' as const, 'nonzero' as const),
        (loops, fill) => {
          const region = normalise(loops, fill);
          for (const a of medialAxis(region)) expect(worstClearance(a, region)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 150, endOnFailure: true, seed: 7 },
    );
  });
});

describe('outlines as they come from tracing', () => {
  it.each(Array.from({ length: 24 }, (_, i) => i))(
    'picture %i has an axis in every piece, at any size, also when it is offset',
    (seed) => {
      const r = seeded(1000 + seed);
      const picture = softPicture(r);
      const k = [5, 25.4, 100, 600][seed % 4] / picture.width;
      const tolerance = [0.0003, 0.002, 0.0008, 0.01][(seed >> 2) % 4];
      for (const layer of trace(picture, {
        ...traceDefaults,
        accuracy: [0.05, 0.2, 1][seed % 3],
        threshold: 0.2 + 0.6 * r(),
      })) {
        const region = normalise(
          layer.paths.map((p) => flatten(transformPath(p, { a: k, b: 0, c: 0, d: k, e: 30, f: 20 }), tolerance)),
          'evenodd',
        );
        for (const all of [region, offset(region, k, tolerance), offset(region, -k, tolerance)])
          expect(medialAxis(all).length).toBe(components(all).length);
      }
    },
  );

  it('keep corners that are one unit of the grid apart wherever they lie', () => {
    for (const x of [0, 21, 300, 5000, -5000])
      for (const step of [1e-5, -1e-5]) {
        const region = [loop(x, 0, x + 10, 0, x + 10, 5, x + 5.00001, 10, x + 5.00001, 10 + step, x, 5)];
        const [a] = medialAxis(region);
        expect(a.sites.weaklySimple).toBe(false);
        expect(worstClearance(a, region)).toBeLessThan(1e-6);
      }
  });

  it('may repeat a point', () => {
    const [a] = medialAxis([loop(0, 0, 0, 0, 20, 0, 20, 10, 20, 10, 0, 10, 0, 0)]);
    expect([...a.trace.nodeR].filter((r) => r > 1e-3)).toHaveLength(2);
  });
});

describe('insets read off the axis', () => {
  it.each(Object.entries(all))('agree with integer offsets on %s', (_name, { loops, fill }) => {
    const region = normalise(loops, fill);
    const insets = insetsOf(region);
    for (const d of [0.2, 0.9, 2.3]) {
      const mine = regionArea(insets.at(d, 0.0005));
      const theirs = regionArea(offset(region, -d, 0.0005));
      expect(Math.abs(mine - theirs)).toBeLessThan(1e-4 * regionArea(region) + 1e-3);
    }
  });
  it('of a square ring are exact', () => {
    const region = normalise([box(0, 0, 30, 30), box(10, 10, 20, 20)], 'evenodd');
    // Outside square 26 x 26; the hole grows to a square with quarter-round corners of radius 2.
    expect(regionArea(insetsOf(region).at(2, 1e-5))).toBeCloseTo(26 * 26 - (100 + 4 * 20 + Math.PI * 4), 2);
  });
});
