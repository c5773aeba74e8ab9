import fc from 'fast-check';
import { real } from '../../testing/real';
import { heightOf, type CutterForm } from '../../cutters/form';
import { flatField, heightAt, type HeightField } from '../../relief/field';
import { locatorsOver } from './locator';

const ball = (radius: number): CutterForm => ({ radius, core: 0, ball: radius, rise: Infinity });
const flat = (radius: number): CutterForm => ({ radius, core: radius, ball: 0, rise: Infinity });
const forms: Record<string, CutterForm> = {
  'a ball': ball(1.5),
  'a fine ball': ball(0.3),
  'a flat end': flat(1),
  'a bull nose': { radius: 1.5, core: 1, ball: 0.5, rise: Infinity },
  'a cone': { radius: 1.5, core: 0.1, ball: 0, rise: 3 },
  'a fine cone': { radius: 1, core: 0.05, ball: 0, rise: 8 },
  'a fine bull nose': { radius: 0.3, core: 0.1, ball: 0.2, rise: Infinity },
  'a tapered ball': { radius: 1.5, core: 0, ball: 0.25, rise: 6 },
};
const names = fc.constantFrom(...Object.keys(forms));
const TOLERANCE = 0.001;

function fieldOf(at: (x: number, y: number) => number, size = 8, cell = 0.1): HeightField {
  const f = flatField(size, size, cell);
  for (let r = 0, i = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++, i++) f.z[i] = at(c * cell, r * cell);
  return f;
}
const place = fc.record({
  x: real(3, 5),
  y: real(3, 5),
});

