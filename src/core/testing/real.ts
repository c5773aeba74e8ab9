import fc from 'fast-check';

/** Nearer to nought than this nothing is measured in mm, nor in degrees; squares of less are no numbers to divide by. */
const LEAST = 1e-9;
/** So many of a whole one lie on a grid that places, sizes and angles are typed on. */
const QUARTERS = 4;

/** Numbers from `min` to `max`: any, and often those that a maker types, on which things touch and lie above each other. */
export function real(min: number, max: number): fc.Arbitrary<number> {
  const any = fc.double({ min, max, noNaN: true }).map((v) => (Math.abs(v) < LEAST ? Math.max(min, 0) : v));
  const [from, to] = [Math.ceil(min * QUARTERS), Math.floor(max * QUARTERS)];
  if (from > to) return any;
  const round = fc.integer({ min: from, max: to }).map((k) => k / QUARTERS);
  return fc.oneof({ weight: 3, arbitrary: any }, { weight: 1, arbitrary: round });
}
