import fc from 'fast-check';
import { real } from '../testing/real';
import { bruteDistance } from '../testing/independent';
import { starLoop } from '../testing/shapes';
import { letterOf, shippedFont } from '../testing/fonts';
import { fitLine, fitLoop, fitRegion } from './fit';
import { circlePath, flatten, transformPath, type Path } from './path';
import { normalise, offset } from './region';

/** The farthest that either outline strays from the other. */
function apart(path: Path, loop: Float64Array): number {
  const back = flatten(path, 1e-4);
  let worst = 0;
  for (let i = 0; i < back.length; i += 2) worst = Math.max(worst, bruteDistance([loop], back[i], back[i + 1]));
  for (let i = 0; i < loop.length; i += 2) worst = Math.max(worst, bruteDistance([back], loop[i], loop[i + 1]));
  return worst;
}

describe('curves through points', () => {
  it('give a circle back as arcs', () => {
    const loop = flatten(circlePath(3, 4, 20), 0.002);
    const p = fitLoop(loop, { tolerance: 0.005 })!;
    expect(p.segments.length).toBeLessThanOrEqual(4);
    expect(p.segments.every((s) => s.k === 'arc')).toBe(true);
    expect(apart(p, loop)).toBeLessThan(0.008);
  });

  it('leave polygons as they are', () => {
    const loop = starLoop(7, 12, 5);
    const p = fitLoop(loop, { tolerance: 0.01 })!;
    expect(p.segments).toHaveLength(14);
    expect(apart(p, loop)).toBeLessThan(1e-9);
  });

  it.each(['cinzel', 'allura', 'unifrakturmaguntia', 'varela-round'])(
    'give letters of %s back with at most twice their nodes, offset or not',
    (id) => {
      const font = shippedFont(id);
      for (const char of 'RgS&8e') {
        const scale = 30 / font.capHeight;
        const source = letterOf(font, char)!.paths.map((p) =>
          transformPath(p, { a: scale, b: 0, c: 0, d: scale, e: 0, f: 0 }),
        );
        const nodes = source.reduce((n, p) => n + p.segments.length, 0);
        const region = normalise(source.map((p) => flatten(p, 0.001)));
        for (const d of [0, 0.8]) {
          const grown = offset(region, d, 0.001);
          const fitted = fitRegion(grown, { tolerance: 0.01 });
          expect(fitted.reduce((n, p) => n + p.segments.length, 0)).toBeLessThanOrEqual(2 * nodes + 4);
          fitted.forEach((p, i) => expect(apart(p, grown[i])).toBeLessThan(0.014));
        }
      }
    },
  );

  it('stay within the tolerance of any smooth loop', () => {
    fc.assert(
      fc.property(
        fc.array(real(-0.25, 0.25), { minLength: 2, maxLength: 6 }),
        fc.integer({ min: 200, max: 900 }),
        (waves, n) => {
          const loop = Float64Array.from({ length: 2 * n }, (_, i) => {
            const a = (2 * Math.PI * (i >> 1)) / n;
            const r = 20 * (1 + waves.reduce((s, w, k) => s + (w / (k + 1)) * Math.cos((k + 2) * a + k), 0) * 0.6);
            return i % 2 ? r * Math.sin(a) : r * Math.cos(a);
          });
          const p = fitLoop(loop, { tolerance: 0.02 })!;
          expect(apart(p, loop)).toBeLessThan(0.02 * 1.6 + 1e-3 + (20 * 1.3 * (Math.PI / n) ** 2) / 2);
          expect(p.segments.length).toBeLessThan(Math.max(24, n / 3));
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('chains that double back', () => {
  it('become curves of numbers, whatever they come back to', () => {
    const places = fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 3 })), {
      minLength: 3,
      maxLength: 12,
    });
    fc.assert(
      fc.property(places, fc.constantFrom(1e-6, 0.01, 0.5), fc.constantFrom(1, 3), (all, tolerance, window) => {
        const line = Float64Array.from(all.flat());
        const numbers = [
          ...fitLine(line, { tolerance, window }),
          ...(fitLoop(line, { tolerance, corners: [], window })?.segments ?? []),
          ...(fitLoop(line, { tolerance, corners: [1], window })?.segments ?? []),
        ].flatMap((s) => Object.values(s).filter((v) => typeof v === 'number'));
        expect(numbers.every(Number.isFinite)).toBe(true);
      }),
      { numRuns: 2000 },
    );
  });
});
