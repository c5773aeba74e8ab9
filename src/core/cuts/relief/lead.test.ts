import fc from 'fast-check';
import { box } from '../../testing/shapes';
import { followed } from './follow';
import { leadsOver } from './lead';

const follower = { step: 0.1, at: () => -1 };
/** Where there is no room before a line, the way in lies over the line itself. */
const tight = [box(100, 100, 101, 101)];

it('lies over the line, as long as it is asked for or as the line is, and comes down to where that begins', () => {
  const steps = fc.array(fc.tuple(fc.constantFrom(0, 0.1, 0.3, 5.9947), fc.constantFrom(0, 0.1, -0.2)), {
    minLength: 1,
    maxLength: 12,
  });
  fc.assert(
    fc.property(steps, fc.constantFrom(0.1, 0.8, 1, 2.5), (moves, long) => {
      let [x, y] = [0, 0];
      const line = Float64Array.from([[0, 0], ...moves].flatMap(([dx, dy]) => [(x += dx), (y += dy), -1]));
      const way = leadsOver(tight, long, 0.1, (t) => followed(t, follower, 0.001, 0.002))(line);
      const whole = (p: Float64Array) => {
        let s = 0;
        for (let i = 3; i < p.length; i += 3) s += Math.hypot(p[i] - p[i - 3], p[i + 1] - p[i - 2]);
        return s;
      };
      const reach = Math.min(long, whole(line));
      expect(whole(way)).toBeCloseTo(reach, 9);
      expect([...way.slice(-3)]).toEqual([0, 0, -1]);
      expect(way[2] + 1).toBeCloseTo((0.5 * reach * reach) / long, 9);
      for (let i = 3; i < way.length; i += 3) expect(way[i + 2]).toBeLessThanOrEqual(way[i - 1]);
    }),
  );
});
