import fc from 'fast-check';
import { real } from '../testing/real';
import { cutterShapes, shapeOf } from '../cutters/registry';
import { flatField, heightAt, type HeightField } from '../relief/field';
import { lowest, testShape, type TestCutter } from '../testing/independent';
import { SweepKernel } from './kernel';
import { makeRemover } from './removal';

type P = readonly [number, number, number];
const formOf = (id: string, values: object) => shapeOf(id).form(values);

/** Least height over a node by search, for a cutter that is `wider` mm thicker or thinner all round: edges lie between the two. */
function searched(cutter: TestCutter, chain: readonly P[], x: number, y: number, wider: number): number {
  let least = 0;
  for (let k = 1; k < chain.length; k++) {
    const [a, b] = [chain[k - 1], chain[k]];
    const [ex, ey, ez] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const ll = ex * ex + ey * ey;
    const at = (t: number) =>
      a[2] + ez * t + cutter.profile(Math.max(0, Math.hypot(x - a[0] - t * ex, y - a[1] - t * ey) - wider));
    const foot = ll > 0 ? ((x - a[0]) * ex + (y - a[1]) * ey) / ll : 0;
    const h2 = (x - a[0] - foot * ex) ** 2 + (y - a[1] - foot * ey) ** 2;
    const w2 = (cutter.radius + wider) ** 2 - h2;
    if (w2 < 0) continue;
    const w = ll > 0 ? Math.sqrt(w2 / ll) : 1;
    const lo = Math.max(0, foot - w);
    const hi = Math.min(1, foot + w);
    if (ll === 0) least = Math.min(least, at(0), at(1));
    else if (lo <= hi) least = Math.min(least, lowest(at, lo, hi));
  }
  return least;
}

/** How far a place lies from a move, seen from above. */
function distanceTo(a: P, b: P, x: number, y: number): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const l2 = dx * dx + dy * dy;
  const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - a[0]) * dx + (y - a[1]) * dy) / l2)) : 0;
  return Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy);
}

/** The edge of a cutter lies where it does to so much, mm: in doubles, and in single floats. */
const edges = [1e-6, 3e-6];
/** Fields that are cut in doubles, and four nodes at a time where a kernel is. */
const fieldsOf = (size: number, cell: number): HeightField[] => {
  const f = flatField(size, size, cell);
  return [f, SweepKernel.at(f)!];
};

/** Cuts a chain both ways and holds every node against the search. */
function expectTrue(id: string, values: object, chain: readonly P[], size: number, cell: number): void {
  const fields = fieldsOf(size, cell);
  for (const f of fields) {
    const r = makeRemover(f, formOf(id, values));
    for (let k = 1; k < chain.length; k++) r.cut(...chain[k - 1], ...chain[k]);
    r.flush();
  }
  const cutter = testShape(id, values as Record<string, number>);
  const { cols, z } = fields[0];
  for (let i = 0; i < z.length; i++) {
    const x = (i % cols) * cell;
    const y = Math.floor(i / cols) * cell;
    fields.forEach((f, way) => {
      const most = searched(cutter, chain, x, y, -edges[way]);
      const least = searched(cutter, chain, x, y, edges[way]);
      if (!(f.z[i] <= most + 1e-5) || !(f.z[i] >= least - 1e-5))
        throw new Error(
          `node ${x.toFixed(3)} ${y.toFixed(3)} is ${f.z[i]} (${way ? 'kernel' : 'doubles'}), not ${most} to ${least}, after ${JSON.stringify(chain)}`,
        );
      // The two differ by no more than single floats do, but where the edge of the cutter passes over the node.
      if (most - least < 1e-5 && Math.abs(f.z[i] - z[i]) > 2e-5)
        throw new Error(`node ${x} ${y}: ${z[i]} in doubles, ${f.z[i]} by the kernel, after ${JSON.stringify(chain)}`);
    });
  }
}

const shapes = cutterShapes.map((s) => [s.id, s.defaults] as const);

