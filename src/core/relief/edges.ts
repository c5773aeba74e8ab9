/**
 * Profiles of an edge: how high a form stands at a distance from its outline, in closed form. Over a width R they rise by R;
 * beyond it they are level.
 *
 *      bevel      round-over       cove           ogee
 *        /          .--'            |             .-'
 *       /          /               /             /
 *      /          |            _.-'          _.-'
 */
export const edges = {
  flat: 'Flat',
  bevel: 'Bevel',
  round: 'Round-over',
  cove: 'Cove',
  ogee: 'Ogee',
  drawn: 'A drawn line',
} as const;
export type Edge = keyof typeof edges;

/** Height at a distance `d` >= 0 from the outline, mm. `slope` is the tangent of a bevel's angle; `over` the width of the others. */
export function edgeHeight(edge: Exclude<Edge, 'flat' | 'drawn'>, d: number, slope: number, over: number): number {
  if (edge === 'bevel') return d * slope;
  const t = Math.min(d, over);
  if (edge === 'round') return Math.sqrt(Math.max(0, over * over - (over - t) * (over - t)));
  if (edge === 'cove') return over - Math.sqrt(Math.max(0, over * over - t * t));
  // A cove of half the width, then a round-over of the other half, tangent to each other.
  const h = over / 2;
  return t <= h
    ? h - Math.sqrt(Math.max(0, h * h - t * t))
    : h + Math.sqrt(Math.max(0, h * h - (over - t) * (over - t)));
}