describe('a cutter over what has a closed form', () => {
  // Of a slope s a round is met s / sqrt(1 + s^2) of its radius away; a rim at its outermost.
  const onSlope: Record<string, (s: number) => number> = {
    'a ball': (s) => 1.5 * (Math.sqrt(1 + s * s) - 1),
    'a fine ball': (s) => 0.3 * (Math.sqrt(1 + s * s) - 1),
    'a flat end': (s) => s,
    'a bull nose': (s) => s + 0.5 * (Math.sqrt(1 + s * s) - 1),
    'a cone': (s) => 0.1 * s,
    'a fine cone': (s) => 0.05 * s,
    'a fine bull nose': (s) => 0.1 * s + 0.2 * (Math.sqrt(1 + s * s) - 1),
    'a tapered ball': (s) => 0.25 * (Math.sqrt(1 + s * s) - 1),
  };
  it('stands over a slope as it should, whatever its shape and the way of the slope', () => {
    fc.assert(
      fc.property(
        names,
        place,
        fc.constantFrom(0, 0.2, 0.5, 1, 2),
        fc.constantFrom(0, 30, 45, 90, 200),
        (name, { x, y }, slope, degrees) => {
          const a = (degrees * Math.PI) / 180;
          const [gx, gy] = [slope * Math.cos(a), slope * Math.sin(a)];
          const f = fieldOf((u, v) => gx * (u - 4) + gy * (v - 4));
          const z = locatorsOver(f)(forms[name], TOLERANCE).at(x, y);
          const meant = gx * (x - 4) + gy * (y - 4) + onSlope[name](slope);
          // Across the slope.
          expect(Math.abs(z - meant) / Math.sqrt(1 + slope * slope)).toBeLessThan(2 * TOLERANCE);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('of a ball over a sphere is a ball over a ball', () => {
    const [R, r] = [3, 1.5];
    const f = fieldOf((x, y) => Math.sqrt(Math.max(0, R * R - (x - 4) ** 2 - (y - 4) ** 2)), 8, 0.05);
    const at = locatorsOver(f)(ball(r), TOLERANCE);
    for (const rho of [0, 0.33, 1, 1.717, 2.5]) {
      const z = at.at(4 + rho * Math.cos(1), 4 + rho * Math.sin(1));
      // Chords of the surface lie under its sphere.
      expect(z).toBeLessThan(Math.sqrt((R + r) ** 2 - rho * rho) - r + 1e-4);
      expect(z).toBeGreaterThan(Math.sqrt((R + r) ** 2 - rho * rho) - r - 0.003);
    }
  });
  it('stands as high beside a wall as its outline is where the wall is', () => {
    // The wall stands between two nodes: it is a slope of 40.
    const f = fieldOf((x) => (x > 4.05 ? 0 : -4));
    for (const [name, form] of Object.entries(forms)) {
      const at = locatorsOver(f)(form, TOLERANCE);
      // From where it comes to the wall first.
      const first = Array.from({ length: 40 }, (_, k) => 3.95 - form.radius + 0.0073 * k);
      for (const x of [...first.filter((q) => q < 3.9), 3.71, 3.83, 3.95]) {
        let meant = -4;
        for (let t = 0; t <= 1; t += 1e-4) {
          const rho = 4 + 0.1 * t - x;
          if (rho <= form.radius) meant = Math.max(meant, -4 + 4 * t - heightOf(form, rho));
        }
        const z = at.at(x, 3.77);
        if (Math.abs(z - meant) / 40 > TOLERANCE) throw new Error(`${name} at ${x}: ${z}, not ${meant}`);
      }
    }
  });
});

it('is met by a ridge anywhere on the rim of a flat end', () => {
  const f = fieldOf((x, y) => -0.8 * Math.max(Math.abs(x - 4), Math.abs(y - 4)), 8, 0.05);
  const at = locatorsOver(f)(forms['a flat end'], TOLERANCE);
  // Places on the nodes of the ridge, too: there it rises and falls from node to node.
  const along = fc.oneof(
    real(4.75, 6.5),
    fc.integer({ min: 95, max: 130 }).map((n) => n / 20),
  );
  fc.assert(
    fc.property(along, along, (x, y) => {
      let meant = heightAt(f, x, y);
      for (let k = 0; k < 3000; k++) meant = Math.max(meant, heightAt(f, x + Math.cos(k / 477), y + Math.sin(k / 477)));
      expect(Math.abs(at.at(x, y) - meant)).toBeLessThan(TOLERANCE);
    }),
    { numRuns: 300 },
  );
});

it('never stands lower than any place of the surface lets it, between nodes too, and is met somewhere', () => {
  const surface = fc.record({
    kind: fc.constantFrom('waves', 'ridges', 'steps', 'needles', 'pyramids'),
    seed: fc.integer({ min: 0, max: 1000 }),
  });
  fc.assert(
    fc.property(surface, names, place, ({ kind, seed }, name, { x, y }) => {
      const noise = (i: number) => Math.abs((Math.sin(i * 12.9898 + seed) * 43758.5453) % 1);
      const f = fieldOf((u, v) => {
        if (kind === 'waves') return -2 + Math.sin(1.7 * u + seed) * Math.cos(1.3 * v);
        if (kind === 'ridges') return -2 - Math.abs(((u + 0.7 * v + seed) % 2) - 1);
        if (kind === 'steps') return Math.round(u + 0.4 * v + seed / 7) % 2 ? -0.5 : -2;
        if (kind === 'pyramids')
          return -0.8 * Math.max(Math.abs(((u + seed / 9) % 4) - 2), Math.abs(((v + seed / 5) % 4) - 2));
        return noise(Math.round(u * 10) * 97 + Math.round(v * 10)) > 0.99 ? -0.2 : -2;
      });
      const form = forms[name];
      const at = locatorsOver(f)(form, TOLERANCE);
      // It comes there from somewhere else, where another place of the surface met it.
      for (let t = 0; t < 1; t += 0.05) at.at(2.5 + (x - 2.5) * t, 5.5 + (y - 5.5) * t);
      const z = at.at(x, y);
      // As deep as it stands in the surface anywhere, across the outline.
      let [deep, met] = [0, Infinity];
      const look = (u: number, v: number, rho: number) => {
        const outline = heightOf(form, rho);
        const lean = (heightOf(form, Math.min(form.radius, rho + 1e-4)) - outline) / 1e-4;
        const gap = z + outline - heightAt(f, x + u, y + v);
        // A wall of the surface counts across itself as well.
        const g = (heightAt(f, x + u + 0.01, y + v) - heightAt(f, x + u - 0.01, y + v)) / 0.02;
        const h = (heightAt(f, x + u, y + v + 0.01) - heightAt(f, x + u, y + v - 0.01)) / 0.02;
        const across = Math.sqrt(1 + Math.max(lean * lean, g * g + h * h));
        deep = Math.max(deep, -gap / across);
        met = Math.min(met, gap / across);
      };
      const step = 0.0173;
      for (let v = -form.radius; v <= form.radius; v += step)
        for (let u = -form.radius; u <= form.radius; u += step)
          if (Math.hypot(u, v) <= form.radius) look(u, v, Math.hypot(u, v));
      // Rims are asked exactly.
      for (const rho of [form.core, form.radius])
        for (let k = 0; k < 1440; k++) look(rho * Math.cos(k / 229), rho * Math.sin(k / 229), rho);
      expect(deep).toBeLessThan(3 * TOLERANCE);
      // Samples lie beside where it is met.
      expect(met).toBeLessThan(0.02);
    }),
    { numRuns: 60 },
  );
}, 60_000);

it('is nothing where there is nothing, and goes by what there is beside it', () => {
  const f = fieldOf((x) => (x > 4 ? NaN : -1));
  const at = locatorsOver(f)(ball(0.5), TOLERANCE);
  expect(at.at(6, 4)).toBe(-Infinity);
  expect(at.at(20, 4)).toBe(-Infinity);
  expect(at.at(3, 4)).toBeCloseTo(-1, 5);
  expect(at.at(4.3, 4)).toBeCloseTo(-1 - (0.5 - Math.sqrt(0.25 - 0.09)), 3);
});
