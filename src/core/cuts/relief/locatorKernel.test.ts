import fc from 'fast-check';
import { real } from '../../testing/real';
import type { CutterForm } from '../../cutters/form';
import { flatField, type HeightField } from '../../relief/field';
import { locatorData } from './locatorData';
import { locatorKernel } from './locatorKernel';
import { partsOf } from './locatorParts';
import { locatorScript } from './locatorScript';

const forms: Record<string, CutterForm> = {
  'a ball': { radius: 1.5, core: 0, ball: 1.5, rise: Infinity },
  'a fine ball': { radius: 0.3, core: 0, ball: 0.3, rise: Infinity },
  'a flat end': { radius: 1, core: 1, ball: 0, rise: Infinity },
  'a bull nose': { radius: 1.5, core: 1, ball: 0.5, rise: Infinity },
  'a cone': { radius: 1.5, core: 0.1, ball: 0, rise: 3 },
  'a fine cone': { radius: 1, core: 0.05, ball: 0, rise: 8 },
  'a fine bull nose': { radius: 0.3, core: 0.1, ball: 0.2, rise: Infinity },
  'a tapered ball': { radius: 1.5, core: 0, ball: 0.25, rise: 6 },
};
const grounds: Record<string, (x: number, y: number, seed: number) => number> = {
  waves: (x, y, seed) => -2 + Math.sin(1.7 * x + seed) * Math.cos(1.3 * y),
  steps: (x, y, seed) => (Math.round(x + 0.4 * y + seed / 7) % 2 ? -0.5 : -2),
  needles: (x, y, seed) => ((Math.sin(x * 129.898 + y * 782.33 + seed) * 43758.5453) % 1 > 0.97 ? -0.2 : -2),
  holed: (x, y, seed) => (Math.hypot(x - 4, y - 4) < 1 + (seed % 3) / 2 ? NaN : -1 - 0.2 * x),
  nothing: () => NaN,
};
const TOLERANCE = 0.001;

function fieldOf(at: (x: number, y: number) => number): HeightField {
  const f = flatField(8, 7, 0.1);
  for (let r = 0, i = 0; r < f.rows; r++) for (let c = 0; c < f.cols; c++, i++) f.z[i] = at(c * f.cell, r * f.cell);
  return f;
}

it.each(Object.keys(forms))('the compiled locator finds what the other finds, of %s, wherever it is asked', (name) => {
  // On nodes and between them, beside the surface, along ways and by leaps.
  const place = fc.oneof(
    fc.integer({ min: -20, max: 100 }).map((n) => n / 10),
    real(-2, 10),
  );
  let [asked, off] = [0, 0];
  fc.assert(
    fc.property(
      fc.constantFrom(...Object.keys(grounds)),
      fc.nat({ max: 50 }),
      fc.array(fc.tuple(place, place), { minLength: 2, maxLength: 12 }),
      (ground, seed, places) => {
        const data = locatorData(
          fieldOf((x, y) => grounds[ground](x, y, seed)),
          forms[name],
          TOLERANCE,
        );
        const parts = partsOf(data);
        const compiled = locatorKernel(data, parts)!;
        const script = locatorScript(data, parts);
        for (let k = 0; k + 1 < places.length; k++) {
          if (k % 3 === 0) for (const l of [compiled, script]) l.restart();
          const [[x0, y0], [x1, y1]] = [places[k], places[k + 1]];
          for (let t = 0; t < 1; t += 0.17) {
            const [x, y] = [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t];
            const [a, b] = [compiled.at(x, y), script.at(x, y)];
            asked++;
            if (a === b) continue;
            off++;
            // Each may be off by as much as is allowed, at another place.
            expect(Math.abs(a - b)).toBeLessThan(2 * TOLERANCE);
          }
        }
      },
    ),
    { numRuns: 25 },
  );
  expect(asked).toBeGreaterThan(500);
  // As good as always it is the same to the last bit.
  expect(off).toBeLessThan(asked / 50);
});
