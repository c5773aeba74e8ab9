import { partSeen, type Sight } from './seen';

const vector = (x: number, y: number, z: number) => ({ x, y, z });
/** A view along the line x = 40 that is `lift` above the horizon, 30 degrees from edge to edge. */
const sight = (y: number, z: number, lift: number, aspect = 1.5): Sight => {
  const a = (lift * Math.PI) / 180;
  return {
    from: vector(40, y, z),
    way: vector(0, -Math.cos(a), Math.sin(a)),
    right: vector(1, 0, 0),
    up: vector(0, Math.sin(a), Math.cos(a)),
    tan: Math.tan(Math.PI / 12),
    aspect,
  };
};

it('is what lies within the height of the view from above, at its distance', () => {
  const { x0, x1, y0, y1 } = partSeen(sight(60, 100, 90));
  const half = 100 * Math.tan(Math.PI / 12);
  expect(y0).toBeCloseTo(60 - half, 6);
  expect(y1).toBeCloseTo(60 + half, 6);
  expect(x0).toBeCloseTo(40 - 1.5 * half, 6);
  expect(x1).toBeCloseTo(40 + 1.5 * half, 6);
  // Looked at from the side of the table, it is the width that counts.
  const turned = { ...sight(60, 100, 90), right: vector(0, 1, 0), up: vector(-1, 0, 0) };
  expect(partSeen(turned).y1).toBeCloseTo(60 + 1.5 * half, 6);
});
it('leans with the view: its edges go down by 60 and by 30 degrees where its middle goes down by 45', () => {
  const { y0, y1 } = partSeen(sight(-50, 50, 45));
  expect(y0).toBeCloseTo(-50 + 50 / Math.tan(Math.PI / 3), 6);
  expect(y1).toBeCloseTo(-50 + 50 / Math.tan(Math.PI / 6), 6);
});
it('has no end where the horizon is seen; from below it is seen through the blank', () => {
  for (const lift of [0, 10, 14.9])
    expect(partSeen(sight(-50, 20, lift))).toEqual({ x0: -Infinity, y0: -Infinity, x1: Infinity, y1: Infinity });
  expect(partSeen(sight(-50, 20, 16)).y1).toBeGreaterThan(900);
  const { y0, y1 } = partSeen(sight(0, -100, -90));
  expect(y1 - y0).toBeCloseTo(200 * Math.tan(Math.PI / 12), 6);
});
