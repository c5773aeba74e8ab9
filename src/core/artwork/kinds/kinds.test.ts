import fc from 'fast-check';
import { real } from '../../testing/real';
import { flatten } from '../../geometry/path';
import { loopArea, normalise, regionArea } from '../../geometry/region';
import { testArt } from '../../testing/fonts';
import { shapeWith } from '../item';
import { itemKindOf, itemKinds } from '../registry';

const mm = (max = 200) => real(2, max);
const areaOf = (kind: string, values: object): number => {
  const s = shapeWith(kind, itemKindOf(kind).schema.parse(values), testArt);
  return regionArea(
    normalise(
      s.paths.map((p) => flatten(p, 1e-4)),
      s.fill,
    ),
  );
};
const boxOf = (kind: string, values: object) => {
  const s = shapeWith(kind, values, testArt);
  const all = s.paths.flatMap((p) => [...flatten(p, 1e-3)]);
  return {
    x0: Math.min(...all.filter((_, i) => i % 2 === 0)),
    x1: Math.max(...all.filter((_, i) => i % 2 === 0)),
    y0: Math.min(...all.filter((_, i) => i % 2)),
    y1: Math.max(...all.filter((_, i) => i % 2)),
  };
};

/** Areas as geometry has them. */
describe('shapes have the area that geometry gives them', () => {
  it('rectangles, by their corners', () => {
    const loss = { square: 0, round: 4 - Math.PI, chamfer: 2, scoop: Math.PI };
    fc.assert(
      fc.property(
        mm(),
        mm(),
        real(0, 120),
        fc.constantFrom(...(Object.keys(loss) as (keyof typeof loss)[])),
        (width, height, radius, corner) => {
          const r = Math.min(radius, width / 2, height / 2);
          expect(areaOf('rectangle', { width, height, corner, radius })).toBeCloseTo(
            width * height - loss[corner] * r * r,
            0,
          );
        },
      ),
    );
  });
  it('ellipses, rings and slots', () => {
    fc.assert(
      fc.property(mm(), mm(), (a, b) => {
        expect(areaOf('ellipse', { width: a, height: b }) / ((Math.PI * a * b) / 4)).toBeCloseTo(1, 3);
        const band = Math.min(b, a) / 2.5;
        expect(areaOf('ring', { diameter: a, band }) / (Math.PI * band * (a - band))).toBeCloseTo(1, 3);
        const [length, width] = [Math.max(a, b), Math.min(a, b)];
        expect(
          areaOf('slot', { length, width }) / ((length - width) * width + (Math.PI * width * width) / 4),
        ).toBeCloseTo(1, 3);
      }),
    );
  });
  it('polygons and stars with sharp corners', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 30 }), mm(), fc.integer({ min: 20, max: 90 }), (k, radius, inner) => {
        expect(areaOf('polygon', { sides: k, radius, rounding: 0 })).toBeCloseTo(
          (k / 2) * radius * radius * Math.sin((2 * Math.PI) / k),
          1,
        );
        expect(areaOf('star', { points: k, radius, inner, rounding: 0 })).toBeCloseTo(
          k * radius * radius * (inner / 100) * Math.sin(Math.PI / k),
          1,
        );
      }),
    );
  });
});

describe('every kind of artwork', () => {
  it.each(itemKinds.filter((k) => k.offered !== false).map((k) => [k.id]))(
    '%s draws within its own box, outlines the right way round, from values that its schema takes',
    (id) => {
      const kind = itemKindOf(id);
      const values = kind.schema.parse(kind.defaults) as Record<string, unknown>;
      const s = shapeWith(id, values, testArt);
      expect(s.paths.length).toBeGreaterThan(0);
      expect(kind.title(values).length).toBeGreaterThan(0);
      const b = boxOf(id, values);
      const slack = id === 'lettering' ? 0.2 * (s.box.y1 - s.box.y0) : 0.05;
      expect(b.x0).toBeGreaterThan(s.box.x0 - slack);
      expect(b.y0).toBeGreaterThan(s.box.y0 - slack);
      expect(b.x1).toBeLessThan(s.box.x1 + slack);
      expect(b.y1).toBeLessThan(s.box.y1 + slack);
      const region = normalise(
        s.paths.filter((p) => p.closed).map((p) => flatten(p, 0.01)),
        s.fill,
      );
      expect(regionArea(region)).toBeGreaterThan(0);
      expect(region.filter((l) => loopArea(l) > 0).length).toBeGreaterThan(0);
    },
  );
  it.each(itemKinds.filter((k) => k.offered !== false && k.id !== 'lettering').map((k) => [k.id]))(
    '%s scaled evenly has the scaled box and area',
    (id) => {
      const kind = itemKindOf(id);
      fc.assert(
        fc.property(real(0.3, 3), (k) => {
          const scaled = kind.scaled(kind.defaults, k, k) as object;
          expect(kind.schema.safeParse(scaled).success).toBe(true);
          const [a, b] = [boxOf(id, kind.defaults as object), boxOf(id, scaled)];
          expect((b.x1 - b.x0) / (a.x1 - a.x0)).toBeCloseTo(k, 1);
          if (id !== 'border') expect(areaOf(id, scaled) / areaOf(id, kind.defaults as object)).toBeCloseTo(k * k, 1);
        }),
        { numRuns: 10 },
      );
    },
  );
  it.each(itemKinds.map((k) => [k.id]))(
    '%s scaled over and over stays what a file may hold, and says when it is held',
    (id) => {
      const kind = itemKindOf(id);
      const factor = real(-5, 5).map((e) => 10 ** e);
      fc.assert(
        fc.property(fc.array(fc.tuple(factor, factor), { minLength: 1, maxLength: 4 }), (steps) => {
          let v = kind.defaults;
          if (!kind.schema.safeParse(v).success) return;
          for (const [sx, sy] of steps) {
            const to = kind.scaled(v, sx, sy);
            expect(kind.schema.safeParse(to).error?.issues).toBeUndefined();
            v = to;
          }
        }),
        { numRuns: 40 },
      );
    },
  );
});