describe('material removal', () => {
  const point = fc.tuple(real(3, 17), real(3, 17), real(-3, -0.2));
  // Places on the grid, depths round: ends abeam of nodes, moves along rows, upright and at 45 degrees.
  const snapped = fc
    .tuple(fc.integer({ min: 6, max: 34 }), fc.integer({ min: 6, max: 34 }), fc.integer({ min: -12, max: 1 }))
    .map(([x, y, z]): P => [x / 2, y / 2, z / 2]);
  const step = fc.tuple(
    fc.constantFrom(-4, -2, -1, 0, 1, 2, 4),
    fc.constantFrom(-1, 0, 1),
    fc.constantFrom(-1, 0, 1),
    fc.constantFrom(-3, -1, -0.5, 0, 0.5, 1, 3),
  );
  const regular = fc.tuple(snapped, fc.array(step, { minLength: 1, maxLength: 4 })).map(([from, steps]) => {
    const chain: P[] = [from];
    for (const [n, dx, dy, dz] of steps) {
      const [x, y, z] = chain[chain.length - 1];
      chain.push([x + 0.5 * n * dx, y + 0.5 * n * dy, z + dz]);
    }
    return chain;
  });

  // Along rows, the edge of the cutter on nodes, but for the rounding of doubles.
  const ulps = fc.integer({ min: -3, max: 3 });
  const depth = real(-3, -0.2);
  const grazing = fc
    .tuple(fc.integer({ min: 6, max: 34 }), ulps, ulps, depth, depth)
    .map(([y, u, v, z0, z1]): [P, P] => [
      [17, y / 2 + u * 9e-16, z0],
      [3 + v * 4e-16, y / 2 + (u + v) * 9e-16, z1],
    ]);
  const way: fc.Arbitrary<[P, P]> = fc.oneof(fc.tuple(point, point) as fc.Arbitrary<[P, P]>, grazing);

  it.each(shapes)('a long move of a %s is its thousand pieces', (id, values) => {
    fc.assert(
      fc.property(way, ([a, b]) => {
        const many = fieldsOf(20, 0.5);
        fieldsOf(20, 0.5).forEach((one, way) => {
          const whole = makeRemover(one, formOf(id, values as object));
          whole.cut(...a, ...b);
          whole.flush();
          const r = makeRemover(many[way], formOf(id, values as object));
          const at = (f: number) => a.map((v, i) => v + (b[i] - v) * f) as [number, number, number];
          for (let i = 0; i < 1000; i++) r.cut(...at(i / 1000), ...at((i + 1) / 1000));
          r.flush();
          const { radius } = formOf(id, values as object);
          for (let i = 0; i < one.z.length; i++) {
            // On the very edge of the cutter rounding says whether a node is met at all, or how high on an upright wall.
            const away = distanceTo(a, b, (i % one.cols) * 0.5, Math.floor(i / one.cols) * 0.5) - radius;
            if (Math.abs(away) > edges[way]) expect(Math.abs(one.z[i] - many[way].z[i])).toBeLessThan(2e-4);
          }
        });
      }),
      { numRuns: 4, endOnFailure: true },
    );
  });

  it.each(shapes)('a chain of moves of a %s is what the cutter leaves standing at every place of it', (id, values) => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 5 }), (chain) =>
        expectTrue(id, values as object, chain, 20, 0.5),
      ),
      { numRuns: 12, endOnFailure: true },
    );
  });

  it.each(shapes)(
    'on the grid, along it, at 45 degrees, upright and steep moves of a %s leave no node out',
    (id, values) => {
      fc.assert(
        fc.property(fc.oneof(fc.array(snapped, { minLength: 2, maxLength: 4 }), regular), (chain) =>
          expectTrue(id, values as object, chain, 20, 0.5),
        ),
        { numRuns: 40, endOnFailure: true },
      );
    },
  );

  it('a ball that ends at a round place at 45 degrees leaves nothing abeam of its end', () => {
    for (let k = 0; k < 60; k += 3) {
      const n = 20 + k;
      expectTrue(
        'ball',
        { diameter: 3 },
        [
          [2, 2, -0.75],
          [2 + 0.05 * n, 2 + 0.05 * n, -0.75],
          [2 + 0.05 * n, 6, -0.75],
        ],
        8,
        0.05 * (1 + (k % 4)),
      );
    }
  });

  it('a ball deeper than its radius, with its axis on a node, leaves numbers', () => {
    for (const d of [2, 3, 6])
      expectTrue(
        'ball',
        { diameter: d },
        [
          [5, 5, -4],
          [5, 5, -8],
          [8, 5, -8],
        ],
        12,
        0.25,
      );
  });

  it('a bit that goes down more steeply than its own wall cuts the row that it runs along', () => {
    for (const [id, values] of [
      ['v', { diameter: 6, includedAngle: 60, tipDiameter: 0 }],
      ['cone', { diameter: 4, halfAngle: 15, tipDiameter: 0.2 }],
      ['taperedBall', { diameter: 6, tipRadius: 0.5, halfAngle: 20 }],
      ['drag', { diameter: 3, includedAngle: 60, tipRadius: 0.1 }],
    ] as const)
      for (const [dx, dy, dz] of [
        [1, 0, -4],
        [0, 1, -4],
        [1, 1, -6],
        [-0.5, 0, 5],
      ] as const)
        expectTrue(
          id,
          values,
          [
            [5, 5, -0.5],
            [5 + dx, 5 + dy, -0.5 + dz],
          ],
          10,
          0.25,
        );
  });

  it('a diamond with a rounded tip makes a round-bottomed scratch', () => {
    const f = flatField(4, 4, 0.01);
    const r = makeRemover(f, formOf('drag', { diameter: 3, includedAngle: 90, tipRadius: 0.2 }));
    r.cut(1, 2, -0.1, 3, 2, -0.1);
    expect(heightAt(f, 2, 2.1)).toBeCloseTo(-0.1 + 0.2 - Math.sqrt(0.2 ** 2 - 0.1 ** 2), 5);
  });

  it('a ball along a level line leaves a round groove', () => {
    const f = flatField(20, 20, 0.1);
    makeRemover(f, formOf('ball', { diameter: 6 })).cut(2, 10, -2, 18, 10, -2);
    for (const d of [0, 0.5, 1, 2]) expect(heightAt(f, 10, 10 + d)).toBeCloseTo(-2 + 3 - Math.sqrt(9 - d * d), 5);
  });

  it('a cone down a slope leaves the envelope that calculus gives', () => {
    const f = flatField(20, 20, 0.1);
    makeRemover(f, formOf('v', { diameter: 12, includedAngle: 60, tipDiameter: 0 })).cut(4, 10, -1, 16, 10, -4);
    // z(s) = -1 - s / 4; the lowest tip over a node at distance h lies h k / sqrt(1 - k^2) ahead, k = tan 30 / 4.
    const k = Math.tan(Math.PI / 6) / 4;
    const h = 0.8;
    const want = -1 - (10 - 4) / 4 + (h / Math.tan(Math.PI / 6)) * Math.sqrt(1 - k * k);
    expect(heightAt(f, 10, 10 + h)).toBeCloseTo(want, 4);
  });

  it('tells how deep a rapid runs in material, and cuts nothing by asking', () => {
    const f = flatField(20, 20, 0.25);
    const r = makeRemover(f, formOf('flat', { diameter: 3 }));
    expect(r.collision(5, 5, -1.5, 15, 5, -1.5)).toBeCloseTo(1.5, 6);
    expect(f.z.every((z) => z === 0)).toBe(true);
    r.cut(5, 5, -1.5, 15, 5, -1.5);
    expect(r.collision(6, 5, -1.5, 14, 5, -1.5)).toBe(0);
  });
});
