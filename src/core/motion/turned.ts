import { isStraight, type Motion } from './motion';

/** A frame that begins at x, y and whose first axis runs in the direction (c, s), a unit vector. */
export interface Turn {
  readonly c: number;
  readonly s: number;
  readonly x: number;
  readonly y: number;
}

/** Places of a stretch of columns in another frame: how far along its first axis, and how far across. */
export const alongTurn = (t: Turn, px: Float64Array, py: Float64Array): Float64Array =>
  px.map((v, i) => (v - t.x) * t.c + (py[i] - t.y) * t.s);
export const acrossTurn = (t: Turn, px: Float64Array, py: Float64Array): Float64Array =>
  px.map((v, i) => (py[i] - t.y) * t.c - (v - t.x) * t.s);

/** A motion in another frame; heights stay. Arcs turn as they did. */
export const turnedMotion = (m: Motion, t: Turn): Motion => ({
  ...m,
  x: alongTurn(t, m.x, m.y),
  y: acrossTurn(t, m.x, m.y),
  // Where there are no arcs, the columns of their centres are one: see isStraight.
  ...(isStraight(m) ? {} : { cx: alongTurn(t, m.cx, m.cy), cy: acrossTurn(t, m.cx, m.cy) }),
});
