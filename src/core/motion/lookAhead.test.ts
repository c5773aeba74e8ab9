import fc from 'fast-check';
import { real } from '../testing/real';
import { LookAhead } from './lookAhead';

type Chord = readonly [length: number, cruise: number, accel: number, corner: number];

/** Seconds of each chord, with room for so many at first. */
function secondsOf(chords: readonly Chord[], room: number, stops: readonly number[] = []): number[] {
  const out: number[] = [];
  const ahead = new LookAhead((name, length, seconds) => {
    expect(name).toBe(out.length);
    expect(length).toBe(chords[name][0]);
    out.push(seconds);
  }, room);
  chords.forEach((c, i) => {
    if (stops.includes(i)) ahead.stop();
    ahead.add(i, ...c);
  });
  ahead.stop();
  return out;
}

const num = (min: number, max: number) => real(min, max);
const chord = fc.tuple(
  fc.oneof(fc.constantFrom(0.1, 1, 100), num(0.001, 30)),
  fc.oneof(fc.constantFrom(10, 50, 200), num(0.5, 300)),
  fc.oneof(fc.constant(500), num(20, 2000)),
  fc.oneof(fc.constantFrom(0, Infinity), num(0, 200)),
);

describe('looking ahead', () => {
  it('comes to the same to the bit, however many chords are looked at together', () => {
    fc.assert(
      fc.property(
        fc.array(chord, { minLength: 1, maxLength: 120 }),
        fc.integer({ min: 2, max: 40 }),
        fc.array(fc.nat({ max: 119 }), { maxLength: 3 }),
        (chords, room, stops) => expect(secondsOf(chords, room, stops)).toEqual(secondsOf(chords, 4096, stops)),
      ),
      { numRuns: 400 },
    );
  });

  it('never brakes or speeds up beyond what is allowed, and stands still at the end', () => {
    // Where nothing but the acceleration holds it, each chord takes what the equations of motion say.
    fc.assert(
      fc.property(fc.array(num(0.01, 5), { minLength: 2, maxLength: 60 }), (lengths) => {
        const a = 400;
        const times = secondsOf(
          lengths.map((l) => [l, 1e6, a, Infinity]),
          4,
        );
        const whole = lengths.reduce((n, l) => n + l, 0);
        let way = 0;
        // When the middle is reached, counted from either end, half the time has gone.
        const at = (s: number) =>
          s <= whole / 2 ? Math.sqrt((2 * s) / a) : 2 * Math.sqrt(whole / a) - Math.sqrt((2 * (whole - s)) / a);
        lengths.forEach((l, i) => {
          expect(times[i]).toBeCloseTo(at(Math.min(whole, way + l)) - at(way), 6);
          way += l;
        });
      }),
    );
  });

  it('takes a straight way in two hundred thousand pieces as long as in one', () => {
    const [length, cruise, accel] = [2000, 100, 50];
    const n = 200_000;
    const times = secondsOf(
      Array.from({ length: n }, () => [length / n, cruise, accel, Infinity]),
      16,
    );
    // Up, on and down: two ramps of v^2 / 2a, and what lies between them at v.
    const want = (2 * cruise) / accel + (length - cruise ** 2 / accel) / cruise;
    expect(times.reduce((s, t) => s + t, 0)).toBeCloseTo(want, 6);
  });
});
