import fc from 'fast-check';
import { makeSegmentIndex } from '../../geometry/segmentIndex';
import { box } from '../../testing/shapes';
import { thereAndBack } from '../wanted';
import { besideTracks } from './patterns';

it('lines beside a drawn one leave no place of a region out: half of what they lie apart, or all of it where a bend is too tight', () => {
  const bent = fc.record({
    x: fc.integer({ min: -4, max: 44 }),
    y: fc.integer({ min: 2, max: 28 }),
    long: fc.integer({ min: 1, max: 50 }),
    swing: fc.constantFrom(0, 1, 6),
  });
  fc.assert(
    fc.property(bent, fc.constantFrom(1, 1.7, 4), ({ x, y, long, swing }, step) => {
      const drawn = Float64Array.from(
        Array.from({ length: 41 }, (_, k) => [x + (long * k) / 40, y + swing * Math.sin(k / 5)]).flat(),
      );
      const tracks = besideTracks([box(0, 0, 40, 30)], [drawn], step, 0.01);
      const lines = makeSegmentIndex(tracks.map((t) => (t.closed ? t.points : thereAndBack(t.points))));
      for (let u = 0; u <= 40; u += 1)
        for (let v = 0; v <= 30; v += 1)
          expect(lines.distance(u, v, 50)).toBeLessThan((swing ? step : step / 2) + 0.02);
    }),
    { numRuns: 40 },
  );
});
