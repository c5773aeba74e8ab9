import fc from 'fast-check';
import { shapeOf } from '../cutters/registry';
import { cutterShapes } from '../cutters/registry';
import { flatField, heightAt } from '../relief/field';
import { makeRemover } from './removal';

const swept = (id: string, values: object) => {
  const s = shapeOf(id);
  return { form: s.form(values), profile: (rho: number) => s.profile(values, rho), radiusAt: (h: number) => s.radiusAt(values, h) };
};

describe('material removal', () => {
  const point = fc.tuple(fc.double({ min: 3, max: 17, noNaN: true }), fc.double({ min: 3, max: 17, noNaN: true }), fc.double({ min: -3, max: -0.2, noNaN: true }));

  it.each(cutterShapes.map((s) => [s.id, s.defaults] as const))('a long move of a %s is its thousand pieces', (id, values) => {
    fc.assert(
      fc.property(point, point, (a, b) => {
        const one = flatField(20, 20, 0.5);
        const many = flatField(20, 20, 0.5);
        const whole = makeRemover(one, swept(id, values as object));
        whole.cut(...a, ...b);
        whole.settle();
        const r = makeRemover(many, swept(id, values as object));
        const at = (f: number) => a.map((v, i) => v + (b[i] - v) * f) as [number, number, number];
        for (let i = 0; i < 1000; i++) r.cut(...at(i / 1000), ...at((i + 1) / 1000));
        r.settle();
        for (let i = 0; i < one.z.length; i++) expect(Math.abs(one.z[i] - many.z[i])).toBeLessThan(2e-4);
      }),
      { numRuns: 2, endOnFailure: true },
    );
  });

  it.each(cutterShapes.map((s) => [s.id, s.defaults] as const))('a chain of moves of a %s is what the cutter leaves standing at every place of it', (id, values) => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 5 }), (chain) => {
        const f = flatField(20, 20, 0.5);
        const cutter = swept(id, values as object);
        const r = makeRemover(f, cutter);
        for (let i = 1; i < chain.length; i++) r.cut(...chain[i - 1], ...chain[i]);
        r.settle();
        for (let i = 0; i < f.z.length; i += 7) {
          const x = f.x0 + (i % f.cols) * f.cell;
          const y = f.y0 + Math.floor(i / f.cols) * f.cell;
          let least = 0;
          for (let k = 1; k < chain.length; k++)
            for (let n = 0; n <= 1500; n++) {
              const [px, py, pz] = chain[k].map((v, j) => chain[k - 1][j] + ((v - chain[k - 1][j]) * n) / 1500);
              const rho = Math.hypot(x - px, y - py);
              if (rho < cutter.form.radius) least = Math.min(least, pz + cutter.profile(rho));
            }
          // The samples lie above what the whole move leaves, by a little on steep sides: there the square root bends.
          expect(f.z[i]).toBeLessThan(least + 2e-4);
          if (Math.abs(f.z[i] - least) > 0.02) {
            const near = (d: number) => {
              let low = 0;
              for (let k = 1; k < chain.length; k++)
                for (let n = 0; n <= 1500; n++) {
                  const [px, py, pz] = chain[k].map((v, j) => chain[k - 1][j] + ((v - chain[k - 1][j]) * n) / 1500);
                  const rho = Math.max(0, Math.hypot(x - px, y - py) - d);
                  if (rho < cutter.form.radius) low = Math.min(low, pz + cutter.profile(rho));
                }
              return low;
            };
            expect(f.z[i]).toBeGreaterThan(near(0.01) - 2e-4);
          }
        }
      }),
      { numRuns: 2, endOnFailure: true, seed: 11 },
    );
  });

  it('a ball along a level line leaves a round groove', () => {
    const f = flatField(20, 20, 0.1);
    makeRemover(f, swept('ball', { diameter: 6 })).cut(2, 10, -2, 18, 10, -2);
    for (const d of [0, 0.5, 1, 2]) expect(heightAt(f, 10, 10 + d)).toBeCloseTo(-2 + 3 - Math.sqrt(9 - d * d), 5);
  });

  it('a cone down a slope leaves the envelope that calculus gives', () => {
    const f = flatField(20, 20, 0.1);
    makeRemover(f, swept('v', { diameter: 12, includedAngle: 60, tipDiameter: 0 })).cut(4, 10, -1, 16, 10, -4);
    // z(s) = -1 - s / 4; the lowest tip over a node at distance h lies h k / sqrt(1 - k^2) ahead, k = tan 30 / 4.
    const k = Math.tan(Math.PI / 6) / 4;
    const h = 0.8;
    const want = -1 - (10 - 4) / 4 + (h / Math.tan(Math.PI / 6)) * Math.sqrt(1 - k * k);
    expect(heightAt(f, 10, 10 + h)).toBeCloseTo(want, 4);
  });

  it('tells how deep a rapid runs in material, and cuts nothing by asking', () => {
    const f = flatField(20, 20, 0.25);
    const r = makeRemover(f, swept('flat', { diameter: 3 }));
    expect(r.clash(5, 5, -1.5, 15, 5, -1.5)).toBeCloseTo(1.5, 6);
    expect(f.z.every((z) => z === 0)).toBe(true);
    r.cut(5, 5, -1.5, 15, 5, -1.5);
    expect(r.clash(6, 5, -1.5, 14, 5, -1.5)).toBe(0);
  });
});
