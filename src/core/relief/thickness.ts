/** Ways to look from a place, and the share by which each look goes further than the one before. */
const WAYS = 8;
const FURTHER = 0.12;
/** So often the place of a wall between two looks is halved. */
const HALVINGS = 4;
/** So often the best way is sought between those beside it: less than a fiftieth is told too much, where it is met at all. */
const TURNS = 2;

/**
 * How much stands at a place over a surface, mm: its way to the nearest place of that, `over` mm below it, or to a wall beside it. Up and
 * down there are millimetres of a hair beside a wall. Looked for `step` mm from it and further, by rays in the plane.
 *
 *      |  .-- thick --.
 *      | /       z ___|___     over: from z down to the surface
 *      |/________|____
 */
export function thickness(
  surface: (x: number, y: number) => number,
  x: number,
  y: number,
  z: number,
  over: number,
  step: number,
): number {
  let least = over;
  let best = -1;
  const look = (turn: number): void => {
    const [ux, uy] = [Math.cos(turn), Math.sin(turn)];
    const below = (t: number): number => z - surface(x + t * ux, y + t * uy);
    for (let last = 0; last < least;) {
      let t = Math.min(least, last + Math.max(step, FURTHER * last));
      const up = below(t);
      if (up > 0) {
        const far = Math.hypot(t, up);
        if (far < least) [least, best] = [far, turn];
      } else if (up <= 0) {
        // The surface comes up to the place between the last look and this one. Beyond its edge (NaN) there is none.
        for (let n = 0; n < HALVINGS; n++) {
          const middle = (last + t) / 2;
          if (below(middle) <= 0) t = middle;
          else last = middle;
        }
        if (t < least) [least, best] = [t, turn];
        return;
      }
      last = t;
    }
  };
  for (let k = 0; k < WAYS; k++) look((k * 2 * Math.PI) / WAYS);
  for (let n = 1, by = Math.PI / WAYS; n <= TURNS && best >= 0; n++, by /= 2) {
    const middle = best;
    look(middle - by);
    look(middle + by);
  }
  return least;
}
