import fc from 'fast-check';
import { clipLines, components, lineLength, normalise, type Loop } from '../../geometry/region';
import { box } from '../../testing/shapes';
import { nearParts } from './floor';

/** A line that winds over a square of 40 mm, of so many points. */
const winding = (n: number, turns: number, shift: number): Loop =>
  Float64Array.from({ length: 2 * n }, (_, i) => {
    const t = (2 * Math.PI * turns * (i >> 1)) / n;
    const r = 18 - (12 * (i >> 1)) / n;
    return 20 + shift + (i & 1 ? r * Math.sin(t) : r * Math.cos(t));
  });

it('keeps of lines all that lies in a region, and nothing else, however long they are and wherever it lies', () => {
  const at = fc.integer({ min: 0, max: 76 }).map((k) => k / 2);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(2, 3, 33, 64, 65, 700), fc.integer({ min: 1, max: 5 }), at), {
        minLength: 1,
        maxLength: 4,
      }),
      fc.array(fc.tuple(at, at), { minLength: 1, maxLength: 6 }),
      (lines, places) => {
        const all = lines.map(([n, turns, shift]) => winding(n, turns, shift / 40));
        const region = normalise(places.map(([x, y]) => box(x, y, x + 2, y + 2)));
        const long = (of: readonly Loop[]) => of.reduce((sum, l) => sum + lineLength(l, false), 0);
        const whole = components(region).reduce((sum, part) => sum + long(clipLines(all, part)), 0);
        expect(Math.abs(long(nearParts(all, region)) - whole)).toBeLessThan(1e-3);
      },
    ),
    { numRuns: 200 },
  );
});
